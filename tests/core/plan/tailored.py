"""A tailored garment with the shapes that are hard to tell: drafted from a few measures, in millimetres."""

from __future__ import annotations

from idle_selvage.core.plan.draft import Draft, DraftPoint, Mark, Notch, keyed


def _run(*told: tuple[float, float, str]) -> tuple[DraftPoint, ...]:
    """Points as (along, across, how): “.” a corner, “~” smooth, “-” smooth and then straight on, “|” a corner and then
    straight on."""
    return keyed([DraftPoint(x, y, how in "~-", how in "-|") for x, y, how in told])


def lapel_front() -> Draft:
    """A front with a lapel whose upper corner is cut back, left of the grainline and right of it."""
    points = _run(
        (0, 160, "."), (0, -70, "."), (310, -72, "~"), (420, -100, "~"), (505, -142, "."), (520, -78, "."),
        (556, -86, "."), (640, -10, "."), (618, 120, "."), (560, 96, "~"), (490, 100, "~"), (430, 138, "~"),
        (412, 178, "."), (230, 152, "~"),
    )  # fmt: skip
    return Draft(points, arrow=((60.0, 20.0), (420.0, 20.0)), notches=(Notch(12, 40.0, True),),
                 marks=(Mark("dart", ((300.0, 60.0), (400.0, 70.0), (300.0, 80.0))),
                        Mark("buttons", ((60.0, -50.0), (300.0, -50.0)))))  # fmt: skip


def upper_sleeve() -> Draft:
    """The upper of a two-piece sleeve: its head leans, its two seams bend at the elbow."""
    return Draft(_run(
        (0, 90, "."), (12, -62, "."), (230, -92, "~"), (420, -96, "."), (470, -78, "~"), (535, -20, "~"),
        (548, 30, "~"), (520, 84, "~"), (455, 118, "."), (250, 122, "~"),
    ), arrow=((150.0, 10.0), (430.0, 10.0)))  # fmt: skip


def under_sleeve() -> Draft:
    """The under sleeve: its top is hollow, and both its seams lie to the left of the grainline at the hem."""
    return Draft(_run(
        (0, 60, "."), (8, 10, "."), (230, -30, "~"), (420, -52, "."), (398, -20, "~"), (392, 30, "~"),
        (455, 88, "."), (250, 84, "~"),
    ), arrow=((150.0, 20.0), (360.0, 20.0)))  # fmt: skip


def shawl_front() -> Draft:
    """A front with its shawl collar cut on: one curve from the hem round the neck, with a hook at the shoulder."""
    return Draft(_run(
        (0, 150, "."), (0, -60, "|"), (250, -60, "~"), (420, -110, "~"), (560, -112, "~"), (680, -70, "~"),
        (740, -30, "."), (712, 40, "."), (640, 18, "."), (612, 130, "."), (540, 100, "~"), (450, 120, "~"),
        (410, 170, "."),
    ))  # fmt: skip


def trouser_back() -> Draft:
    """A trouser back: the crotch runs straight down and then round, ahead of the inside leg."""
    return Draft(_run(
        (0, 110, "."), (0, -110, "."), (420, -130, "~"), (690, -190, "."), (700, -120, "~"), (760, -70, "-"),
        (990, -30, "."), (1000, 150, "."), (800, 165, "~"), (420, 128, "~"),
    ), arrow=((150.0, 0.0), (800.0, 0.0)))  # fmt: skip


def under_collar() -> Draft:
    """Half an under collar, told along the collar, its printed arrow on the bias."""
    return Draft(_run(
        (0, 0, "."), (0, -58, "."), (90, -66, "~"), (176, -52, "."), (190, 4, "."), (120, -8, "~"), (50, -6, "~"),
    ), arrow=((70.0, -50.0), (104.0, -16.0)))  # fmt: skip


HARD = {
    "lapel front": lapel_front, "upper sleeve": upper_sleeve, "under sleeve": under_sleeve,
    "shawl front": shawl_front, "trouser back": trouser_back, "under collar": under_collar,
}  # fmt: skip
