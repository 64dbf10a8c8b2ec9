from __future__ import annotations

import math
import unicodedata

import pytest
from hypothesis import given
from hypothesis import strategies as st

from idle_selvage.core.units import BadEntry, System, read_length, read_number, read_range
from idle_selvage.core.working import Quantity
from idle_selvage.core.written import fraction_text, length_text, quantity_parts, quantity_text


@pytest.mark.parametrize(
    ("text", "system", "mm"),
    [
        ("126 cm", "metric", 1260),
        ("1,26 m", "metric", 1260),
        ("126", "metric", 1260),
        ("126", "imperial", 126 * 25.4),
        ("1 3/8 yd", "metric", 1.375 * 914.4),
        ("1-3/8 yd", "imperial", 1.375 * 914.4),
        ("1⅜ yd", "imperial", 1.375 * 914.4),
        ("1 ⅜yd", "imperial", 1.375 * 914.4),
        ('49.5"', "metric", 49.5 * 25.4),
        ("49 1/2 in", "metric", 49.5 * 25.4),
        ("5/8", "imperial", 0.625 * 25.4),
        ("1 yd 4 1/2 in", "imperial", 914.4 + 4.5 * 25.4),
        ("2 ft 3 in", "imperial", 27 * 25.4),
        ("1 m 20 cm", "metric", 1200),
        ("1⁄16 in", "metric", 25.4 / 16),
        (".5 m", "metric", 500),
        ("0", "metric", 0),
        ("3 MM", "metric", 3),
        ("36 in.", "metric", 36 * 25.4),
        ("4 ft. 2 in.", "metric", 50 * 25.4),
        ("1.375 yd", "metric", 1.375 * 914.4),
        ("0,125 m", "metric", 125),
        ("9/8 yd", "imperial", 1.125 * 914.4),
    ],
)
def test_typed_lengths_are_read(text: str, system: str, mm: float) -> None:
    assert read_length(text, system) == pytest.approx(mm, abs=1e-9)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    "text",
    [
        "",
        "  ",
        "wide",
        "12 cubits",
        "1 2",
        "3/0 in",
        "-4 cm",
        "1.5 3/8 in",
        "cm",
        "4 cm 1 m",
        "1 m 20",
        "1e5",
        "9999999 m",
        "1/2/3",
        "12 cm!",
        "½½",
        "5" * 80,
        "1 - cm",
        "− 3",
        # what can be read in two ways is asked back
        '44/45"',
        "58/60 in",
        "1,260 mm",
        "1.260 mm",
        "1,125 in",
        "12/25 in",
    ],
)
def test_what_cannot_be_read_is_said(text: str) -> None:
    with pytest.raises(BadEntry) as told:
        read_length(text)
    sentence = str(told.value)
    assert sentence.endswith(".") and len(sentence) > 20
    if 0 < len(text.strip()) < 60:
        assert "“" in sentence, "the sentence repeats what it could not read"


def test_numbers() -> None:
    assert read_number("3,5") == 3.5
    assert read_number("3 1/2") == 3.5
    with pytest.raises(BadEntry, match="only a number"):
        read_number("3 cm")


def test_fractions_are_written_as_on_a_tape() -> None:
    assert fraction_text(49.5, 16) == "49 ½"
    assert fraction_text(0.0625, 16) == "1⁄16"
    assert fraction_text(1.375, 8) == "1 ⅜"
    assert fraction_text(2.999, 16) == "3"
    assert fraction_text(-0.25, 16) == "−¼"


def test_shop_lengths_are_said_in_the_shop_s_step_and_rounded_up_beside_it() -> None:
    def said(mm: float) -> tuple[str, str]:
        return quantity_text(Quantity(mm, "purchase"), "metric"), quantity_text(Quantity(mm, "purchase"), "imperial")

    assert said(1500) == ("1.50 m", "1.50 m (59 1⁄16 in)")
    assert said(1.375 * 914.4) == ("1 ⅜ yd (1.26 m)", "1 ⅜ yd")
    # 1143 mm are ten eighths: never 1.14 m; a length that is no whole step of either is rounded up in both
    assert said(1143.0) == ("1 ¼ yd (1.15 m)", "1 ¼ yd")
    assert said(1142.9) == ("1.15 m", "45 in") and said(1249.9) == ("1.25 m", "49 ¼ in")


@given(st.floats(1, 20_000))
def test_what_is_asked_for_is_never_less_than_was_worked_out(mm: float) -> None:
    for system in ("metric", "imperial"):
        number, unit = quantity_parts(Quantity(mm, "purchase"), system)  # type: ignore[arg-type]
        assert read_length(f"{number} {unit.split(' (')[0]}") >= mm - 1e-4


def test_never_minus_nought() -> None:
    assert length_text(-1e-9, "metric") == "0.0 cm"
    assert quantity_text(Quantity(-3.86, "percent"), "metric") == "−3.9 %"


@given(st.floats(0, 20_000))
def test_what_is_shown_can_be_typed_again(mm: float) -> None:
    assert read_length(length_text(mm, "metric")) == pytest.approx(mm, abs=0.51)
    assert read_length(length_text(mm, "imperial"), "imperial") == pytest.approx(mm, abs=25.4 / 32 + 1e-6)


@given(st.text(max_size=70))
def test_any_text_gives_a_length_or_a_sentence(text: str) -> None:
    for system in ("metric", "imperial"):
        try:
            assert math.isfinite(read_length(text, system))  # type: ignore[arg-type]
        except BadEntry as told:
            assert str(told)


@pytest.mark.parametrize(
    ("text", "system", "low", "high"),
    [
        ("36–38", "imperial", 36 * 25.4, 38 * 25.4), ("36-38 in", "metric", 36 * 25.4, 38 * 25.4),
        ("44/45 in", "metric", 44 * 25.4, 45 * 25.4), ("91 to 97", "metric", 910, 970),
        ("91 - 97 cm", "metric", 910, 970),
        ("36 1/2–38 in", "metric", 36.5 * 25.4, 38 * 25.4), ("90 cm – 1,1 m", "metric", 900, 1100),
        ("1-3/8 yd", "imperial", 1.375 * 914.4, 1.375 * 914.4), ("92", "metric", 920, 920),
        ("3/8", "imperial", 9.525, 9.525),
    ],
)  # fmt: skip
def test_a_range_is_read(text: str, system: System, low: float, high: float) -> None:
    assert read_range(text, system) == (pytest.approx(low), pytest.approx(high))


def test_the_smaller_end_of_a_range_comes_first() -> None:
    with pytest.raises(BadEntry, match="smaller comes first"):
        read_range("38–36 in")
    with pytest.raises(BadEntry):
        read_range("36–38–40 in")


@pytest.mark.parametrize("sign", "½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞")
def test_every_fraction_that_is_one_sign_is_what_unicode_says(sign: str) -> None:
    # the Unicode character database, as the standard library keeps it
    assert read_number(sign) == pytest.approx(unicodedata.numeric(sign))
    assert read_length(f"2{sign} in", "metric") == pytest.approx((2 + unicodedata.numeric(sign)) * 25.4)
