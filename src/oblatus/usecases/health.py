"""What is wrong with the machine: database, disk, memory, bridge, devices, copies."""

from __future__ import annotations

import time
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Literal

from sqlalchemy.exc import SQLAlchemyError

from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.disk import Room, room
from oblatus.store.repositories import wanted_links
from oblatus.store.tables import LinkRow, now

HEARD_SECONDS = 6.0
BEAT_SECONDS = 10.0
LOW_MEMORY_BYTES = 200_000_000
LATE_DAYS = 2.5
BEAT = "bridge.beat"

DatabaseState = Literal["ok", "down"]
MemoryState = Literal["ok", "low"]
BridgeState = Literal["ok", "down", "none"]
DevicesState = Literal["ok", "lost", "none"]
CopyState = Literal["ok", "late", "none"]


@dataclass(frozen=True, slots=True)
class Health:
    """State of each part."""

    database: DatabaseState
    disk: Room
    memory: MemoryState
    bridge: BridgeState
    devices: DevicesState
    backup: CopyState

    def wrong(self) -> list[str]:
        """What is wrong, in words."""
        words = {
            "database": ("down", "the database does not answer"),
            "disk": ("full", "the disk is full: nothing can be saved"),
            "memory": ("low", "little memory is left"),
            "bridge": ("down", "the bridge to the devices does not run"),
            "devices": ("lost", "a device that is wanted does not answer"),
            "backup": ("late", "the last nightly copy is more than two days old"),
        }
        found = [text for part, (state, text) in words.items() if getattr(self, part) == state]
        return [*found, "little room is left on the disk"] if self.disk == "low" else found


def health_of(database: Database, settings: Settings) -> Health:
    """How everything is at this moment."""
    try:
        up = database.answers()
        links = _links(database) if up else []
    except SQLAlchemyError:
        up, links = False, []
    return Health(
        database="ok" if up else "down",
        disk=room(settings.data_dir),
        memory="low" if _memory_left() < LOW_MEMORY_BYTES else "ok",
        bridge=_bridge(settings.data_dir),
        devices="none" if not links else "ok" if all(state_of(row) == "live" for row in links) else "lost",
        backup=_backup(settings.data_dir),
    )


def state_of(row: LinkRow, moment: datetime | None = None) -> str:
    """The state of a device: live only while the bridge goes on taking its lines."""
    if row.state != "live":
        return row.state
    heard = row.heard_at
    return "live" if heard is not None and (moment or now()) - heard < timedelta(seconds=HEARD_SECONDS) else "lost"


def _links(database: Database) -> list[LinkRow]:
    with database.transaction() as session:
        return list(wanted_links(session))


def _bridge(folder: Path | None) -> BridgeState:
    if folder is None:
        return "none"
    try:
        return "ok" if time.time() - (folder / "run" / BEAT).stat().st_mtime < BEAT_SECONDS else "down"
    except FileNotFoundError:
        return "down"


def _backup(folder: Path | None) -> CopyState:
    """Late when the newest nightly copy is old; none before the first night."""
    if folder is None:
        return "none"
    copies = [path.stat().st_mtime for path in (folder / "copies").glob("*.oblatus")]
    if not copies:
        return "none"
    return "ok" if time.time() - max(copies) < LATE_DAYS * 86400 else "late"


def _memory_left() -> int:
    for line in Path("/proc/meminfo").read_text().splitlines():
        if line.startswith("MemAvailable:"):
            return 1024 * int(line.split()[1])
    return LOW_MEMORY_BYTES
