"""The cloth as it lies on the table: layers, edges and what is kept off, in every fold; and how it is folded so."""

from __future__ import annotations

import pytest
from shapely import Polygon

from idle_selvage.core.lay.answer import Lay, Section
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.folding import SIDES, Sides, foldings
from idle_selvage.core.lay.hand import held
from idle_selvage.core.lay.layers import copies_of
from idle_selvage.core.lay.table import Stretch, kept_off, stretches
from idle_selvage.core.wording import say

from .test_hand import CASES, begun

WIDTH, MARGINS = 1200.0, (12.0, 8.0)


def lay(*sections: Section) -> Lay:
    return Lay(sections[-1].end, 0.0, 0.0, True, 0.0, 1, 0, sections, (), ())


def seen(section: Section) -> Stretch:
    return stretches(lay(section), WIDTH, MARGINS, opened=False)[0]


FOLDED = {
    "open": (Section(0, 900, "open"), [(0, 1200, 1)], {"near selvage": 0, "far selvage": 1200}),
    "middle": (Section(0, 900, "lengthwise", (600,)), [(600, 1200, 2)], {"fold": 600, "far selvage": 1200}),
    "below": (
        Section(0, 900, "lengthwise", (580,)),
        [(580, 1160, 2), (1160, 1200, 1)],
        {"fold": 580, "lower edge": 1160, "far selvage": 1200},
    ),
    "above": (
        Section(0, 900, "lengthwise", (620,)),
        [(620, 1200, 2), (1200, 1240, 1)],
        {"fold": 620, "lower edge": 1240, "far selvage": 1200},
    ),
    "partial": (
        Section(0, 900, "partial", (300,)),
        [(300, 600, 2), (600, 1200, 1)],
        {"fold": 300, "lower edge": 600, "far selvage": 1200},
    ),
    "double": (Section(0, 900, "double", (300, 900)), [(300, 600, 2), (600, 900, 2)], {"meeting line": 600}),
}


@pytest.mark.parametrize("name", FOLDED)
def test_layers_and_edges_lie_where_the_fold_puts_them(name: str) -> None:
    section, grounds, lines = FOLDED[name]
    found = seen(section)
    assert [(g.low, g.high, g.layers) for g in found.grounds] == grounds
    there = {line.kind: line.start[1] for line in found.lines}
    assert {kind: there[kind] for kind in lines} == lines  # type: ignore[index]
    assert [g.under for g in found.grounds] == [name == "above" and g.low == 1200 for g in found.grounds]
    # all the cloth there is lies somewhere
    assert sum((g.high - g.low) * g.layers for g in found.grounds) == pytest.approx(WIDTH)


def test_end_to_end_the_fold_lies_at_the_beginning_and_half_the_length_is_seen() -> None:
    found = seen(Section(0, 900, "crosswise", (450,)))
    assert (found.start, found.end, found.offset) == (0, 450, 450)
    (fold,) = (line for line in found.lines if line.kind == "fold")
    assert fold.start[0] == fold.end[0] == 0
    assert found.grounds[0].layers == 2


def test_stretches_are_cut_from_one_another_and_creases_are_seen_when_opened() -> None:
    both = lay(Section(0, 500, "lengthwise", (600,)), Section(500, 900, "open"))
    folded = stretches(both, WIDTH, MARGINS, opened=False)
    assert [(s.fold, s.start, s.end) for s in folded] == [("lengthwise", 0, 500), ("open", 500, 900)]
    (cut,) = (line for s in folded for line in s.lines if line.kind == "cut")
    assert cut.start == (500, 0) and cut.end == (500, WIDTH)
    (opened,) = stretches(both, WIDTH, MARGINS, opened=True)
    kinds = [line.kind for line in opened.lines]
    assert kinds.count("crease") == 1 and kinds.count("cut") == 1 and opened.end == 900


def test_a_flaw_on_the_hidden_layer_shows_through_the_fold() -> None:
    flaw = ((100.0, 80.0), (140.0, 80.0), (140.0, 100.0), (100.0, 100.0))
    (hidden,) = kept_off([flaw], lay(Section(0, 900, "lengthwise", (600,))), WIDTH, opened=False)
    ys = [y for _, y in hidden.outline]
    assert hidden.under and (min(ys), max(ys)) == pytest.approx((1100, 1120))
    (plain,) = kept_off([flaw], lay(Section(0, 900, "open")), WIDTH, opened=False)
    assert not plain.under and Polygon(plain.outline).equals(Polygon(flaw))
    # a flaw under a crosswise fold lies on the layer that is turned back
    (back,) = kept_off([flaw], lay(Section(0, 900, "crosswise", (450,))), WIDTH, opened=False)
    xs = [x for x, _ in back.outline]
    assert back.under and (min(xs), max(xs)) == pytest.approx((310, 350))
    # one through which the fold runs lies on both
    through = ((100.0, 590.0), (140.0, 590.0), (140.0, 615.0), (100.0, 615.0))
    found = kept_off([through], lay(Section(0, 900, "lengthwise", (600,))), WIDTH, opened=False)
    assert sorted(one.under for one in found) == [False, True]


@pytest.mark.parametrize(("kind", "fold"), CASES)
def test_in_every_fold_what_is_pinned_and_what_is_opened_are_the_same_pieces(kind: str, fold: str) -> None:
    asked, lays = begun(kind)
    made = dict(lays)[fold]
    pieces = {p.id: p for p in asked.pieces}
    pinned = draw(made, pieces, asked.width, margins=MARGINS)
    opened = draw(made, pieces, asked.width, margins=MARGINS, view="opened")
    assert len(opened.shapes) == len(made.cut) and len(pinned.shapes) == len(made.laid)
    assert {s.pinned for s in opened.shapes} == {s.pinned for s in pinned.shapes}
    hand = held(made)
    for one, shape in zip(hand.held, pinned.shapes, strict=True):
        copies = copies_of(pieces[one.piece], one.placement, hand.sections[one.section])
        assert sum(s.pinned == shape.pinned for s in opened.shapes) == len(copies)
        assert shape.origin == pytest.approx((one.x, one.y))
    for shape in (*pinned.shapes, *opened.shapes):
        if shape.turn in (0, 90, 180, 270):
            assert shape.tail_distance == pytest.approx(shape.head_distance), "both ends alike"
    ground = [Polygon([(s.start, s.low), (s.end, s.low), (s.end, s.high), (s.start, s.high)]) for s in pinned.stretches]
    for shape in pinned.shapes:
        assert ground[shape.section].buffer(0.2).covers(Polygon(shape.outline))


def said(section: Section, sides: Sides = "together") -> str:
    return " ".join(foldings(lay(section), WIDTH, MARGINS, sides)[0].steps)


def test_how_to_fold_says_what_to_measure() -> None:
    assert "selvage and fold are 61.2 cm apart" in said(FOLDED["middle"][0])
    assert "0.4 cm beyond the far one" in said(FOLDED["middle"][0]), "the margins differ by so much"
    assert "31.2 cm apart" in said(FOLDED["partial"][0]) and "59.6 cm up to the far selvage" in said(
        FOLDED["partial"][0]
    )
    double = said(FOLDED["double"][0])
    assert "31.2 cm from its fold" in double and "30.8 cm from its fold" in double
    assert "lie over each other by 2.0 cm" in double
    across = said(Section(0, 900, "crosswise", (450,)))
    assert "Cut off 90.0 cm" in across and "45.0 cm from both" in across
    assert "one layer" in said(FOLDED["open"][0])


def test_both_schools_of_sides_have_their_reason_and_change_the_steps() -> None:
    assert set(SIDES) == {"together", "out"} and all(why for _, why in SIDES.values())
    assert "right sides together" in said(FOLDED["middle"][0]) and "right side out" in said(FOLDED["middle"][0], "out")


def test_stretch_by_stretch_each_is_marked_off_and_cut() -> None:
    both = lay(Section(0, 500, "lengthwise", (600,)), Section(500, 900, "open"))
    first, second = foldings(both, WIDTH, MARGINS)
    assert "Mark off this stretch: from 0.0 cm to 50.0 cm" in first.steps[0]
    assert "Cut this stretch off" in first.steps[-1] and "Cut" not in second.steps[-1]
    assert "19 11⁄16 in" in say(first.steps[0], "imperial"), "in the maker's units"
