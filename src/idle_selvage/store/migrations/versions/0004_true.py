"""True: fold tests, and what was read at the table"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "true_test",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("place", sa.Double(), nullable=False),
        sa.Column("offset", sa.Double(), nullable=False),
        sa.Column("bow", sa.Double(), nullable=False),
        sa.Column("done", sa.String(length=20), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], name=op.f("fk_true_test_cloth_id_cloth")),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_true_test_project_id_project")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_true_test")),
    )
    op.create_index(op.f("ix_true_test_cloth_id"), "true_test", ["cloth_id"])
    op.create_index(op.f("ix_true_test_project_id"), "true_test", ["project_id"])
    op.create_table(
        "true_sheet",
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("now", sa.JSON(), nullable=False),
        sa.Column("edge", sa.JSON(), nullable=False),
        sa.Column("fold", sa.JSON(), nullable=False),
        sa.Column("ripple", sa.String(length=5), nullable=False),
        sa.Column("checks", sa.JSON(), nullable=False),
        sa.Column("bars", sa.JSON(), nullable=False),
        sa.Column("bands", sa.JSON(), nullable=False),
        sa.Column("school", sa.String(length=5), nullable=False),
        sa.Column("accepted", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_true_sheet_project_id_project")),
        sa.PrimaryKeyConstraint("project_id", name=op.f("pk_true_sheet")),
    )
    with op.batch_alter_table("project") as table:
        table.add_column(sa.Column("first_end", sa.Double(), nullable=True))
        table.add_column(sa.Column("cut_off", sa.Double(), nullable=False, server_default="0.0"))


def downgrade() -> None:
    raise NotImplementedError("Going back would lose what was entered since; restore a backup instead.")
