"""What a round and a change are worth: the fitter's own figures, with usual ones until they are typed."""

from __future__ import annotations

from dataclasses import dataclass

from oblatus.core.shots import handicap_or_usual

USUAL_SHOTS = (9.0, 0.45)


@dataclass(frozen=True, slots=True)
class Economy:
    """Strokes and what they are worth. All judgement until a studio's log replaces it.

    `shots` wedge shots a round (None: 9 + 0.45 a stroke of handicap); `worth_changing` strokes a round that a bought head
    must win; `slot` strokes a round that a place among the 14 clubs is worth when the number of wedges is open;
    `practice` strokes a shot for four degrees of delivered bounce outside the ground's usual band, `practice_most` at
    most; `table_scale` how much of the handicap the strokes table takes; `claims_sd` how far claimed gains come true, in
    log: one common factor on all of them (strokes.md, 6).
    """

    shots: float | None = None
    worth_changing: float = 0.10
    slot: float = 0.10
    practice: float = 0.02
    practice_most: float = 0.10
    table_scale: float = 1.0
    claims_sd: float = 0.5

    def shots_for(self, handicap: float | None) -> float:
        """Wedge shots a round of a player."""
        if self.shots is not None:
            return self.shots
        return USUAL_SHOTS[0] + USUAL_SHOTS[1] * handicap_or_usual(handicap)
