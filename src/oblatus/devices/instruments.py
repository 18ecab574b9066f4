"""Stand-ins of the instruments a fitter carries: loft-lie-bounce gauge, drop hammer, sand penetrometer."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.geometry import deliver
from oblatus.core.grounds import SAND, TURF, SurfaceKind
from oblatus.devices.stand_in import StandIn, own_rng

GAUGE_NOISE_DEG, GAUGE_NOISE_MM = 0.12, 0.08
DRIFT_DEG = 0.9
PLACE_SHARE = 0.05


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
        loft, lie = own_rng(repr(known)).normal(0.0, DRIFT_DEG, 2)
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


class SurfaceStandIn(StandIn):
    """Reads one figure of the ground it stands on, `per_arm` times a place, each a little off."""

    surface: SurfaceKind
    share = 0.05
    places = 1

    def read_arm(self, arm: dict[str, Any]) -> float:
        """The ground, a little off what is assumed of it; what was measured before is found again."""
        known = float(arm["ground"][self.surface.reading])
        if arm.get("measured"):
            return known
        bound = figures(self.surface.made_of)[self.surface.reading].bound
        off = float(own_rng(repr(known)).normal(0.0, PLACE_SHARE))
        return min(max(known * (1.0 + off), bound.low), bound.high)

    def measure(self, armed: Any, number: int, rng: np.random.Generator) -> dict[str, Any]:
        """See `StandIn`."""
        del number
        read = round(armed * (1.0 + rng.normal(0.0, self.share)), self.places)
        return {"reading": {self.surface.instrument_figure: read}}


class HammerStandIn(SurfaceStandIn):
    """Drops on turf: peak deceleration [g], six drops a place."""

    device = "drop hammer"
    serial = "stand-in hammer"
    per_arm = 6
    surface = TURF
    share = 0.06


class PenetrometerStandIn(SurfaceStandIn):
    """Pushes into sand: pressure at half the tip [kg/cm²], six pushes a bunker."""

    device = "sand penetrometer"
    serial = "stand-in penetrometer"
    per_arm = 6
    surface = SAND
    places = 2
