"""The steps at the table, and what can be wished for."""

from __future__ import annotations

import math
from dataclasses import replace

from idle_selvage.core.cloth.bars import NONE, Bar, read_bars
from idle_selvage.core.match import told
from idle_selvage.core.match.chance import Doubt
from idle_selvage.core.match.steps import curved, slant, steps
from idle_selvage.core.match.wishes import named_places, wish_spots
from idle_selvage.core.plan.draft import Draft, DraftPoint, Mark
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.wording import say

from .cases import LEFT, RIGHT, cut, panel, sewn

ARC = tuple((100 * math.sin(n / 20), 100 - 100 * math.cos(n / 20)) for n in range(32))


def test_the_largest_piece_is_cut_first_and_each_other_by_the_one_it_is_sewn_to() -> None:
    pieces = {
        "front": panel("front"),
        "back": panel("back", ((0.0, -150.0), (400.0, -150.0), (400.0, 150.0), (0.0, 150.0))),
        "sleeve": panel("sleeve", ((0.0, -50.0), (300.0, -50.0), (300.0, 50.0), (0.0, 50.0))),
    }
    side = replace(
        sewn("front", RIGHT, "back", LEFT), seam=replace(sewn("front", RIGHT, "back", LEFT).seam, name="Side")
    )
    arm = sewn("sleeve", ARC, "front", ARC, name="Armhole")
    cuts = [cut("back", x=12, y=150), cut("front", x=500, y=100), cut("sleeve", x=900, y=50)]
    found = steps([side, arm], pieces, cuts)
    text = [step.told for step in found]
    assert text[0].startswith("Square the bars first: read several with an L-square")
    assert text[1] == (
        "Cut Back first: its low end lies 1.2 cm from the cut end, its near edge 0.0 cm from where the usable cloth "
        "begins."
    )
    # the front's right edge begins at (0, −100) of a piece laid at (500, 100)
    assert text[2] == (
        "Side: lay the cut Back face down on the cloth, bar on bar, and cut Front by its edge; its key point comes to "
        "lie 50.0 cm from the cut end and 0.0 cm across."
    )
    assert text[3].startswith("Armhole is curved: pin every bar round the whole edge of the cut Front")
    assert "corner" in text[4] and text[-1].startswith("Sew: one pin through every bar")
    assert "19 11⁄16 in from the cut end" in say(text[2], "imperial")
    assert steps([replace(side, seam=replace(side.seam, levels=False))], pieces, cuts) == ()


def test_a_slanted_seam_is_folded_under_and_a_piece_meets_its_own_mirror_image() -> None:
    lean = ((0.0, 0.0), (300.0, 40.0))
    pieces = {"gore": panel("gore", copies=6), "front": panel("front", copies=2, pair=True)}
    ring = [step.told for step in steps([sewn("gore", lean, "gore", lean)], pieces, [cut("gore")])]
    assert any("fold the allowance of the cut Gore under" in t and "the next Gore" in t for t in ring)
    own = [
        s.told for s in steps([sewn("front", RIGHT, "front", RIGHT, mirrors=True)], pieces, [], "The bars are square")
    ]
    assert own[0] == "Square the bars first: The bars are square." and any("the mirrored Front" in t for t in own)
    assert not curved(lean) and curved(ARC) and slant(RIGHT) == 0 and 7 < slant(lean) < 8


def test_bars_are_wished_for_by_name() -> None:
    sequence = [Bar(6, "#336677"), Bar(24, "#ddeeee"), Bar(3, "#aa6644"), Bar(27, "#DDEEEE")]
    found = named_places(sequence, read_bars(sequence))
    assert [(p.name, p.bar) for p in found] == [
        ("bar 1, the one seen first", 3.0), ("bar 2", 18.0), ("bar 3", 31.5), ("bar 4", 46.5),
        ("as far as can be from the bar seen first", 33.0),
    ]  # fmt: skip
    assert named_places([Bar(1, "#000000"), Bar(1, "#ffffff")], read_bars([Bar(1, "#000000"), Bar(1, "#ffffff")])) == ()


def test_places_of_a_piece_to_wish_them_on() -> None:
    points = tuple(
        DraftPoint(x, y, key=n) for n, (x, y) in enumerate(((10, -90), (400, -90), (400, 110), (10, 110)), 1)
    )
    draft = Draft(points, marks=(Mark("level", ((250.0, 0.0),), "bust"),))
    side = sewn("front", RIGHT, "back", LEFT, name="Side seam", key_a=120.0)
    found = wish_spots("front", draft, piece_of("Front", draft, HowCut()), [side])
    assert [(s.name, s.at) for s in found] == [
        ("its low end", 10.0), ("bust", 250.0), ("the key point of Side seam", 120.0), ("its top", 400.0),
        ("its middle", 10.0),
    ]  # fmt: skip


def test_what_the_bars_mean_is_said_once_each() -> None:
    plain = read_bars([Bar(6, "#336677"), Bar(54, "#ddeeee")])
    never = read_bars([Bar(10, "#111111"), Bar(20, "#eeeeee"), Bar(5, "#aa0000"), Bar(9, "#00aa00")])
    fine = read_bars([Bar(1, "#111111"), Bar(2, "#eeeeee")])

    def said(along: object, across: object, **more: object) -> list[str]:
        given = {"pairs": ("Front",), "reversible": False, "printed": False} | more
        return [str(text) for text in told.consequences(along, across, **given)]  # type: ignore[arg-type]

    assert said(never, NONE) == ["The bars across the garment read differently up and down, so all tops lie one way."]
    assert "let the sequence run on round the body" in said(NONE, never)[0]
    assert "turn the cloth over" in said(NONE, never, reversible=True)[0] and said(NONE, never, pairs=()) == []
    assert "under 3 mm" in said(fine, NONE)[0] and "mirror" in said(NONE, plain)[0]
    assert any("printed" in text for text in said(plain, NONE, printed=True)) and said(NONE, NONE) == []
    assert told.standing_told("misses", -4.2, "Side seam").endswith("miss by 4.2 mm, for Side seam comes first")
    assert "lean by 0.4°" in told.how_sure(Doubt(slant=0.4)) and "lean" not in told.how_sure(Doubt())
    assert "from memory" in told.how_sure(Doubt()) and "repeats that differ" in told.how_sure(Doubt(uneven=(0.3, 0.0)))
    assert "as 5 pieces of this garment were pinned" in told.how_sure(Doubt(1.2, learned=5))
    assert "chevrons" in said(plain, NONE, bias=("Front",))[0] and said(NONE, NONE, bias=("Front",)) == []
