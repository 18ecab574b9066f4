"""What a log offers to put in the place of what was assumed."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from oblatus.core.fitting.fitting import carry_model_of, faced_of
from oblatus.core.log.feedback import FacedBand, bands_of, mix_of, scale_of
from oblatus.core.log.says import FEWEST, HeadShown, surface_of
from oblatus.core.log.shots import APPROACH, after_shot
from oblatus.core.shots import BY_KEY, CATALOGUE, default_shot_mix
from oblatus.core.words import counted
from oblatus.formats.convert import fitting_from
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.heads import head_out
from oblatus.formats.log import OfferOut, OfferState, RoundOut, ShareNowOut, shares_of_bands
from oblatus.formats.sections.after import OFFERS, DecisionDocument, HeldDocument, head_key
from oblatus.formats.sections.choices import BandDocument
from oblatus.formats.sections.measuring import HeadEvidenceDocument, ShiftDocument
from oblatus.usecases.logged import Logged

NEARLY = 0.02
"""Figures that differ by no more are the same offer: each is reckoned with what the others put in place."""


def offers_of(log: Logged, shown: Sequence[HeadShown], rounds: Sequence[RoundOut]) -> list[OfferOut]:
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
        key="mix", name=OFFERS["mix"],
        words=f"{counted(n, 'shot')} of {counted(rounds, 'round')} in the place of the "
        f"{'typed' if typed else 'assumed'} mix",
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
        key="distances", name=OFFERS["distances"], shots=n,
        words=f"{counted(n, 'approach', 'approaches')} with a distance",
        before=HeldDocument(distances=before), state=_state(log, "distances", n, held=held),
        shares=shares_of_bands(bands), distances=offered,
    )  # fmt: skip


def _table_before(log: Logged, offered: float) -> float | None:
    """The weight of the handicap that was typed; None where it is the usual one, or the log's."""
    typed, said = log.document.choices.economy.table_scale, _said(log, "table")
    if typed is None or (said is not None and said.accepted and said.put is None):
        return None
    if said is not None and said.put is not None and said.put.table_scale == typed:
        return None if said.before is None else said.before.table_scale
    return None if abs(typed - offered) <= NEARLY else typed


def _table_offer(log: Logged) -> OfferOut | None:
    """How the strokes table fits, by balls that were counted until they were holed."""
    economy = log.fitting.economy
    handicap = log.expectations.handicap / economy.table_scale
    holed = [
        (after_shot(one.shot, one.expected.layout), one.shot.holed_in - 1)
        for one in log.known
        if one.shot.holed_in is not None
    ]
    found = scale_of(holed, handicap) if handicap > 0.0 else None
    if found is None:
        return None
    scale = round(min(max(found.scale, 0.3), 2.5), 3)
    return OfferOut(
        key="table", name=OFFERS["table"],
        words=f"{counted(found.balls, 'ball')} counted until holed: the handicap weighs {found.scale:.2f} of what the "
        f"table takes, 8 of 10 between {found.low:.2f} and {found.high:.2f}",
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
    key = head_key(shown.club, shown.surface)
    held = "worse" if shown.difference > 0 else "better"
    seen = f"{abs(shown.difference):.2f} strokes a shot {held} than expected"
    words = f"{seen}, {counted(shown.shots, 'shot')} beside the bag's others"
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
