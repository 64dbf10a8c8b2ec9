"""Seams proposed for usual garments, from names, edges, notches and lengths."""

from __future__ import annotations

from dataclasses import replace

from idle_selvage.core.plan.draft import Draft, DraftPoint, Notch, run_length
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.plan.proposals import Proposable, proposals
from idle_selvage.core.plan.seams import Seam, unlike
from idle_selvage.core.plan.sides import run_of
from idle_selvage.core.plan.stations import Station, points_from_stations
from idle_selvage.demo import drafts
from idle_selvage.formats.svg_pieces import read_svg
from idle_selvage.store.seam import sewn_of


def read(pieces: list[drafts.Drawn]) -> list[Proposable]:
    found = read_svg(drafts.drawing(pieces, "t").encode()).what
    return [
        Proposable(str(n), one.name, one.draft, piece_of(one.name, one.draft, one.how)) for n, one in enumerate(found)
    ]


def by_name(pieces: list[Proposable], *there: Seam) -> dict[str, Seam]:
    return {seam.name: seam for seam in proposals(pieces, there)}


def names(pieces: list[Proposable], seam: Seam) -> tuple[str, str]:
    of = {one.key: one.name for one in pieces}
    return of[seam.a.piece], of[seam.b.piece]


def test_a_shirt_has_its_side_seams_sleeves_pocket_and_collar() -> None:
    shirt = read(drafts.overshirt())
    found = by_name(shirt)
    assert list(found) == [
        "Centre front", "Side seam", "Pocket on Front", "Sleeve to front", "Sleeve to back", "Collar at centre back",
    ]  # fmt: skip
    assert names(shirt, found["Side seam"]) == ("Front", "Back")
    assert found["Centre front"].a == found["Centre front"].b and found["Centre front"].same_way
    assert found["Pocket on Front"].kind == "laid on" and found["Pocket on Front"].lengthwise
    drafted = {one.key: (one.draft, one.piece) for one in shirt}
    for seam in found.values():
        sewn = sewn_of(seam, drafted)
        assert sewn is not None and unlike(sewn, ("a", "b")) is None, seam.name
    # side seams begin at the hem or the underarm on both; the sleeve's underarm meets the armhole's
    side = sewn_of(found["Side seam"], drafted)
    assert side is not None and side.mirrors is False, "front and back are drawn in opposite senses here"
    key_a, key_b = side.key
    top = [max(x for x, _ in run) for run in (side.a, side.b)]
    assert abs(key_a[0] - top[0]) < 0.5 and abs(key_b[0] - top[1]) < 0.5, "the key point is the underarm"


def test_a_lapel_is_no_front_edge_and_an_armhole_no_side_seam() -> None:
    waistcoat = read(drafts.waistcoat())
    found = by_name(waistcoat)
    front = next(one for one in waistcoat if one.name == "Front")
    middle = found["Centre front"].a.side
    assert middle is not None and run_length(run_of(front.draft, middle)) < 260, "the straight part below the lapel"
    side = found["Side seam"]
    # its notches are the key point on both sides
    assert (
        side.key_a is not None
        and side.key_b is not None
        and 100 < side.key_a < 200
        and abs(side.key_a - side.key_b) < 1
    )


def gore(copies: int, name: str = "Gore") -> Proposable:
    stations = [Station(*one) for one in drafts.gore(waist=740, hip=1020, hem=2100, length=720)]
    draft = Draft(points_from_stations(stations, smooth=True, half=False))
    return Proposable("1", name, draft, piece_of(name, draft, HowCut(copies=copies)))


def test_gores_are_sewn_round_the_body_and_cuffs_are_not() -> None:
    found = by_name([gore(6)])
    assert list(found) == ["Gore to the next"] and not found["Gore to the next"].same_way
    assert by_name([gore(2)]) == {} and by_name([gore(6, "Cuff")]) == {}


def test_nothing_is_proposed_twice_and_nothing_of_what_does_not_show() -> None:
    shirt = read(drafts.overshirt())
    side = by_name(shirt)["Side seam"]
    assert "Side seam" not in by_name(shirt, side) and "Sleeve to front" in by_name(shirt, side)
    hidden = [replace(one, hidden=one.name == "Front") for one in shirt]
    assert not any("ront" in name for name in by_name(hidden))


def test_whole_panels_are_sewn_right_to_left() -> None:
    def panel(key: str, name: str) -> Proposable:
        points = tuple(
            DraftPoint(x, y, key=n) for n, (x, y) in enumerate(((0, -300), (900, -200), (900, 200), (0, 300)), 1)
        )
        draft = Draft(points)
        return Proposable(key, name, draft, piece_of(name, draft, HowCut()))

    slip = [panel("1", "Front"), panel("2", "Back")]
    found = proposals(slip)
    drafted = {one.key: (one.draft, one.piece) for one in slip}
    assert [seam.name for seam in found] == ["Side seam, one side", "Side seam, other side"]
    for seam in found:
        sewn = sewn_of(seam, drafted)
        assert sewn is not None and not sewn.mirrors
        assert sewn.a[0][1] * sewn.b[0][1] < 0, "a right edge to a left one"


def test_the_back_of_a_sleeve_head_has_the_double_notch() -> None:
    shirt = read(drafts.overshirt())
    sleeve = next(one for one in shirt if one.name == "Sleeve")
    first = sleeve.draft.points[0].key
    seam = by_name(shirt)["Sleeve to front"]
    assert seam.a.side is not None and seam.a.side.begin.after == first
    draft = replace(sleeve.draft, notches=(Notch(first, 80.0, double=True),))
    turned = [replace(one, draft=draft) if one is sleeve else one for one in shirt]
    other = by_name(turned)["Sleeve to front"]
    assert other.a.side is not None and other.a.side.begin != seam.a.side.begin
