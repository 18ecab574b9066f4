"""`oblatus bridge`: from devices into the database."""

from __future__ import annotations

import os
from argparse import Namespace
from typing import Any

from oblatus.cli.leaving import leave_politely
from oblatus.errors import SetUpError
from oblatus.logs import quiet_threads
from oblatus.settings import settings_from
from oblatus.store.database import Database
from oblatus.usecases.bridge import Bridge, connect_to


def add_bridge(commands: Any) -> None:
    """Register `bridge`."""
    parser = commands.add_parser("bridge", help="take the lines of every wanted device into the database")
    parser.set_defaults(run=run_bridge)


def run_bridge(_: Namespace) -> int:
    """Serve every wanted device until told to stop; settings come from the environment, as the web server's."""
    settings = settings_from(os.environ)
    if not settings.devices:
        raise SetUpError("OBLATUS_DEVICES must be set to the devices' addresses, monitor=host:port …; ./start does that")
    leave_politely()
    quiet_threads()
    connect = connect_to(settings.devices, settings.device_token)
    Bridge(Database(settings.database_url), connect, settings.data_dir).run()
    return 0
