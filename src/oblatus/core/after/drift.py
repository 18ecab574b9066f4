"""Lofts read again: how far they drifted, and what that does to gaps and strokes. docs/models/log.md, 4."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from oblatus.core.card.setup import Tool
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.as_built import strokes_with
from oblatus.core.fitting.fitting import carry_model_of

BEND_BACK_DEG = 1.0
"""From so far off a club is bent back, whatever it costs (judgement: a gauge and two fitters agree to half a degree)."""
BEND_BACK_STROKES = 0.02
"""From so many strokes a round too (judgement)."""

DriftAdvice = Literal["bend back", "leave"]


@dataclass(frozen=True, slots=True)
class Drift:
    """A club as it was built and as it was read again: lofts and bounces move together.

    `carry_built`, `carry_now` full swings [m]; `strokes_round` what it costs as it is, the others as built.
    """

    code: str
    name: str
    built_deg: float
    now_deg: float
    carry_built: float
    carry_now: float
    strokes_round: float
    advice: DriftAdvice

    @property
    def drift_deg(self) -> float:
        """Loft now less loft as built."""
        return self.now_deg - self.built_deg


def drifts_of(
    fitting: Fitting, tools: Sequence[Tool], now_deg: dict[str, float], judge: StrokesJudge
) -> tuple[tuple[Drift, ...], float]:
    """Every club that was read again, and what the drift of all costs [strokes a round].

    Parameters
    ----------
    tools : the clubs as they were built
    now_deg : lofts as read again, by code

    Raises
    ------
    InputError
        As `strokes_with`.
    """
    model = carry_model_of(fitting)
    moved = {tool.code: tool.head.bent(now_deg[tool.code] - tool.head.loft_deg) for tool in tools if tool.code in now_deg}
    built = strokes_with(fitting, [tool.head for tool in tools], judge)
    found = []
    for tool in tools:
        if tool.code not in moved:
            continue
        now = moved[tool.code]
        lost = strokes_with(fitting, [now if one is tool else one.head for one in tools], judge) - built
        before, after = model.carries([tool.head.loft_deg, now.loft_deg], model.swings[:1])[:, 0]
        far = abs(now.loft_deg - tool.head.loft_deg) >= BEND_BACK_DEG
        found.append(
            Drift(
                tool.code, tool.name, tool.head.loft_deg, now.loft_deg, float(before), float(after), lost,
                "bend back" if far or lost >= BEND_BACK_STROKES else "leave",
            )
        )  # fmt: skip
    whole = strokes_with(fitting, [moved.get(tool.code, tool.head) for tool in tools], judge) - built if moved else 0.0
    return tuple(found), whole


def as_built(tools: Sequence[Tool], built_deg: dict[str, float]) -> tuple[Tool, ...]:
    """Clubs with the lofts that they had when they were built, where that is known."""
    return tuple(
        replace(tool, head=tool.head.bent(built_deg.get(tool.code, tool.head.loft_deg) - tool.head.loft_deg))
        for tool in tools
    )
