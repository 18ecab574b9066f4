"""Sign in, sign out, units."""

from flask import session
from flask_login import current_user, login_user, logout_user
from flask_openapi3 import APIBlueprint
from flask_wtf.csrf import generate_csrf

from oblatus.usecases.actor import Actor
from oblatus.usecases.set_units import set_units
from oblatus.usecases.sign_in import sign_in, who_is
from oblatus.web.answers import Answer, answer
from oblatus.web.auth import SignedIn, actor, database, limiter, settings
from oblatus.web.schemas import ErrorOut, SessionOut, SignInIn, UnitsIO

blueprint = APIBlueprint("session", __name__, url_prefix="/api/session")


@blueprint.get("", responses={200: SessionOut})
def read_session() -> Answer:
    """Who is signed in, and the token for changes."""
    return answer(_session())


@blueprint.post("", responses={200: SessionOut, 401: ErrorOut, 429: ErrorOut})
@limiter.limit(lambda: settings().sign_in_limit)
def start_session(body: SignInIn) -> Answer:
    """Sign in; the session and its token are new."""
    fitter = sign_in(database(), settings(), body.email, body.password)
    found = who_is(database(), fitter.studio_id, fitter.id)
    studio = found[1].name if found else ""
    session.clear()
    login_user(SignedIn(Actor(fitter.id, fitter.studio_id, fitter.name), studio, fitter.distance_unit, fitter.speed_unit))
    return answer(_session())


@blueprint.delete("", responses={200: SessionOut})
def end_session() -> Answer:
    """Sign out."""
    logout_user()
    session.clear()
    return answer(_session())


@blueprint.put("/units", responses={200: UnitsIO})
def put_units(body: UnitsIO) -> Answer:
    """Units for this fitter."""
    set_units(database(), actor(), body.distance, body.speed)
    return answer(body)


def _session() -> SessionOut:
    token = generate_csrf()
    if not current_user.is_authenticated:
        return SessionOut(csrf_token=token)
    user: SignedIn = current_user
    units = UnitsIO.model_validate({"distance": user.distance, "speed": user.speed})
    return SessionOut(csrf_token=token, fitter=user.actor.name, studio=user.studio, units=units)
