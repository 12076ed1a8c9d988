"""Broken, hostile and enormous files: a sentence, never a crash, never a half-read list."""

import io
import tracemalloc
import zipfile
from pathlib import Path
from typing import Any

import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tests.profiles import examples
from tests.takeoff.making import a_block, written
from vividplank.core.survey.photo import Ends, NoPhoto
from vividplank.core.takeoff import Reading, Settings, Stumbled, Unreadable, kind_of, read
from vividplank.jobs import reading
from vividplank.jobs.reading import read_in_process, straightened, upright

FIXTURES = Path(__file__).parent / "fixtures"
#: Formats whose libraries are Python or hold their own; STEP has its own test, in the process made
#: for it.
FILES = {
    name: (FIXTURES / name).read_bytes()
    for name in (
        "stool.stl",
        "stool.off",
        "stool.3mf",
        "stool.dxf",
        "stool.svg",
        "sketch.dxf",
        "sketch.pdf",
        "sketch.png",
        "list.xlsx",
        "list.ods",
    )
}
with Image.open(FIXTURES / "sketch.png") as _sketch:
    _out = io.BytesIO()
    _sketch.convert("RGB").save(_out, "JPEG")
FILES["sketch.jpg"] = _out.getvalue()
CORPUS = Path(__file__).parent / "corpus"
FILES |= {
    name: (CORPUS / folder / name).read_bytes()
    for folder, name in (
        ("trimesh", "cabinet.glb"),
        ("three", "instanced.glb"),
        ("shapes", "by-hand.obj"),
        ("shapes", "components.3mf"),
        ("ezdxf", "blocks.dxf"),
        ("details", "styles.svg"),
        ("tables", "gnumeric.ods"),
    )
}
FILES |= {
    f"block.{kind}": written([a_block((500, 60, 20))], kind)
    for kind in ("stl", "obj", "ply", "glb")
}


@st.composite
def damaged(draw: st.DrawFn, content: bytes) -> bytes:
    """Cut short, with bits turned, with a piece doubled or taken out."""
    data = bytearray(content)
    for _ in range(draw(st.integers(1, 4))):
        at = draw(st.integers(0, max(0, len(data) - 1)))
        how = draw(st.sampled_from(["cut", "flip", "flip", "flip", "double", "drop", "number"]))
        size = draw(st.integers(1, 40))
        if how == "cut":
            del data[at:]
        elif how == "flip" and data:
            data[at] ^= 1 << draw(st.integers(0, 7))
        elif how == "double":
            data[at:at] = data[at : at + size]
        elif how == "drop":
            del data[at : at + size]
        else:
            data[at:at] = draw(
                st.sampled_from(
                    [b"1e308", b"-1", b"nan", b"9" * 30, b"\x00\xff\xff\xff\xff", b"<", b"\n"]
                )
            )
    return bytes(data)


@pytest.mark.parametrize("name", sorted(FILES))
@given(data=st.data())
@examples(25)
def test_damaged_files_are_read_whole_or_refused(name: str, data: st.DataObject) -> None:
    try:
        reading, pages = read(data.draw(damaged(FILES[name])), name, Settings())
    except Unreadable as refused:
        assert 10 < len(str(refused)) < 500
        return
    assert isinstance(reading, Reading)
    assert all(p.length >= p.width >= 0 and p.quantity >= 1 and p.refs for p in reading.parts)
    assert all(page.png.startswith(b"\x89PNG") for page in pages)


@pytest.mark.parametrize("cut", [0.3, 0.97])
def test_damaged_step_files_take_down_nothing_but_their_reader(cut: float) -> None:
    content = (FIXTURES / "tray.step").read_bytes()
    with pytest.raises(Unreadable):
        read_in_process(content[: int(len(content) * cut)], "tray.step", {})


def test_turned_bits_in_a_step_file() -> None:
    content = bytearray((FIXTURES / "tray.step").read_bytes())
    for at in range(900, len(content), 1499):
        content[at] ^= 4
    try:
        reading, _ = read_in_process(bytes(content), "tray.step", {})
    except Unreadable as refused:
        assert str(refused)
    else:
        assert reading.kind == "model"


def test_a_reader_past_its_time_is_ended_with_a_sentence() -> None:
    with pytest.raises(Unreadable, match="longer than 0 s"):
        read_in_process((FIXTURES / "tray.step").read_bytes(), "tray.step", {}, seconds=0.05)


def test_where_the_reader_fails_on_a_model_its_bare_solids_are_tried(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    content, real = (FIXTURES / "tray.step").read_bytes(), reading._in_process

    def fails(content: bytes, what: str, how: dict[str, Any], seconds: float) -> dict[str, Any]:
        if not how.get("plain"):
            raise Stumbled("step")
        return real(content, what, how, seconds)

    monkeypatch.setattr(reading, "_in_process", fails)
    found, _ = read_in_process(content, "tray.step", {})
    whole, _ = read(content, "tray.step", Settings())
    assert found.pieces == whole.pieces > 0
    assert sorted((p.length, p.width, p.thickness) for p in found.parts) == sorted(
        (p.length, p.width, p.thickness) for p in whole.parts
    )
    assert found.troubles[0].startswith(
        "read without names and layers: the reader failed on them. That is our fault"
    )


def test_a_reader_that_dies_is_told_as_our_fault_with_what_may_be_tried(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(reading.sys, "executable", "/bin/false")
    with pytest.raises(
        Unreadable,
        match=r"failed on this DXF file. That is our fault.* Save it as an older DXF, or as SVG",
    ):
        read_in_process(b"0\nSECTION\n", "a.dxf", {})


def test_the_process_reads_what_the_core_reads() -> None:
    content = (FIXTURES / "sketch.png").read_bytes()
    assert read_in_process(content, "sketch.png", {}) == read(content, "sketch.png", Settings())


def test_a_packed_file_that_unpacks_to_too_much_is_refused_before_it_is_unpacked() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("3D/3dmodel.model", b"0" * (250 << 20))
    assert len(out.getvalue()) < 1 << 20
    with pytest.raises(Unreadable, match="unpacks to 250 MB"):
        read(out.getvalue(), "bomb.3mf", Settings())


def test_a_packed_member_is_never_read_whole_to_learn_its_kind() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("mimetype", b"0" * (150 << 20))
    for content, told in (
        (out.getvalue(), "of a kind"),
        (_with_more(out.getvalue()), "unpacks to 250 MB"),
    ):
        tracemalloc.start()
        with pytest.raises(Unreadable, match=told):
            kind_of(content, "bomb.ods")
        _, most = tracemalloc.get_traced_memory()
        tracemalloc.stop()
        assert most < 8 << 20


def _with_more(packed: bytes) -> bytes:
    out = io.BytesIO(packed)
    with zipfile.ZipFile(out, "a", zipfile.ZIP_DEFLATED) as more:
        more.writestr("content.xml", b"0" * (100 << 20))
    return out.getvalue()


BOXES = [a_block((600, 70, 19), (0, 100 * k, 0)) for k in range(4)]


@pytest.mark.parametrize(
    ("kind", "options"), [("off", {}), ("ply", {"encoding": "ascii"}), ("stl_ascii", {})]
)
def test_a_text_mesh_cut_off_at_the_end_of_a_line_is_refused_whole(
    kind: str, options: dict[str, str]
) -> None:
    whole = trimesh.util.concatenate(BOXES).export(file_type=kind, **options)
    content = whole.encode() if isinstance(whole, str) else bytes(whole)
    name = f"boxes.{kind.split('_')[0]}"
    assert sum(p.quantity for p in read(content, name, Settings())[0].parts) == 4
    lines = content.splitlines(keepends=True)
    for share in (0.8, 0.9, 0.95, 0.99):
        with pytest.raises(Unreadable, match=r"ends (after|before)|cannot be read"):
            read(b"".join(lines[: int(len(lines) * share)]), name, Settings())


def test_an_off_file_may_have_its_counts_beside_its_name_and_remarks() -> None:
    lines = written([BOXES[0]], "off").decode().splitlines()
    counts, *body = lines[1:] if lines[0] == "OFF" else [lines[0].removeprefix("OFF"), *lines[1:]]
    for head in (["OFF", "# a remark", counts], [f"OFF {counts}"]):
        reading, _ = read("\n".join([*head, *body, ""]).encode(), "a.off", Settings())
        assert len(reading.parts) == 1


def test_a_dxf_cut_off_says_so() -> None:
    whole = FILES["stool.dxf"]
    assert not any("end mark" in t for t in read(whole, "a.dxf", Settings())[0].troubles)
    reading, _ = read(
        whole[: whole.rindex(b"EOF")].rstrip().rsplit(b"\n", 1)[0], "a.dxf", Settings()
    )
    assert any("ends before its end mark" in t for t in reading.troubles)


def test_photographs_are_decoded_in_the_reader_s_process_alone(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    out = io.BytesIO()
    Image.new("RGB", (300, 200), "white").save(out, "PNG")
    with monkeypatch.context() as here:
        here.setattr(
            Image, "open", lambda *_a, **_k: pytest.fail("decoded in the process that took it in")
        )
        upright_one = upright(out.getvalue())
        with pytest.raises(NoPhoto, match="no photograph"):
            upright(b"GIF89a and more")
        with pytest.raises(NoPhoto, match="do not go round"):
            straightened(upright_one, [(0.1, 0.1)] * 4, Ends(800, (0, 60), (0, 60), 0, 60), "A")
    with Image.open(io.BytesIO(upright_one)) as kept:
        assert (kept.format, kept.size) == ("JPEG", (300, 200))


def test_entities_that_multiply_are_not_expanded() -> None:
    lines = "".join(f'<!ENTITY a{k} "{f"&a{k - 1};" * 10 if k else "x" * 100}">' for k in range(9))
    svg = (
        f'<?xml version="1.0"?><!DOCTYPE svg [{lines}]><svg '
        f'xmlns="http://www.w3.org/2000/svg"><text>&a8;</text></svg>'
    )
    with pytest.raises(Unreadable):
        read(svg.encode(), "bomb.svg", Settings())


def test_a_picture_of_far_too_many_pixels_is_refused_by_its_head() -> None:
    import struct
    import zlib

    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)
    chunk = struct.pack(">I", 13) + b"IHDR" + head + struct.pack(">I", zlib.crc32(b"IHDR" + head))
    with pytest.raises(Unreadable, match=r"60000 by 60000 pixels|cannot be read"):
        read(b"\x89PNG\r\n\x1a\n" + chunk, "big.png", Settings())
