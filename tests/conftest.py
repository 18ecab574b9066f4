"""Fixtures shared by every test: one forgetful PostgreSQL for the run, one application, a clean studio for each test."""

from __future__ import annotations

import logging
import os
import shutil
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from hypothesis import settings as hypothesis_settings
from sqlalchemy import Engine, create_engine, text
from sqlalchemy.exc import OperationalError
from sqlalchemy.pool import NullPool
from sqlmodel import select

from oblatus.core.strike.family_jobs import SHAPE
from oblatus.settings import DEVICE_KINDS, PROJECT, Settings
from oblatus.store.database import Database
from oblatus.store.families import SharedBlock
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer
from oblatus.store.tables import FittingRow
from oblatus.usecases.engine import engine
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD, add_studio, seed_once
from oblatus.web.app import create_app

# kernels compile inside the first example, so no example has a deadline; the same examples on every machine
hypothesis_settings.register_profile("oblatus", deadline=None, derandomize=True)
hypothesis_settings.load_profile("oblatus")
logging.getLogger("werkzeug").setLevel(logging.WARNING)  # a failure shows its own words, not a page of requests

FAMILIES = "OBLATUS_FAMILIES"
TABLES = (
    "log_shot", "drill_score", "handover", "build_order", "proof_ball", "proof", "edit", "sign_in_try", "fitter_session",
    "photo", "venue_record", "reading", "import_mapping", "import_run", "device_link", "strike", "snapshot", "rack_head",
    "fitting", "fitter", "studio",
)  # fmt: skip
LONG = (
    "test_drill.py", "test_hostile.py", "test_serve.py", "test_sweeps.py", "test_cli.py", "test_judge.py",
    "test_bridge.py", "test_doubt_and_leaks.py", "test_every_screen.py", "test_fitting_flow.py", "test_proof_flow.py",
    "test_nothing_lost.py", "test_log_flow.py",
)  # fmt: skip
"""Files that take longest: begun first, so that none is left for one worker at the end."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Long files first."""
    items.sort(key=lambda item: LONG.index(item.path.name) if item.path.name in LONG else len(LONG))


def pytest_configure(config: pytest.Config) -> None:
    """A folder of families for all that test side by side, and for what they start."""
    if not hasattr(config, "workerinput"):
        os.environ[FAMILIES] = tempfile.mkdtemp(prefix="oblatus-families-")


def pytest_unconfigure(config: pytest.Config) -> None:
    """Take it away."""
    if not hasattr(config, "workerinput"):
        shutil.rmtree(os.environ.pop(FAMILIES))


@pytest.fixture(scope="session", autouse=True)
def families() -> None:
    """Families of passes in one folder: what one test has made the others find."""
    engine().pool.block = SharedBlock(Path(os.environ[FAMILIES]), SHAPE)


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[LocalServer]:
    """A PostgreSQL of the tests' own."""
    local = LocalServer(tmp_path_factory.mktemp("data"), forgetful=True)
    local.start()
    yield local
    local.stop()


@pytest.fixture(scope="session")
def settings(server: LocalServer) -> Settings:
    """Settings with cheap passwords and sign-in tries without limit."""
    return Settings(
        server.url(),
        "a key that only the tests know, 32 characters and more",
        static_dir=PROJECT / "frontend" / "dist",
        sign_in_tries=100_000,
        argon_time_cost=1,
        argon_memory_kib=64,
        devices={kind: "127.0.0.1:9" for kind in DEVICE_KINDS},
        testing=True,
    )


@pytest.fixture(scope="session")
def app(server: LocalServer, settings: Settings):
    """The application on a migrated database."""
    application = create_app(settings)
    owner = create_engine(server.owner_url())
    migrate(owner)
    owner.dispose()
    yield application
    application.extensions["oblatus_live"].close()


@pytest.fixture(scope="session")
def seeded(app, server: LocalServer, settings: Settings) -> Engine:
    """The owner's connection to a database whose tables stand beside as they were seeded."""
    seed_once(app.extensions["oblatus_database"], settings, demo=True)
    owner = create_engine(server.owner_url(), poolclass=NullPool)
    with owner.begin() as connection:
        connection.execute(text("create schema seeded"))
        for table in TABLES:
            connection.execute(text(f"create table seeded.{table} as table {table}"))
    return owner


@pytest.fixture
def database(app, seeded: Engine) -> Database:
    """The database with nothing in it but the demo data."""
    _put_back(seeded)
    found: Database = app.extensions["oblatus_database"]
    with found.transaction() as session:
        for fitting in session.exec(select(FittingRow.id)):
            engine().work.edited(fitting)  # what is still worked on for it as the test before left it ends
    return found


def _put_back(owner: Engine) -> None:
    """Every table as it was seeded. A browser closed by the test before may still have a request under way: it is waited
    for, as nobody else may hold a table. What refers to what is not looked at, and no file is made anew, as `truncate`
    would: that takes four times as long."""
    parts = [
        "set local session_replication_role = replica",
        f"lock table {', '.join(TABLES)} in access exclusive mode",
        *(f"delete from {table}" for table in TABLES),
        *(f"insert into {table} overriding system value table seeded.{table}" for table in TABLES),
    ]
    for last in (False, False, False, False, True):
        try:
            with owner.begin() as connection:
                connection.execute(text("; ".join(parts)))
        except OperationalError:
            if last:
                raise
            time.sleep(0.3)
        else:
            return


@pytest.fixture
def client(app, database: Database) -> FlaskClient:
    """A client signed in as the demo fitter."""
    return signed_in(app, DEMO_EMAIL, DEMO_PASSWORD)


@pytest.fixture
def stranger(app, database: Database, settings: Settings) -> FlaskClient:
    """A client signed in to another studio."""
    with database.transaction() as session:
        add_studio(session, settings, "Another studio", "other@example.test", "another password")
    return signed_in(app, "other@example.test", "another password")


def signed_in(app, email: str, password: str) -> FlaskClient:
    """A client with a session and its token on every request."""
    found = app.test_client()
    token = found.get("/api/session").get_json()["csrf_token"]
    reply = found.post("/api/session", json={"email": email, "password": password}, headers={"X-CSRF-Token": token})
    assert reply.status_code == 200, reply.get_json()
    found.environ_base["HTTP_X_CSRF_TOKEN"] = reply.get_json()["csrf_token"]
    return found


@pytest.fixture
def fitting(client: FlaskClient) -> dict:
    """The first demo fitting as the API answers it."""
    lines = client.get("/api/fittings").get_json()["fittings"]
    line = next(line for line in lines if line["player_name"] == "Orla Wethercote")
    return client.get(f"/api/fittings/{line['id']}").get_json()


@pytest.fixture
def project() -> Path:
    """The project's folder."""
    return PROJECT
