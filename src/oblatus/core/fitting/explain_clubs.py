"""Why a club stands in the set, in a fitter's words."""

from __future__ import annotations

import numpy as np

from oblatus.core.fitting.bench_rules import wanted_bounce
from oblatus.core.fitting.explain import SHOWN, degrees, listed, strokes
from oblatus.core.fitting.recommendation import Recommendation
from oblatus.core.geometry import bounces_of
from oblatus.core.strokes import PINS


def duty_words(recommendation: Recommendation, slot: int) -> str:
    """What the club is mostly for, in two or three shots."""
    names = [name for name, value in recommendation.clubs[slot].gains[:3] if value >= SHOWN]
    return ", ".join(names) if names else "little that the others do not do"


def club_reason(recommendation: Recommendation, slot: int) -> str:
    """One sentence on a club of the set from the model's own numbers, and its sum where it matters most."""
    gains = [row for row in recommendation.clubs[slot].gains[:2] if row[1] >= SHOWN]
    words = listed([f"{strokes(value)} in {name}" for name, value in gains])
    lead = f"Wins {words}: " if words else "Wins next to nothing that the others do not: "
    index = _leading(recommendation, slot)
    return lead + _sum_words(recommendation, recommendation.clubs[slot].pick, index) + "."


def candidate_reason(recommendation: Recommendation, slot: int, pick: int) -> str:
    """One sentence on any candidate of a slot, at the same shot as the chosen club."""
    return _sum_words(recommendation, pick, _leading(recommendation, slot))


def _leading(recommendation: Recommendation, slot: int) -> int:
    """The short scenario (as the sheet counts them) in which the club wins most, at its middle pin."""
    short = len(recommendation.sheet.short)
    by_scenario = recommendation.clubs[slot].gain[: short * len(PINS)].reshape(short, len(PINS)).sum(axis=1)
    return int(by_scenario.argmax()) if short else 0


def _sum_words(recommendation: Recommendation, pick: int, index: int) -> str:
    """The sum of bounce, opening and lean in a scenario at the setup taken, against the ground's band."""
    scenario = recommendation.sheet.short[index]
    head = recommendation.candidates[pick].head
    setup = scenario.setups[int(recommendation.costs.pick[pick, index * len(PINS) + 1])]
    delivered = float(bounces_of([head], np.array([setup.opening_deg]), np.array([setup.lean_deg]))[0, 0])
    words = f"{degrees(head.bounce_deg)} of bounce"
    if setup.opening_deg > 0.0:
        words += f", opened {degrees(setup.opening_deg)}"
    if abs(setup.lean_deg) >= 0.5:
        words += f", {'less' if setup.lean_deg > 0 else 'plus'} {degrees(abs(setup.lean_deg))} of lean"
    low, high = wanted_bounce(scenario, setup)
    return f"{words}, leaves {degrees(delivered)}, {_against(delivered, low, high)} on {scenario.ground.name}"


def _against(delivered: float, low: float, high: float) -> str:
    band = f"the usual {degrees(low).removesuffix('°')} to {degrees(high)}"
    if delivered < low - 0.25:
        return f"{degrees(low - delivered)} under {band}" + (": a negative sole, it digs" if delivered < 0 <= low else "")
    if delivered > high + 0.25:
        return f"{degrees(delivered - high)} over {band}"
    return f"inside {band}"
