"""Proofs: plan, balls, feel, and what they show."""

from oblatus.formats.proof import FeelDocument, ProofOut, ProofRequest
from oblatus.usecases.proofs import (
    evidence_from,
    plan_ahead,
    see_proofs,
    start_proof,
    take_balls,
    take_proof_out,
    tell_feel,
    tell_of_ball,
)
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes
from oblatus.web.schemas import FittingPath
from oblatus.web.schemas_proof import (
    BallPath,
    BallsIn,
    BallsOut,
    BallTellIn,
    EvidenceFromOut,
    PlanAheadIn,
    PlanAheadOut,
    ProofIn,
    ProofPath,
    ProofsOut,
)

blueprint = Routes("proofs", __name__, "/api/fittings/<uuid:fitting_id>")


@blueprint.get("/proofs", responses={200: ProofsOut})
def get_proofs(path: FittingPath) -> Answer:
    """Every proof with what its balls say, newest first."""
    return answer(ProofsOut(proofs=see_proofs(database(), actor(), path.fitting_id)))


@blueprint.get("/proof-plan", responses={200: PlanAheadOut})
def get_proof_plan(path: FittingPath, query: PlanAheadIn) -> Answer:
    """What so many balls can tell apart, before the first one."""
    each = query.situations * query.balls_per_block * query.rounds
    return answer(PlanAheadOut(words=plan_ahead(database(), actor(), path.fitting_id, each)))


@blueprint.post("/proofs", responses={201: ProofOut})
def post_proof(path: FittingPath, body: ProofIn) -> Answer:
    """Plan a proof."""
    request = ProofRequest.model_validate(body.model_dump(exclude={"id"}))
    return answer(start_proof(database(), actor(), path.fitting_id, body.id, request), 201)


@blueprint.delete("/proofs/<uuid:proof_id>", responses={204: None})
def delete_proof(path: ProofPath) -> Answer:
    """Take a proof out."""
    take_proof_out(database(), actor(), path.fitting_id, path.proof_id, out=True)
    return nothing()


@blueprint.post("/proofs/<uuid:proof_id>/back", responses={204: None})
def post_proof_back(path: ProofPath) -> Answer:
    """Put a proof back that was taken out."""
    take_proof_out(database(), actor(), path.fitting_id, path.proof_id, out=False)
    return nothing()


@blueprint.post("/proofs/<uuid:proof_id>/balls", responses={200: BallsOut})
def post_balls(path: ProofPath, body: BallsIn) -> Answer:
    """Take balls; sending them twice takes them once."""
    return answer(BallsOut(taken=take_balls(database(), actor(), path.fitting_id, path.proof_id, body.balls)))


@blueprint.patch("/proofs/<uuid:proof_id>/balls/<uuid:ball_id>", responses={204: None})
def patch_ball(path: BallPath, body: BallTellIn) -> Answer:
    """Set a ball aside with its reason, count it again, take it out or put it back."""
    changes = body.model_dump(exclude_unset=True)
    tell_of_ball(database(), actor(), path.fitting_id, path.proof_id, path.ball_id, changes)
    return nothing()


@blueprint.put("/proofs/<uuid:proof_id>/feel", responses={204: None})
def put_feel(path: ProofPath, body: FeelDocument) -> Answer:
    """Say how a block felt."""
    tell_feel(database(), actor(), path.fitting_id, path.proof_id, body)
    return nothing()


@blueprint.get("/proofs/<uuid:proof_id>/evidence", responses={200: EvidenceFromOut})
def get_evidence_from(path: ProofPath) -> Answer:
    """What a proof shows of its heads, as it would count in the proposal."""
    return answer(EvidenceFromOut(evidence=evidence_from(database(), actor(), path.fitting_id, path.proof_id)))
