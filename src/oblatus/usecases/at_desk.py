"""The shot desk: the engine's answer to a setup with up to eight heads."""

from __future__ import annotations

from oblatus.core.fitting import desk
from oblatus.core.strike import FamilyPool
from oblatus.formats.convert import head_from
from oblatus.formats.desk import DeskIn, DeskOut, desk_out


def at_desk(body: DeskIn, pool: FamilyPool) -> DeskOut:
    """The engine's answer for every head."""
    heads, ground = [head_from(document) for document in body.heads], body.ground.ground()
    return desk_out(desk.at_desk(heads, body.swing(), ground, body.spreads(), pool, twins=body.twins))
