"""Compile the kernels, or load them from the cache, by making one proposal."""

from __future__ import annotations

from oblatus.formats.fitting import FittingDocument, GroundDocument, PlayerDocument
from oblatus.formats.rack import demo_rack
from oblatus.usecases.propose import propose


def warm_up() -> None:
    """One proposal for a usual player on the demo rack."""
    document = FittingDocument(player=PlayerDocument(name="warm-up"), grounds=(GroundDocument(name="home", share=1.0),))
    propose(document, demo_rack())
