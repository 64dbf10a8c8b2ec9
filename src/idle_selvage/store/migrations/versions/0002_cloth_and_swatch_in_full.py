"""Cloth and swatch in full, loads"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

#: what the one word of the first version comes to: (fibre, weave, finish)
_KINDS = {
    "cotton": ("cotton", "plain", ""),
    "flannel": ("cotton", "flannel", ""),
    "gauze": ("cotton", "gauze", ""),
    "denim-raw": ("cotton", "denim", "raw"),
    "denim-washed": ("cotton", "denim", "washed"),
    "velveteen": ("cotton", "velveteen", ""),
    "linen": ("linen", "plain", ""),
    "viscose": ("viscose", "plain", ""),
    "lyocell": ("lyocell", "plain", ""),
    "silk": ("silk", "plain", ""),
    "wool": ("wool", "plain", ""),
    "polyester": ("polyester", "plain", ""),
    "nylon": ("nylon", "plain", ""),
    "acetate": ("acetate", "plain", ""),
    "fur": ("polyester", "fur", ""),
}


def _fibres_from_kinds() -> None:
    bind = op.get_bind()
    for kind, (fibre, weave, finish) in _KINDS.items():
        bind.execute(
            sa.text(
                'UPDATE cloth SET blend = :blend, weave = :weave, finish = :finish, "like" = :kind WHERE kind = :kind'
            ),
            {"blend": f'[["{fibre}", 100.0]]', "weave": weave, "finish": finish, "kind": kind},
        )
    bind.execute(sa.text("UPDATE cloth SET direction = 'nap' WHERE one_way"))


def upgrade() -> None:
    op.create_table(
        "wash_load",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("why", sa.Text(), nullable=False),
        sa.Column("kilograms", sa.Double(), nullable=False),
        sa.Column("metres", sa.Double(), nullable=False),
        sa.Column("too_heavy", sa.Boolean(), nullable=False),
        sa.Column("cloths", sa.JSON(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wash_load")),
    )
    op.create_table(
        "load_task",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("load_id", sa.Integer(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("what", sa.String(length=60), nullable=False),
        sa.Column("machine", sa.String(length=10), nullable=False),
        sa.Column("minutes", sa.Integer(), nullable=False),
        sa.Column("bound", sa.String(length=6), nullable=False),
        sa.Column("learn", sa.String(length=20), nullable=False),
        sa.Column("start_at", sa.DateTime(), nullable=False),
        sa.Column("end_at", sa.DateTime(), nullable=False),
        sa.Column("started_at", sa.DateTime(), nullable=True),
        sa.Column("finished_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["load_id"], ["wash_load.id"], name=op.f("fk_load_task_load_id_wash_load"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_load_task")),
    )
    op.create_index(op.f("ix_load_task_learn"), "load_task", ["learn"], unique=False)
    op.create_index(op.f("ix_load_task_load_id"), "load_task", ["load_id"], unique=False)

    op.create_table(
        "photo",
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("jpeg", sa.LargeBinary(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], name=op.f("fk_photo_cloth_id_cloth"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("cloth_id", name=op.f("pk_photo")),
    )
    op.create_table(
        "wash",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("how", sa.String(length=120), nullable=False),
        sa.Column("grade", sa.Integer(), nullable=True),
        sa.Column("length_after", sa.Double(), nullable=True),
        sa.Column("width_after", sa.Double(), nullable=True),
        sa.Column("simulated", sa.Boolean(), nullable=False),
        sa.Column("task_id", sa.Integer(), nullable=True),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["task_id"], ["load_task.id"], name=op.f("fk_wash_task_id_load_task"), ondelete="SET NULL"
        ),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], name=op.f("fk_wash_cloth_id_cloth"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wash")),
    )
    op.create_index(op.f("ix_wash_cloth_id"), "wash", ["cloth_id"], unique=False)

    op.create_table(
        "set_cloth",
        sa.Column("project_id", sa.Integer(), nullable=False),
        sa.Column("cloth_id", sa.Integer(), nullable=False),
        sa.Column("role", sa.String(length=20), nullable=False),
        sa.ForeignKeyConstraint(["cloth_id"], ["cloth.id"], name=op.f("fk_set_cloth_cloth_id_cloth")),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], name=op.f("fk_set_cloth_project_id_project")),
        sa.PrimaryKeyConstraint("project_id", "cloth_id", name=op.f("pk_set_cloth")),
    )
    op.add_column("cloth", sa.Column("blend", sa.JSON(), server_default="[]", nullable=False))
    op.add_column("cloth", sa.Column("weave", sa.String(length=20), server_default="plain", nullable=False))
    op.add_column("cloth", sa.Column("finish", sa.String(length=20), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("colouring", sa.String(length=20), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("like", sa.String(length=30), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("direction", sa.String(length=10), server_default="none", nullable=False))
    op.add_column("cloth", sa.Column("pile", sa.String(length=5), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("pile_why", sa.String(length=120), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("wales", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("face", sa.String(length=120), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("face_mark", sa.String(length=120), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("reversible", sa.Boolean(), server_default="0", nullable=False))
    op.add_column("cloth", sa.Column("rub_grade", sa.Integer(), nullable=True))
    op.add_column("cloth", sa.Column("flaws", sa.JSON(), server_default="[]", nullable=False))
    op.add_column("cloth", sa.Column("shop_fold", sa.Double(), nullable=True))
    op.add_column("cloth", sa.Column("answers", sa.JSON(), server_default="{}", nullable=False))
    op.add_column("cloth", sa.Column("style_number", sa.String(length=120), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("place", sa.String(length=120), server_default="", nullable=False))
    op.add_column("cloth", sa.Column("treated", sa.Boolean(), server_default="0", nullable=False))
    op.add_column("cloth", sa.Column("deleted_at", sa.DateTime(), nullable=True))
    op.create_index(op.f("ix_cloth_like"), "cloth", ["like"], unique=False)
    _fibres_from_kinds()
    op.drop_column("cloth", "kind")
    op.drop_column("cloth", "one_way")

    op.add_column("lay", sa.Column("basis", sa.JSON(), server_default="{}", nullable=False))
    op.add_column("project", sa.Column("school", sa.String(length=10), server_default="", nullable=False))

    op.add_column("settings", sa.Column("washer_kg", sa.Double(), server_default="7.0", nullable=False))
    op.add_column("settings", sa.Column("rise", sa.Integer(), server_default="420", nullable=False))
    op.add_column("settings", sa.Column("sleep", sa.Integer(), server_default="1320", nullable=False))

    op.add_column("swatch", sa.Column("diagonals", sa.JSON(), server_default="[]", nullable=False))
    op.add_column("swatch", sa.Column("used", sa.Boolean(), server_default="1", nullable=False))
    op.add_column("swatch", sa.Column("simulated", sa.Boolean(), server_default="0", nullable=False))
