"""The studio's claims against what logs show."""

from typing import Annotated

from oblatus.core.bounds import Bound
from oblatus.formats.fields import Strict, Within
from oblatus.formats.log import ScoreOfClaimsOut
from oblatus.usecases.claims import see_claims, take_claims
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import actor, database
from oblatus.web.routes import Routes

blueprint = Routes("claims", __name__, "/api/claims")


class ClaimsIn(Strict):
    """The doubt of claims that new fittings begin with."""

    claims_sd: Annotated[float, Within(Bound(0.05, 1.0, ""))]


@blueprint.get("", responses={200: ScoreOfClaimsOut})
def get_claims() -> Answer:
    """What was claimed, and what came of it."""
    return answer(see_claims(database(), actor()))


@blueprint.put("", responses={200: ScoreOfClaimsOut})
def put_claims(body: ClaimsIn) -> Answer:
    """Let new fittings begin with this doubt."""
    take_claims(database(), actor(), body.claims_sd)
    return answer(see_claims(database(), actor()))
