"""Flight, landing, bounce and roll of one ball."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from oblatus.core.bounds import FLIGHT, check_all
from oblatus.core.flight import _kernels
from oblatus.core.flight.air import REFERENCE_AIR, Air
from oblatus.core.flight.impact import Launch
from oblatus.units import METRES_PER_FOOT

STEP = 0.25
"""Time step [s]: carry within 3.6 mm of the converged one, see docs/models/flight.md."""
PATH_STEP = 0.05
GREEN_FIRMNESS = {"soft": 0.2, "medium": 0.5, "firm": 0.8}
MU_BOUNCE = 0.33
MU_SLIDE = 0.35


@dataclass(frozen=True, slots=True)
class Green:
    """A flat green: firmness 0..1 (0.5 is usual), stimpmeter reading [ft]."""

    firmness: float = 0.5
    stimp_ft: float = 10.0

    def __post_init__(self) -> None:
        check_all({"firmness": self.firmness, "stimp_ft": self.stimp_ft}, FLIGHT)


@dataclass(frozen=True, slots=True)
class Flight:
    """Where the ball went: [m], [degrees], [s], [m/s], [rpm].

    `landed` is false if it was still up after the longest time flown; the numbers are then its last state.
    `run` is the displacement along the line from pitch mark to rest; negative means it draws back.
    """

    carry: float
    apex: float
    landing_deg: float
    lateral: float
    time: float
    landing_speed: float
    landing_spin_rpm: float
    run: float
    run_lateral: float
    landed: bool


def fly_ball(launch: Launch, air: Air = REFERENCE_AIR, green: Green | None = None, *, step: float = STEP) -> Flight:
    """Fly a ball and let it run out on a flat green.

    Fixed-step Runge-Kutta of order four with landing and apex on the step's cubic.

    Parameters
    ----------
    launch : ball speed, launch, direction, spin and axis
    air : weather and wind
    green : firmness and speed of the green; the usual one if None
    step : time step [s]

    References
    ----------
    Bearman & Harvey (1976); Smits & Smith (1994); Penner, Can. J. Phys. 80 (2002) 931; docs/models/flight.md.
    """
    return _fly(launch, air, green or Green(), step, np.empty((0, 3)))[0]


def flight_path(
    launch: Launch, air: Air = REFERENCE_AIR, green: Green | None = None
) -> tuple[Flight, np.ndarray[tuple[int, int], np.dtype[np.float64]]]:
    """The flight and its points (n, 3) [m] every 0.05 s, for drawing."""
    path = np.empty((400, 3))
    flight, samples = _fly(launch, air, green or Green(), PATH_STEP, path)
    return flight, path[:samples]


def _fly(
    launch: Launch, air: Air, green: Green, step: float, path: np.ndarray[tuple[int, int], np.dtype[np.float64]]
) -> tuple[Flight, int]:
    vx, vy, vz, wx, wy, wz = launch.vectors()
    x, z, apex, time, lx, ly, lz, spin, status, samples = _kernels.fly(
        vx, vy, vz, wx, wy, wz, -air.wind_head, air.wind_cross, air.density, air.viscosity, step, 0.0, path
    )
    scale = spin / max(math.sqrt(wx * wx + wy * wy + wz * wz), 1e-12)
    run, run_z = _kernels.run_out(
        lx, ly, lz, wx * scale, wy * scale, wz * scale,
        green.firmness, green.stimp_ft * METRES_PER_FOOT, MU_BOUNCE, MU_SLIDE,
    )  # fmt: skip
    flight = Flight(
        carry=x,
        apex=apex,
        landing_deg=math.degrees(math.atan2(-ly, math.hypot(lx, lz))),
        lateral=z,
        time=time,
        landing_speed=math.sqrt(lx * lx + ly * ly + lz * lz),
        landing_spin_rpm=spin * 60.0 / (2.0 * math.pi),
        run=run,
        run_lateral=run_z,
        landed=status == _kernels.LANDED,
    )
    return flight, samples
