"""Exact conversion factors (international yard and pound, 1959; the mile is 1,760 yards)."""

from __future__ import annotations

from typing import Literal

DistanceUnit = Literal["m", "yd"]
SpeedUnit = Literal["mps", "mph"]

METRES_PER_YARD = 0.9144
METRES_PER_INCH = 0.0254
METRES_PER_FOOT = 0.3048
METRES_PER_SECOND_PER_MPH = 1760 * METRES_PER_YARD / 3600
