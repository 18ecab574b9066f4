"""A copy of everything in one file: a manifest and PostgreSQL's own custom-format dump, checked before it is put back."""

from __future__ import annotations

import hashlib
import json
import os
import tempfile
import zipfile
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import psycopg
from psycopg import sql

from oblatus import __version__
from oblatus.errors import SetUpError
from oblatus.store.server import LocalServer

FORMAT = "oblatus.copy"
VERSION = 1
MANIFEST, DUMP = "manifest.json", "database.dump"
NOT_COPIED = ("fitter_session", "sign_in_try")
"""Who is signed in where belongs to a machine, not to the studio's work."""
CHUNK = 1 << 20


def make_copy(server: LocalServer, target: Path) -> dict[str, int]:
    """Write a copy of the running database to a file, whole or not at all. Returns the rows of each table in it.

    Raises
    ------
    SetUpError
        If the file cannot be written.
    """
    try:
        with tempfile.TemporaryDirectory(dir=target.parent, prefix=".copy-") as folder:
            dump = Path(folder) / DUMP
            rows, schema = _dump(server, dump)
            manifest = {
                "format": FORMAT, "version": VERSION, "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
                "program": __version__, "schema": schema, "rows": rows, "sha256": _digest(dump),
            }  # fmt: skip
            new = Path(folder) / "copy"
            with zipfile.ZipFile(new, "w", zipfile.ZIP_STORED) as out:
                out.writestr(MANIFEST, json.dumps(manifest, indent=1) + "\n")
                out.write(dump, DUMP)
            new.chmod(0o600)
            _to_disk(new)
            new.replace(target)
    except OSError as error:
        raise SetUpError(f"cannot write {target}: {error.strerror}") from error
    return rows


def put_back(server: LocalServer, source: Path) -> dict[str, int]:
    """Put a copy in place of the database of a running server, once it is known to be whole. Returns the rows of each
    table.

    Raises
    ------
    SetUpError
        If the file is no copy, is damaged, or comes to other rows than it says; the database stays as it was.
    """
    try:
        with tempfile.TemporaryDirectory(dir=server.folder, prefix=".copy-") as folder:
            manifest = _unpack(source, Path(folder))
            dump = Path(folder) / DUMP
            server.restore(dump, lambda url: _check_rows(url, manifest["rows"]))
    except zipfile.BadZipFile as error:
        raise SetUpError(f"{source} is no copy of Oblatus, or is damaged: {error}") from error
    except OSError as error:
        raise SetUpError(f"cannot read {source}: {error.strerror}") from error
    rows: dict[str, int] = manifest["rows"]
    return rows


def prune(folder: Path, keep: int) -> None:
    """Remove the oldest copies of a folder but `keep`."""
    copies = sorted(folder.glob("*.oblatus"), key=lambda path: path.stat().st_mtime, reverse=True)
    for old in copies[keep:]:
        old.unlink()


def _dump(server: LocalServer, target: Path) -> tuple[dict[str, int], str]:
    """Dump and count in one and the same snapshot of the database."""
    address = server.owner_url().replace("postgresql+psycopg://", "postgresql://")
    with psycopg.connect(address) as connection:
        connection.execute("set transaction isolation level repeatable read")
        snapshot = _one(connection, "select pg_export_snapshot()")
        rows = _rows(connection)
        schema = _one(connection, "select version_num from alembic_version")
        without = [f"--exclude-table-data={table}" for table in NOT_COPIED]
        server.dump(target, [f"--snapshot={snapshot}", *without])
    return rows, schema


def _rows(connection: psycopg.Connection[Any]) -> dict[str, int]:
    names = connection.execute(
        "select tablename from pg_tables where schemaname = 'public' order by tablename"
    ).fetchall()
    counts = {}
    for (name,) in names:
        if name not in NOT_COPIED:
            found = connection.execute(sql.SQL("select count(*) from {}").format(sql.Identifier(name))).fetchone()
            counts[name] = int(found[0]) if found else 0
    return counts


def _check_rows(address: str, rows: dict[str, int]) -> None:
    with psycopg.connect(address) as connection:
        found = _rows(connection)
    if found != rows:
        odd = sorted(name for name in {*found, *rows} if found.get(name) != rows.get(name))
        raise SetUpError(f"the copy comes to other rows than it says in {', '.join(odd)}: nothing was put back")


def _unpack(source: Path, folder: Path) -> dict[str, Any]:
    with zipfile.ZipFile(source) as packed:
        if set(packed.namelist()) != {MANIFEST, DUMP}:
            raise SetUpError(f"{source} is no copy of Oblatus")
        try:
            manifest: dict[str, Any] = json.loads(packed.read(MANIFEST))
            if (manifest["format"], manifest["version"]) != (FORMAT, VERSION):
                raise SetUpError(f"{source} is a copy of another kind or version: this program reads {FORMAT} {VERSION}")
            wanted, _ = str(manifest["sha256"]), dict(manifest["rows"])
        except (ValueError, KeyError, TypeError) as error:
            raise SetUpError(f"{source} is no copy of Oblatus, or is damaged") from error
        with packed.open(DUMP) as inside, (folder / DUMP).open("wb") as out:
            while part := inside.read(CHUNK):
                out.write(part)
    if _digest(folder / DUMP) != wanted:
        raise SetUpError(f"{source} is damaged: nothing was put back")
    return manifest


def _one(connection: psycopg.Connection[Any], query: Any) -> str:
    found = connection.execute(query).fetchone()
    return str(found[0]) if found else ""


def _digest(path: Path) -> str:
    with path.open("rb") as held:
        return hashlib.file_digest(held, "sha256").hexdigest()


def _to_disk(path: Path) -> None:
    with path.open("rb") as held:
        os.fsync(held.fileno())
