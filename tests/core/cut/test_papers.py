"""Paper that measures by itself, labels, and what is told at the table."""

from __future__ import annotations

import pytest

from idle_selvage.core.cut.labels import labels
from idle_selvage.core.cut.template import BadTemplate, gauges, graduations, read_off
from idle_selvage.core.cut.told import face_of, kinds_of, pieces_told, says
from idle_selvage.core.cut.true_size import BadCalibration, by_corners, by_square, checked
from idle_selvage.core.lay.answer import Cut, Lay, Placement, Section
from idle_selvage.core.lay.drawing import draw
from idle_selvage.core.lay.problem import LayPiece
from idle_selvage.core.plan.piece import DrawnMark
from idle_selvage.core.wording import say


def test_a_swatch_shows_its_shrinkage_without_arithmetic() -> None:
    marks = graduations(250.0)
    assert [one.percent for one in marks][:3] == [-3.0, -2.5, -2.0] and marks[-1].percent == 15.0
    for one in marks:
        assert 100 * (250.0 - one.at) / 250.0 == pytest.approx(one.percent)
    assert read_off(250.0, 240.1) == 4.0 and read_off(250.0, 250.0) == 0.0 and read_off(254.0, 258.0) == -1.5
    with pytest.raises(BadTemplate, match=r"10\.0 cm to 100\.0 cm"):
        graduations(40.0)


def test_a_gauge_for_each_allowance_that_is_used() -> None:
    found = gauges([("Front", 15.0), ("Collar", 10.0), ("Back", 15.0), ("Front", 15.0), ("Facing", 0.0)])
    assert [(one.wide, one.used_by) for one in found] == [(10.0, ("Collar",)), (15.0, ("Front", "Back"))]


def test_every_copy_has_its_label_and_each_hand_of_a_pair_its_word() -> None:
    pieces = {"f": LayPiece("f", ((0, 0), (9, 0), (9, 4)), copies=2, pair=True, name="Front"),
              "b": LayPiece("b", ((0, 0), (9, 0), (9, 4)), name="Back", grain="bias")}  # fmt: skip
    cuts = [Cut("f", 1, 0, 0, 0, False), Cut("b", 1, 0, 0, 0, False), Cut("f", 2, 0, 0, 0, True)]
    found = labels(cuts, pieces, size="38", cloth="Linen", garment="Shirt")
    assert [(one.piece, one.copy, one.of, one.face) for one in found] == [
        ("Front", 1, 2, "as drawn"), ("Front", 2, 2, "mirrored"), ("Back", 1, 1, ""),
    ]  # fmt: skip
    assert found[2].grain == "bias"


def test_corners_that_make_no_picture_are_refused_with_a_sentence() -> None:
    good = [(100.0, 100.0), (700.0, 120.0), (680.0, 500.0), (90.0, 480.0)]
    assert by_corners(600, 400, good).to_picture((0.0, 0.0)) == pytest.approx(good[0])
    for corners, why in (
        (good[:3], "Four"),
        ([good[0], good[0], *good[2:]], "on one another"),
        ([good[0], good[2], good[1], good[3]], "cross no side"),
        ([good[0], good[1], (300.0, 200.0), good[3]], "cross no side"),
    ):
        with pytest.raises(BadCalibration, match=why):
            by_corners(600, 400, corners)
    with pytest.raises(BadCalibration, match="size"):
        by_corners(0.0, 400, good)
    with pytest.raises(BadCalibration, match="square"):
        by_square(5.0, 100, 100)
    found = by_square(400.0, 100.0, 98.0)
    assert found.to_picture((50.0, 49.0)) == pytest.approx((200.0, 200.0))
    assert found.to_table((200.0, 200.0)) == pytest.approx((50.0, 49.0))


def test_a_picture_that_is_off_by_more_than_a_chalk_line_is_calibrated_again() -> None:
    assert checked(200.0, 201.0)[0] and not checked(200.0, 201.5)[0] and not checked(200.0, 198.0)[0]


def told(fold: str, at: tuple[float, ...], entry: Placement) -> str:
    piece = LayPiece(
        "f",
        ((0.0, 0.0), (300.0, 0.0), (300.0, 100.0), (0.0, 100.0)),
        name="Front",
        marks=(DrawnMark("notch", ((100.0, 0.0), (100.0, 10.0))), DrawnMark("point", ((150.0, 50.0),), "pocket")),
    )
    lay = Lay(400.0, 0.0, 0.5, True, 0.0, 1, 1, (Section(0.0, 400.0, fold, at),), (entry,), ())
    found = pieces_told(draw(lay, {"f": piece}, 1000.0), {0: fold}, "together")
    one = found[0]
    assert kinds_of(one.marks) == ("notch", "point")
    notch = one.marks[0]
    x, y = notch.line[0]
    assert notch.along == pytest.approx(x) and notch.across == pytest.approx(abs(y - one.shape.edge_at))
    return say(says(one, 2, 9, ("Side: bar on bar.",), ("Cuff, 1",)), "metric") + "|" + one.face


def test_what_is_read_aloud_has_everything_that_is_measured() -> None:
    heard = told("open", (), Placement("f", 0, 20.0, 30.0, 0, False, 1))
    assert heard.startswith("Piece 2 of 9: Front, 1. It lies from 2.0 cm to 32.0 cm from the cut end.")
    assert "through one layer" in heard and "Side: bar on bar." in heard
    assert "Stop at its corners: Cuff, 1 needs the cloth beside it." in heard
    assert heard.endswith("paper printed side up, on the right side of the cloth")
    folded = told("lengthwise", (500.0,), Placement("f", 0, 20.0, 530.0, 0, True, 2))
    assert folded.endswith("paper printed side down, on cloth folded right sides together")
    single = told("partial", (200.0,), Placement("f", 0, 320.0, 630.0, 180, False, 1))
    assert "turned end for end" in single and single.endswith("on one layer, the right side of the cloth up")


def test_out_of_its_fold_the_right_side_is_told() -> None:
    piece = LayPiece("f", ((0.0, 0.0), (30.0, 0.0), (30.0, 10.0)), name="F")
    lay = Lay(400.0, 0.0, 0.5, True, 0.0, 1, 1, (Section(0.0, 400.0, "lengthwise", (500.0,)),),
              (Placement("f", 0, 20.0, 530.0, 0, False, 2),), ())  # fmt: skip
    shape = draw(lay, {"f": piece}, 1000.0).shapes[0]
    assert face_of(shape, "lengthwise", "out").endswith("folded right side out")


def test_on_a_crosswise_fold_tops_are_told_from_the_fold() -> None:
    """Both cut ends lie at the far end of the table: what points away from the fold points towards them."""
    piece = LayPiece("f", ((0.0, 0.0), (300.0, 0.0), (300.0, 100.0), (0.0, 100.0)), name="F")
    for turn, x, said in ((0, 520.0, "top away from the fold"), (180, 820.0, "top towards the fold")):
        lay = Lay(1000.0, 0.0, 0.5, True, 0.0, 1, 1, (Section(0.0, 1000.0, "crosswise", (500.0,)),),
                  (Placement("f", 0, x, 330.0, turn, False, 2),), ())  # fmt: skip
        one = pieces_told(draw(lay, {"f": piece}, 1000.0), {0: "crosswise"}, "together")[0]
        assert said in one.turned and one.from_what == "fold" and "cut end" not in one.turned
        head, tail = one.shape.head[0], one.shape.tail[0]
        assert (head > tail) == (turn == 0), "the picture begins at the fold"


def test_one_mark_is_one_and_several_are_several() -> None:
    notch = DrawnMark("notch", ((100.0, 0.0), (100.0, 10.0)))
    for marks, said in (((notch,), "1 notch"), ((notch, notch, DrawnMark("dart", ((1.0, 1.0),))), "2 notches, 1 dart")):
        piece = LayPiece("f", ((0.0, 0.0), (300.0, 0.0), (300.0, 100.0), (0.0, 100.0)), name="F", marks=marks)
        lay = Lay(400.0, 0.0, 0.5, True, 0.0, 1, 1, (Section(0.0, 400.0, "open"),),
                  (Placement("f", 0, 20.0, 30.0, 0, False, 1),), ())  # fmt: skip
        assert pieces_told(draw(lay, {"f": piece}, 1000.0), {0: "open"}, "out")[0].marked == said
