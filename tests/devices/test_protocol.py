"""Lines that can be used and lines that cannot, and the stand-in's habits."""

from __future__ import annotations

import contextlib
import json
from dataclasses import asdict

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oblatus.core.clubs import Head
from oblatus.core.grounds import Sand, Turf
from oblatus.core.session.simulated import Described, simulate_strike
from oblatus.devices.driver import LineDriver
from oblatus.devices.monitor import MonitorStandIn
from oblatus.devices.protocol import Hello, LineError, StrikeLine, TroubleLine, encode, number_of, read_line

ID = "5b1f0c7e-93a2-4d5e-8c1b-2f6a7d8e9f10"
ARM = {
    "head": asdict(Head(56.0, 10.0)),
    "ground": {"kind": "turf", "firmness_g": 90.0, "ball_height": 0.004, "moisture": 0.4, "root_density": 1.0},
    "opening_deg": 0.0, "attack": [-6.0, 1.0], "lean": [5.0, 1.5], "entry": [-0.03, 0.01], "speed": 20.0, "release": 1.0,
}  # fmt: skip


def test_lines_of_every_kind():
    hello = read_line(encode({"hello": 1, "device": "strike monitor", "serial": "7", "simulated": True}))
    assert hello == Hello("strike monitor", "7", True)
    line = read_line(encode({"seq": 3, "id": ID, "strike": {"attack_deg": -6, "carry_m": 31.5}}))
    assert isinstance(line, StrikeLine)
    assert (line.seq, str(line.id), line.figures) == (3, ID, {"attack_deg": -6.0, "carry_m": 31.5})
    assert line.ago is None
    assert read_line(encode({"seq": 3, "id": ID, "ago_s": 2.5, "strike": {"carry_m": 31.5}})).ago == 2.5
    assert read_line(encode({"seq": 3, "id": ID, "ago_s": "long", "strike": {"carry_m": 31.5}})).ago is None
    assert read_line(encode({"seq": 3, "id": ID, "ago_s": 1e12, "strike": {"carry_m": 31.5}})).ago is None
    assert read_line(encode({"seq": 4, "trouble": "lens dirty"})) == TroubleLine(4, "lens dirty")


@pytest.mark.parametrize(
    ("raw", "words"),
    [
        (b'{"seq": 1, "id"', "ends in the middle"),
        (b"\x00\xff\n", "is not JSON"),
        (b"[1]\n", "is not an object"),
        (b'{"hello": 2}\n', "speaks version 2"),
        (b'{"strike": {}}\n', "has no number"),
        (b'{"seq": true, "strike": {}}\n', "has no number"),
        (b'{"seq": 1, "strike": {}}\n', "has no id"),
        (encode({"seq": 1, "id": ID, "strike": {"carry_m": "far"}}), "no number: carry_m"),
        (b'{"seq": 1, "id": "' + ID.encode() + b'", "strike": {"carry_m": 1e999}}\n', "no number: carry_m"),
        (encode({"seq": 1}), "no kind"),
        (encode({"seq": 1, "x": "y" * 9000}), "longer than 8192"),
    ],
)
def test_lines_that_cannot_be_used_say_why(raw, words):
    with pytest.raises(LineError) as error:
        read_line(raw)
    assert words in error.value.message


@given(st.binary(max_size=400))
def test_no_bytes_do_harm(raw):
    with contextlib.suppress(LineError):
        read_line(raw + b"\n")


def listen(stand_in: MonitorStandIn, listener: str, count: int, *, arm: bool = True, acknowledge: bool = True):
    driver, found = LineDriver("127.0.0.1", stand_in.port, listener), []
    if arm:
        driver.arm(ARM)
    for line in driver.lines():
        if isinstance(line, StrikeLine):
            found.append(line)
            if acknowledge:
                driver.acknowledge(line.seq)
        if len(found) >= count:
            break
    driver.close()
    return found


def test_the_stand_in_is_seeded_and_every_listener_has_a_stream_of_its_own():
    found = []
    for seed in (5, 5, 6):
        stand_in = MonitorStandIn(seed=seed, every=0.01).start()
        found.append([(line.id, line.figures) for line in listen(stand_in, "a", 5)])
        other = [line.figures for line in listen(stand_in, "b", 3)]
        stand_in.close()
        assert other != [figures for _, figures in found[-1]][:3]
    assert found[0] == found[1]
    assert found[0] != found[2]


def test_what_was_not_acknowledged_comes_again_with_the_same_id():
    stand_in = MonitorStandIn(seed=2, every=0.01, most=3).start()
    first = listen(stand_in, "a", 3, acknowledge=False)
    again = listen(stand_in, "a", 3)
    stand_in.close()
    assert [line.id for line in again] == [line.id for line in first]
    assert all(then.ago < later.ago for then, later in zip(first, again, strict=True)), "told anew with every sending"


def test_nothing_is_made_before_somebody_is_armed():
    stand_in = MonitorStandIn(every=0.01).start()
    driver = LineDriver("127.0.0.1", stand_in.port, "a", quiet_seconds=0.2)
    lines = driver.lines()
    assert isinstance(next(lines), Hello)
    assert next(lines) is None
    driver.close()
    stand_in.close()


def test_simulated_strikes_are_those_of_the_described_player():
    player = Described(Head(56.0, 12.0), Turf(90.0), 0.0, (-6.0, 1.0), (5.0, 1.5), (-0.02, 0.006), 20.0)
    rng = np.random.default_rng(4)
    strikes = [simulate_strike(player, i, rng) for i in range(200)]
    attack = np.array([s["attack_deg"] for s in strikes])
    entry = np.array([s["entry_mm"] for s in strikes])
    assert attack.mean() == pytest.approx(-6.0, abs=0.3)
    assert entry.mean() == pytest.approx(-20.0, abs=2.0)
    assert entry.std() == pytest.approx(6.3, abs=1.5)
    carries = [s["carry_m"] for s in strikes if "carry_m" in s]
    assert len(carries) > 150
    assert 15 < np.median(carries) < 45
    sand = Described(Head(56.0, 12.0), Sand(2.0), 20.0, (-9.0, 1.0), (2.0, 1.5), (-0.05, 0.01), 22.0)
    assert json.dumps([simulate_strike(sand, i, rng) for i in range(50)], allow_nan=False)


@pytest.mark.parametrize(
    "raw",
    [
        b'{"seq": 1, "id": "0b0e6f0a-0000-4000-8000-000000000000", "strike": {"carry_m": ' + b"9" * 400 + b"}}",
        b'{"seq": 1, "id": "0b0e6f0a-0000-4000-8000-000000000000", "strike": {"carry_m": ' + b"9" * 5000 + b"}}",
        b'{"seq": 1, "id": "0b0e6f0a-0000-4000-8000-000000000000", "strike": {"a\\u0000b": 1}}',
        b'{"seq": 1, "trouble": "\\ud800"}',
        b'{"hello": 1, "device": "a\\u0000", "serial": "\\udfff"}',
        b"[" * 4000,
        b"\xff\xfe\x00\x00",
        b"\x00" * 100,
    ],
)
def test_no_bytes_end_the_reading(raw):
    with pytest.raises(LineError):
        read_line(raw + b"\n")
    number_of(raw)


@given(st.binary(max_size=300))
def test_any_bytes_are_a_line_or_a_reason(raw):
    with contextlib.suppress(LineError):
        read_line(raw.replace(b"\n", b" ") + b"\n")
    number_of(raw)


def test_a_clock_of_four_hundred_digits_tells_no_time():
    raw = '{"seq": 1, "id": "0b0e6f0a-0000-4000-8000-000000000000", "clock": %s, "strike": {"carry_m": 20}}'
    assert read_line((raw % ("9" * 400)).encode() + b"\n").clock is None


def test_a_device_without_the_studios_token_is_not_listened_to(monkeypatch):
    stand_in = MonitorStandIn(every=0.01).start()
    try:
        line = next(LineDriver("127.0.0.1", stand_in.port, "f", token="ours").lines())
        assert isinstance(line, LineError)
        assert "token" in line.message
        monkeypatch.setattr(stand_in, "token", "ours", raising=False)
        known = LineDriver("127.0.0.1", stand_in.port, "f", token="ours")
        assert isinstance(next(known.lines()), Hello)
        known.close()
    finally:
        stand_in.close()
