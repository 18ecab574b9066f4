"""Plan a proof, hit its balls, set them aside, say how blocks felt, and let it count in the proposal."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from oblatus.core import ENGINE_VERSION
from oblatus.core.clubs import Head
from oblatus.core.fitting import Fitting, StrokesJudge
from oblatus.core.fitting.proved import same_sole
from oblatus.core.fitting.proving import promise_of
from oblatus.core.proof.outcome import IN_SAND
from oblatus.errors import fault
from oblatus.formats.convert import fitting_from, head_from
from oblatus.formats.fields import faults_of
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.heads import head_out
from oblatus.formats.proof import (
    FeelDocument,
    ProofBall,
    ProofCandidate,
    ProofDocument,
    ProofOut,
    ProofRequest,
    ProofSituation,
)
from oblatus.formats.sections.bag import HeadDocument, RackHeadDocument
from oblatus.formats.sections.measuring import HeadEvidenceDocument
from oblatus.store.database import Database
from oblatus.store.proofs import StudioProofs
from oblatus.store.repositories import StudioRows
from oblatus.store.tables import ProofBallRow, ProofRow, now
from oblatus.usecases.actor import Actor
from oblatus.usecases.days import today
from oblatus.usecases.engine import engine
from oblatus.usecases.judge_proof import evidence_of, plan_words, proof_out
from oblatus.usecases.propose import propose
from oblatus.usecases.rack_of import rack_for
from oblatus.usecases.show_carries import inputs_of
from oblatus.usecases.strikes_of import measured

MOST_PROOFS = 60


def plan_document(
    document: FittingDocument,
    rack: Sequence[RackHeadDocument],
    fitting: Fitting,
    request: ProofRequest,
    built: Mapping[str, HeadDocument],
    judge: StrokesJudge,
    proof_id: UUID,
    today: date,
) -> ProofDocument:
    """A proof of candidates in situations, with what the model expects of them today.

    A candidate is an owned wedge (own:N), a head of the rack (code), or one as it is built for the proposal (code@loft):
    `built` has those.

    Raises
    ------
    InputError
        If a candidate or a situation is not there.
    """
    heads = [_head(document, rack, built, n, code) for n, code in enumerate(request.candidates)]
    promise = promise_of(
        fitting, [head_from(head) for _, _, head in heads], [(s.shot, s.ground) for s in request.situations], judge
    )  # fmt: skip
    candidates = tuple(
        ProofCandidate(
            code=code, name=name, owned=owned, head=head,
            expected_strokes=tuple(round(float(x), 4) for x in promise.strokes[n]),
            run_m=tuple(round(float(x), 3) for x in promise.run[n]),
        )
        for n, (code, (name, owned, head)) in enumerate(zip(request.candidates, heads, strict=True))
    )  # fmt: skip
    situations = tuple(
        ProofSituation(
            shot=s.shot.key, name=s.shot.name, surface=s.shot.surface, ground=s.ground.name, hole_m=s.layout.hole,
            room_m=s.layout.room, behind_m=s.layout.behind, short=s.layout.short, share=round(float(w), 5),
        )
        for s, w in zip(promise.scenarios, promise.weights, strict=True)
    )  # fmt: skip
    return ProofDocument(
        id=proof_id, made_on=today, engine_version=ENGINE_VERSION, handicap=document.player.handicap,
        shots_a_round=round(fitting.economy.shots_for(document.player.handicap), 3),
        round_share=round(sum(s.share for s in promise.scenarios), 5), candidates=candidates, situations=situations,
        balls_per_block=request.balls_per_block, rounds=request.rounds, seed=request.seed, hide_model=request.hide_model,
    )  # fmt: skip


def _head(
    document: FittingDocument, rack: Sequence[RackHeadDocument], built: Mapping[str, HeadDocument], n: int, code: str
) -> tuple[str, bool, HeadDocument]:
    """Name, whether it is owned, and geometry of a candidate."""
    if code in built:
        known = code.partition("@")[0]
        return _named(document, rack, known) or known, known.startswith("own:"), built[code]
    name = _named(document, rack, code)
    if name is None:
        raise fault(f"candidates.{n}", "is neither owned nor on the rack", code)
    if code.startswith("own:"):
        wedge = document.bag.wedges[int(code.removeprefix("own:"))]
        return name, True, head_out(head_from(wedge))
    return name, False, head_out(head_from(next(head for head in rack if head.code == code)))


def _named(document: FittingDocument, rack: Sequence[RackHeadDocument], code: str) -> str | None:
    number = code.removeprefix("own:")
    if code.startswith("own:"):
        wedges = document.bag.wedges
        return wedges[int(number)].name if number.isdigit() and int(number) < len(wedges) else None
    return next((head.name for head in rack if head.code == code), None)


def start_proof(database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID, request: ProofRequest) -> ProofOut:
    """Plan a proof with what is expected today; sent again it is the same one.

    Raises
    ------
    InputError
        If a candidate or a situation is not there, or there are too many proofs.
    NotFoundError
        If the studio has no such fitting.
    """
    inputs = inputs_of(database, actor, fitting_id)
    heads = inputs.document.rack if inputs.document.rack is not None else inputs.rack
    fitting = fitting_from(inputs.document, heads, measured(inputs.strikes))
    result = propose(inputs.document, inputs.rack, measured(inputs.strikes)).result
    built = {
        f"{c.code}@{c.head.loft_deg:g}": c.head for club in (result.clubs if result else []) for c in club.candidates
    }
    document = plan_document(
        inputs.document, heads, fitting, request, built, engine().judge, proof_id, today()
    )  # fmt: skip
    with database.transaction() as session:
        rows = StudioProofs(session, actor.studio_id)
        StudioRows(session, actor.studio_id).fitting(fitting_id)
        if len(rows.proofs(fitting_id)) >= MOST_PROOFS:
            raise fault("proof", f"a fitting holds at most {MOST_PROOFS} proofs")
        rows.add_proof(
            ProofRow(id=proof_id, studio_id=actor.studio_id, fitting_id=fitting_id,
                     document=document.model_dump(mode="json"), made_by=actor.name)
        )  # fmt: skip
        row = rows.proof(fitting_id, proof_id)
        return proof_out(_whole(rows, row))


def plan_ahead(database: Database, actor: Actor, fitting_id: UUID, each: int) -> str:
    """What so many balls with each club can tell apart, in words; raises NotFoundError if there is no fitting."""
    with database.transaction() as session:
        StudioRows(session, actor.studio_id).fitting(fitting_id)
    return plan_words(each)


def see_proofs(database: Database, actor: Actor, fitting_id: UUID) -> list[ProofOut]:
    """Every proof of a fitting with what its balls say, newest first; raises NotFoundError if there is no fitting."""
    with database.transaction() as session:
        fittings, rows = StudioRows(session, actor.studio_id), StudioProofs(session, actor.studio_id)
        document = FittingDocument.model_validate(fittings.fitting(fitting_id).document)
        stock = fitting_from(document, rack_for(fittings, fitting_id), ()).stock
        found = [(_whole(rows, row), rows.balls(row.id, out=True)) for row in rows.proofs(fitting_id)]
    heads = [item.head for item in stock]
    return [
        proof_out(proof).model_copy(
            update={"taken_out": tuple(_ball(row) for row in out), "replaced": _replaced(proof, heads)}
        )
        for proof, out in found
    ]


def _replaced(proof: ProofDocument, heads: Sequence[Head]) -> tuple[str, ...]:
    """Which clubs of a proof are neither owned nor on the rack any longer, in words."""
    return tuple(
        f"{one.name} as it was proved is neither owned nor on the rack any longer: what was shown of it counts no more."
        for one in proof.candidates
        if not any(same_sole(head_from(one.head), head) for head in heads)
    )


def proof_documents(rows: StudioProofs, fitting_id: UUID) -> list[ProofDocument]:
    """Every proof of a fitting with its balls, newest first."""
    return [_whole(rows, row) for row in rows.proofs(fitting_id)]


def take_balls(database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID, balls: Sequence[ProofBall]) -> int:
    """Add balls, all or none; those that stand there already are left as they are. Returns how many were new.

    Raises
    ------
    InputError
        If a ball is not of its block.
    NotFoundError
        If the studio has no such proof.
    """
    with database.transaction() as session:
        rows = StudioProofs(session, actor.studio_id)
        row = rows.proof(fitting_id, proof_id, lock=True)
        whole = _whole(rows, row)
        known = {ball.id for ball in whole.balls}
        new = [ball for ball in balls if ball.id not in known]
        _checked({**whole.model_dump(mode="json"), "balls": [b.model_dump(mode="json") for b in (*whole.balls, *new)]})
        for n, ball in enumerate(new):
            if ball.outcome in IN_SAND and whole.situations[ball.situation].surface != "sand":
                raise fault(f"balls.{n}.outcome", "is an outcome of sand alone", ball.outcome)
        return rows.add_balls(
            proof_id, [(b.id, b.set_aside, b.model_dump(mode="json", exclude={"id", "set_aside"})) for b in new]
        )  # fmt: skip


def tell_of_ball(
    database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID, ball_id: UUID, changes: Mapping[str, Any]
) -> None:
    """Set a ball aside with a reason (None: it counts), or take it out and put it back; raises NotFoundError."""
    with database.transaction() as session:
        rows = StudioProofs(session, actor.studio_id)
        rows.proof(fitting_id, proof_id)
        row = rows.ball(proof_id, ball_id)
        if "set_aside" in changes:
            row.set_aside = changes["set_aside"]
        if changes.get("out") is not None:
            row.removed_at = (row.removed_at or now()) if changes["out"] else None
        session.add(row)


def tell_feel(database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID, feel: FeelDocument) -> None:
    """Say how a block felt; raises NotFoundError."""
    with database.transaction() as session:
        rows = StudioProofs(session, actor.studio_id)
        row = rows.proof(fitting_id, proof_id, lock=True)
        row.feel = {**row.feel, str(feel.block): feel.value}
        session.add(row)


def take_proof_out(database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID, *, out: bool) -> None:
    """Take a proof out, or put it back until the bin is emptied; raises NotFoundError."""
    with database.transaction() as session:
        row = StudioProofs(session, actor.studio_id).proof(fitting_id, proof_id, lock=True)
        row.removed_at = (row.removed_at or now()) if out else None
        session.add(row)


def evidence_from(database: Database, actor: Actor, fitting_id: UUID, proof_id: UUID) -> list[HeadEvidenceDocument]:
    """What a proof shows of its heads, as it would count in the proposal; raises NotFoundError.

    Raises
    ------
    InputError
        If no ball was hit.
    """
    with database.transaction() as session:
        rows = StudioProofs(session, actor.studio_id)
        document = _whole(rows, rows.proof(fitting_id, proof_id))
    found = evidence_of(document, today())
    if not found:
        raise fault("balls", "no ball was hit with two of the clubs in one situation")
    return found


def _whole(rows: StudioProofs, row: ProofRow) -> ProofDocument:
    """The proof with its balls and feel."""
    balls = [_ball(b).model_dump(mode="json") for b in rows.balls(row.id)]
    feel = [{"block": int(block), "value": value} for block, value in row.feel.items()]
    return ProofDocument.model_validate({**row.document, "balls": balls, "feel": feel})


def _ball(row: ProofBallRow) -> ProofBall:
    return ProofBall.model_validate({**row.ball, "id": str(row.id), "set_aside": row.set_aside})


def _checked(values: Mapping[str, Any]) -> ProofDocument:
    try:
        return ProofDocument.model_validate(values)
    except ValidationError as error:
        raise faults_of(error) from error
