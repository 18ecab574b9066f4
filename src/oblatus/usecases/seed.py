"""Make a studio with its first fitter, with or without the demo data."""

from __future__ import annotations

from sqlmodel import Session

from oblatus.formats.demo import demo_fittings, demo_rack, demo_venues
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.repositories import StudioRows, any_studio
from oblatus.store.tables import Fitter, Studio
from oblatus.usecases.passwords import hash_password
from oblatus.usecases.start_fitting import add_whole
from oblatus.usecases.users import NewFitter
from oblatus.usecases.venues import venue_row

DEMO_STUDIO = "Scarp End Studio"
DEMO_FITTER = "Demo fitter"
DEMO_EMAIL = "fitter@scarp-end.example"
DEMO_PASSWORD = "chalk and slate"


def seed_once(database: Database, settings: Settings, *, demo: bool, first: NewFitter | None = None) -> bool:
    """On an empty database: the studio, its fitter (`first`, or the published one) and the demo rack; with `demo` the
    demo fittings too.

    Returns whether anything was made; a database with a studio is left alone.
    """
    with database.transaction() as session:
        if any_studio(session):
            return False
        if first is None:
            studio = add_studio(session, settings, DEMO_STUDIO, DEMO_EMAIL, DEMO_PASSWORD, demo=True)
        else:
            studio = add_studio(session, settings, f"{first.name}'s studio", first.email, first.password, first.name)
        rows = StudioRows(session, studio.id)
        rows.replace_rack([head.model_dump() for head in demo_rack()])
        for document in reversed(demo_fittings() if demo else []):
            add_whole(session, studio.id, document, DEMO_FITTER, settings)
        for record in demo_venues() if demo else []:
            session.add(venue_row(studio.id, DEMO_FITTER, record))
    return True


def add_studio(
    session: Session,
    settings: Settings,
    name: str,
    email: str,
    password: str,
    fitter_name: str = DEMO_FITTER,
    *,
    demo: bool = False,
) -> Studio:
    """A studio with one fitter; `demo` if the password is the published one."""
    studio = Studio(name=name)
    session.add(studio)
    session.flush()
    fitter = Fitter(
        studio_id=studio.id,
        email=email.strip().lower(),
        name=fitter_name,
        demo=demo,
        password_hash=hash_password(password, settings),
    )
    session.add(fitter)
    session.flush()
    return studio
