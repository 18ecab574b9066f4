"""`oblatus prepare`: bring the database of a data folder up to date, and make its studio. `serve` runs it first.

In a process of its own: what it imports would stay in the supervisor's memory for as long as it serves.
"""

from __future__ import annotations

from argparse import Namespace
from pathlib import Path
from typing import Any

from oblatus.cli.serve import PUBLISHED, say
from oblatus.cli.users import ask_fitter
from oblatus.errors import SetUpError
from oblatus.serving.supervisor import signals_as_exit
from oblatus.settings import PROJECT, Settings
from oblatus.store.database import Database
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer, secret_in
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD, seed_once
from oblatus.usecases.users import no_fitter_yet


def add_prepare(commands: Any) -> None:
    """Register `prepare`."""
    parser = commands.add_parser("prepare", help="migrate a served folder's database, make its studio (serve does it)")
    parser.add_argument("--data", type=Path, default=PROJECT / "var")
    parser.add_argument("--empty", action="store_true", help="no demo data: asks for the fitter's name and password")
    parser.set_defaults(run=run_prepare)


def run_prepare(args: Namespace) -> int:
    """Migrate and seed; what the published sign-in is, while it works, is left in a file for the supervisor to say.

    Raises
    ------
    SetUpError
        If PostgreSQL does not run in the folder.
    """
    with signals_as_exit():  # serve gets them too, and says so
        return _prepare(args.data.resolve(), empty=args.empty)


def _prepare(folder: Path, *, empty: bool) -> int:
    server = LocalServer(folder)
    if not server.running():
        raise SetUpError(f"no PostgreSQL runs in {folder}: ./start runs it")
    say("Migrating the database ...")
    owner = Database(server.owner_url())
    migrate(owner.engine)
    owner.engine.dispose()
    server.grant()
    database = Database(server.url())
    first = ask_fitter() if empty and no_fitter_yet(database) else None
    settings = Settings(server.url(), secret_in(folder / "secret"), data_dir=folder)
    if seed_once(database, settings, demo=not empty, first=first):
        say("Made the studio" + (", empty." if empty else " with the demo data."))
    works = not no_fitter_yet(database, demo=True)
    (folder / PUBLISHED).write_text(f"sign in: {DEMO_EMAIL}, password: {DEMO_PASSWORD}" if works else "")
    database.engine.dispose()
    return 0
