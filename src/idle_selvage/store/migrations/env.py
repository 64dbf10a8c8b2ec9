"""Alembic's entry: run migrations on the file named in the configuration."""

from alembic import context
from sqlalchemy import create_engine, event

from idle_selvage.store.models.base import Base

engine = create_engine(context.config.attributes["address"])


@event.listens_for(engine, "connect")
def _by_hand(connection, _record):  # type: ignore[no-untyped-def]
    # the driver would not begin before a change of tables; all of a migration is done, or none of it
    connection.isolation_level = None


@event.listens_for(engine, "begin")
def _begin(connection):  # type: ignore[no-untyped-def]
    connection.exec_driver_sql("BEGIN IMMEDIATE")


with engine.connect() as connection:
    context.configure(
        connection=connection, target_metadata=Base.metadata, render_as_batch=True, transactional_ddl=True
    )
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
