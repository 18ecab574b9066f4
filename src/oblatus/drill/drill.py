"""Strikes and edits of two fitters through every fault, and what of them stands at the end."""

from __future__ import annotations

import random
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID, uuid4, uuid5

from oblatus.devices.stand_in import NAMESPACE
from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet, strike

SECOND = ("second@scarp-end.example", "flint and thyme")
FIELDS = ("complaints", "wear")
MONITOR = ("stand-in monitor", 1)

Say = Callable[[str], None]


@dataclass(slots=True)
class Count:
    """What stands at the end of a drill; everything but the first two lines is to be nought."""

    strikes: int = 0
    edits: int = 0
    device_strikes: int = 0
    lost: int = 0
    doubled: int = 0
    overwritten: int = 0
    untrue_saved: int = 0
    conflicts_told: int = 0
    faults: list[str] = field(default_factory=list)
    retries: dict[str, int] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)

    @property
    def clean(self) -> bool:
        """Whether nothing was lost, doubled, overwritten or said that is not so."""
        return self.lost + self.doubled + self.overwritten + self.untrue_saved == 0


@dataclass(slots=True)
class Editor:
    """A fitter at a screen: what it last saw of each field, and the chain of edits that the server took."""

    tablet: Tablet
    path: str
    seen: dict[str, Any] = field(default_factory=dict)

    def look(self) -> None:
        """See the fitting as it stands, without the verdict on it: every strike would ask for a new one."""
        lines = self.tablet.insist("GET", "/api/fittings").body["fittings"]
        revision = next(line["revision"] for line in lines if self.path.endswith(str(line["id"])))
        self.seen = {"revision": revision, "document": self.tablet.insist("GET", f"{self.path}/export").body}

    def edit(self, name: str, value: str, log: list[tuple[str, str, str]], count: Count) -> None:
        """Change one field from what was seen; a conflict is settled with what is then seen."""
        settled: list[dict[str, Any]] = []
        edit_id = str(uuid4())
        while True:
            section, base, mine, before = _changed(self.seen["document"], name, value)
            body = {
                "revision": self.seen["revision"], "edit_id": edit_id, "base": {section: base}, section: mine,
                "settled": settled,
            }  # fmt: skip
            answer = self.tablet.insist("PATCH", self.path, body)
            if answer.status != 200:
                raise AssertionError(f"an edit was refused: {answer.body}")
            conflicts = answer.body["conflicts"]
            if not conflicts:
                log.append((name, settled[0]["theirs"] if settled else before, value))
                self.seen = answer.body
                return
            count.conflicts_told += 1
            settled = [{"path": c["path"], "theirs": c["value"]} for c in conflicts]
            edit_id = str(uuid4())


def run_drill(say: Say, *, strikes: int = 1000, edits: int = 200, offline_seconds: float = 60.0) -> Count:
    """Serve from a throw-away folder, break everything in turn while two fitters work, and count.

    Raises
    ------
    SetUpError
        If the application does not come up, or not again.
    """
    served = Served.start("--seed", str(MONITOR[1]))
    try:
        return _Drill(served, say, strikes, edits, offline_seconds).run()
    finally:
        served.stop()


class _Drill:
    """One run: what was sent, and the faults by the strike at which they come."""

    def __init__(self, served: Served, say: Say, strikes: int, edits: int, offline_seconds: float) -> None:
        from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

        self.served, self.say, self.strikes, self.edits = served, say, strikes, edits
        self.offline_seconds = offline_seconds
        self.count = Count()
        self.one = Tablet(served.address, DEMO_EMAIL, DEMO_PASSWORD)
        self.two = Tablet(served.address, *SECOND)
        self.sent: list[dict[str, Any]] = []
        self.log: list[tuple[str, str, str]] = []
        self.random = random.Random(20261126)

    def run(self) -> Count:
        """Everything, in order."""
        self.one.sign_in()
        self._add_second()
        self.two.sign_in()
        fitting = str(self.one.insist("GET", "/api/fittings").body["fittings"][0]["id"])
        base = f"/api/fittings/{fitting}"
        self.one.insist("PUT", f"{base}/monitor", {"wanted": True, "club": "pw", "swing": "chip"})
        editors = [Editor(self.one, base), Editor(self.two, base)]
        for editor in editors:
            editor.look()
        first = {name: _value(editors[0].seen["document"], name) for name in FIELDS}
        before = int(self.one.insist("GET", f"{base}/session").body["total"])
        faults = self._faults(base)
        at = {round((i + 0.5) * self.strikes / len(faults)): fault for i, fault in enumerate(faults)}
        every = max(1, self.strikes // max(1, self.edits))
        done = 0
        for i in range(self.strikes):
            if i in at:
                name, act = at[i]
                self.say(f"{i} strikes, {done} edits: {name}")
                self.count.faults.append(name)
                act()
            ball = strike(20 + i / 100)
            answer = self.one.insist("POST", f"{base}/strikes", {"strikes": [ball]})
            if answer.status == 200:
                self.sent.append(ball)
            else:
                self.count.lost += 1
                self.count.notes.append(f"strike {i} was refused: {answer.status} {answer.code}")
            if i % every == 0 and done < self.edits:
                editor = editors[done % 2]
                if self.random.random() < 0.5:
                    editor.look()  # half of the edits are made on an old screen
                editor.edit(self.random.choice(FIELDS), f"edit {done}", self.log, self.count)
                done += 1
        self.one.insist("PUT", f"{base}/monitor", {"wanted": False, "club": "pw", "swing": "chip"})
        time.sleep(2.0)
        self._look_back(base, fitting, before, first)
        self.count.retries = self.one.retries
        return self.count

    def _faults(self, base: str) -> list[tuple[str, Callable[[], None]]]:
        kill = self.served.kill
        faults: list[tuple[str, Callable[[], None]]] = [
            ("the cookie is lost", self.one.forget_cookies),
            ("signed out elsewhere", self._end_sessions),
            ("somebody else signs in on the tablet", lambda: self.one.taken_over_by(self.two)),
            ("a worker is killed", lambda: kill("worker")),
            ("the web server's master is killed", lambda: kill("master")),
            ("the bridge is killed", lambda: kill("bridge")),
            ("PostgreSQL is killed", lambda: kill("database")),
            ("the front server is killed", lambda: kill("front")),
            (f"no answer for {self.offline_seconds:.0f} s", lambda: self.served.hold("front", self.offline_seconds)),
        ]
        if self.served.own_disk:
            faults.append(("the disk is full", lambda: self._full_disk(base)))
        else:
            self.count.notes.append("the disk was not filled: this machine allows no disk of its own")
        return faults

    def _add_second(self) -> None:
        """A second fitter of the same studio."""
        from oblatus.settings import Settings
        from oblatus.store.database import Database
        from oblatus.store.server import LocalServer
        from oblatus.usecases.users import NewFitter, add_user

        database = Database(LocalServer(self.served.inside).url())
        settings = Settings("postgresql+psycopg://", "only passwords are made with these settings")
        try:
            add_user(database, settings, NewFitter("Second fitter", *SECOND), None)
        finally:
            database.engine.dispose()

    def _end_sessions(self) -> None:
        other = Tablet(self.one.address, self.one.email, self.one.password)
        other.sign_in()
        other.insist("DELETE", "/api/session/others")

    def _full_disk(self, base: str) -> None:
        """Reading goes on, writing says what is wrong, and so does the health; then there is room again."""
        self.served.fill_disk()
        time.sleep(1.0)
        read = self.one.ask("GET", base)
        ball = strike(150.0)
        wrote = self.one.ask("POST", f"{base}/strikes", {"strikes": [ball]})
        health = self.served.health()
        if read.status != 200:
            self.count.notes.append(f"a full disk stopped reading: {read.status} {read.code}")
            self.count.lost += 1
        if 200 <= wrote.status < 300:
            self.sent.append(ball)
            self.count.notes.append("a full disk was not noticed in time: the strike was taken all the same")
        elif wrote.code != "disk_full":
            self.count.notes.append(f"a full disk was called {wrote.status} {wrote.code}")
            self.count.untrue_saved += 1
        if health.get("status") == "ok" or health.get("disk") != "full":
            self.count.notes.append(f"a full disk was called healthy: {health}")
            self.count.untrue_saved += 1
        self.served.clear_disk()

    def _look_back(self, base: str, fitting: str, before: int, first: dict[str, str]) -> None:
        """Count what stands against what was sent."""
        document = self.one.insist("GET", f"{base}/export").body
        stands = [s["id"] for s in document["strikes"]]
        mine = {s["id"] for s in self.sent}
        count = self.count
        count.strikes, count.edits = len(self.sent), len(self.log)
        count.doubled += len(stands) - len(set(stands))
        missing = len(mine - set(stands))
        count.lost += missing
        count.untrue_saved += missing  # the server said it had them
        in_order = [s["carry_m"] for s in document["strikes"] if s["id"] in mine]
        if in_order != [s["carry_m"] for s in self.sent]:
            count.notes.append("the strikes stand in another order than they were sent")
        self._look_at_device(fitting, set(stands), len(stands) - before - len(mine))
        count.overwritten, standing = follow(first, self.log)
        for name in FIELDS:
            if _value(document, name) != standing[name]:
                count.untrue_saved += 1

    def _look_at_device(self, fitting: str, stands: set[str], others: int) -> None:
        """The device's lines are numbered: none may be missing below the last."""
        names = [str(_device_id(fitting, seq)) for seq in range(1, 5000)]
        known = [i for i, name in enumerate(names) if name in stands]
        self.count.device_strikes = len(known)
        if known:
            missing = sorted({*range(known[-1])} - {*known})
            self.count.lost += len(missing)
            if missing:
                self.count.notes.append(
                    f"lines of the device that do not stand: {[i + 1 for i in missing]} of {known[-1] + 1}"
                )
        self.count.doubled += max(0, others - len(known))


def follow(first: dict[str, str], log: list[tuple[str, str, str]]) -> tuple[int, dict[str, str]]:
    """How many edits (field, from, to) did not begin from what stood there then, and what stands there in the end."""
    overwritten, standing = 0, dict(first)
    for name, before, after in log:
        overwritten += standing[name] != before
        standing[name] = after
    return overwritten, standing


def _device_id(fitting: str, seq: int) -> UUID:
    serial, seed = MONITOR
    return uuid5(NAMESPACE, f"{serial}|{seed}|{fitting}|{seq}")


def _value(document: dict[str, Any], name: str) -> str:
    return str(document["player"]["complaints"] if name == "complaints" else document["bag"]["wedges"][0]["wear"])


def _changed(document: dict[str, Any], name: str, value: str) -> tuple[str, Any, Any, str]:
    """The section, as it was seen and as it is to be, and the field's value before."""
    before = _value(document, name)
    if name == "complaints":
        return "player", document["player"], {**document["player"], "complaints": value}, before
    bag = document["bag"]
    first, *rest = bag["wedges"]
    return "bag", bag, {**bag, "wedges": [{**first, "wear": value}, *rest]}, before
