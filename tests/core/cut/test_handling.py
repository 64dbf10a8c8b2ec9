"""How this cloth is held, marked and cut."""

from __future__ import annotations

import pytest

from idle_selvage.core.cut.handling import MARKS, ClothInHand, handling, notch_told, snip_depth

PLAIN = ClothInHand()


@pytest.mark.parametrize(
    ("cloth", "hold", "cut"),
    [
        (ClothInHand("fur", "stroke"), "backing up", "Slit the backing only"),
        (ClothInHand("sequin"), "no pins inside", "Cut straight through small sequins"),
        (ClothInHand("velveteen", "nap"), "wrong side up", "one layer at a time"),
        (ClothInHand("corduroy", "nap"), "wrong side up", "one layer at a time"),
        (ClothInHand("gauze"), "without pulling", "Cut slowly"),
        (ClothInHand("lace"), "without pulling", "motifs"),
        (ClothInHand("satin"), "paper or a sheet", "cloth and paper"),
        (ClothInHand(slips=True), "paper or a sheet", "cloth and paper"),
        (ClothInHand(see_through=True), "silk pins", "Cut on paper"),
        (ClothInHand("denim"), "weights", "one layer at a time"),
        (ClothInHand(mass=320.0), "weights", "one layer at a time"),
        (PLAIN, "Pin tissue at the grain line first", "long strokes"),
    ],
)
def test_each_cloth_is_held_and_cut_its_own_way(cloth: ClothInHand, hold: str, cut: str) -> None:
    found = handling(cloth)
    assert hold in found.hold.do and any(cut in one.do for one in found.cut)
    assert set(found.marks) == set(MARKS) and all(one.do.endswith(".") for one in found.marks.values())


def test_what_has_a_direction_gets_an_arrow() -> None:
    assert any("chalk arrow" in one.do for one in handling(ClothInHand("velveteen", "nap")).cut)
    assert not any("chalk arrow" in one.do for one in handling(PLAIN).cut)


def test_a_snip_is_never_deeper_than_a_third_of_the_allowance() -> None:
    assert snip_depth(15.0) == 3.0 and snip_depth(6.0) == 2.0 and snip_depth(0.0) == 0.0
    assert "0.2 cm" in notch_told(PLAIN, 6.0).do and "0.3 cm" in notch_told(PLAIN, 15.0).do
    assert "chalk" in notch_told(PLAIN, 0.0).do, "cut at the seam line there is nothing to snip into"
    for weave in ("gauze", "lace", "sequin", "fur"):
        assert "Snip" not in notch_told(ClothInHand(weave), 15.0).do
    assert "Snip" not in notch_told(ClothInHand(see_through=True), 15.0).do


def test_chalk_is_seen_on_its_cloth_and_pile_is_marked_by_tacks() -> None:
    assert "light chalk" in handling(ClothInHand(ground="#101020")).marks["point"].do
    assert "dark chalk" in handling(ClothInHand(ground="#f0f0f0")).marks["point"].do
    assert "tailor’s tacks" in handling(ClothInHand("velveteen")).marks["dart"].do
    assert "thread" in handling(ClothInHand(see_through=True)).marks["centre"].do


def test_blades_and_pins_are_always_cautioned_and_fur_and_sequins_besides() -> None:
    assert any("cut away from the body" in told for told in handling(PLAIN).cautions)
    assert any("mask" in told for told in handling(ClothInHand("fur")).cautions)
    assert any("eyes" in told for told in handling(ClothInHand("sequin")).cautions)
