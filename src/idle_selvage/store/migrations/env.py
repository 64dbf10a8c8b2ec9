"""Alembic's entry: run migrations on the file named in the configuration."""

from alembic import context
from sqlalchemy import create_engine

from idle_selvage.store.models import Base

url = context.config.get_main_option("sqlalchemy.url") or ""
engine = create_engine(url)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
