"""Seams between the edges of pieces, and which bar falls where; groups of pieces that met become seams.

Revision ID: 0012
Revises: 0011
"""

from __future__ import annotations

import json
from itertools import pairwise
from typing import Any

import sqlalchemy as sa
from alembic import op

from idle_selvage.core.plan.draft import Draft, DraftPoint
from idle_selvage.core.plan.drawn import HowCut, piece_of
from idle_selvage.core.plan.outline import BadPiece
from idle_selvage.core.plan.sewn_level import LevelSide, level_sides

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None

#: What pieces cut along the cloth meet at was told for the garment, not for one cloth.
_HERE = "SELECT id, project_id, name, points, half, included, meets, meets_at, created_at FROM piece WHERE meets <> ''"


def upgrade() -> None:
    op.create_table(
        "seam",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("kind", sa.String(8), nullable=False),
        *(
            column
            for side in ("a", "b")
            for column in (
                sa.Column(f"{side}_piece_id", sa.Integer(), nullable=False),
                sa.Column(f"{side}_begin", sa.Integer(), nullable=side == "b"),
                sa.Column(f"{side}_begin_at", sa.Double(), nullable=False),
                sa.Column(f"{side}_end", sa.Integer(), nullable=side == "b"),
                sa.Column(f"{side}_end_at", sa.Double(), nullable=False),
            )
        ),
        sa.Column("b_along", sa.Double(), nullable=True),
        sa.Column("b_across", sa.Double(), nullable=True),
        sa.Column("same_way", sa.Boolean(), nullable=False),
        sa.Column("longer", sa.String(1), nullable=False),
        sa.Column("ease", sa.Double(), nullable=False),
        sa.Column("spread_from", sa.Double(), nullable=False),
        sa.Column("spread_to", sa.Double(), nullable=False),
        sa.Column("key_a", sa.Double(), nullable=True),
        sa.Column("key_b", sa.Double(), nullable=True),
        sa.Column("levels", sa.Boolean(), nullable=False),
        sa.Column("lengthwise", sa.Boolean(), nullable=False),
        sa.Column("priority", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_seam_project_id_project")),
        sa.ForeignKeyConstraint(
            ["a_piece_id"], ["piece.id"], name=op.f("fk_seam_a_piece_id_piece"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["b_piece_id"], ["piece.id"], name=op.f("fk_seam_b_piece_id_piece"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_seam")),
    )
    for column in ("project_id", "a_piece_id", "b_piece_id"):
        op.create_index(op.f(f"ix_seam_{column}"), "seam", [column])
    op.create_table(
        "bar_wish",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("use_id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("way", sa.String(10), nullable=False),
        sa.Column("at", sa.Double(), nullable=False),
        sa.Column("bar", sa.Double(), nullable=False),
        sa.ForeignKeyConstraint(
            ["use_id"], ["cloth_use.id"], name=op.f("fk_bar_wish_use_id_cloth_use"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["piece_id"], ["piece.id"], name=op.f("fk_bar_wish_piece_id_piece"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_bar_wish")),
        sa.UniqueConstraint("use_id", "piece_id", "way", name="uq_bar_wish_use_id"),
    )
    for column in ("use_id", "piece_id"):
        op.create_index(op.f(f"ix_bar_wish_{column}"), "bar_wish", [column])
    op.add_column("piece", sa.Column("corners", sa.JSON(), nullable=False, server_default="[]"))
    groups: dict[tuple[int, str], list[Any]] = {}
    for row in op.get_bind().execute(sa.text(_HERE + " AND deleted_at IS NULL ORDER BY id")).all():
        groups.setdefault((row.project_id, row.meets), []).append(row)
    for (project, name), members in groups.items():
        _sewn(project, name, members)
    op.drop_column("piece", "meets")
    op.drop_column("piece", "meets_at")


def _sewn(project: int, name: str, members: list[Any]) -> None:
    """The seams of one group: each piece to the next one, or one piece to its own other side."""
    pairs = []
    if len(members) == 1:
        sides = _sides(members[0])
        pairs = [(members[0], sides[0], members[0], sides[-1])] if sides else []
    else:
        found = [(row, _sides(row)) for row in members]
        told = [(row, sides[0]) for row, sides in found if sides]
        pairs = [(a, one, b, other) for (a, one), (b, other) in pairwise(told)]
    for number, (a, one, b, other) in enumerate(pairs, start=1):
        same_way = one.upwards == other.upwards
        op.get_bind().execute(
            sa.text(
                "INSERT INTO seam (project_id, name, kind, a_piece_id, a_begin, a_begin_at, a_end, a_end_at, "
                "b_piece_id, b_begin, b_begin_at, b_end, b_end_at, same_way, longer, ease, spread_from, spread_to, "
                "key_a, key_b, levels, lengthwise, priority, created_at) VALUES (:project, :name, 'sewn', :a, :a0, 0, "
                ":a1, 0, :b, :b0, 0, :b1, 0, :same, '', 0, 0, 1, :ka, :kb, 1, 0, :priority, :at)"
            ),
            {
                "project": project, "name": name, "a": a.id, "a0": one.side.begin.after, "a1": one.side.end.after,
                "b": b.id, "b0": other.side.begin.after, "b1": other.side.end.after, "same": same_way,
                "ka": one.key, "kb": other.key if same_way else other.long - other.key, "priority": number,
                "at": a.created_at,
            },
        )  # fmt: skip


def _sides(row: Any) -> tuple[LevelSide, ...]:
    draft = Draft(tuple(DraftPoint(*point) for point in json.loads(row.points)), bool(row.half), included=row.included)
    try:
        return level_sides(draft, piece_of(row.name, draft, HowCut(on_fold=bool(row.half))), row.meets_at)
    except BadPiece:
        return ()


def downgrade() -> None:
    op.add_column("piece", sa.Column("meets", sa.String(40), nullable=False, server_default=""))
    op.add_column("piece", sa.Column("meets_at", sa.Double(), nullable=False, server_default="0.0"))
    op.drop_column("piece", "corners")
    op.drop_table("bar_wish")
    op.drop_table("seam")
