"""The database of a data folder, for commands of the shell, whether or not the application is being served."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from oblatus.errors import SetUpError
from oblatus.serving.supervisor import only_one
from oblatus.store.database import Database
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer


@contextmanager
def server_of(folder: Path, *, alone: bool = False) -> Iterator[LocalServer]:
    """The folder's PostgreSQL, started for the block if it does not run. `alone` insists that nothing is being served.

    Raises
    ------
    SetUpError
        If there is no data folder, or with `alone` if the application is served from it.
    """
    if not folder.is_dir():
        raise SetUpError(f"there is no data folder {folder}: ./start makes one, or give --data")
    server = LocalServer(folder)
    if server.running() and not alone:
        yield server
        return
    with only_one(folder):
        server.start()
        try:
            yield server
        finally:
            server.stop()


@contextmanager
def database_in(folder: Path) -> Iterator[tuple[LocalServer, Database]]:
    """The folder's PostgreSQL and its database at the newest version; raises as `server_of`."""
    with server_of(folder) as server:
        owner = Database(server.owner_url())
        migrate(owner.engine)
        owner.engine.dispose()
        server.grant()
        database = Database(server.url())
        try:
            yield server, database
        finally:
            database.engine.dispose()
