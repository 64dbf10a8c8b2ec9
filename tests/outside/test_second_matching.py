"""What a lay comes to at its seams, told by a second writing, on random garments that the engine has laid.

Common practice, no source: that bars are compared on the seam line at equal sewn length.
"""

from __future__ import annotations

import itertools
import random

import pytest

from idle_selvage.core.cloth.bars import Bar, read_bars
from idle_selvage.core.lay.answer import to_json as lay_json
from idle_selvage.core.lay.asking import ClothToLay, LayRules, PieceToLay, ask, bars_laid, joined_on
from idle_selvage.core.lay.check import check_lay
from idle_selvage.core.lay.engine.solver import solve
from idle_selvage.core.lay.problem import Problem
from idle_selvage.core.lay.problem import to_json as problem_json
from idle_selvage.core.match.judged import foreseen, on_lay
from idle_selvage.core.plan.allowance import cut_line
from idle_selvage.core.plan.draft import Draft, DraftPoint
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.plan.seams import Seam, SeamSide, Sewn
from idle_selvage.core.plan.sewn_level import level_sides
from idle_selvage.store.seam import sewn_of

from .second_matching import meetings, missing_by, on_cloth

CLOTH = [Bar(6, "#336677"), Bar(24, "#ddeeee"), Bar(3, "#aa6644"), Bar(24, "#ddeeee")]
NEVER = [Bar(6, "#336677"), Bar(24, "#ddeeee"), Bar(3, "#aa6644"), Bar(11, "#445544")]


def garment(rng: random.Random) -> tuple[list[PieceToLay], list[Sewn], ClothToLay]:
    """Two to four panels, slanted and hipped anyhow, some mirrored pairs, some on the fold; each sewn to the next."""
    asked, drafted = [], {}
    for key in map(str, range(rng.randint(2, 4))):
        long, low, high = rng.uniform(250, 420), rng.uniform(60, 130), rng.uniform(40, 120)
        hip = rng.uniform(-12, 12)
        how = rng.choice(["pair", "fold", "single"])
        left = [(long, high), (long * 0.6, (low + high) / 2 + hip), (0.0, low)]
        # no panel is its own mirror image: it would serve either side
        right = [(0.0, 0.0), (long, 0.0)] if how == "fold" else [(x, -y * 0.8) for x, y in reversed(left)]
        points = tuple(DraftPoint(x, y, key=n) for n, (x, y) in enumerate([*right, *left], 1))
        draft = Draft(points, half=how == "fold")
        cut = HowCut(copies=2 if how == "pair" else 1, pair=how == "pair", on_fold=how == "fold", seam=12.0)
        piece = piece_of(f"Panel {key}", draft, cut)
        cut_line(piece)
        asked.append(PieceToLay(piece, key, centred=how == "fold" and rng.random() < 0.7))
        drafted[key] = (draft, piece)
    seams: list[Sewn] = []
    for a, b in itertools.pairwise(drafted):
        ours, theirs = (level_sides(*drafted[key], 0.0) for key in (a, b))
        one, other = rng.choice(ours), rng.choice(theirs)
        told = Seam(
            str(len(seams) + 1), SeamSide(a, one.side), SeamSide(b, other.side), same_way=one.upwards == other.upwards,
            lengthwise=rng.random() < 0.4, priority=len(seams),
        )  # fmt: skip
        found = sewn_of(told, drafted)
        assert found is not None
        seams.append(found)
    along = read_bars(rng.choice([CLOTH, NEVER]))
    return asked, seams, ClothToLay(along=along, across=read_bars(CLOTH))


def laid(problem: Problem, seed: int) -> object:
    answer = solve(problem, seed=seed, steps=60, clock=lambda: 0.0)
    assert check_lay(problem_json(problem), lay_json(answer.lay)) == []
    return answer.lay


@pytest.mark.parametrize("seed", range(12))
def test_the_lay_misses_at_each_seam_by_what_a_second_writing_says(seed: int) -> None:
    rng = random.Random(seed)
    pieces, seams, cloth = garment(rng)
    problem = ask(cloth, pieces, LayRules(gap=2.0), 1400.0, seams=seams)
    lay = laid(problem, seed)
    bars, told = bars_laid(cloth), problem_json(problem)
    judged = on_lay(seams, {p.id: p for p in problem.pieces}, lay.cut, bars)  # type: ignore[attr-defined]
    data = lay_json(lay)  # type: ignore[arg-type]
    compared = 0
    for one in judged:
        seam = one.sewn.seam
        pairs = meetings(told, data, seam.a.piece, seam.b.piece, mirrors=one.sewn.mirrors)
        assert len(pairs) == len(one.mets)
        for met, ((copy_a, over_a), (copy_b, over_b)) in zip(one.mets, pairs, strict=True):
            a = on_cloth(list(one.sewn.a), copy_a, reflected=over_a)
            b = on_cloth(list(one.sewn.b), copy_b, reflected=over_b)
            for strip in met.strips:
                k = 0 if strip.axis == "x" else 1
                repeat, axes = ((bars.x_repeat, bars.x_axes), (bars.y_repeat, bars.y_axes))[k]
                shares = (strip.at / one.sewn.lengths[0]).tolist()
                # a bar that misses by half a repeat is as far on either side
                assert abs(strip.off) == pytest.approx(missing_by(a, b, repeat or 1.0, list(axes), k, shares), abs=0.05)
                compared += 1
    assert compared >= 2


@pytest.mark.parametrize("seed", range(12))
def test_what_the_graph_foresees_is_what_the_lay_comes_to(seed: int) -> None:
    """Levels are known before anything is laid; and each seam that the graph can close is within its tolerance at its
    key point on the lay."""
    rng = random.Random(seed)
    pieces, seams, cloth = garment(rng)
    bars = bars_laid(cloth)
    graph = joined_on(cloth, pieces, bars, None, seams)
    problem = ask(cloth, pieces, LayRules(gap=2.0), 1400.0, seams=seams)
    lay = laid(problem, seed)
    ahead = foreseen(seams, graph, bars)
    then = on_lay(seams, {p.id: p for p in problem.pieces}, lay.cut, bars)  # type: ignore[attr-defined]
    for before, after in zip(ahead, then, strict=True):
        for met in after.mets:
            strip = met.of("x")
            assert strip is not None
            if strip.kind == "on":
                # 0.1 mm is what a lay is checked to
                assert strip.worst == pytest.approx(before.mets[0].strips[0].worst, abs=0.2)
            at_key = abs(float(strip.off[abs(strip.at - after.sewn.key_at).argmin()]))
            if strip.kind != "point" and graph.levels.standing[after.sewn.seam.key] != "misses":
                assert at_key <= 0.3
    for one in then:
        if one.sewn.seam.lengthwise and graph.across.standing.get(one.sewn.seam.key) in ("exact", "follows"):
            for met in one.mets:
                strip = met.of("y")
                assert strip is not None
                k = abs(strip.at - one.sewn.key_at).argmin()
                assert strip.kind == "point" or abs(float(strip.off[k])) <= 0.3, (strip.kind, strip.off[k])
