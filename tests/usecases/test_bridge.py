"""From a monitor that misbehaves into the database: every strike once, whatever is cut off in between."""

from __future__ import annotations

import contextlib
import socket
import threading
import time
from uuid import UUID, uuid4, uuid5

import pytest
from sqlalchemy import text

from oblatus.devices.monitor import MonitorStandIn, ReplayStandIn
from oblatus.devices.protocol import StrikeLine
from oblatus.devices.recording import load_recording
from oblatus.devices.stand_in import NAMESPACE, Misbehaviour
from oblatus.store.tables import LinkRow
from oblatus.usecases.bridge import LINKS, Bridge, connect_to
from oblatus.usecases.live import LiveFeed, Word
from tests.waiting import until


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def strikes(client, base) -> list[dict]:
    return [s for s in client.get(f"{base}/session").get_json()["strikes"] if s["origin"] == "device"]


def taken(client, base) -> int:
    return client.get(f"{base}/monitor").get_json()["taken"]


def connect(client, base, swing="pitch", club="own:1", *, wanted=True) -> dict:
    reply = client.put(f"{base}/monitor", json={"wanted": wanted, "club": club, "swing": swing})
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


@contextlib.contextmanager
def bridged(database, stand_in):
    """A bridge to a stand-in, both ended whatever comes: one left behind would serve the next test's fitting."""
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    try:
        yield
    finally:
        bridge.close()
        stand_in.close()


def test_a_monitor_that_repeats_shuffles_and_sends_rubbish_is_taken_once_each(client, base, database):
    wrong = Misbehaviour(repeat=0.3, rubbish=0.2, shuffle=0.2, drop=0.1)
    stand_in = MonitorStandIn(seed=3, every=0.01, most=120, wrong=wrong).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base)
    until(lambda: taken(client, base) >= 120)
    found = strikes(client, base)
    monitor = client.get(f"{base}/monitor").get_json()
    bridge.close()
    stand_in.close()
    assert len({s["id"] for s in found}) == len(found) == 120
    assert {(s["club"], s["swing"], s["simulated"]) for s in found} == {("own:1", "pitch", True)}
    assert monitor["taken"] == 120
    assert monitor["refused"] > 0
    assert monitor["last_refusal"]


def test_a_thousand_strikes_arrive_once_though_bridge_and_database_are_cut_off(client, base, database):
    """The bridge is ended twice and every connection of the database killed again and again on the way."""
    stand_in = MonitorStandIn(seed=9, every=0.001, most=1000).start()
    address = {"monitor": f"127.0.0.1:{stand_in.port}"}
    bridge = Bridge(database, connect_to(address)).start()
    connect(client, base)
    for cut in range(4):
        until(lambda goal=200 * (cut + 1): taken(client, base) >= goal, 60)
        if cut % 2:
            bridge.close()
            bridge = Bridge(database, connect_to(address)).start()
        else:
            with database.engine.connect() as connection:
                connection.execute(
                    text("select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() "
                         "and datname = current_database()")
                )  # fmt: skip
    until(lambda: taken(client, base) >= 1000, 90)
    found = strikes(client, base)
    bridge.close()
    stand_in.close()
    assert len({s["id"] for s in found}) == len(found) == 1000


def test_another_station_gets_the_next_strikes_and_nobody_gets_any_after_the_end(client, base, database):
    stand_in = MonitorStandIn(every=0.05).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base, "pitch")
    until(lambda: any(s["swing"] == "pitch" for s in strikes(client, base)))
    connect(client, base, "sand", "own:2")
    until(lambda: any(s["swing"] == "sand" for s in strikes(client, base)))
    assert connect(client, base, wanted=False)["state"] == "off"
    time.sleep(0.5)
    count = len(strikes(client, base))
    time.sleep(0.5)
    bridge.close()
    stand_in.close()
    assert len(strikes(client, base)) == count
    assert client.get(f"{base}/monitor").get_json()["state"] == "off"


def test_a_full_disk_holds_a_line_up_and_no_later_one_is_kept_before_it(client, base, database, monkeypatch):
    """Kept out of order, the line that was passed over stayed in the device when the monitor was turned off."""
    full = threading.Event()
    monkeypatch.setattr("oblatus.usecases.bridge.room", lambda _: "full" if full.is_set() else "ok")
    monkeypatch.setattr("oblatus.usecases.bridge.RETRY_SECONDS", 0.1)
    stand_in = MonitorStandIn(every=0.5, most=4).start()
    with bridged(database, stand_in):
        connect(client, base)
        until(lambda: any(stream.armed for stream in stand_in.streams.values()))
        full.set()
        until(lambda: next(iter(stand_in.streams.values())).made == 2)
        time.sleep(0.3)
        assert strikes(client, base) == []
        full.clear()
        until(lambda: len(strikes(client, base)) == 4)
    listener = base.rpartition("/")[2]
    sent = [str(uuid5(NAMESPACE, f"{stand_in.serial}|{stand_in.seed}|{listener}|{seq}")) for seq in range(1, 5)]
    assert [s["id"] for s in strikes(client, base)] == sent


def test_a_line_that_comes_late_goes_to_the_club_that_was_chosen_when_it_was_hit(client, base, database, monkeypatch):
    """Three are hit with one club and three with the next while nothing can be kept; the first is bent meanwhile."""
    full = threading.Event()
    monkeypatch.setattr("oblatus.usecases.bridge.room", lambda _: "full" if full.is_set() else "ok")
    monkeypatch.setattr("oblatus.usecases.bridge.RETRY_SECONDS", 0.1)
    stand_in = MonitorStandIn(every=0.2, most=3).start()
    with bridged(database, stand_in):
        connect(client, base, "pitch", "own:0")
        until(lambda: any(stream.armed for stream in stand_in.streams.values()))
        full.set()
        stream = next(iter(stand_in.streams.values()))
        until(lambda: stream.made == 3)
        time.sleep(1.0)
        wedges = client.get(base).get_json()["document"]["bag"]["wedges"]
        connect(client, base, "sand", "own:1")
        stand_in.most = 6
        until(lambda: stream.made == 6)
        bend(client, base, 0, 1.5)
        full.clear()
        until(lambda: len(strikes(client, base)) == 6)
    first, second = ((f"own:{n}", swing, wedges[n]["loft_deg"]) for n, swing in ((0, "pitch"), (1, "sand")))
    assert [(s["club"], s["swing"], s["loft_deg"]) for s in strikes(client, base)] == 3 * [first] + 3 * [second]


def bend(client, base, wedge: int, by: float) -> None:
    fitting = client.get(base).get_json()
    fitting["document"]["bag"]["wedges"][wedge]["loft_deg"] += by
    reply = client.patch(base, json={"revision": fitting["revision"], "bag": fitting["document"]["bag"]})
    assert reply.status_code == 200, reply.get_json()


def made(link, *told: tuple[float | None, float, float]) -> list[float]:
    """When lines of a device's clock and age were made, heard at a time each."""
    found = []
    for clock, ago, heard in told:
        seq = 1 if link.latest is None else link.latest[0] + 1
        found.append(link._made_at(StrikeLine(seq, uuid4(), {"carry_m": 30.0}, clock, ago), heard))
        link.latest = (seq, clock) if clock is not None else link.latest
    return found


@pytest.fixture
def link(database):
    return LINKS["monitor"](Bridge(database, connect_to({})), uuid4(), uuid4(), "monitor")


def test_when_a_line_was_made_is_told_by_how_long_ago_and_by_the_devices_clock(link):
    """The third waited to be read: the clock says so. Before the fourth the device's clock was put back by an hour."""
    told = ((50.0, 0.5, 1000.5), (60.0, 2.0, 1012.0), (70.0, 0.1, 1045.0), (-3500.0, 0.2, 1100.2), (None, 3.0, 1103.0))
    assert made(link, *told) == pytest.approx([1000.0, 1010.0, 1020.0, 1100.0, 1100.0], abs=0.1)


def test_a_clock_that_runs_slow_makes_no_line_late(link):
    """A second is lost every hour: after a day a strike is still placed to the second."""
    hours = [(3599.0 * hour, 0.0, 3600.0 * hour) for hour in range(25)]
    assert made(link, *hours) == [heard for _, _, heard in hours]


def test_a_device_that_does_not_tell_when_gives_to_what_is_chosen_now(client, base, database):
    sent = [
        b'{"hello": 1, "device": "strike monitor", "serial": "old", "simulated": true}',
        b'{"seq": 1, "id": "%s", "strike": {"carry_m": 30.0}}' % str(uuid4()).encode(),
        b'{"seq": 2, "id": "%s", "ago_s": -4, "strike": {"carry_m": 31.0}}' % str(uuid4()).encode(),
    ]
    connect(client, base, "pitch", "own:0")
    connect(client, base, "sand", "own:1")
    device = Hostile(sent)
    with bridged(database, device):
        until(lambda: len(strikes(client, base)) == 2)
    assert {(s["club"], s["swing"]) for s in strikes(client, base)} == {("own:1", "sand")}


def test_a_device_that_is_gone_is_said_and_found_again(client, base, database):
    stand_in = MonitorStandIn(every=0.05).start()
    port = stand_in.port
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{port}"})).start()
    connect(client, base)
    until(lambda: client.get(f"{base}/monitor").get_json()["state"] == "live")
    stand_in.close()
    until(lambda: client.get(f"{base}/monitor").get_json()["state"] == "lost")
    again = MonitorStandIn(port=port, seed=8, every=0.05).start()
    until(lambda: client.get(f"{base}/monitor").get_json()["state"] == "live")
    bridge.close()
    again.close()


def test_an_absurd_figure_is_refused_with_its_field_and_the_session_goes_on(client, base, database, monkeypatch):
    from oblatus.devices import monitor

    told = iter([{"attack_deg": -500.0, "carry_m": 914.4}, {"attack_deg": -5.0, "carry_m": 30.0}])
    monkeypatch.setattr(monitor, "simulate_strike", lambda *_: next(told))
    stand_in = MonitorStandIn(every=0.05, most=2).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base)
    until(lambda: len(strikes(client, base)) == 1)
    bridge.close()
    stand_in.close()
    found = client.get(f"{base}/monitor").get_json()
    assert found["refused"] == 1
    assert found["last_refusal"] == (
        "carry must be between 1 and 200\u00a0m (914.4\u00a0m); attack must be between −25 and 15° (−500°)"
    )
    client.put("/api/session/units", json={"distance": "yd", "speed": "mph"})
    yards = client.get(f"{base}/monitor").get_json()["last_refusal"]
    assert "carry must be between 1.1 and 218.7\u00a0yd (1000.0\u00a0yd)" in yards


def test_word_of_a_change_comes_at_once_and_only_to_its_own_studio(app, client, base, database, fitting):
    feed: LiveFeed = app.extensions["oblatus_live"]
    with database.transaction() as session:
        studio = session.execute(text("select id from studio")).scalar()
    unknown = Word(None, 0)  # what there was before it listened

    def next_word(words) -> Word:
        return next(word for word in iter(lambda: words.get(timeout=60), None) if word != unknown)

    def listens() -> bool:
        with database.engine.connect() as connection:
            return bool(connection.scalar(text("select count(*) from pg_stat_activity where query = 'listen oblatus'")))

    with feed.about(studio) as mine, feed.about(uuid4()) as theirs:
        until(listens)
        with database.transaction() as session:
            session.add(LinkRow(fitting_id=UUID(fitting["id"]), studio_id=studio))
        assert next_word(mine) == Word(fitting["id"], 0)
        player = {**fitting["document"]["player"], "complaints": "digs"}
        assert client.patch(base, json={"revision": fitting["revision"], "player": player}).status_code == 200
        assert next_word(mine) == Word(fitting["id"], fitting["revision"] + 1)
        assert theirs.empty() or theirs.get() == unknown
        assert theirs.empty()


def test_a_session_is_recorded_and_played_again_with_the_same_figures(client, base, database):
    stand_in = MonitorStandIn(seed=5, every=0.05, most=4).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base)
    until(lambda: taken(client, base) == 4)
    bridge.close()
    stand_in.close()
    first = strikes(client, base)
    recorded = load_recording(client.get(f"{base}/recording.jsonl").get_data(as_text=True))
    assert [item.figures["entry_mm"] for item in recorded] == [s["entry_mm"] for s in first]
    assert all(0.0 <= item.after_s < 20.0 for item in recorded)
    replay = ReplayStandIn(recorded, speed=20.0).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{replay.port}"})).start()
    until(lambda: taken(client, base) == 8)
    bridge.close()
    replay.close()
    again = strikes(client, base)[4:]
    names = ("attack_deg", "lean_deg", "entry_mm", "carry_m", "spin_rpm")
    assert [[s[n] for n in names] for s in again] == [[s[n] for n in names] for s in first]


def test_a_clock_that_jumps_is_flagged_and_every_strike_stands_as_it_came(client, base, database, monkeypatch):
    from oblatus.devices import stand_in as standing

    start = time.time()
    told = iter([0.0, 4.0, -3600.0, -3596.0, 90_000.0, 90_004.0, 8.0])
    clock = type("Clock", (), {"time": lambda: start + next(told), "monotonic": time.monotonic})
    monkeypatch.setattr(standing, "time", clock)
    stand_in = MonitorStandIn(seed=11, every=0.05, most=7).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base)
    until(lambda: taken(client, base) == 7)
    until(lambda: client.get(f"{base}/monitor").get_json()["refused"] == 3)
    bridge.close()
    stand_in.close()
    assert len(strikes(client, base)) == 7
    assert "clock went back by" in client.get(f"{base}/monitor").get_json()["last_refusal"]


def test_a_club_that_is_gone_costs_no_strike_that_was_hit_already(client, base, database):
    stand_in = MonitorStandIn(seed=12, every=0.05, most=20).start()
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
    connect(client, base)
    until(lambda: taken(client, base) >= 4)
    connect(client, base, club="own:7")
    until(lambda: any(s.made == 20 and not s.unacknowledged for s in stand_in.streams.values()))
    bridge.close()
    stand_in.close()
    monitor = client.get(f"{base}/monitor").get_json()
    assert (monitor["taken"], monitor["refused"]) == (20, 1)
    assert "is not in the bag or on the rack" in monitor["last_refusal"]


class Hostile:
    """A device that sends whatever it likes, and keeps what it is answered."""

    def __init__(self, lines: list[bytes]) -> None:
        self.lines, self.answers = lines, b""
        self._server = socket.create_server(("127.0.0.1", 0))
        self.port = self._server.getsockname()[1]
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self) -> None:
        while True:
            try:
                connection, _ = self._server.accept()
            except OSError:
                return
            with contextlib.suppress(OSError), connection:
                for line in self.lines:
                    connection.sendall(line + b"\n")
                while got := connection.recv(4096):
                    self.answers += got

    def close(self) -> None:
        self._server.close()


def test_a_clock_that_went_back_is_flagged_once_though_lines_of_before_come_again(client, base, database):
    def strike(seq: int, clock: float) -> bytes:
        return f'{{"seq": {seq}, "id": "{UUID(int=seq)}", "clock": {clock}, "strike": {{"carry_m": 30.0}}}}'.encode()

    start = time.time()
    told = [(1, start), (2, start - 3600.0), (1, start), (3, start - 3590.0), (2, start - 3600.0), (4, start - 3580.0)]
    hello = b'{"hello": 1, "device": "strike monitor", "serial": "forgetful", "simulated": true}'
    device = Hostile([hello, *(strike(*one) for one in told)])
    with bridged(database, device):
        connect(client, base)
        until(lambda: b'{"ack": 4}' in device.answers)
        until(lambda: client.get(f"{base}/monitor").get_json()["refused"] > 0)
    monitor = client.get(f"{base}/monitor").get_json()
    assert (monitor["taken"], monitor["refused"]) == (4, 1)
    assert "clock went back by 3600 s" in monitor["last_refusal"]


def test_no_bytes_end_a_link_and_each_line_is_answered(client, base, database):
    def strike(seq: int, carry: str) -> bytes:
        name = str(UUID(int=seq))
        return f'{{"seq": {seq}, "id": "{name}", "strike": {{"carry_m": {carry}}}}}'.encode()

    odd = [
        b"\x00\xff\xfe", b"[" * 5000, b'{"seq": 2, "trouble": "\\ud800"}', b'{"seq": 3, "trouble": "a\\u0000b"}',
        strike(4, "9" * 400), strike(5, "1e400"), b'{"seq": 6, "id": "x", "strike": {"a\\u0000": 1}}', b"{}" * 6000,
    ]  # fmt: skip
    device = Hostile([
        b'{"hello": 1, "device": "strike monitor", "serial": "hostile", "simulated": true}', *odd, strike(40, "31.5"),
    ])  # fmt: skip
    bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{device.port}"})).start()
    try:
        connect(client, base)
        until(lambda: taken(client, base) == 1)
        until(lambda: b'{"ack": 40}' in device.answers)
        monitor = client.get(f"{base}/monitor").get_json()
        assert monitor["state"] == "live"
        assert monitor["refused"] >= len(odd)
        assert device.answers.count(b'"refused"') >= len(odd) - 2, "troubles are acknowledged"
        assert [s["carry_m"] for s in strikes(client, base)] == [31.5]
    finally:
        bridge.close()
        device.close()
