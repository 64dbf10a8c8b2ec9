"""Lays with names and changes by hand, which side of folded cloth looks out, and a border along a selvage.

Revision ID: 0011
Revises: 0010
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("cloth_use", sa.Column("sides", sa.String(10), nullable=False, server_default="together"))
    op.add_column("lay", sa.Column("name", sa.String(60), nullable=False, server_default=""))
    op.add_column("lay", sa.Column("changes", sa.Integer(), nullable=False, server_default="0"))
    op.add_column("lay", sa.Column("deleted_at", sa.DateTime(), nullable=True))
    op.create_table(
        "lay_change",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("lay_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("change", sa.JSON(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["lay_id"], ["lay.id"], name=op.f("fk_lay_change_lay_id_lay"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_lay_change")),
    )
    op.create_index(op.f("ix_lay_change_lay_id"), "lay_change", ["lay_id"])
    op.add_column("cloth", sa.Column("border", sa.String(4), nullable=False, server_default=""))
    op.add_column("cloth", sa.Column("border_kind", sa.String(12), nullable=False, server_default="print"))
    op.add_column("cloth", sa.Column("border_deep", sa.Double(), nullable=False, server_default="0.0"))


def downgrade() -> None:
    for column in ("border_deep", "border_kind", "border"):
        op.drop_column("cloth", column)
    op.drop_index(op.f("ix_lay_change_lay_id"), "lay_change")
    op.drop_table("lay_change")
    for column in ("deleted_at", "changes", "name"):
        op.drop_column("lay", column)
    op.drop_column("cloth_use", "sides")
