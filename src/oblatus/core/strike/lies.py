"""Lies to begin from at the shot desk: a swing and a ground each, typical of its kind (judgement)."""

from __future__ import annotations

from dataclasses import replace

from oblatus.core.delivery import Swing
from oblatus.core.grounds import Sand, Turf

_TURF = Swing(lean_deg=4.0)
_SAND = Swing(opening_deg=15.0, attack_deg=-9.0, speed=22.0, entry=-0.075)

LIES: dict[str, tuple[Swing, Turf | Sand]] = {
    "fairway": (_TURF, Turf()),
    "tight, firm": (_TURF, Turf(130.0, 0.001, 0.2)),
    "soft, wet": (_TURF, Turf(52.0, 0.004, 0.85)),
    "lush rough": (_TURF, Turf(75.0, 0.014, 0.5, 1.3)),
    "sand": (_SAND, Sand()),
    "thin sand": (replace(_SAND, opening_deg=0.0), Sand(2.5, 0.015, 0.5, 0.002)),
    "plugged": (
        replace(_SAND, opening_deg=-10.0, lean_deg=4.0, attack_deg=-11.0, speed=26.0), Sand(1.9, 0.08, 0.2, 0.016),
    ),
}  # fmt: skip
