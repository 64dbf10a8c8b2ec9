"""Buying against what is printed elsewhere, and against geometry done another way."""

from __future__ import annotations

import csv
import io
import math

import pytest
import shapely
from shapely.geometry import Polygon, box

from idle_selvage.core.buy.bias import bias_tape
from idle_selvage.core.buy.convert import spoken, yard_table
from idle_selvage.core.buy.envelope import TABLE_EIGHTHS, WIDTHS_IN, convert_width
from idle_selvage.core.buy.order import Order
from idle_selvage.core.buy.purchase import purchase
from idle_selvage.core.buy.ruffles import joined_length
from idle_selvage.core.working import Figure
from idle_selvage.formats.csv_list import list_csv

YD = 914.4

#: The width conversion table of home-economics extension services, yards; typed from memory, a second time and in
#: decimals, from the list of the trade, so that a slip of the first typing shows.
PRINTED = """
1.75 1.5 1.5 1.375 1.25 1.125 1
2 1.75 1.75 1.625 1.5 1.375 1.25
2.25 2 2 1.75 1.625 1.5 1.375
2.5 2.25 2.25 2.125 1.75 1.75 1.625
2.875 2.5 2.5 2.25 2 1.875 1.75
3.125 2.75 2.75 2.5 2.25 2 1.875
3.375 3 2.875 2.75 2.375 2.25 2
3.75 3.25 3.125 2.875 2.625 2.375 2.25
4.25 3.5 3.375 3.125 2.75 2.625 2.375
4.5 3.75 3.625 3.375 3 2.75 2.625
4.75 4 3.875 3.625 3.25 2.875 2.75
5 4.25 4.125 3.875 3.375 3.125 2.875
"""


def test_the_international_yard_of_1959() -> None:
    """International yard and pound agreement, 1959: 1 yd = 0.9144 m exactly; 1 in = 25.4 mm follows."""
    rows = {str(r.fraction): r for r in yard_table()}
    assert rows["1"].mm == 914.4 and rows["1"].inches == 36
    assert rows["1/8"].mm == pytest.approx(114.3, abs=1e-12) and float(rows["1/8"].inches) == 4.5
    assert [s.rounded for s in spoken(914.4)][:2] == ["exact", "exact"]
    yards, inches, metres, _ = spoken(1000.0)
    # a metre is 1.0936 yd: 1⅛ yd rounded up; 39.37 in: 39⅜ in to the nearest sixteenth
    assert yards.text == "1 ⅛ yd" and inches.text == "39 ⅜ in" and metres.text == "1.00 m"


def test_every_row_of_the_handbook_table() -> None:
    rows = [[float(x) for x in line.split()] for line in PRINTED.split("\n") if line]
    assert [[e / 8 for e in row] for row in TABLE_EIGHTHS] == rows
    for k, row in enumerate(rows):
        for a, low in enumerate(WIDTHS_IN):
            for b, other in enumerate(WIDTHS_IN):
                found = convert_width(row[a] * YD, low[0] * 25.4, other[0] * 25.4)
                # two rows may print the same length for one width: the first of them is read
                first = next(n for n, r in enumerate(rows) if r[a] >= row[a])
                assert found.length == pytest.approx(rows[first][b] * YD), (k, a, b)


def test_the_table_is_monotonic_in_width_and_in_length() -> None:
    for row in TABLE_EIGHTHS:
        assert list(row) == sorted(row, reverse=True), "wider cloth never takes more"
    for column in zip(*TABLE_EIGHTHS, strict=True):
        assert list(column) == sorted(column), "a longer garment never takes less"


@pytest.mark.parametrize(
    ("lay", "s", "order", "buys"),
    [
        # common practice, no source; worked by hand:
        # 40 in at 10 %: 44.44 in, in eighths of a yard (4.5 in): ten of them, 45 in
        (40 * 25.4, 10.0, Order(0, 0, 114.3), 45 * 25.4),
        # 2.500 m at 8 %: 2.7174 m, up to 10 cm: 2.80 m
        (2500.0, 8.0, Order(0, 0, 100), 2800.0),
        # 1.20 m + 2 × 5 cm ends + 5 cm spare = 1.35 m at 5 %: 1.4211 m, up to 25 cm: 1.50 m
        (1200.0, 5.0, Order(100, 50, 250), 1500.0),
        # nothing shrinks and the lay is what the shop cuts: no more is bought
        (1500.0, 0.0, Order(0, 0, 500), 1500.0),
    ],
)
def test_purchases_worked_by_hand(lay: float, s: float, order: Order, buys: float) -> None:
    assert purchase(lay, Figure(s, "percent"), order).to_buy.value == pytest.approx(buys)


def test_strips_of_the_trade() -> None:
    """Common practice, no source: four strips of 30 in with ⅝ in allowances, 116¼ in flat and 115 in as a ring."""
    assert joined_length(4, 30, 0.625, ring=False) == 116.25
    assert joined_length(4, 30, 0.625, ring=True) == 115.0


@pytest.mark.parametrize(("long", "wide", "tape"), [(700, 450, 30), (500, 500, 25), (1400, 300, 40)])
def test_bias_strips_against_shapely(long: float, wide: float, tape: float) -> None:
    """Each strip is cut from the rectangle by shapely; its usable length is that of its shorter long edge."""
    rectangle = box(0, 0, long, wide)
    pitch = tape * math.sqrt(2)
    lengths = []
    for k in range(int((long + wide) / pitch)):
        a, b = k * pitch, (k + 1) * pitch
        far = long + wide
        # between the lines x + y = a and x + y = b
        strip = Polygon([(a + far, -far), (b + far, -far), (b - far, far), (a - far, far)]).intersection(rectangle)
        edges = [shapely.LineString([(c + far, -far), (c - far, far)]).intersection(rectangle).length for c in (a, b)]
        assert strip.area <= max(edges) * tape + tape * tape + 1e-6
        if min(edges) >= 2 * tape - 1e-6:
            lengths.append(min(edges))
    found = bias_tape(long, wide, tape, seam=0.0)
    assert found.strips.value == pytest.approx(sum(lengths)) and found.joins == len(lengths) - 1
    # common practice, no source: area ÷ width of the tape is the most there is
    assert 0.75 * long * wide / tape < found.continuous.value <= long * wide / tape


def test_the_list_reads_back_with_the_standard_library() -> None:
    """RFC 4180 by the reader of Python's own csv module."""
    text = list_csv(
        [("zip", 'Zip, 18 cm, "slate"', "1", "soak, dry flat", "", "no"), ("other", "=1+1", "2", "", "", "")]
    )
    rows = list(csv.reader(io.StringIO(text)))
    assert rows[1][1] == 'Zip, 18 cm, "slate"' and len({len(row) for row in rows}) == 1
    assert rows[2][1] == "'=1+1", "no cell is a formula"
