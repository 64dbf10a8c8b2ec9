"""How a swatch was washed, what an offer is made of, and what the weight and the times of a load rest on"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("swatch", sa.Column("wash", sa.String(length=12), nullable=False, server_default=""))
    op.add_column("swatch", sa.Column("dry", sa.String(length=12), nullable=False, server_default=""))
    op.add_column("swatch", sa.Column("temperature", sa.Integer(), nullable=True))
    op.add_column("offer", sa.Column("same", sa.Boolean(), nullable=False, server_default="0"))
    op.add_column("offer", sa.Column("blend", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("offer", sa.Column("weave", sa.String(length=20), nullable=False, server_default="plain"))
    op.add_column("load_cloth", sa.Column("length", sa.Double(), nullable=True))
    op.add_column("load_cloth", sa.Column("width", sa.Double(), nullable=True))
    op.add_column("load_cloth", sa.Column("mass", sa.Double(), nullable=True))
    op.add_column("load_task", sa.Column("each", sa.Double(), nullable=False, server_default="0.0"))
    op.add_column("load_task", sa.Column("times", sa.Double(), nullable=False, server_default="1.0"))
    op.add_column("load_task", sa.Column("own", sa.Boolean(), nullable=False, server_default="0"))
    # what was typed by hand beside the cloth was meant as that cloth in another width; the shop's list never was
    op.execute("UPDATE offer SET same = 1 WHERE shop_number = ''")
    op.execute("UPDATE load_task SET each = minutes")
    # crinkled cloth shrinks as crinkled cloth, whatever it is made of
    op.execute("""UPDATE cloth SET "like" = 'gauze' WHERE weave = 'gauze' AND "like" <> ''""")


def downgrade() -> None:
    for table, columns in (
        ("load_task", ("own", "times", "each")),
        ("load_cloth", ("mass", "width", "length")),
        ("offer", ("weave", "blend", "same")),
        ("swatch", ("temperature", "dry", "wash")),
    ):
        for column in columns:
            op.drop_column(table, column)
