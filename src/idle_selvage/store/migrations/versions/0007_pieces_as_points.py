"""Pieces are closed runs of points with their own grainline, marks and sizes; a cut may go without allowance"""

import json

import sqlalchemy as sa
from alembic import op

from idle_selvage.core.plan.draft import Draft, DraftPoint, outline_of
from idle_selvage.core.plan.fit import fitted, outline_within
from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.stations import Station, points_from_stations

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

#: Outlines nearer than this are one.
SAME_MM = 0.08


def upgrade() -> None:
    op.add_column("piece", sa.Column("points", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("piece", sa.Column("arrow", sa.JSON(), nullable=True))
    op.add_column("piece", sa.Column("included", sa.Double(), nullable=False, server_default="0.0"))
    op.add_column("piece", sa.Column("notches", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("piece", sa.Column("marks", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("piece", sa.Column("sizes", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("cut", sa.Column("bare", sa.Boolean(), nullable=False, server_default="0"))
    op.add_column("project", sa.Column("size", sa.String(length=20), nullable=False, server_default=""))
    op.add_column("project", sa.Column("size_at", sa.JSON(), nullable=False, server_default="[]"))
    there = op.get_bind().execute(sa.text("SELECT id, outline, stations, smooth, half FROM piece")).all()
    for number, outline, stations, smooth, half in there:
        points = _points(json.loads(outline), json.loads(stations), bool(smooth), bool(half))
        told = [[p.along, p.across, p.smooth, p.straight, p.allowance, p.ends, p.key] for p in points]
        op.get_bind().execute(
            sa.text("UPDATE piece SET points = :points WHERE id = :id"), {"points": json.dumps(told), "id": number}
        )
    for column in ("outline", "stations", "smooth"):
        op.drop_column("piece", column)


def _points(
    outline: list[list[float]], stations: list[list[float]], smooth: bool, half: bool
) -> tuple[DraftPoint, ...]:
    """What was typed, where the outline comes out of it as it was; else with as many points between as it takes, so
    that the piece and its lays stay what they are."""
    was = [(x, y) for x, y in outline]
    try:
        typed = (
            points_from_stations([Station(a, b, c) for a, b, c in stations], smooth=smooth, half=half)
            if stations
            else ()
        )
        if typed and outline_within(typed, tuple(was)) <= SAME_MM:
            return typed
        return fitted(was, SAME_MM, through=[p.at for p in typed], ends=True)
    except (BadPiece, ValueError):
        # nothing is lost: each point of the outline stays one
        return tuple(DraftPoint(x, y, key=key) for key, (x, y) in enumerate(outline, start=1))


def downgrade() -> None:
    op.add_column("piece", sa.Column("outline", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("piece", sa.Column("stations", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("piece", sa.Column("smooth", sa.Boolean(), nullable=False, server_default="1"))
    for number, points, half in op.get_bind().execute(sa.text("SELECT id, points, half FROM piece")).all():
        try:
            ring = outline_of(Draft(tuple(DraftPoint(*row) for row in json.loads(points)), half=bool(half)))
        except BadPiece:
            ring = tuple((row[0], row[1]) for row in json.loads(points))
        op.get_bind().execute(
            sa.text("UPDATE piece SET outline = :outline WHERE id = :id"), {"outline": json.dumps(ring), "id": number}
        )
    for table, columns in (
        ("project", ("size_at", "size")),
        ("cut", ("bare",)),
        ("piece", ("sizes", "marks", "notches", "included", "arrow", "points")),
    ):
        for column in columns:
            op.drop_column(table, column)
