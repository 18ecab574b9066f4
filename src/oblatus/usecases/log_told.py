"""What a log tells: verdict, rounds, where strokes go, heads, choices and offers."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from datetime import date
from uuid import UUID

from oblatus.core.card.setup import Tool
from oblatus.core.fitting.leaks import BANDS
from oblatus.core.log.says import (
    HeadShown,
    Noted,
    grouped,
    heads_shown,
    parts_of,
    reliability,
    seen_of,
    shot_spread,
    surface_of,
)
from oblatus.core.log.shots import APPROACH, LoggedShot
from oblatus.formats.log import (
    ClubChoiceOut,
    HeadShownOut,
    LeakSeenOut,
    LineOut,
    LogOut,
    NotedBy,
    RoundOut,
    SituationChoiceOut,
    parts_out,
    reliable_out,
    seen_out,
)
from oblatus.formats.recommendation import RecommendationOut
from oblatus.formats.rounded import rounded
from oblatus.usecases.log_offers import offers_of
from oblatus.usecases.logged import Logged, names_of, situation_name

SAME_SHARE = 0.9
"""Two rounds of one day look the same from so many shots alike."""


def log_out(log: Logged, proposal: RecommendationOut | None) -> LogOut:
    """The log as JSON; `proposal` tells where the model says that strokes go."""
    known, names = log.known, names_of(log)
    spread = shot_spread(known)
    rounds = _rounds(log)
    shown = heads_shown(known, spread, [tool.code for tool in log.tools]) if known else []
    months = grouped(known, lambda one: f"{one.shot.on:%Y-%m}")
    situations = grouped(known, lambda one: one.shot.situation)
    clubs = grouped(known, lambda one: (one.shot.situation, one.shot.club))
    order = sorted(situations, key=lambda key: -len(situations[key]))
    return LogOut(
        shots=len(log.rows), rounds=rounds, unknown=len(log.rows) - len(known), spread=rounded(spread),
        whole=seen_out(seen_of(known, spread)) if known else None,
        over_round=rounded(sum(one.over for one in known) / max(len(rounds), 1)),
        situations=[_line(key, "", situations[key], spread) for key in order],
        clubs=[
            _line(key, names[club], here, spread)
            for (key, club), here in sorted(clubs.items(), key=lambda item: (order.index(item[0][0]), -len(item[1])))
        ],
        months=[_line(month, "", here, spread) for month, here in sorted(months.items())],
        reliability=[reliable_out(one) for one in reliability(known)],
        parts=parts_out(parts_of(known, max(len(rounds), 1)), names) if known else None,
        leaks=_leaks(log, proposal, spread), heads=[_head_out(log, one, names) for one in shown],
        offers=offers_of(log, shown, rounds), decisions=list(log.document.after.decisions),
        choices=_choices(log), clubs_here=[ClubChoiceOut(code=code, name=names[code]) for code in log.expectations.codes],
    )  # fmt: skip


def _line(key: str, club: str, noted: list[Noted], spread: float) -> LineOut:
    name = key if key[:2].isdigit() else situation_name(key)
    return LineOut(key=key, name=name, club=club, seen=seen_out(seen_of(noted, spread)))


def _rounds(log: Logged) -> list[RoundOut]:
    """Rounds, newest first; two of one day with nearly the same shots are named to each other."""
    found: dict[UUID, list[int]] = {}
    for n, row in enumerate(log.rows):
        found.setdefault(row.round, []).append(n)
    marks = {
        key: Counter((log.shots[n].situation, log.shots[n].club, log.shots[n].result) for n in places)
        for key, places in found.items()
    }
    days: dict[date, list[UUID]] = {}
    for key, places in found.items():
        days.setdefault(log.rows[places[0]].on, []).append(key)
    out = []
    for key, places in found.items():
        on = log.rows[places[0]].on
        alike = any(
            other != key and (marks[key] & marks[other]).total() >= SAME_SHARE * max(len(places), len(found[other]))
            for other in days[on]
        )
        judged = [one for n in places if (one := log.noted[n]) is not None]
        by: NotedBy = log.rows[places[0]].by  # type: ignore[assignment]
        out.append(
            RoundOut(
                round=key, on=on, by=by, shots=len(places), unknown=len(places) - len(judged),
                over=rounded(sum(one.over for one in judged)), same_as=on if alike and len(places) > 2 else None,
            )
        )  # fmt: skip
    return sorted(out, key=lambda one: (one.on, str(one.round)), reverse=True)


def _leaks(log: Logged, proposal: RecommendationOut | None, spread: float) -> list[LeakSeenOut]:
    """Where strokes go by the model, moved by what was seen there."""
    if proposal is None:
        return []
    bands = ("approach_short", "approach_middle", "approach_long")

    def leak_of(one: Noted) -> str:
        if one.shot.situation != APPROACH:
            return one.shot.situation
        far = one.expected.layout.hole
        return bands[sum(far >= edge for edge in BANDS[1:3])]

    here = grouped(log.known, leak_of)
    shots = log.fitting.economy.shots_for(log.fitting.player.handicap)
    found = []
    for leak in proposal.leaks:
        noted = here.get(leak.situation, [])
        moved = seen_of(noted, spread).difference * leak.share * shots if noted else 0.0
        found.append(
            LeakSeenOut(
                situation=leak.situation, name=leak.name, shots=len(noted), model=rounded(leak.strokes_round),
                seen=rounded(leak.strokes_round + moved),
            )
        )  # fmt: skip
    return sorted(found, key=lambda one: -one.seen)


def _head_out(log: Logged, shown: HeadShown, names: dict[str, str]) -> HeadShownOut:
    here = [one for one in log.known if one.shot.club == shown.club and surface_of(one.shot) == shown.surface
            and one.shot.situation != APPROACH]  # fmt: skip
    tool = next(tool for tool in log.tools if tool.code == shown.club)
    model = sum(one.expected.strokes for one in here) / len(here)
    proof, balls = _proved(log, tool, here)
    return HeadShownOut(
        club=shown.club, name=names[shown.club], surface=shown.surface, model=rounded(model - proof),
        proof=rounded(proof), proof_balls=balls, log=rounded(shown.difference), log_shots=shown.shots,
        log_weight=rounded(shown.weight), called=shown.called, alone=shown.alone,
        total=rounded(model + shown.difference),
    )  # fmt: skip


def _proved(log: Logged, tool: Tool, here: Sequence[Noted]) -> tuple[float, int]:
    """What proofs moved of a head over these shots, and by how many balls."""
    from oblatus.core.fitting.proved import same_sole, shifts_of

    mine = [shift for shift in log.fitting.proved if same_sole(shift.head, tool.head)]
    if not mine:
        return 0.0, 0
    sheet = log.expectations.sheet
    moved = dict(
        zip((s.shot.key for s in sheet.short), shifts_of([tool.head], sheet.short, mine)[0].tolist(), strict=True)
    )
    return sum(moved.get(one.shot.situation, 0.0) for one in here) / len(here), sum(shift.balls for shift in mine)


def _choices(log: Logged) -> list[SituationChoiceOut]:
    """Situations that this player meets, approaches first, then the most frequent."""
    e = log.expectations
    places = [(APPROACH, ""), *((s.shot.key, s.ground.name) for s in sorted(e.sheet.short, key=lambda one: -one.share))]
    asked = [LoggedShot("", date.min, key, ground, None, e.codes[0], None, "green") for key, ground in places]
    return [
        SituationChoiceOut(situation=key, name=situation_name(key), ground=ground, advised=expected.best_club)
        for (key, ground), expected in zip(places, e.of(asked), strict=True)
        if expected is not None
    ]
