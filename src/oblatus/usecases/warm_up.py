"""Compile the kernels, or load them from the cache, by making one proposal."""

from __future__ import annotations

from oblatus.formats.fitting import FittingDocument, GroundDocument, PlayerDocument
from oblatus.formats.rack import demo_rack
from oblatus.usecases.at_desk import DeskIn, at_desk
from oblatus.usecases.engine import engine
from oblatus.usecases.propose import propose


def warm_up() -> None:
    """One proposal for a usual player on the demo rack, its evidence, one strike on turf and one in sand."""
    document = FittingDocument(player=PlayerDocument(name="warm-up"), grounds=(GroundDocument(name="home", share=1.0),))
    propose(document, demo_rack())
    for ground in ({"kind": "turf"}, {"kind": "sand"}):
        heads = [{"loft_deg": 56.0, "bounce_deg": 10.0}]
        at_desk(DeskIn.model_validate({"heads": heads, "ground": ground}), engine().pool)
