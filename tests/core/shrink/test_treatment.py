"""Schools of treatment, what fibres forbid, and the steps in order."""

from __future__ import annotations

import pytest

from idle_selvage.core.cloth.dye import Dye
from idle_selvage.core.shrink.programme import Programme
from idle_selvage.core.shrink.ranges import PLANNING_RANGES
from idle_selvage.core.shrink.treatment import (
    DRIES,
    LABEL_FIRST,
    SCHOOLS,
    WASHES,
    Advice,
    School,
    TreatmentFacts,
    advise,
    cautions,
    default_school,
    milder_than,
    programme,
    programme_text,
    usual,
    wash_text,
)


def steps(advice: Advice) -> str:
    return " ".join(s.text for s in advice.steps)


@pytest.mark.parametrize("wash", WASHES)
@pytest.mark.parametrize("dry", DRIES)
def test_every_care_and_kind_has_steps_in_sentences(wash: str, dry: str) -> None:
    for entry in PLANNING_RANGES:
        for school in [None, *SCHOOLS]:
            found = advise(wash, dry, TreatmentFacts((entry.kind,), Dye("dark")), school)
            assert found.steps and all(s.text.endswith(".") for s in found.steps) and found.why
            assert found.school == (school or default_school(wash)) and found.chosen == (school is not None)
            assert cautions(found.programme)[-1] == LABEL_FIRST


def test_the_default_mirrors_the_garment_and_leaves_alone_what_is_never_washed() -> None:
    assert default_school("40") == "mirror" and default_school("dry-clean") == default_school("never") == "leave"
    found = advise("40", "tumble-low", TreatmentFacts(("cotton",)))
    assert not found.chosen and "40 °C" in steps(found) and "Tumble it low" in steps(found)
    assert "overlock" in steps(found).lower() and "press it dry" in steps(found)
    assert "steam" in steps(advise("dry-clean", "none", TreatmentFacts(("wool",)))).lower()


def test_harder_is_one_step_hotter_and_soak_does_not_agitate() -> None:
    cotton = TreatmentFacts(("cotton",))
    assert programme("30-gentle", "tumble-low", "harder", cotton)[0].temperature == 40
    assert programme("40", "tumble-low", "harder", cotton)[0].dry == "tumble-warm"
    assert programme("60", "line", "harder", cotton)[0].temperature == 60, "nothing is hotter"
    assert programme("40", "tumble-low", "soak", cotton)[0].cycle == "soak"


@pytest.mark.parametrize(
    ("kind", "wash", "dry", "gives"),
    [
        ("viscose", "40", "line", ("30-gentle", "flat")),
        ("wool", "40", "tumble-low", ("cold-hand", "flat")),
        ("velveteen", "60", "tumble-warm", ("30-gentle", "tumble-short")),
        ("fur", "40", "tumble-low", ("30-gentle", "flat")),
        ("acetate", "40", "line", ("30-gentle", "flat")),
        ("silk", "40", "tumble-low", ("cold-hand", "line")),
        ("gauze", "60", "tumble-warm", ("40", "tumble-low")),
        ("cotton", "60", "tumble-warm", ("60", "tumble-warm")),
    ],
)
def test_what_a_fibre_forbids_is_never_planned(kind: str, wash: str, dry: str, gives: tuple[str, str]) -> None:
    for school in ("mirror", "harder", "soak"):
        made, changed = programme(wash, dry, school, TreatmentFacts((kind,)))  # type: ignore[arg-type]
        assert made.dry == gives[1]
        if school != "soak":
            assert made.wash == gives[0]
        assert (kind == "cotton") == (not changed)


def test_a_blend_is_treated_as_mildly_as_its_mildest_fibre() -> None:
    made, _ = programme("60", "tumble-warm", "mirror", TreatmentFacts(("cotton", "viscose")))
    assert (made.wash, made.dry) == ("30-gentle", "flat")


def test_gauze_is_never_pressed_and_sequins_never_tumbled() -> None:
    assert not programme("40", "line", "mirror", TreatmentFacts(("gauze",)))[0].press
    assert "do not press it flat" in steps(advise("40", "line", TreatmentFacts(("gauze",))))
    sequins = advise("40", "tumble-low", TreatmentFacts(("polyester",), sequins=True))
    assert sequins.programme.dry == "flat" and not sequins.programme.press
    assert "never hung" in " ".join(advise("cold-hand", "flat", TreatmentFacts(("viscose",))).forbids)


def test_cautions_stand_where_they_belong() -> None:
    said = {s.text: s.caution for s in advise("60", "tumble-low", TreatmentFacts(("cotton",), metres=5.0)).steps}
    assert "scalds" in next(c for t, c in said.items() if "60 °C" in t)
    assert "lint" in next(c for t, c in said.items() if "Tumble" in t)
    assert "burn" in next(c for t, c in said.items() if "press it dry" in t)
    heavy = advise("40", "line", TreatmentFacts(("cotton",), metres=5.0))
    assert any("heavy" in s.caution for s in heavy.steps)
    assert not any("lint" in s.caution for s in heavy.steps)


def test_dye_that_comes_off_has_the_water_to_itself() -> None:
    bleeding = steps(advise("40", "line", TreatmentFacts(("cotton",), Dye("dark", 2))))
    assert "on its own, since its dye comes off (grade 2)" in bleeding and "wash again until it stays clean" in bleeding
    assert "Rub it with a wet white rag first" in steps(advise("40", "line", TreatmentFacts(("cotton",), Dye("dark"))))
    assert "on its own" not in steps(advise("40", "line", TreatmentFacts(("cotton",), Dye("dark", 5))))
    linen = ("linen", "nothing")
    assert "Usual for linen" in usual(linen, programme("40", "line", "mirror", TreatmentFacts(linen))[0])[0]


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("kind", [entry.kind for entry in PLANNING_RANGES])
def test_what_will_be_dry_cleaned_is_never_told_to_be_washed(school: School, kind: str) -> None:
    if school == "fit":
        return
    advice = advise("dry-clean", "none", TreatmentFacts((kind,)), school)
    told = " ".join([steps(advice), *advice.changed, *advice.forbids, *usual((kind,), advice.programme)]).lower()
    assert not advice.programme.wet
    assert "wash it" not in told and "machine wash" not in told and "warm wash" not in told


@pytest.mark.parametrize("wash", WASHES)
@pytest.mark.parametrize("dry", DRIES)
@pytest.mark.parametrize("school", SCHOOLS)
def test_glue_is_never_steamed_tumbled_or_ironed(wash: str, dry: str, school: School) -> None:
    advice = advise(wash, dry, TreatmentFacts(("cotton",), fusible=True), school)
    plan = advice.programme
    assert plan.cycle in ("soak", "none") and plan.dry in ("flat", "none") and not plan.press
    assert plan.temperature <= 40 and "steam iron" not in " ".join(m for s in advice.steps for m in s.materials)
    assert (plan.cycle == "soak") == (wash not in ("dry-clean", "never") and school not in ("fit", "leave"))


def test_a_treatment_milder_than_the_garments_washing_is_said() -> None:
    warm = programme("40", "line", "mirror", TreatmentFacts(("cotton",)))[0]
    told = milder_than(["30-gentle"], warm)
    assert "(wash at 30 °C, gentle)" in told and "(wash at 40 °C)" in told
    assert milder_than(["40"], warm) == milder_than(["60"], warm) == milder_than(["30-gentle", "40"], warm) == ""
    assert milder_than(["soak"], warm) and milder_than(["steam"], warm)


def test_a_treatment_says_how_it_is_dried_only_where_it_gets_wet() -> None:
    assert programme_text(Programme("", 0, "none", "line")) == "left as it is"
    assert programme_text(Programme("", 0, "steam", "flat")) == "steamed all over"
    wet = programme_text(Programme("40", 40, "mirror", "line"))
    assert wet == f"{wash_text(Programme('40', 40, 'mirror', 'line'))}, {DRIES['line']}"
    assert programme_text(Programme("40", 40, "mirror", "tumble-short")).endswith(", tumble 10 min, then flat")
