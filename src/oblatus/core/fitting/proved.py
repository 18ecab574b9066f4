"""What balls have shown of heads: by how much their strokes differ from what the model says. docs/models/proof.md, 5."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import astuple, dataclass, replace

import numpy as np
from numpy.typing import NDArray

from oblatus.core.clubs import Head
from oblatus.core.fitting.scenarios import Scenario
from oblatus.core.shots import BY_KEY
from oblatus.core.words import counted

Floats = NDArray[np.float64]

OTHER_SITUATIONS = 0.6
"""Share of a proved difference that holds in other situations on the same kind of ground (judgement)."""
OTHER_SURFACE = 0.3
"""Share that holds on the other kind of ground (judgement)."""


@dataclass(frozen=True, slots=True)
class HeadShift:
    """Strokes a shot that a head costs more (less: negative) than the model says, by shot of the catalogue.

    How it stood to the model's promise, against which club, on which day and by how many balls: for words only.
    """

    head: Head
    shots: tuple[tuple[str, float], ...]
    name: str = ""
    standing: str = "open"
    against: str = ""
    on: str = ""
    balls: int = 0

    def at(self, scenario: Scenario) -> float:
        """The shift in a scenario: what was proved there, or a share of what was proved nearest to it."""
        by_shot = dict(self.shots)
        if scenario.shot.key in by_shot:
            return by_shot[scenario.shot.key]
        same = [shift for key, shift in self.shots if BY_KEY[key].surface == scenario.shot.surface]
        if same:
            return OTHER_SITUATIONS * sum(same) / len(same)
        return OTHER_SURFACE * sum(by_shot.values()) / len(by_shot) if by_shot else 0.0


def proof_words(shift: HeadShift) -> str:
    """What a proof says of a head, in a line."""
    mean = sum(strokes for _, strokes in shift.shots) / len(shift.shots)
    held = f"{abs(mean):.2f} strokes a shot {'worse' if mean > 0 else 'better'} than expected"
    word = {"open": "not settled"}.get(shift.standing, shift.standing)
    return f"{word}: {held} against {shift.against}, {counted(shift.balls, 'ball')} with each on {shift.on}"


def same_sole(one: Head, other: Head) -> bool:
    """Whether two heads have one sole, bent or not: bending moves loft and bounce together; lie and mass are no sole."""
    moved = other.loft_deg - one.loft_deg
    if abs(other.bounce_deg - one.bounce_deg - moved) > 1e-6:
        return False
    alike = replace(other, loft_deg=one.loft_deg, bounce_deg=one.bounce_deg, lie_deg=one.lie_deg, mass=one.mass)
    return bool(np.allclose(astuple(one), astuple(alike), atol=1e-9))


def shifts_of(heads: Sequence[Head], scenarios: Sequence[Scenario], known: Sequence[HeadShift]) -> Floats:
    """Strokes a shot to be added (heads, scenarios); what several proofs showed of a head adds up."""
    out = np.zeros((len(heads), len(scenarios)))
    for shift in known:
        mine = np.array([same_sole(shift.head, head) for head in heads], dtype=bool)
        if mine.any():
            out[mine] += np.array([shift.at(scenario) for scenario in scenarios])
    return out
