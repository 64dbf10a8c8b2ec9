"""What is written by every format is read back as the same pieces, within a twentieth of a millimetre."""

from __future__ import annotations

import io

import ezdxf
import pytest
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from idle_selvage.formats.drawn_pieces import PieceRead
from idle_selvage.formats.dxf_pieces import read_dxf, write_dxf
from idle_selvage.formats.reading import take_in
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.formats.svg_written import write_svg
from idle_selvage.formats.upright import drafted_size
from idle_selvage.formats.writing import write

from .pieces import WITHIN_MM, _apart, apart, marks_apart, pieces_read

TRIED = settings(
    max_examples=8,
    deadline=None,
    suppress_health_check=list(HealthCheck),
    phases=[Phase.explicit, Phase.reuse, Phase.generate],
)


def same(read: PieceRead, back: PieceRead) -> None:
    assert back.name == read.name
    assert back.how == read.how
    assert back.draft.half == read.draft.half
    assert back.draft.included == pytest.approx(read.draft.included, abs=WITHIN_MM)
    assert apart(read, back) <= WITHIN_MM
    assert marks_apart(read, back) <= WITHIN_MM
    assert [one.size for one in back.sizes] == [one.size for one in read.sizes]
    if read.sizes:
        # cut in no size of its own, it is cut as it is drafted
        assert drafted_size(back) == drafted_size(read)
    for one, other in zip(read.sizes, back.sizes, strict=True):
        assert _apart(one.places, other.places) <= WITHIN_MM


@TRIED
@given(st.lists(pieces_read(), min_size=1, max_size=3, unique_by=lambda read: read.name))
def test_svg(pieces: list[PieceRead]) -> None:
    found = read_svg(write_svg(pieces).encode())
    assert not found.not_read and not found.mended, found
    for read, back in zip(pieces, found.what, strict=True):
        same(read, back)
        assert (back.draft.arrow is None) == (read.draft.arrow is None)


@TRIED
@given(st.lists(pieces_read(), min_size=1, max_size=3, unique_by=lambda read: read.name))
def test_dxf(pieces: list[PieceRead]) -> None:
    data = write_dxf(pieces)
    doc = ezdxf.read(io.StringIO(data.decode()))
    assert doc.audit().errors == []
    found = read_dxf(data)
    assert not found.not_read and not found.mended, found
    assert found.what.unit == "mm" and found.what.unit_said
    for read, back in zip(pieces, found.what.pieces, strict=True):
        same(read, back)
        assert (back.draft.arrow is None) == (read.draft.arrow is None)


@TRIED
@given(st.lists(pieces_read(sized=False), min_size=1, max_size=3, unique_by=lambda read: read.name))
def test_csv(pieces: list[PieceRead]) -> None:
    found = take_in(write(pieces, "csv"), "pieces.csv")
    assert found.format == "csv" and not found.not_read and not found.mended, found
    for read, back in zip(pieces, found.pieces, strict=True):
        same(read, back)


@TRIED
@given(st.lists(pieces_read(sized=False, marked=False), min_size=1, max_size=3, unique_by=lambda read: read.name))
def test_lay_problem(pieces: list[PieceRead]) -> None:
    """What is laid is what is cut: the cut line comes back, its allowance no longer apart."""
    found = take_in(write(pieces, "json"), "pieces.json")
    assert found.format == "problem" and not found.not_read, found
    for read, back in zip(pieces, found.pieces, strict=True):
        assert back.name == read.name and apart(read, back) <= WITHIN_MM
        assert (back.how.copies, back.how.pair, back.how.on_fold) == (read.how.copies, read.how.pair, read.how.on_fold)
        assert (back.how.grain, back.how.one_way) == (read.how.grain, read.how.one_way)


@TRIED
@given(
    st.lists(pieces_read(sized=False, marked=False), min_size=1, max_size=3, unique_by=lambda read: read.name),
    st.sampled_from(["a4", "letter"]),
)
def test_pdf(pieces: list[PieceRead], paper: str) -> None:
    """Many pages laid together again: every drawn line is there once, where it was."""
    found = take_in(write(pieces, "pdf", paper=paper), "pieces.pdf")
    assert found.format == "pdf" and len(found.pieces) == len(pieces), found.not_read
    for read in pieces:
        named = {one.name: one for one in found.pieces}
        assert read.name in named, (read.name, found)
        back = named[read.name]
        assert _apart(read.piece.outline, back.piece.outline) <= WITHIN_MM
        assert (back.how.copies, back.how.pair) == (read.how.copies, read.how.pair)
        assert (back.how.grain, back.how.one_way) == (read.how.grain, read.how.one_way)
        assert (back.how.seam, back.draft.included) == (read.how.seam, read.draft.included)
        assert back.how.shorter == read.how.shorter
        assert back.how.on_fold == read.how.on_fold, "half a piece that is cut as a whole buys too little"
