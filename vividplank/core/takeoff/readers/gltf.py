"""glTF made plain before it is read: one bare surface a mesh, instances as nodes; what is packed or
missing refused by name.
"""

import base64
import json
import struct
from typing import Any

import numpy as np

from vividplank.core.takeoff.model.found import Unreadable

_JSON, _BINARY = 0x4E4F534A, 0x004E4942
_INSTANCES = "EXT_mesh_gpu_instancing"
#: Extensions without which no point of the mesh is there.
_COMPRESSED = {"KHR_draco_mesh_compression": "Draco", "EXT_meshopt_compression": "meshopt"}
_MOST_INSTANCES = 2000
_PLACES = ("TRANSLATION", "ROTATION", "SCALE")
#: Component types of accessors.
_COMPONENTS = {5126: "<f4", 5120: "<i1", 5121: "<u1", 5122: "<i2", 5123: "<u2", 5125: "<u4"}
#: What stands for one in them where they are shares.
_ONE = {5126: 1.0, 5120: 127.0, 5122: 32767.0}
_TRIANGLES = 4
_WIDTH = {"SCALAR": 1, "VEC3": 3, "VEC4": 4}


def plain_gltf(content: bytes, kind: str) -> bytes:
    """The same model as GLB, without instances, materials and all else that is no mesh; a mesh in
    several materials as one.

    Raises Unreadable where it cannot be read.
    """
    document, binary = _taken_apart(content, kind)
    for extension, name in _COMPRESSED.items():
        if extension in document.get("extensionsRequired", ()):
            raise Unreadable(
                f"the meshes of this {kind.upper()} file are packed by {name}. Export it without "
                f"compression"
            )
    elsewhere = [
        b["uri"]
        for b in document.get("buffers", ())
        if "uri" in b and not str(b["uri"]).startswith("data:")
    ]
    if elsewhere:
        named = ", ".join(elsewhere)[:200]
        raise Unreadable(
            f"the meshes of this glTF file lie in others: {named}. Export it as GLB, all in one"
        )
    try:
        binary = _one_surface_each(document, binary)
        _instances_as_nodes(document, binary)
    except (KeyError, IndexError, ValueError, TypeError, AttributeError) as problem:
        told = str(problem)[:80]
        raise Unreadable(
            f"the meshes of this {kind.upper()} file cannot be read ({told}). Export it anew"
        ) from None
    for key in ("materials", "textures", "images", "samplers", "animations", "skins"):
        document.pop(key, None)
    document["buffers"] = [{"byteLength": len(binary)}]
    return _put_together(document, binary)


def _one_surface_each(document: dict[str, Any], binary: bytes) -> bytes:
    """Meshes of several primitives, one for each material, get one in place of them, written at the
    end of the buffer.
    """
    for mesh in document.get("meshes", []):
        primitives = mesh.get("primitives", [])
        for primitive in primitives:
            kept = {key: primitive[key] for key in ("indices", "mode") if key in primitive}
            at = primitive["attributes"]["POSITION"]
            primitive.clear()
            primitive.update(kept, attributes={"POSITION": at})
        if len(primitives) < 2 or any(p.get("mode", _TRIANGLES) != _TRIANGLES for p in primitives):
            continue
        points, corners, many = [], [], 0
        for primitive in primitives:
            placed = _numbers(document, binary, primitive["attributes"]["POSITION"])
            index = (
                _numbers(document, binary, primitive["indices"])
                if "indices" in primitive
                else np.arange(len(placed))
            )
            points.append(placed)
            corners.append(index.reshape(-1) + many)
            many += len(placed)
        binary += b"\0" * (-len(binary) % 4)
        written = []
        for array, component, wide in (
            (np.concatenate(points), 5126, "VEC3"),
            (np.concatenate(corners), 5125, "SCALAR"),
        ):
            data = array.astype(_COMPONENTS[component]).tobytes()
            document["bufferViews"].append(
                {"buffer": 0, "byteOffset": len(binary), "byteLength": len(data)}
            )
            view = len(document["bufferViews"]) - 1
            document["accessors"].append(
                {"bufferView": view, "componentType": component, "count": len(array), "type": wide}
            )
            written.append(len(document["accessors"]) - 1)
            binary += data
        mesh["primitives"] = [
            {"attributes": {"POSITION": written[0]}, "indices": written[1], "mode": _TRIANGLES}
        ]
    return binary


def _instances_as_nodes(document: dict[str, Any], binary: bytes) -> None:
    nodes = document.get("nodes", [])
    for node in [n for n in nodes if _INSTANCES in n.get("extensions", {}) and "mesh" in n]:
        attributes = node["extensions"].pop(_INSTANCES)["attributes"]
        told = {
            n.casefold(): _numbers(document, binary, attributes[n])
            for n in _PLACES
            if n in attributes
        }
        many = {len(rows) for rows in told.values()}
        if len(many) != 1 or max(many) > _MOST_INSTANCES:
            raise ValueError(f"instances; expected at most {_MOST_INSTANCES}")
        mesh, name, first = node.pop("mesh"), node.get("name", ""), len(nodes)
        for k in range(many.pop()):
            placed = {where: rows[k].tolist() for where, rows in told.items()}
            nodes.append({"name": f"{name}.{k + 1:03d}", "mesh": mesh, **placed})
        node["children"] = [*node.get("children", []), *range(first, len(nodes))]
    for key in ("extensionsUsed", "extensionsRequired"):
        if key in document:
            document[key] = [e for e in document[key] if e != _INSTANCES]
            if not document[key]:
                del document[key]


def _taken_apart(content: bytes, kind: str) -> tuple[dict[str, Any], bytes]:
    try:
        if kind == "gltf":
            document = json.loads(content)
            first: dict[str, Any] = next(iter(document.get("buffers", [])), {})
            packed = str(first.get("uri", "")).partition("base64,")[2]
            return document, base64.b64decode(packed)
        long, _ = struct.unpack_from("<II", content, 12)
        document = json.loads(content[20 : 20 + long])
        return document, content[20 + long + 8 :]
    except (ValueError, struct.error, AttributeError, RecursionError) as problem:
        raise Unreadable(f"this {kind.upper()} file cannot be read: {str(problem)[:160]}") from None


def _put_together(document: dict[str, Any], binary: bytes) -> bytes:
    text = json.dumps(document).encode()
    text += b" " * (-len(text) % 4)
    binary += b"\0" * (-len(binary) % 4)
    chunks = (
        struct.pack("<II", len(text), _JSON)
        + text
        + struct.pack("<II", len(binary), _BINARY)
        + binary
    )
    return b"glTF" + struct.pack("<II", 2, 12 + len(chunks)) + chunks


def _numbers(document: dict[str, Any], binary: bytes, at: int) -> Any:
    """What an accessor holds, a row for each element."""
    accessor = document["accessors"][at]
    view = document["bufferViews"][accessor["bufferView"]]
    if view.get("buffer", 0) or "sparse" in accessor:
        raise ValueError("they lie in a second buffer, or sparsely")
    component = accessor["componentType"]
    form, wide = _COMPONENTS[component], _WIDTH[accessor["type"]]
    each, count = np.dtype(form).itemsize * wide, int(accessor["count"])
    begins, stride = (
        view.get("byteOffset", 0) + accessor.get("byteOffset", 0),
        view.get("byteStride") or each,
    )
    if count < 1 or begins + (count - 1) * stride + each > len(binary):
        raise ValueError("they reach beyond the end of the file")
    raw = np.frombuffer(binary, np.uint8)
    rows = np.lib.stride_tricks.as_strided(raw[begins:], (count, each), (stride, 1))
    found = np.ascontiguousarray(rows).view(form).reshape(count, wide)
    return (
        found / _ONE[component]
        if accessor.get("normalized")
        else found.astype(float if component == 5126 else np.int64)
    )
