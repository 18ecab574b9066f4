"""The bridge: takes the lines of every wanted monitor into the database, once each, and keeps trying."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from uuid import UUID

from pydantic import ValidationError
from sqlalchemy.exc import SQLAlchemyError

from oblatus.devices.driver import Driver, LineDriver
from oblatus.devices.protocol import Hello, LineError, StrikeLine, TroubleLine
from oblatus.errors import InputError, NotFoundError
from oblatus.formats.convert import fitting_from
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.strikes import StrikeDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, wanted_links
from oblatus.store.tables import LinkRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.link_monitor import arm_message
from oblatus.usecases.rack_of import rack_of
from oblatus.usecases.strikes_of import measured, strikes_of

LOG = logging.getLogger(__name__)
POLL_SECONDS = 0.25
RETRY_SECONDS = 1.0

Connect = Callable[[str], Driver]


def connect_to(address: str) -> Connect:
    """Drivers for the monitor at host:port."""
    host, _, port = address.rpartition(":")
    return lambda listener: LineDriver(host, int(port), listener)


class Bridge:
    """One thread a wanted monitor; the database says which are wanted and what is hit next."""

    def __init__(self, database: Database, connect: Connect) -> None:
        self.database, self.connect = database, connect
        self._stop = threading.Event()
        self._threads: dict[UUID, threading.Thread] = {}

    def run(self) -> None:
        """Serve until `close`; a database that is away is waited for."""
        while not self._stop.is_set():
            try:
                with self.database.transaction() as session:
                    wanted = [(row.fitting_id, row.studio_id) for row in wanted_links(session)]
            except SQLAlchemyError as error:
                LOG.warning("the database does not answer: %s", error)
                self._stop.wait(RETRY_SECONDS)
                continue
            for fitting_id, studio_id in wanted:
                thread = self._threads.get(fitting_id)
                if thread is None or not thread.is_alive():
                    self._threads[fitting_id] = threading.Thread(
                        target=_Link(self, fitting_id, studio_id).serve, name=f"monitor {fitting_id}", daemon=True
                    )
                    self._threads[fitting_id].start()
            self._stop.wait(POLL_SECONDS)

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
    """One monitor for one fitting."""

    def __init__(self, bridge: Bridge, fitting_id: UUID, studio_id: UUID) -> None:
        self.bridge, self.fitting_id = bridge, fitting_id
        self.actor = Actor(UUID(int=0), studio_id, "bridge")
        self.armed = -1
        self.loft_deg = 56.0

    def serve(self) -> None:
        """Connect, take lines, try again when the device or the database goes away, until nobody wants it."""
        while not self.bridge.stopping:
            try:
                if not self._wanted():
                    return
                driver = self.bridge.connect(str(self.fitting_id))
            except NotFoundError:
                return
            except (OSError, SQLAlchemyError) as error:
                self._say(state="lost", refusal=f"no connection: {error}"[:200])
                self.bridge.rest()
                continue
            try:
                self.armed = -1
                self._take(driver)
            except (OSError, SQLAlchemyError) as error:
                LOG.warning("monitor of %s: %s", self.fitting_id, error)
            finally:
                driver.close()
            if self.bridge.stopping:
                return
            self._say(state="lost")
            self.bridge.rest()

    def _take(self, driver: Driver) -> None:
        for line in driver.lines():
            if self.bridge.stopping or not self._follow(driver):
                return
            if isinstance(line, Hello):
                self._say(state="live", device=line.serial, simulated=line.simulated)
            elif isinstance(line, StrikeLine):
                self._strike(line)
                driver.acknowledge(line.seq)
            elif isinstance(line, TroubleLine):
                self._refuse(f"the device says: {line.words}")
                driver.acknowledge(line.seq)
            elif isinstance(line, LineError):
                self._refuse(f"a line {line.message}")

    def _wanted(self) -> bool:
        with self.bridge.database.transaction() as session:
            row = StudioRows(session, self.actor.studio_id).link(self.fitting_id)
            return row is not None and row.wanted

    def _follow(self, driver: Driver) -> bool:
        """Tell the device what is hit next, whenever that changed; False once nobody wants it."""
        with self.bridge.database.transaction() as session:
            rows = StudioRows(session, self.actor.studio_id)
            row = rows.link(self.fitting_id)
            if row is None or not row.wanted:
                return False
            if row.armed == self.armed:
                return True
            document = FittingDocument.model_validate(rows.fitting(self.fitting_id).document)
            fitting = fitting_from(document, rack_of(rows), measured(strikes_of(rows, self.fitting_id)))
            armed, club, swing = row.armed, row.club, row.swing
        try:
            message = arm_message(fitting, club, swing)
        except InputError as error:
            self._refuse(error.message)
        else:
            driver.arm(message)
            self.loft_deg = float(message["head"]["loft_deg"])
        self.armed = armed
        return True

    def _strike(self, line: StrikeLine) -> None:
        """Take a strike for the club and station that are armed; in one transaction with the count on the link."""
        with self.bridge.database.transaction() as session:
            rows = StudioRows(session, self.actor.studio_id)
            row = rows.link(self.fitting_id)
            if row is None:
                return
            values = {
                **line.figures, "id": str(line.id), "club": row.club, "loft_deg": self.loft_deg, "swing": row.swing,
                "origin": "device", "simulated": row.simulated,
            }  # fmt: skip
            try:
                strike = StrikeDocument.model_validate(values)
            except ValidationError as error:  # an absurd figure is flagged with its field, and the session goes on
                faults = faults_of(error).faults
                row.refused += 1
                row.last_refusal = "; ".join(f"{f.field} {f.message} ({f.value})" for f in faults)[:200]
            else:
                row.taken += rows.add_strikes(self.fitting_id, [strike.model_dump()])
            session.add(row)

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
            row.last_refusal = words[:200]

        self._change(change)

    def _change(self, change: Callable[[LinkRow], None]) -> None:
        try:
            with self.bridge.database.transaction() as session:
                row = StudioRows(session, self.actor.studio_id).link(self.fitting_id)
                if row is not None:
                    change(row)
                    session.add(row)
        except SQLAlchemyError as error:
            LOG.warning("the database does not answer: %s", error)
