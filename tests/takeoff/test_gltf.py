"""glTF as programs write it: what cannot be read is refused by name, what can is read whole."""

import json

import pytest
import trimesh

from tests.takeoff.making import a_block
from vividplank.core.takeoff import Settings, Unreadable, read
from vividplank.core.takeoff.readers.gltf import plain_gltf


def document(**more: object) -> bytes:
    return json.dumps({"asset": {"version": "2.0"}, "scenes": [{"nodes": []}], **more}).encode()


@pytest.mark.parametrize(
    ("content", "why"),
    [
        (
            document(extensionsRequired=["KHR_draco_mesh_compression"]),
            "are packed by Draco. Export it without compression",
        ),
        (
            document(buffers=[{"uri": "stool.bin", "byteLength": 8}]),
            "lie in others: stool.bin. Export it as GLB",
        ),
        (b'{"asset": ', "cannot be read"),
        (b"glTF\x02\x00\x00\x00\xff\xff\x00\x00\xff\xff\x00\x00JSON{", "cannot be read"),
    ],
)
def test_what_holds_no_mesh_is_refused_by_name(content: bytes, why: str) -> None:
    with pytest.raises(Unreadable, match=why):
        read(content, "a.glb" if content.startswith(b"glTF") else "a.gltf", Settings())


def test_an_accessor_that_reaches_beyond_the_file_is_refused() -> None:
    meshes = [{"primitives": [{"attributes": {"POSITION": 0}}, {"attributes": {"POSITION": 0}}]}]
    accessors = [{"bufferView": 0, "componentType": 5126, "count": 99, "type": "VEC3"}]
    content = document(
        meshes=meshes, accessors=accessors, bufferViews=[{"buffer": 0, "byteLength": 12}]
    )
    with pytest.raises(Unreadable, match="reach beyond the end"):
        read(content, "a.gltf", Settings())


def test_a_model_without_anything_special_is_the_same_after_it_was_made_plain() -> None:
    scene = trimesh.Scene(a_block((0.6, 0.08, 0.02)))
    content = bytes(scene.export(file_type="glb"))
    plain = trimesh.load_scene(
        trimesh.util.wrap_as_stream(plain_gltf(content, "glb")), file_type="glb"
    )
    assert plain.extents == pytest.approx(scene.extents)
