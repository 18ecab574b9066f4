"""`oblatus backup`, `oblatus restore` and the night's work."""

from __future__ import annotations

import os
from argparse import Namespace
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from oblatus.cli.arguments import number
from oblatus.cli.folder import database_in, server_of
from oblatus.core.bounds import Bound
from oblatus.errors import SetUpError
from oblatus.serving.copies import make_copy, prune, put_back
from oblatus.settings import PROJECT
from oblatus.store.accounts import forget_sessions
from oblatus.store.database import Database
from oblatus.store.disk import refuse_when_full
from oblatus.store.migrate import migrate
from oblatus.store.tables import now
from oblatus.usecases.bin import empty_bins

SESSIONS_KEPT = timedelta(days=60)


def add_copies(commands: Any) -> None:
    """Register `backup`, `restore` and `nightly`."""
    backup = commands.add_parser("backup", help="a copy of everything in one file, also while it is served")
    backup.add_argument("file", type=Path, metavar="FILE")
    backup.set_defaults(run=run_backup)
    restore = commands.add_parser("restore", help="put a copy in place of what is there; the application must be stopped")
    restore.add_argument("file", type=Path, metavar="FILE")
    restore.set_defaults(run=run_restore)
    nightly = commands.add_parser(
        "nightly", help="the night's work: a copy, old ones away, bins emptied (./start does it)"
    )
    nightly.add_argument("--copies", type=number("copies", Bound(1, 365, "")), default=7.0)
    nightly.set_defaults(run=run_nightly)
    for parser in (backup, restore, nightly):
        parser.add_argument("--data", type=Path, default=PROJECT / "var")


def run_backup(args: Namespace) -> int:
    """Write the copy."""
    os.umask(0o077)
    with server_of(args.data.resolve()) as server:
        rows = make_copy(server, args.file.resolve())
    print(f"{args.file}: {_counted(rows)}")
    return 0


def run_restore(args: Namespace) -> int:
    """Put the copy back, and bring it to the newest version."""
    os.umask(0o077)
    folder: Path = args.data.resolve()
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    if not args.file.is_file():
        raise SetUpError(f"there is no file {args.file}")
    with server_of(folder, alone=True) as server:
        rows = put_back(server, args.file.resolve())
        owner = Database(server.owner_url())
        migrate(owner.engine)
        owner.engine.dispose()
        server.grant()
    print(f"put back: {_counted(rows)}")
    return 0


def run_nightly(args: Namespace) -> int:
    """A copy, the oldest ones away, bins emptied of what has been there for thirty days, old sessions forgotten."""
    os.umask(0o077)
    folder: Path = args.data.resolve()
    copies = folder / "copies"
    copies.mkdir(exist_ok=True, mode=0o700)
    with database_in(folder) as (server, database):
        refuse_when_full(folder)
        make_copy(server, copies / f"{datetime.now(UTC):%Y-%m-%d-%H%M}.oblatus")
        prune(copies, int(args.copies))
        empty_bins(database)
        with database.transaction() as session:
            forget_sessions(session, now() - SESSIONS_KEPT)
    return 0


def _counted(rows: dict[str, int]) -> str:
    shown = {"fitting": "fittings", "strike": "strikes", "snapshot": "kept proposals", "photo": "photos"}
    return ", ".join(f"{rows.get(table, 0):,} {name}" for table, name in shown.items())
