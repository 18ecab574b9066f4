"""The course log of a fitting: shots come in, and what they say goes out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from uuid import UUID

from oblatus.core.card.setup import Tool
from oblatus.core.fitting import Fitting
from oblatus.core.fitting.fitting import carry_model_of, faced_of
from oblatus.core.fitting.leaks import BANDS
from oblatus.core.log.expected import Expectations
from oblatus.core.log.feedback import FacedBand, bands_of, mix_of, scale_of
from oblatus.core.log.says import (
    FEWEST,
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
from oblatus.core.log.shots import APPROACH, LoggedShot, after_shot, strokes_of_shot
from oblatus.core.shots import BY_KEY, CATALOGUE, default_shot_mix
from oblatus.errors import Fault, InputError, NotFoundError, TooManyError, fault
from oblatus.formats.card import CardClubOut
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log import (
    ClubChoiceOut,
    HeadShownOut,
    LeakSeenOut,
    LineOut,
    LogOut,
    NotedBy,
    NotedOut,
    OfferOut,
    OfferState,
    RoundOut,
    ShareNowOut,
    SituationChoiceOut,
    parts_out,
    reliable_out,
    seen_out,
    shares_of_bands,
)
from oblatus.formats.log_shots import MOST_LOGGED, LogShotDocument
from oblatus.formats.page import PageDocument
from oblatus.formats.recommendation import RecommendationOut, head_out
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.after import DecisionDocument, HeldDocument
from oblatus.formats.sections.choices import BandDocument
from oblatus.formats.sections.grounds import ground_called
from oblatus.formats.sections.measuring import HeadEvidenceDocument, ShiftDocument
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import LogShotRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import latest_day
from oblatus.usecases.engine import engine
from oblatus.usecases.propose import propose
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.strikes_of import measured

NO_LONGER = "not in this bag"
NEARLY = 0.02
"""Figures that differ by no more are the same offer: each is reckoned with what the others put in place."""
SAME_SHARE = 0.9
"""Two rounds of one day look the same from so many shots alike."""


@dataclass(frozen=True, slots=True)
class Logged:
    """The log of a fitting with all that judging it takes."""

    document: FittingDocument
    fitting: Fitting
    tools: tuple[Tool, ...]
    expectations: Expectations
    rows: Sequence[LogShotRow]
    shots: Sequence[LoggedShot]
    noted: list[Noted | None]

    @property
    def known(self) -> list[Noted]:
        """The shots that are judged."""
        return [one for one in self.noted if one is not None]


def take_shots(database: Database, actor: Actor, fitting_id: UUID, shots: Sequence[LogShotDocument]) -> int:
    """Take shots that the fitter noted, sent twice or not; returns how many were new.

    Raises
    ------
    InputError
        If a day is in the future, or a club is none of this bag.
    NotFoundError
        If the studio has no such fitting.
    TooManyError
        If the log is full.
    """
    with database.transaction() as session:
        row = StudioRows(session, actor.studio_id).fitting(fitting_id)
        check_shots(FittingDocument.model_validate(row.document), shots)
        return add_shots(StudioRounds(session, actor.studio_id), fitting_id, shots, "fitter")


def check_shots(document: FittingDocument, shots: Sequence[LogShotDocument]) -> None:
    """Refuse shots of days to come, and with clubs that the bag does not have."""
    known = {"pw", "9i", *(f"own:{n}" for n in range(len(document.bag.wedges)))}
    known |= {one.code for one in document.bag.former}
    faults: list[Fault] = []
    for n, shot in enumerate(shots):
        if shot.on > latest_day():
            faults += fault(f"shots.{n}.on", "is in the future", shot.on).faults
        if not shot.removed and shot.club not in known:
            faults += fault(f"shots.{n}.club", "is not in this bag", shot.club).faults
    if faults:
        raise InputError(faults)


def add_shots(rows: StudioRounds, fitting_id: UUID, shots: Sequence[LogShotDocument], by: NotedBy) -> int:
    """Rows for shots; a phone with a wrong clock played today."""
    if rows.count(fitting_id) + len(shots) > MOST_LOGGED:
        raise TooManyError(f"A log holds at most {MOST_LOGGED} shots.", 3600)
    moment = now()
    latest = latest_day()
    every: dict[UUID, dict[str, object]] = {}
    for shot in shots:
        removed = shot.removed or (shot.id in every and every[shot.id]["removed_at"] is not None)
        every[shot.id] = {
            "id": shot.id, "round": shot.round, "on": min(shot.on, latest),
            "shot": shot.model_dump(mode="json", exclude={"id", "round", "on", "removed"}), "by": by, "taken_at": moment,
            "removed_at": moment if removed else None,
        }  # fmt: skip
    return rows.add_shots(fitting_id, list(every.values())) if every else 0


def shots_from_page(
    document: FittingDocument, page: PageDocument, shots: Sequence[LogShotDocument]
) -> list[LogShotDocument]:
    """Shots of a player's page with the codes and names that its clubs and grounds go by today: they may have changed
    since."""
    codes = {club.code: code_now(document, club) for club in page.card.clubs}

    def now_called(code: str | None) -> str | None:
        return None if code is None else codes.get(code, code)

    return [
        shot.model_copy(
            update={
                "club": now_called(shot.club),
                "advised": now_called(shot.advised),
                "ground": ground_called(document.grounds, shot.ground),
            }
        )
        for shot in shots
    ]


def code_now(document: FittingDocument, club: CardClubOut) -> str:
    """The code by which a club of a page goes in a bag: by its name, of two alike the one of that loft; the wedge in its
    place where that is the same but for its name; its own code where it is in the bag no longer."""
    wedges = document.bag.wedges
    named = [(abs(float(w.loft_deg) - club.loft_deg), n) for n, w in enumerate(wedges) if w.name == club.name]
    if named:
        return f"own:{min(named)[1]}"
    former = next((one.code for one in document.bag.former if one.wedge.name == club.name), None)
    if former is not None:
        return former
    for n, wedge in enumerate(wedges):
        if club.code == f"own:{n}" and (wedge.loft_deg, wedge.bounce_deg) == (club.loft_deg, club.bounce_deg):
            return club.code
    return f"gone:{club.code}"[:40] if club.code.startswith("own:") else club.code


def shot_of_row(row: LogShotRow) -> LogShotDocument:
    """A shot as it is kept."""
    return LogShotDocument.model_validate(
        {**row.shot, "id": str(row.id), "round": str(row.round), "on": row.on.isoformat(),
         "removed": row.removed_at is not None}
    )  # fmt: skip


def _logged(row: LogShotRow) -> LoggedShot:
    """A kept shot as the engine takes it: it was looked at when it came."""
    shot = row.shot
    return LoggedShot(
        str(row.round), row.on, shot["situation"], shot["ground"], shot["distance_m"], shot["club"], shot["advised"],
        shot["result"], shot["left_m"], shot["holed_in"],
    )  # fmt: skip


def mark_round(database: Database, actor: Actor, fitting_id: UUID, round_id: UUID, *, out: bool) -> None:
    """Take a round out of the log, or put it back; raises NotFoundError."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id, lock=True)
        rows = StudioRounds(session, actor.studio_id)
        if not rows.of_round(fitting_id, round_id):
            raise NotFoundError("There is no such round.")
        rows.mark_round(fitting_id, round_id, now() if out else None)


def read_log(database: Database, actor: Actor, fitting_id: UUID) -> Logged:
    """The log of a fitting, judged; raises NotFoundError, and InputError where nothing can be expected."""
    return judged_log(*_inputs_and_rows(database, actor, fitting_id))


def _inputs_and_rows(database: Database, actor: Actor, fitting_id: UUID) -> tuple[FittingInputs, Sequence[LogShotRow]]:
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        return inputs, StudioRounds(session, actor.studio_id).shots(fitting_id)


def judged_log(inputs: FittingInputs, rows: Sequence[LogShotRow]) -> Logged:
    """The rows of a log with what the model expected of each."""
    document = inputs.document
    proofs_only = document.model_copy(update={"evidence": tuple(e for e in document.evidence if e.source == "proof")})
    fitting = fitting_from(proofs_only, inputs.rack, measured(inputs.strikes))
    tools = tuple(Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned)
    expectations = Expectations(fitting, tools, engine().judge, fitting.proved)
    shots = [_logged(row) for row in rows]
    noted = [
        None if one is None else Noted(shot, one, strokes_of_shot(shot, one.layout, expectations.handicap))
        for shot, one in zip(shots, expectations.of(shots), strict=True)
    ]
    return Logged(document, fitting, tools, expectations, rows, shots, noted)


def see_log(database: Database, actor: Actor, fitting_id: UUID) -> LogOut:
    """What the log says; raises as `read_log`."""
    inputs, rows = _inputs_and_rows(database, actor, fitting_id)
    proposal = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    return log_out(judged_log(inputs, rows), proposal)


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
        offers=_offers(log, shown, rounds), decisions=list(log.document.after.decisions),
        choices=_choices(log), clubs_here=[ClubChoiceOut(code=code, name=names[code]) for code in log.expectations.codes],
    )  # fmt: skip


def names_of(log: Logged) -> dict[str, str]:
    """Names of clubs by code, former ones too."""
    names = {tool.code: tool.name for tool in log.expectations.tools}
    return {one.code: f"{one.wedge.name}, as it was" for one in log.document.bag.former} | names


def situation_name(key: str) -> str:
    """A situation in words."""
    return "approach" if key == APPROACH else BY_KEY[key].name


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


def _offers(log: Logged, shown: Sequence[HeadShown], rounds: Sequence[RoundOut]) -> list[OfferOut]:
    """What the log would put in the place of what was assumed."""
    if not log.shots:
        return []
    found = [_mix_offer(log, len(rounds)), _distances_offer(log), _table_offer(log)]
    found += [_head_offer(log, one) for one in shown]
    return [one for one in found if one is not None]


def _state(log: Logged, key: str, shots: int, *, held: bool) -> OfferState:
    """Where an offer stands: taken is what the fitting holds, whatever was said or taken back since."""
    said = _said(log, key)
    if held:
        return "accepted"
    if said is not None and shots != said.shots:
        return "newer"
    return "open" if said is None or said.accepted else "declined"


def _said(log: Logged, key: str) -> DecisionDocument | None:
    return next((one for one in log.document.after.decisions if one.key == key), None)


def _mix_before(log: Logged) -> dict[str, float] | None:
    """The mix beside which shots are counted: what the fitter typed, None where it is assumed.

    What a log put in place is none: the shots would count twice.
    """
    typed, said = log.document.player.shot_mix, _said(log, "mix")
    if typed is None or (said is not None and said.accepted and said.put is None):
        return None
    if said is not None and said.put is not None and said.put.shot_mix == typed:
        return None if said.before is None else said.before.shot_mix
    return None if typed == _counted_mix(log, None) else typed


def _counted_mix(log: Logged, before: dict[str, float] | None) -> dict[str, float]:
    """The mix as counted, in whole ten-thousandths (sum 1)."""
    mix = mix_of(log.shots, before or default_shot_mix(log.fitting.player.handicap))
    whole = {key: round(value, 4) for key, value in mix.items()}
    biggest = max(whole, key=lambda key: whole[key])
    whole[biggest] = round(whole[biggest] + 1.0 - sum(whole.values()), 4)
    return whole


def _mix_offer(log: Logged, rounds: int) -> OfferOut:
    typed = _mix_before(log)
    assumed = {
        shot.key: (typed or default_shot_mix(log.fitting.player.handicap)).get(shot.key, 0.0) for shot in CATALOGUE
    }
    mix = _counted_mix(log, typed)
    counts = Counter(shot.situation for shot in log.shots)
    short = [key for key in mix if key in counts or BY_KEY[key].kind != "full"]
    full = [key for key in mix if key not in short]
    shares = [
        ShareNowOut(name="approaches", before=round(sum(assumed[key] for key in full), 4), count=counts[APPROACH],
                    after=round(sum(mix[key] for key in full), 4)),
        *(ShareNowOut(name=BY_KEY[key].name, before=round(assumed[key], 4), count=counts[key], after=round(mix[key], 4))
          for key in short),
    ]  # fmt: skip
    n = len(log.shots)
    return OfferOut(
        key="mix", name="Shots faced",
        words=f"{n} shots of {rounds} rounds in the place of the {'typed' if typed else 'assumed'} mix",
        shots=n, shot_mix=mix, before=HeldDocument(shot_mix=typed),
        state=_state(log, "mix", n, held=log.document.player.shot_mix == mix),
        shares=sorted(shares, key=lambda one: -one.after),
    )  # fmt: skip


def _distances_before(log: Logged) -> tuple[BandDocument, ...] | None:
    """The distances beside which those of the log are counted: typed ones, None where the shot mix says them."""
    typed, said = log.document.choices.distances, _said(log, "distances")
    if typed is None or (said is not None and said.accepted and said.put is None):
        return None
    if said is not None and said.put is not None and said.put.distances == typed:
        return None if said.before is None else said.before.distances
    return None if _nearly(typed, _counted_distances(log, None)[1]) else typed


def _counted_distances(
    log: Logged, before: tuple[BandDocument, ...] | None
) -> tuple[list[FacedBand], list[BandDocument]]:
    """Stretches as counted, and as the fitting would hold them; nothing where no approach has a distance."""
    choices = log.document.choices.model_copy(update={"distances": before})
    fitting = fitting_from(log.document.model_copy(update={"choices": choices}), ())
    bands = bands_of(log.shots, faced_of(fitting, carry_model_of(log.fitting)))
    if not bands:
        return [], []
    shares = [round(band.share, 4) for band in bands]
    shares[0] = round(shares[0] + 1.0 - sum(shares), 4)
    offered = [
        BandDocument(from_m=band.low, to_m=max(round(band.high, 1), band.low + 5.0), share=share)
        for band, share in zip(bands, shares, strict=True)
    ]
    return bands, offered


def _nearly(mine: Sequence[BandDocument], offered: Sequence[BandDocument]) -> bool:
    """Whether distances are the same but for little: what is assumed follows the shot mix."""
    return len(mine) == len(offered) and all(
        one.from_m == other.from_m and abs(one.share - other.share) <= NEARLY
        for one, other in zip(mine, offered, strict=True)
    )


def _distances_offer(log: Logged) -> OfferOut | None:
    before = _distances_before(log)
    bands, offered = _counted_distances(log, before)
    if not bands:
        return None
    n = sum(band.count for band in bands)
    held = _nearly(log.document.choices.distances or (), offered)
    return OfferOut(
        key="distances", name="Distances faced", words=f"{n} approaches with a distance", shots=n,
        before=HeldDocument(distances=before), state=_state(log, "distances", n, held=held),
        shares=shares_of_bands(bands), distances=offered,
    )  # fmt: skip


def _table_before(log: Logged, counted: float) -> float | None:
    """The weight of the handicap that was typed; None where it is the usual one, or the log's."""
    typed, said = log.document.choices.economy.table_scale, _said(log, "table")
    if typed is None or (said is not None and said.accepted and said.put is None):
        return None
    if said is not None and said.put is not None and said.put.table_scale == typed:
        return None if said.before is None else said.before.table_scale
    return None if abs(typed - counted) <= NEARLY else typed


def _table_offer(log: Logged) -> OfferOut | None:
    """How the strokes table fits, by balls that were counted until they were holed."""
    economy = log.fitting.economy
    handicap = log.expectations.handicap / economy.table_scale
    counted = [
        (after_shot(one.shot, one.expected.layout), one.shot.holed_in - 1)
        for one in log.known
        if one.shot.holed_in is not None
    ]
    found = scale_of(counted, handicap) if handicap > 0.0 else None
    if found is None:
        return None
    scale = round(min(max(found.scale, 0.3), 2.5), 3)
    return OfferOut(
        key="table", name="Strokes table",
        words=f"{found.balls} balls counted until holed: the handicap weighs {found.scale:.2f} of what the table "
        f"takes, 8 of 10 between {found.low:.2f} and {found.high:.2f}",
        shots=found.balls, table_scale=scale, before=HeldDocument(table_scale=_table_before(log, scale)),
        state=_state(log, "table", found.balls, held=abs(economy.table_scale - scale) <= NEARLY),
    )  # fmt: skip


def _head_offer(log: Logged, shown: HeadShown) -> OfferOut | None:
    if shown.shots < FEWEST:
        return None
    tool = next(tool for tool in log.tools if tool.code == shown.club)
    here = [one for one in log.known if one.shot.club == shown.club and surface_of(one.shot) == shown.surface
            and one.shot.situation != APPROACH]  # fmt: skip
    counts = Counter(one.shot.situation for one in here)
    key = f"head:{shown.club}:{shown.surface}"
    held = "worse" if shown.difference > 0 else "better"
    words = (
        f"{abs(shown.difference):.2f} strokes a shot {held} than expected, {shown.shots} shots beside the bag's others"
    )
    evidence = HeadEvidenceDocument(
        source="log", source_id=log.rows[0].fitting_id, on=max(row.on for row in log.rows), name=tool.name,
        against=f"the bag's other clubs on {shown.surface}", standing="open" if not shown.called else
        "contradicted" if shown.difference > 0 else "proved",
        head=head_out(tool.head),
        shots=tuple(
            ShiftDocument(
                shot=shot, strokes=round(min(max(shown.difference, -2.0), 2.0), 4), spread=round(shown.sd, 4), balls=count
            )
            for shot, count in counts.most_common()
        ),
    )  # fmt: skip
    return OfferOut(
        key=key, name=f"{tool.name}, {shown.surface}", words=words + _doubt_of_head(shown),
        shots=shown.shots, state=_state(log, key, shown.shots, held=_holds(log.document, evidence)), evidence=evidence,
    )  # fmt: skip


def _doubt_of_head(shown: HeadShown) -> str:
    """What keeps a head from being called."""
    if shown.called:
        return ""
    if shown.alone in ("worse", "better"):
        return f"; its shots went {shown.alone} than expected, by head or player: a proof beside another head tells which"
    return "; it may be chance"


def _holds(document: FittingDocument, offered: HeadEvidenceDocument) -> bool:
    """Whether the fitting holds what the log shows of a head there."""
    return any(
        one.source == "log" and (one.name, one.against) == (offered.name, offered.against)
        and [shot.balls for shot in one.shots] == [shot.balls for shot in offered.shots]
        and abs(one.shots[0].strokes - offered.shots[0].strokes) <= NEARLY
        for one in document.evidence
    )  # fmt: skip


def see_round(database: Database, actor: Actor, fitting_id: UUID, round_id: UUID) -> list[NotedOut]:
    """The shots of a round with what each was worth; raises NotFoundError."""
    log = read_log(database, actor, fitting_id)
    names = names_of(log)
    found = [
        NotedOut(
            shot=shot_of_row(row), club_name=names.get(shot.club, NO_LONGER),
            situation_name=situation_name(shot.situation),
            strokes=None if one is None else rounded(one.strokes),
            expected=None if one is None else rounded(one.expected.strokes),
        )
        for row, shot, one in zip(log.rows, log.shots, log.noted, strict=True)
        if row.round == round_id
    ]  # fmt: skip
    if not found:
        raise NotFoundError("There is no such round.")
    return found
