"""The bridge: takes the lines of every wanted device into the database, once each, and keeps trying."""

from __future__ import annotations

import contextlib
import logging
import math
import threading
import time
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any
from uuid import UUID

from pydantic import ValidationError
from sqlalchemy.exc import DataError, IntegrityError, SQLAlchemyError

from oblatus.core.words import shortened
from oblatus.devices.driver import Driver, LineDriver
from oblatus.devices.protocol import Hello, LineError, ReadingLine, StrikeLine, TroubleLine
from oblatus.errors import Fault, InputError, NotFoundError, fault
from oblatus.formats.convert import fitting_from
from oblatus.formats.differences import name_of, words_of
from oblatus.formats.fields import Strict, faults_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.readings import FIGURES
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.choices import Choice, chosen_at, note_loft
from oblatus.store.database import Database
from oblatus.store.disk import room
from oblatus.store.grounds_and_bags import StudioReadings
from oblatus.store.repositories import StudioRows, wanted_links
from oblatus.store.tables import LONGEST_REFUSAL, LinkRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.health import BEAT
from oblatus.usecases.link_instrument import INSTRUMENTS, instrument_arm
from oblatus.usecases.link_monitor import arm_message, head_of
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.strikes_of import measured, strikes_of

LOG = logging.getLogger(__name__)
POLL_SECONDS = 0.25
RETRY_SECONDS = 1.0
HEARD_EVERY_SECONDS = 2.0
CLOCK_SECONDS, CLOCK_AHEAD = 2.0, 3600.0
CLOCK_LOSES = 1e-3
"""Of every second a device's clock may lose so much beside ours."""

Connect = Callable[[str, str], Driver]
"""A driver for a kind of device and the fitting that listens to it."""


def connect_to(devices: Mapping[str, str], token: str = "") -> Connect:
    """Drivers for devices at host:port, by their kind, that show the token. A device of another make gets its driver
    here."""

    def connect(kind: str, listener: str) -> Driver:
        if kind not in devices:
            raise OSError(f"no {kind} is set up")
        host, _, port = devices[kind].rpartition(":")
        return LineDriver(host, int(port), listener, token)

    return connect


class Bridge:
    """One thread a wanted device; the database says which are wanted and what is hit next."""

    def __init__(self, database: Database, connect: Connect, data_dir: Path | None = None) -> None:
        self.database, self.connect, self.data_dir = database, connect, data_dir
        self._stop = threading.Event()
        self._threads: dict[tuple[UUID, str], threading.Thread] = {}

    def run(self) -> None:
        """Serve until `close`; a database that is away is waited for."""
        while not self._stop.is_set():
            self._beat()
            try:
                with self.database.transaction() as session:
                    wanted = [(row.fitting_id, row.kind, row.studio_id) for row in wanted_links(session)]
            except SQLAlchemyError as error:
                LOG.warning("the database does not answer: %s", type(error).__name__)
                self._stop.wait(RETRY_SECONDS)
                continue
            for fitting_id, kind, studio_id in wanted:
                thread = self._threads.get((fitting_id, kind))
                if thread is None or not thread.is_alive():
                    link = LINKS[kind](self, fitting_id, studio_id, kind)
                    thread = threading.Thread(target=link.serve, name=f"{kind} {fitting_id}", daemon=True)
                    self._threads[fitting_id, kind] = thread
                    thread.start()
            self._stop.wait(POLL_SECONDS)

    def wait_for_room(self) -> None:
        """Wait until the disk takes another line, so that no later one is kept before it; the device keeps what it
        sends meanwhile."""
        while not self.has_room() and not self.stopping:
            self.rest()

    def has_room(self) -> bool:
        """Whether the disk takes another line."""
        return room(self.data_dir) != "full"

    def _beat(self) -> None:
        """Show that the bridge runs."""
        if self.data_dir is not None:
            with contextlib.suppress(OSError):  # on a full disk the last beat grows old, which is what health looks at
                (self.data_dir / "run" / BEAT).touch()

    def start(self) -> Bridge:
        """Run in a thread of its own."""
        threading.Thread(target=self.run, name="bridge", daemon=True).start()
        return self

    def close(self) -> None:
        """Stop; what was not acknowledged is sent again to the next bridge."""
        self._stop.set()
        for thread in self._threads.values():
            thread.join(5.0)

    @property
    def stopping(self) -> bool:
        """Whether it was told to stop."""
        return self._stop.is_set()

    def rest(self) -> None:
        """Wait before the next try."""
        self._stop.wait(RETRY_SECONDS)


class _Link:
    """One device of one fitting."""

    def __init__(self, bridge: Bridge, fitting_id: UUID, studio_id: UUID, kind: str) -> None:
        self.bridge, self.fitting_id, self.kind = bridge, fitting_id, kind
        self.actor = Actor(UUID(int=0), studio_id, "bridge")
        self.armed = -1
        self.latest: tuple[int, float] | None = None
        self.connected_anew = False
        self.behind, self.behind_at = math.inf, 0.0

    def arm_with(self, rows: StudioRows, row: LinkRow) -> dict[str, Any]:
        """What the device is told of what comes next.

        Raises
        ------
        InputError
            If the fitting no longer has it.
        """
        raise NotImplementedError

    def keep(self, line: StrikeLine | ReadingLine, rows: StudioRows, row: LinkRow, chosen: Choice) -> int:
        """Keep a line's measurement for what was chosen when it was measured. Returns how many were new.

        Raises
        ------
        InputError
            If a figure is absurd, or the line is not one of this kind of device.
        """
        raise NotImplementedError

    def serve(self) -> None:
        """Connect, take lines, try again when the device or the database goes away, until nobody wants it."""
        while not self.bridge.stopping:
            try:
                if not self._wanted():
                    return
                driver = self.bridge.connect(self.kind, str(self.fitting_id))
            except NotFoundError:
                return
            except (OSError, SQLAlchemyError) as error:
                self._say(state="lost", refusal=f"no connection: {error}"[:200])
                self.bridge.rest()
                continue
            try:
                self.armed, self.connected_anew = -1, True
                self._take(driver)
            except NotFoundError:
                return  # the fitting was removed
            except (OSError, SQLAlchemyError) as error:
                LOG.warning("%s of %s: %s", self.kind, self.fitting_id, type(error).__name__)
            finally:
                driver.close()
            if self.bridge.stopping:
                return
            self._say(state="lost")
            self.bridge.rest()

    def _take(self, driver: Driver) -> None:
        for line in driver.lines():
            if line is None and not self.bridge.stopping and not self.bridge.has_room():
                continue  # the next line is to be heard when it comes
            measured = line if isinstance(line, (StrikeLine, ReadingLine)) else None
            made_at = None if measured is None else self._made_at(measured, time.time())
            self.bridge.wait_for_room()
            try:
                if self.bridge.stopping or not self._step(driver, measured, made_at):
                    return
            except (DataError, IntegrityError, UnicodeError) as error:
                if measured is None:
                    raise
                LOG.warning("a line of %s was not taken: %s", self.kind, type(error).__name__)
                self._refuse("a line holds what cannot be kept")
                driver.refuse(measured.seq, "holds what cannot be kept")
                continue
            if measured is not None:
                driver.acknowledge(measured.seq)
                self._watch_clock(measured)
            elif isinstance(line, Hello):
                self._say(state="live", device=line.serial, simulated=line.simulated)
            elif isinstance(line, TroubleLine):
                self._refuse(f"the device says: {line.words}")
                driver.acknowledge(line.seq)
            elif isinstance(line, LineError):
                self._refuse(f"a line {line.message}")

    def _made_at(self, line: StrikeLine | ReadingLine, heard: float) -> float | None:
        """When a measurement was made [s since 1970], as far as the device tells.

        A line may have waited to be read: then the device's clock tells more, which is behind ours by the least that
        lines have shown, and by what it may have lost since.
        """
        if line.ago is None:
            return None
        made_at = heard - line.ago
        if line.clock is None:
            return made_at
        if self._went_back(line):
            self.behind = math.inf
        behind = self.behind + CLOCK_LOSES * (heard - self.behind_at)
        if made_at - line.clock <= behind:
            self.behind, self.behind_at = made_at - line.clock, heard
            return made_at
        return line.clock + behind

    def _went_back(self, line: StrikeLine | ReadingLine) -> bool:
        """Whether the device's clock went back since the line before."""
        before = self.latest
        return (
            before is not None
            and line.clock is not None
            and line.seq > before[0]
            and line.clock < before[1] - CLOCK_SECONDS
        )

    def _watch_clock(self, line: StrikeLine | ReadingLine) -> None:
        """Flag a device whose clock goes back from one line to the next, or is far ahead of ours, once each time.

        A line that comes late or once more tells nothing of the clock now; after a new connection a lower number may be
        a device that was started anew.
        """
        if line.clock is None:
            return
        if self.latest is not None and line.seq <= self.latest[0] and not self.connected_anew:
            return
        went_back = self._went_back(line)
        before, self.latest, self.connected_anew = self.latest, (line.seq, line.clock), False
        if before is not None and went_back:
            self._refuse(f"the device's clock went back by {before[1] - line.clock:.0f} s; strikes stand as they came")
        ahead = line.clock - time.time()
        if ahead > CLOCK_AHEAD and (before is None or before[1] - time.time() <= CLOCK_AHEAD):
            self._refuse(f"the device's clock is {ahead / 3600:.1f} h ahead; strikes stand as they came")

    def _wanted(self) -> bool:
        with self.bridge.database.transaction() as session:
            row = StudioRows(session, self.actor.studio_id).link(self.fitting_id, self.kind)
            return row is not None and row.wanted

    def _step(self, driver: Driver, line: StrikeLine | ReadingLine | None, made_at: float | None) -> bool:
        """Tell the device what comes next whenever that changed, and keep a measurement; False once nobody wants it.

        `made_at` is when it was made [s since 1970], if that is known. One transaction: what is armed, the measurement
        and the counts go together.
        """
        message: dict[str, Any] | None = None
        with self.bridge.database.transaction() as session:
            rows = StudioRows(session, self.actor.studio_id)
            row = rows.link(self.fitting_id, self.kind)
            if row is None or not row.wanted:
                return False
            armed = row.armed
            moment = now()
            if row.heard_at is None or (moment - row.heard_at).total_seconds() > HEARD_EVERY_SECONDS:
                row.heard_at = moment
            if armed != self.armed:
                try:
                    message = self.arm_with(rows, row)
                except InputError as error:
                    _flag(row, error)
            if line is not None:
                try:
                    row.taken += self.keep(line, rows, row, chosen_at(row, made_at))
                except InputError as error:
                    _flag(row, error)
            session.add(row)
        self.armed = armed
        if message is not None:
            driver.arm(message)
        return True

    def _say(self, state: str, device: str | None = None, simulated: bool | None = None, refusal: str = "") -> None:
        def change(row: LinkRow) -> None:
            row.state = state if row.wanted else "off"
            row.device = row.device if device is None else device
            row.simulated = row.simulated if simulated is None else simulated
            row.last_refusal = refusal or row.last_refusal

        self._change(change)

    def _refuse(self, words: str) -> None:
        def change(row: LinkRow) -> None:
            row.refused += 1
            row.last_refusal = shortened(words, LONGEST_REFUSAL)

        self._change(change)

    def _change(self, change: Callable[[LinkRow], None]) -> None:
        try:
            with self.bridge.database.transaction() as session:
                row = StudioRows(session, self.actor.studio_id).link(self.fitting_id, self.kind)
                if row is not None:
                    change(row)
                    session.add(row)
        except SQLAlchemyError as error:
            LOG.warning("the database does not answer: %s", type(error).__name__)


class _Monitor(_Link):
    """A strike monitor: its strikes go to the club and station that were chosen when they were hit."""

    loft_deg = 56.0

    def arm_with(self, rows: StudioRows, row: LinkRow) -> dict[str, Any]:
        """See `_Link`."""
        document = FittingDocument.model_validate(rows.fitting(self.fitting_id).document)
        fitting = fitting_from(document, rack_for(rows, self.fitting_id), measured(strikes_of(rows, self.fitting_id)))
        message = arm_message(fitting, row.club, row.swing)
        self.loft_deg = float(message["head"]["loft_deg"])
        note_loft(row, self.loft_deg)
        return message

    def keep(self, line: StrikeLine | ReadingLine, rows: StudioRows, row: LinkRow, chosen: Choice) -> int:
        """See `_Link`."""
        if not isinstance(line, StrikeLine):
            raise fault("line", "is a reading, and this is a strike monitor")
        loft_deg = chosen.loft_deg
        if loft_deg is None:  # chosen now, or while no device could be told
            loft_deg = self.loft_deg if chosen.club == row.club else self._loft_of(rows, chosen.club)
        values = {
            **line.figures, "id": str(line.id), "club": chosen.club, "swing": chosen.swing, "loft_deg": loft_deg,
            "origin": "device", "simulated": row.simulated,
        }  # fmt: skip
        return rows.add_strikes(self.fitting_id, [_checked(StrikeDocument, values).model_dump()])

    def _loft_of(self, rows: StudioRows, club: str) -> float:
        """Loft [degrees] of a club that was chosen before; of one that is gone meanwhile, that of the one now armed."""
        document = FittingDocument.model_validate(rows.fitting(self.fitting_id).document)
        try:
            return head_of(fitting_from(document, rack_for(rows, self.fitting_id), ()), club).loft_deg
        except InputError:
            return self.loft_deg


class _Instrument(_Link):
    """A gauge, hammer or penetrometer: its readings go to the club or ground that was chosen when they were taken."""

    def arm_with(self, rows: StudioRows, row: LinkRow) -> dict[str, Any]:
        """See `_Link`."""
        document = FittingDocument.model_validate(rows.fitting(self.fitting_id).document)
        return {**instrument_arm(document, self.kind, row.target, rack_for(rows, self.fitting_id)), "turn": row.armed}

    def keep(self, line: StrikeLine | ReadingLine, rows: StudioRows, row: LinkRow, chosen: Choice) -> int:
        """See `_Link`."""
        if not isinstance(line, ReadingLine):
            raise fault("line", f"is a strike, and this is a {self.kind}")
        figures = _checked(FIGURES[self.kind], line.figures).model_dump(exclude_none=True)
        reading = {
            "id": line.id,
            "kind": self.kind,
            "target": chosen.target,
            "figures": figures,
            "simulated": row.simulated,
        }
        return StudioReadings(rows.session, self.actor.studio_id).add_reading(self.fitting_id, reading)


LINKS: dict[str, type[_Link]] = {"monitor": _Monitor, **dict.fromkeys(INSTRUMENTS, _Instrument)}


def _flag(row: LinkRow, error: InputError) -> None:
    """Say what was wrong with its field; the session goes on."""
    row.refused += 1
    row.last_refusal = shortened("; ".join(map(_told, error.faults)), LONGEST_REFUSAL)


def _told(wrong: Fault) -> str:
    """A wrong figure of a line with its name, what it may be and what it was, all in the units of who reads."""
    value = wrong.value
    with contextlib.suppress(ValueError):  # text where a figure should be stands as it came
        figure = float(value)
        value = words_of(figure, wrong.field.rpartition(".")[2]) if math.isfinite(figure) else value
    return f"{name_of(wrong.field, {})} {wrong.message}" + (f" ({value})" if value else "")


def _checked(model: type[Strict], values: dict[str, Any]) -> Strict:
    try:
        return model.model_validate(values)
    except ValidationError as error:
        raise faults_of(error) from error
