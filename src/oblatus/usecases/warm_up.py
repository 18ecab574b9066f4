"""Compile the kernels, or load them from the cache, by making one proposal."""

from __future__ import annotations

from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.formats.desk import DeskIn
from oblatus.usecases.at_desk import at_desk
from oblatus.usecases.engine import engine
from oblatus.usecases.propose import propose


def warm_up() -> None:
    """One proposal with its doubt for a player with strikes, wedges and three grounds; a strike on turf and in sand.

    A player with less leaves kernels uncompiled, for which the first real one would wait.
    """
    propose(demo_fittings()[0], demo_rack())
    for ground in ({"kind": "turf"}, {"kind": "sand"}):
        heads = [{"loft_deg": 56.0, "bounce_deg": 10.0}]
        at_desk(DeskIn.model_validate({"heads": heads, "ground": ground}), engine().pool)
