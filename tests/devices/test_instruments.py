"""What the gauge, hammer and penetrometer stand-ins read, and a recorded session played again."""

from __future__ import annotations

import json
import subprocess
import sys
import time
from dataclasses import asdict

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.geometry import deliver
from oblatus.devices.driver import LineDriver
from oblatus.devices.instruments import GaugeStandIn, HammerStandIn, PenetrometerStandIn
from oblatus.devices.monitor import ReplayStandIn
from oblatus.devices.protocol import Hello, ReadingLine, StrikeLine
from oblatus.devices.recording import Recorded, dump_recording, load_recording
from oblatus.devices.stand_in import StandIn
from oblatus.errors import InputError

HEAD = Head(56.0, 10.0)


def heard(stand_in: StandIn, arm: dict, count: int) -> list:
    """The hello and `count` lines after it, acknowledged, and what comes before the device is silent for a moment."""
    stand_in.start()
    driver = LineDriver("127.0.0.1", stand_in.port, "a", quiet_seconds=0.4)
    driver.arm(arm)
    found, seen, deadline = [], set(), time.monotonic() + 60.0
    for line in driver.lines():
        if line is None and (len(found) > count or time.monotonic() > deadline):
            break
        if isinstance(line, (ReadingLine, StrikeLine)):
            driver.acknowledge(line.seq)
        if line is not None and getattr(line, "seq", None) not in seen:  # what is acknowledged late comes again
            found.append(line)
            seen.add(getattr(line, "seq", None))
    driver.close()
    stand_in.close()
    return found


def test_the_gauge_reads_three_times_and_finds_a_drift_until_the_club_was_measured():
    arm = {"head": asdict(HEAD), "measured": False}
    hello, *lines = heard(GaugeStandIn(every=0.01), arm, 3)
    assert hello == Hello("loft-lie-bounce gauge", "stand-in gauge", True)
    assert len(lines) == 3
    loft = np.array([line.figures["loft_deg"] for line in lines])
    bounce = np.array([line.figures["bounce_deg"] for line in lines])
    assert np.ptp(loft) < 0.8
    # bent by degrees, bounce follows degree for degree
    assert bounce.mean() - 10.0 == pytest.approx(loft.mean() - 56.0, abs=0.3)
    drifted = GaugeStandIn().read_arm(arm)
    assert GaugeStandIn().read_arm(arm) == drifted != HEAD
    assert GaugeStandIn().read_arm({**arm, "measured": True}) == HEAD
    edge = 1000.0 * deliver(drifted, 0.0, 0.0).leading_edge_height
    assert np.mean([line.figures["edge_height_mm"] for line in lines]) == pytest.approx(edge, abs=0.2)


@pytest.mark.parametrize(
    ("stand_in", "ground", "name", "value"),
    [
        (HammerStandIn, {"kind": "turf", "firmness_g": 120.0}, "peak_g", 120.0),
        (PenetrometerStandIn, {"kind": "sand", "penetrometer_kg_cm2": 2.3}, "pressure_kg_cm2", 2.3),
    ],
)
def test_drops_and_pushes_scatter_about_the_ground_and_stop_after_six(stand_in, ground, name, value):
    _, *lines = heard(stand_in(every=0.01), {"ground": ground, "measured": True}, 6)
    figures = np.array([line.figures[name] for line in lines])
    assert len(figures) == 6
    assert figures.mean() == pytest.approx(value, rel=0.08)
    assert figures.std() > 0.0


def test_an_arm_that_makes_no_sense_is_passed_over():
    for arm in ({}, {"head": {"loft_deg": 56}}, {"head": {**asdict(HEAD), "loft_deg": 99}}, {"ground": 7}):
        assert len(heard(GaugeStandIn(every=0.01), arm, 0)) == 1


def first_line(process: subprocess.Popen[str]) -> ReadingLine:
    """What a simulated device sends first."""
    port = int(process.stdout.readline().rpartition(":")[2])
    driver = LineDriver("127.0.0.1", port, "a", quiet_seconds=60.0)
    driver.arm({"ground": {"kind": "turf", "firmness_g": 120.0}, "measured": True})
    line = next(line for line in driver.lines() if isinstance(line, ReadingLine))
    driver.close()
    return line


def test_a_device_that_is_started_anew_measures_something_else_unless_it_is_given_its_seed():
    """Under the ids of before its first lines would be taken for those that it sent then, and nothing would come."""
    command = [sys.executable, "-m", "oblatus.cli.main", "simulate", "hammer", "--every", "0.05"]
    seeds = ([], [], ["--seed", "7"], ["--seed", "7"])
    started = [subprocess.Popen([*command, *seed], stdout=subprocess.PIPE, text=True) for seed in seeds]
    try:
        one, other, *same = [first_line(process) for process in started]
    finally:
        for process in started:
            process.terminate()
            process.wait()
    assert one.id != other.id
    assert same[0].id == same[1].id
    assert same[0].figures == same[1].figures


def test_a_recorded_session_is_played_again_in_its_own_time():
    recorded = (Recorded(0.02, {"attack_deg": -5.0}), Recorded(0.3, {"carry_m": 31.5}), Recorded(0.01, {"carry_m": 32.0}))
    text = dump_recording(recorded)
    assert load_recording(text) == recorded
    _, *lines = heard(ReplayStandIn(load_recording(text), speed=2.0), {}, 3)
    assert [line.figures for line in lines] == [item.figures for item in recorded]
    assert len({line.id for line in lines}) == 3


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("{", "line 2: is not a strike"),
        (json.dumps({"after_s": -1, "strike": {"carry_m": 3}}), "line 2: after_s must be between"),
        (json.dumps({"after_s": 1, "strike": {"carry_m": "far"}}), "no number: carry_m"),
        (json.dumps({"strike": {"carry_m": 3}}), "line 2: is not a strike"),
    ],
)
def test_a_recording_that_cannot_be_used_says_where(line, words):
    with pytest.raises(InputError) as error:
        load_recording(dump_recording([Recorded(1.0, {"carry_m": 30.0})]) + line + "\n")
    assert words in error.value.message


def test_an_empty_recording_is_refused():
    with pytest.raises(InputError, match="holds no strike"):
        load_recording("\n\n")
