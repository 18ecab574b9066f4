"""Sign in, sign out, sessions, password, units."""

from uuid import UUID

from flask import session
from flask_login import current_user, login_user, logout_user
from flask_wtf.csrf import generate_csrf

from oblatus.errors import NotFoundError
from oblatus.usecases.set_units import set_units
from oblatus.usecases.sign_in import change_password, end_others, end_session, list_sessions, sign_in
from oblatus.web.answers import Answer, answer, nothing
from oblatus.web.auth import SignedIn, actor, caller, database, entered, know_browser, settings
from oblatus.web.routes import Routes
from oblatus.web.schemas_session import (
    EndedOut,
    PasswordIn,
    SessionLine,
    SessionList,
    SessionOut,
    SessionPath,
    SignInIn,
    UnitsIO,
)

blueprint = Routes("session", __name__, "/api/session")


@blueprint.get("", responses={200: SessionOut})
def read_session() -> Answer:
    """Who is signed in, and the token for changes."""
    return answer(_session())


@blueprint.post("", responses={200: SessionOut})
def start_session(body: SignInIn) -> Answer:
    """Sign in; the session and its token are new, an older one of this browser ends."""
    key, opened = sign_in(database(), settings(), body.email, body.password, caller(body.email))
    if current_user.is_authenticated:
        end_session(database(), actor(), entered().session_id)
    session.clear()
    login_user(SignedIn(key, opened))
    return know_browser(answer(_session()), body.email)


@blueprint.delete("", responses={200: SessionOut})
def end_this_session() -> Answer:
    """Sign out: the session ends on the server."""
    end_session(database(), actor(), entered().session_id)
    logout_user()
    session.clear()
    return answer(_session())


@blueprint.get("/list", responses={200: SessionList})
def get_sessions() -> Answer:
    """Where this fitter is signed in, last seen first."""
    mine = entered().session_id
    lines = [
        SessionLine(
            id=row.id, browser=row.browser, address=row.address, created_at=row.created_at, seen_at=row.seen_at,
            this=row.id == mine,
        )
        for row in list_sessions(database(), actor())
    ]  # fmt: skip
    return answer(SessionList(sessions=lines))


@blueprint.delete("/others", responses={200: EndedOut})
def end_other_sessions() -> Answer:
    """End every session of this fitter but this one."""
    return answer(EndedOut(ended=end_others(database(), actor(), entered().session_id)))


@blueprint.delete("/list/<uuid:session_id>", responses={204: None})
def end_one_session(path: SessionPath) -> Answer:
    """End one session of this fitter."""
    if end_session(database(), actor(), path.session_id) == 0:
        raise NotFoundError("There is no such session, or it has ended.")
    return nothing()


@blueprint.put("/password", responses={204: None})
def put_password(body: PasswordIn) -> Answer:
    """Another password; every other session ends."""
    change_password(database(), settings(), entered(), body.old, body.new, caller(entered().fitter.email))
    return nothing()


@blueprint.put("/units", responses={200: UnitsIO})
def put_units(body: UnitsIO) -> Answer:
    """Units for this fitter."""
    set_units(database(), actor(), body.distance, body.speed)
    return answer(body)


def _session() -> SessionOut:
    token = generate_csrf()
    if not current_user.is_authenticated:
        return SessionOut(csrf_token=token)
    found = entered()
    fitter = found.fitter
    return SessionOut(
        csrf_token=token,
        fitter=fitter.name,
        fitter_id=UUID(str(fitter.id)),
        email=fitter.email,
        demo=fitter.demo,
        studio=found.studio.name,
        units=UnitsIO.model_validate({"distance": fitter.distance_unit, "speed": fitter.speed_unit}),
    )
