"""Migrations, the immutable snapshot, and the project-local server after a crash."""

from __future__ import annotations

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import create_engine, text
from sqlalchemy.exc import DBAPIError
from sqlmodel import SQLModel

from oblatus.errors import SetUpError
from oblatus.store.database import Database
from oblatus.store.migrate import configuration, migrate
from oblatus.store.server import LocalServer


def test_migrations_make_the_tables_of_the_models(database: Database):
    with database.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), SQLModel.metadata) == []


def test_migrations_go_down_and_up_again(server: LocalServer):
    from alembic import command

    admin = create_engine(server.owner_url("postgres"), isolation_level="AUTOCOMMIT")
    with admin.connect() as connection:
        connection.execute(text("create database there_and_back"))
    engine = create_engine(server.owner_url("there_and_back"))
    migrate(engine)
    config = configuration()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "base")
        left = connection.execute(text("select count(*) from pg_class where relname in ('fitting', 'snapshot')")).scalar()
        assert left == 0
    migrate(engine)
    engine.dispose()
    admin.dispose()


def test_a_database_from_the_future_is_refused(server: LocalServer):
    admin = create_engine(server.owner_url("postgres"), isolation_level="AUTOCOMMIT")
    with admin.connect() as connection:
        connection.execute(text("create database future"))
    engine = create_engine(server.owner_url("future"))
    migrate(engine)
    with engine.begin() as connection:
        connection.execute(text("update alembic_version set version_num = '9999'"))
    with pytest.raises(SetUpError, match="another version"):
        migrate(engine)
    engine.dispose()
    admin.dispose()


def test_a_kept_proposal_is_never_rewritten(client, fitting, database: Database):
    kept = client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]})
    assert kept.status_code == 201
    with pytest.raises(DBAPIError, match="never rewritten"), database.engine.begin() as connection:
        connection.execute(text("update snapshot set engine_version = 'other', label = 'other'"))


def test_a_snapshot_cannot_point_into_another_studio(client, stranger, fitting, database: Database):
    client.post(f"/api/fittings/{fitting['id']}/kept", json={"revision": fitting["revision"]})
    with pytest.raises(DBAPIError, match="fk_snapshot_fitting"), database.engine.begin() as connection:
        connection.execute(
            text(
                "insert into snapshot select gen_random_uuid(), (select id from studio where name = 'Another studio'), "
                "fitting_id, label, revision, document, result, clubs, engine_version, kept_by, created_at from snapshot"
            )
        )


def test_the_server_starts_again_over_what_a_crash_left(tmp_path):
    server = LocalServer(tmp_path, forgetful=True)
    half_made = tmp_path / "postgres"
    half_made.mkdir()
    (half_made / "base").mkdir()
    url = server.start()
    assert server.start() == url, "a second start finds the running one"
    server.stop()
    (server.data / "postmaster.pid").write_text("999999999\n/nowhere\n0\n1\n\n\n\n\n")
    server.start()
    assert server.running()
    server.stop()
    assert not server.running()
