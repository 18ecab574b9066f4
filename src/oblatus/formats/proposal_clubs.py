"""The clubs of a proposal as JSON: what each is, serves, brings, and what comes next."""

from __future__ import annotations

import numpy as np

from oblatus.core.clubs import Head, StockHead
from oblatus.core.fitting import Recommendation, explain, explain_clubs
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.evidence import Doubt
from oblatus.core.fitting.proved import proof_words, same_sole
from oblatus.core.geometry import deliver_many
from oblatus.core.strokes import PINS
from oblatus.formats.heads import edge_height_mm, head_out, outline_mm
from oblatus.formats.recommendation import (
    BringsOut,
    BuiltClubOut,
    CandidateOut,
    ClubOut,
    OpeningOut,
    ProvedOut,
    Rows,
    SituationOut,
)
from oblatus.formats.rounded import rounded


def label_of(candidate: Candidate) -> str:
    """A candidate in a few words: name, loft and bounce."""
    head = candidate.head
    return f"{candidate.stock.name}: {explain.degrees(head.loft_deg)}, {explain.degrees(head.bounce_deg)} bounce"


def built_out(stock: StockHead, head: Head, bend_deg: float) -> BuiltClubOut:
    """A head as it is to be built."""
    return BuiltClubOut(
        code=stock.code,
        name=stock.name,
        owned=stock.owned,
        loft_deg=rounded(head.loft_deg),
        bounce_deg=rounded(head.bounce_deg),
        sole_width_mm=rounded(1000 * head.sole_width),
        bend_deg=rounded(bend_deg),
        outline_mm=outline_mm(head),
    )


def club_out(recommendation: Recommendation, slot: int, doubt: Doubt | None, pinned: tuple[Rows, Rows]) -> ClubOut:
    """The club in a slot of the set; `pinned` are costs and strokes over the pins."""
    choice = recommendation.clubs[slot]
    candidate = recommendation.candidates[choice.pick]
    head = candidate.head
    names = {item.code: item.name for item in recommendation.fitting.stock}
    return ClubOut(
        slot=slot,
        code=candidate.stock.code,
        name=candidate.stock.name,
        owned=candidate.stock.owned,
        loft_deg=rounded(head.loft_deg),
        bounce_deg=rounded(head.bounce_deg),
        sole_width_mm=rounded(1000 * head.sole_width),
        bend_deg=rounded(candidate.bend_deg),
        openings=_openings(recommendation, slot),
        brings_strokes_round=rounded(choice.brings),
        brings=[
            BringsOut(name=name, strokes_round=rounded(value))
            for name, value in choice.gains
            if abs(value) >= explain.SHOWN
        ],
        replaces=None if choice.replaces is None else names[choice.replaces],
        duty=explain_clubs.duty_words(recommendation, slot),
        duties=[recommendation.scenarios[i].key for i in choice.duties],
        reason=explain_clubs.club_reason(recommendation, slot),
        pinned=recommendation.pinned[slot],
        survives=None if doubt is None else next((rounded(s.share) for s in doubt.shares if s.slot == slot), None),
        proofs=[
            ProvedOut(standing=shift.standing, words=proof_words(shift))  # type: ignore[arg-type]
            for shift in recommendation.fitting.proved
            if same_sole(shift.head, head)
        ],
        candidates=[_candidate(recommendation, slot, i, behind) for i, behind in choice.ranked],
        situations=_situations(recommendation, slot, pinned),
    )


def _openings(recommendation: Recommendation, slot: int) -> list[OpeningOut]:
    setup_at, pins = recommendation.costs.pick[recommendation.picks[slot]], len(PINS)
    mine = np.flatnonzero(recommendation.served[: len(recommendation.sheet.short) * pins] == slot)
    found = []
    for column, setup in zip(mine.tolist(), setup_at[mine].tolist(), strict=True):
        scenario, pin = recommendation.sheet.short[column // pins], PINS[column % pins]
        found.append(
            OpeningOut(
                situation=scenario.shot.key,
                ground=scenario.ground.name,
                pin=pin.name,
                opening_deg=rounded(scenario.setups[setup].opening_deg),
            )
        )
    return found


def over_pins(recommendation: Recommendation, rows: Rows) -> Rows:
    """Figures of every column averaged over the pins of each short scenario (rows, scenarios)."""
    count, pins = len(recommendation.sheet.short), len(PINS)
    weights = np.array([pin.weight for pin in PINS])
    return np.asarray(rows[:, : count * pins].reshape(len(rows), count, pins) @ weights)


def _situations(recommendation: Recommendation, slot: int, pinned: tuple[Rows, Rows]) -> list[SituationOut]:
    """Every short scenario for a club; `pinned` are costs and strokes of the candidates, averaged over the pins."""
    sheet, pick = recommendation.sheet, recommendation.picks[slot]
    short = sheet.short
    if not short:
        return []
    count, pins = len(short), len(PINS)
    head, (every, strokes) = recommendation.candidates[pick].head, pinned
    row = _owned_row(recommendation, slot)
    owned = [None] * count if row is None else [rounded(value) for value in over_pins(recommendation, row[None])[0]]
    best = every.argmin(axis=0)
    names = [recommendation.candidates[i].stock.name for i in best.tolist()]
    # as lists: one by one, figures of an array take ten times as long
    mine, least = strokes[pick].tolist(), strokes[best, np.arange(count)].tolist()
    chosen = recommendation.costs.pick[pick, 1 : count * pins : pins].tolist()
    setups = [s.setups[c] for s, c in zip(short, chosen, strict=True)]
    delivered = deliver_many([head], np.array([s.opening_deg for s in setups]), np.array([s.lean_deg for s in setups]))
    speeds, served = sheet.speeds(head), recommendation.served.tolist()
    found = []
    for n, (loft, bounce, direction, edge) in enumerate(delivered[0].tolist()):
        found.append(
            SituationOut(
                scenario=short[n].key,
                strokes=rounded(mine[n]),
                opening_deg=rounded(setups[n].opening_deg),
                loft_deg=rounded(loft),
                bounce_deg=rounded(bounce),
                face_direction_deg=rounded(direction),
                leading_edge_height_mm=rounded(1000 * edge),
                speed_mps=rounded(speeds[n][chosen[n]]),
                owned_strokes=owned[n],
                best_strokes=rounded(least[n]),
                best_name=names[n],
                serves=[pin.name for p, pin in enumerate(PINS) if served[n * pins + p] == slot],
            )
        )
    return found


def _owned_row(recommendation: Recommendation, slot: int) -> np.ndarray[tuple[int], np.dtype[np.float64]] | None:
    """Strokes of the owned wedge that a club replaces, as it stands."""
    code = recommendation.clubs[slot].replaces
    owned = [item.code for item in recommendation.fitting.stock if item.owned]
    return None if code is None else recommendation.bag_costs.strokes[owned.index(code)]


def _candidate(recommendation: Recommendation, slot: int, pick: int, behind: float) -> CandidateOut:
    candidate = recommendation.candidates[pick]
    return CandidateOut(
        code=candidate.stock.code,
        name=candidate.stock.name,
        owned=candidate.stock.owned,
        bend_deg=rounded(candidate.bend_deg),
        shape=candidate.head.shape_words(),
        head=head_out(candidate.head),
        outline_mm=outline_mm(candidate.head),
        edge_height_mm=edge_height_mm(candidate.head),
        price=candidate.stock.price,
        behind=rounded(behind),
        reason=explain_clubs.candidate_reason(recommendation, slot, pick),
    )
