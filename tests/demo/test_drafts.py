"""The demo's drafts at every size."""

from __future__ import annotations

import pytest

from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.piece import Piece, check_piece
from idle_selvage.core.plan.stations import Station, outline_from_stations
from idle_selvage.demo import drafts
from idle_selvage.formats.svg_pieces import read_svg


@pytest.mark.parametrize("chest", [840, 1000, 1180, 1400])
@pytest.mark.parametrize("length", [560, 700, 820])
def test_overshirts_of_every_size_are_read_whole(chest: float, length: float) -> None:
    drawing = read_svg(drafts.drawing(drafts.overshirt(chest=chest, length=length), "t").encode())
    assert drawing.not_read == () and len(drawing.what) == 7
    back = next(p.piece for p in drawing.what if p.name == "Back")
    assert max(x for x, _ in back.outline) == pytest.approx(length, abs=0.01)
    assert max(y for _, y in back.outline) == pytest.approx(chest / 4, abs=0.01), "a quarter of the chest from the fold"
    assert all(p.how.copies == 2 and p.how.pair for p in drawing.what if p.name in ("Front", "Sleeve"))


@pytest.mark.parametrize("bust", [800, 960, 1200])
def test_waistcoats_of_every_size_are_read_whole(bust: float) -> None:
    drawing = read_svg(drafts.drawing(drafts.waistcoat(bust=bust), "t").encode())
    assert drawing.not_read == () and sum(p.how.copies for p in drawing.what) == 15


@pytest.mark.parametrize("panels", [4, 6, 8])
def test_gores_add_up_to_the_skirt(panels: int) -> None:
    stations = drafts.gore(waist=720, hip=1000, hem=2000, length=700, panels=panels)
    outline = outline_from_stations([Station(*s) for s in stations], smooth=True, on_fold=False)
    check_piece(Piece("Gore", outline))
    hem = [y for x, y in outline if x == 0]
    waist = [y for x, y in outline if x == 700]
    assert (max(hem) - min(hem)) * panels == pytest.approx(2000)
    assert (max(waist) - min(waist)) * panels == pytest.approx(720)
    assert len(cut_line(Piece("Gore", outline, seam=15))) >= 4
