"""Every change with the rows it touched, to be taken back; warnings set aside; which kind of wash a wash was"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "change",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("window", sa.String(length=40), nullable=False),
        sa.Column("undoes", sa.Integer(), nullable=True),
        sa.Column("undone_by", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(["undoes"], ["change.id"], name=op.f("fk_change_undoes_change")),
        sa.ForeignKeyConstraint(["undone_by"], ["change.id"], name=op.f("fk_change_undone_by_change")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_change")),
    )
    op.create_table(
        "changed_row",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("change_id", sa.Integer(), nullable=False),
        sa.Column("table", sa.String(length=30), nullable=False),
        sa.Column("key", sa.String(length=60), nullable=False),
        sa.Column("how", sa.String(length=4), nullable=False),
        sa.Column("before", sa.JSON(), nullable=False),
        sa.Column("after", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["change_id"], ["change.id"], name=op.f("fk_changed_row_change_id_change"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_changed_row")),
    )
    op.create_index("ix_changed_row_place", "changed_row", ["table", "key"])
    op.create_index(op.f("ix_changed_row_change_id"), "changed_row", ["change_id"])
    op.create_table(
        "aside",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("told", sa.Text(), nullable=False),
        sa.Column("why", sa.String(length=200), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_aside_project_id_project")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_aside")),
    )
    op.create_index(op.f("ix_aside_project_id"), "aside", ["project_id"])
    op.add_column("settings", sa.Column("shop_step", sa.Double(), nullable=True))
    op.add_column("settings", sa.Column("currency", sa.String(length=8), nullable=False, server_default=""))
    op.add_column("settings", sa.Column("asked", sa.Boolean(), nullable=False, server_default="0"))
    # whoever has begun a garment has chosen already
    op.execute("UPDATE settings SET asked = 1 WHERE EXISTS (SELECT 1 FROM project)")
    op.add_column("wash", sa.Column("wash", sa.String(length=12), nullable=False, server_default=""))
    op.add_column("log_entry", sa.Column("change_id", sa.Integer(), nullable=True))
    op.create_index(op.f("ix_log_entry_change_id"), "log_entry", ["change_id"])


def downgrade() -> None:
    op.drop_index(op.f("ix_log_entry_change_id"), "log_entry")
    op.drop_column("log_entry", "change_id")
    op.drop_column("wash", "wash")
    for column in ("asked", "currency", "shop_step"):
        op.drop_column("settings", column)
    op.drop_table("aside")
    op.drop_table("changed_row")
    op.drop_table("change")
