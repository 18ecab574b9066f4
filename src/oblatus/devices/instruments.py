"""Stand-ins of the instruments a fitter carries: loft-lie-bounce gauge, drop hammer, sand penetrometer."""

from __future__ import annotations

import hashlib
from dataclasses import replace
from typing import Any

import numpy as np

from oblatus.core.bounds import Bound
from oblatus.core.clubs import Head
from oblatus.core.geometry import deliver
from oblatus.core.grounds import BOUNDS, Sand, Turf
from oblatus.devices.stand_in import StandIn

GAUGE_NOISE_DEG, GAUGE_NOISE_MM = 0.12, 0.08
DRIFT_DEG = 0.9
PLACE_SHARE, DROP_SHARE, PUSH_SHARE = 0.05, 0.06, 0.05


class GaugeStandIn(StandIn):
    """Reads loft, lie, bounce, sole width and leading-edge height of the club it holds, three times a club."""

    device = "loft-lie-bounce gauge"
    serial = "stand-in gauge"
    per_arm = 3

    def read_arm(self, arm: dict[str, Any]) -> Head:
        """The club as it is: one that was never measured has drifted, the same way every time it is clamped."""
        known = Head(**arm["head"])
        if arm.get("measured"):
            return known
        loft, lie = _own_rng(repr(known)).normal(0.0, DRIFT_DEG, 2)
        return replace(known.bent(loft), lie_deg=known.lie_deg + lie)

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        del number
        head: Head = armed
        noise = rng.normal(0.0, 1.0, 5)
        edge = 1000.0 * deliver(head, 0.0, 0.0).leading_edge_height
        return {
            "reading": {
                "loft_deg": round(head.loft_deg + GAUGE_NOISE_DEG * noise[0], 2),
                "lie_deg": round(head.lie_deg + GAUGE_NOISE_DEG * noise[1], 2),
                "bounce_deg": round(max(head.bounce_deg + GAUGE_NOISE_DEG * noise[2], 0.0), 2),
                "sole_width_mm": round(1000.0 * head.sole_width + GAUGE_NOISE_MM * noise[3], 2),
                "edge_height_mm": round(max(edge + GAUGE_NOISE_MM * noise[4], 0.0), 2),
            }
        }


class HammerStandIn(StandIn):
    """Drops on the turf it stands on: peak deceleration [g], six drops a place."""

    device = "drop hammer"
    serial = "stand-in hammer"
    per_arm = 6

    def read_arm(self, arm: dict[str, Any]) -> Turf:
        """The turf, a little off what is known of it."""
        return Turf(_true(float(arm["ground"]["firmness_g"]), arm, BOUNDS["firmness_g"]))

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        del number
        return {"reading": {"peak_g": round(armed.firmness_g * (1.0 + rng.normal(0.0, DROP_SHARE)), 1)}}


class PenetrometerStandIn(StandIn):
    """Pushes into the sand it stands on: pressure at half the tip [kg/cm2], six pushes a bunker."""

    device = "sand penetrometer"
    serial = "stand-in penetrometer"
    per_arm = 6

    def read_arm(self, arm: dict[str, Any]) -> Sand:
        """The sand, a little off what is known of it."""
        return Sand(_true(float(arm["ground"]["penetrometer_kg_cm2"]), arm, BOUNDS["penetrometer_kg_cm2"]))

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        del number
        pressure = armed.penetrometer_kg_cm2 * (1.0 + rng.normal(0.0, PUSH_SHARE))
        return {"reading": {"pressure_kg_cm2": round(pressure, 2)}}


def _true(known: float, arm: dict[str, Any], bound: Bound) -> float:
    """What the instrument finds where something else is assumed; what was measured before is found again."""
    if arm.get("measured"):
        return known
    return min(max(known * (1.0 + float(_own_rng(repr(known)).normal(0.0, PLACE_SHARE))), bound.low), bound.high)


def _own_rng(what: str) -> np.random.Generator:
    """Random numbers that belong to one thing: it is off in the same way every time."""
    return np.random.default_rng(int.from_bytes(hashlib.blake2b(what.encode(), digest_size=8).digest()))
