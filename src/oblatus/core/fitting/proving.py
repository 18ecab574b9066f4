"""What the model expects of candidates that are to be proved: strokes a shot, the run of each, and its doubt."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.delivery import Swing
from oblatus.core.figures import figures
from oblatus.core.fitting.costs import Sheet
from oblatus.core.fitting.fitting import Fitting, carry_model_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import sheet_for
from oblatus.core.fitting.scenarios import Scenario, Setup, build_scenarios
from oblatus.core.flight import GREEN_FIRMNESS, REFERENCE_AIR, Green, Launch, fly_ball
from oblatus.core.strike import strike
from oblatus.core.strokes import PINS
from oblatus.errors import fault

Floats = NDArray[np.float64]

MIDDLE = next(n for n, pin in enumerate(PINS) if pin.name == "middle")
LEAST_SWING = figures(Swing)["speed_mps"].bound.low
LEAST_SPEED, MOST_LAUNCH_DEG, MOST_SPIN = 2.0, 80.0, 12_000.0


@dataclass(frozen=True, slots=True)
class Promise:
    """What the model says of candidates in situations.

    `strokes` (clubs, situations) a shot at the middle pin, each club at its best setup; `run` (clubs, situations) of a
    clean ball after landing [m]; `weights` (situations,) how often each is faced, sum 1.
    """

    scenarios: tuple[Scenario, ...]
    strokes: Floats
    run: Floats
    weights: Floats


def promise_of(
    fitting: Fitting, heads: Sequence[Head], situations: Sequence[tuple[str, str]], judge: StrokesJudge
) -> Promise:
    """What is expected of heads in situations, each a shot of the catalogue on a ground of the mix; balls aside.

    Raises
    ------
    InputError
        If the player does not face a situation.
    """
    model = carry_model_of(fitting)
    scenarios = build_scenarios(fitting.player, fitting.grounds, fitting.layouts)
    sheet = sheet_for(replace(fitting, proved=()), judge, scenarios, model)
    places = []
    for n, (shot, ground) in enumerate(situations):
        found = [i for i, s in enumerate(sheet.short) if s.shot.key == shot and s.ground.name == ground]
        if not found:
            raise fault(f"situations.{n}", "is not a shot that this player faces on this ground", f"{shot}, {ground}")
        places.append(found[0])
    costs = sheet.costs(heads)
    columns = [place * len(PINS) + MIDDLE for place in places]
    run = np.zeros((len(heads), len(places)))
    for h, head in enumerate(heads):
        for n, (place, column) in enumerate(zip(places, columns, strict=True)):
            run[h, n] = _run(sheet, place, head, int(costs.pick[h, column]))
    shares = np.array([sheet.short[place].share for place in places])
    return Promise(
        tuple(sheet.short[place] for place in places), costs.strokes[:, columns], run, shares / max(shares.sum(), 1e-12)
    )


def _run(sheet: Sheet, place: int, head: Head, setup: int) -> float:
    """Run of a clean ball with this head, as the player sets it up here [m]."""
    scenario, speed = sheet.short[place], sheet.speeds(head)[place][setup]
    return clean_flight(head, scenario.setups[setup], speed, scenario)[1]


def clean_flight(head: Head, how: Setup, speed: float, scenario: Scenario) -> tuple[float, float]:
    """Carry and run [m] of a clean strike at a head speed [m/s]; nothing where no ball flies."""
    swing = Swing(how.opening_deg, how.lean_deg, how.attack_deg, max(speed, LEAST_SWING), how.release, how.entry)
    result = strike(head, swing, scenario.surface)
    if result.ball_speed < LEAST_SPEED or result.launch_deg <= 0.0:
        return 0.0, 0.0
    launch = Launch(
        result.ball_speed, min(result.launch_deg, MOST_LAUNCH_DEG), 0.0, min(result.spin_rpm, MOST_SPIN), 0.0
    )  # fmt: skip
    flight = fly_ball(launch, REFERENCE_AIR, Green(GREEN_FIRMNESS[scenario.ground.green]))
    return float(flight.carry), float(flight.run)
