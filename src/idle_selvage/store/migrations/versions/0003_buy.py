"""Buy: what pieces meet, trials, offers, sheets"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "trial",
        sa.Column("fingerprint", sa.String(length=16), nullable=False),
        sa.Column("problem", sa.JSON(), nullable=False),
        sa.Column("lays", sa.JSON(), nullable=False),
        sa.Column("why", sa.Text(), nullable=False),
        sa.Column("wide", sa.JSON(), nullable=False),
        sa.Column("seconds", sa.Double(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("fingerprint", name=op.f("pk_trial")),
    )
    op.create_table(
        "offer",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("width", sa.Double(), nullable=False),
        sa.Column("margin", sa.Double(), nullable=False),
        sa.Column("price", sa.Double(), nullable=True),
        sa.Column("price_unit", sa.String(length=2), nullable=False),
        sa.Column("warp", sa.Double(), nullable=True),
        sa.Column("weft", sa.Double(), nullable=True),
        sa.Column("step", sa.Double(), nullable=False),
        sa.Column("least", sa.Double(), nullable=False),
        sa.Column("stock", sa.Double(), nullable=True),
        sa.Column("shop_number", sa.String(length=20), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_offer_project_id_project")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_offer")),
    )
    op.create_index(op.f("ix_offer_project_id"), "offer", ["project_id"])
    op.create_table(
        "buy_sheet",
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("envelope", sa.JSON(), nullable=False),
        sa.Column("strips", sa.JSON(), nullable=False),
        sa.Column("together", sa.JSON(), nullable=False),
        sa.Column("items", sa.JSON(), nullable=False),
        sa.Column("have", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_buy_sheet_project_id_project")),
        sa.PrimaryKeyConstraint("project_id", name=op.f("pk_buy_sheet")),
    )
    with op.batch_alter_table("project") as table:
        table.add_column(sa.Column("edge_way", sa.String(length=10), nullable=False, server_default=""))
        table.add_column(sa.Column("bought_extra", sa.Double(), nullable=False, server_default="0.0"))
        table.add_column(sa.Column("extra_why", sa.String(length=120), nullable=False, server_default=""))
    with op.batch_alter_table("piece") as table:
        table.add_column(sa.Column("meets", sa.String(length=40), nullable=False, server_default=""))
        table.add_column(sa.Column("meets_at", sa.Double(), nullable=False, server_default="0.0"))
        table.add_column(sa.Column("centred", sa.Boolean(), nullable=False, server_default="0"))
        table.add_column(sa.Column("hidden", sa.Boolean(), nullable=False, server_default="0"))
        table.add_column(sa.Column("hem", sa.Boolean(), nullable=False, server_default="0"))


def downgrade() -> None:
    raise NotImplementedError("Going back would lose what was entered since; restore a backup instead.")
