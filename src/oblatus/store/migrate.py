"""Migrations to the newest version, one process at a time."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.util import CommandError
from sqlalchemy import Engine, text

from oblatus.errors import SetUpError

LOCK = 0x0B1A705


def configuration() -> Config:
    """Alembic's configuration, without a file."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


def migrate(engine: Engine, revision: str = "head") -> None:
    """Bring the database to `revision`; an advisory lock keeps two starts apart.

    Raises
    ------
    SetUpError
        If the database is at a version that this program does not know.
    """
    config = configuration()
    with engine.begin() as connection:
        connection.execute(text("select pg_advisory_xact_lock(:key)"), {"key": LOCK})
        config.attributes["connection"] = connection
        try:
            command.upgrade(config, revision)
        except CommandError as error:
            raise SetUpError(
                f"the database was made by another version of Oblatus ({error}): use --data with another folder"
            ) from error
