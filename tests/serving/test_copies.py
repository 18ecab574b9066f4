"""A copy of everything, put back into an empty folder, answers as before; what is damaged is not put back."""

from __future__ import annotations

import json
import zipfile

import pytest
from sqlalchemy import create_engine, text

from oblatus.cli.main import main
from oblatus.errors import SetUpError
from oblatus.serving.copies import make_copy, prune, put_back
from oblatus.settings import Settings
from oblatus.store.migrate import migrate
from oblatus.store.server import LocalServer
from oblatus.web.app import create_app
from tests.conftest import signed_in
from tests.web.test_grounds_api import jpeg

EXPORTS = ("/export", "/strikes.csv", "/recording.jsonl", "/kept", "/session", "/readings", "/strikes/out")


def answers(client) -> dict[str, bytes]:
    """Every export of every fitting, and the studio's rack, venues and bin."""
    found = {path: client.get(path).get_data() for path in ("/api/rack", "/api/venues", "/api/fittings/bin")}
    for line in client.get("/api/fittings").get_json()["fittings"]:
        for path in EXPORTS:
            found[line["id"] + path] = client.get(f"/api/fittings/{line['id']}{path}").get_data()
    return found


def test_a_copy_put_back_answers_every_export_byte_for_byte(client, fitting, server, settings, database, tmp_path):
    base = f"/api/fittings/{fitting['id']}"
    photo = client.post(f"{base}/photos", data=jpeg(), content_type="image/jpeg").get_json()["id"]
    bag = fitting["document"]["bag"]
    bag["wedges"][0]["photos"] = [photo]
    changed = client.patch(base, json={"revision": fitting["revision"], "bag": bag}).get_json()
    client.post(f"{base}/kept", json={"revision": changed["revision"], "label": "first"})
    strike = client.get(f"{base}/session").get_json()["strikes"][0]["id"]
    client.delete(f"{base}/strikes/{strike}")
    other = client.get("/api/fittings").get_json()["fittings"][-1]["id"]
    client.delete(f"/api/fittings/{other}")
    before = answers(client)
    copy = tmp_path / "copy.oblatus"
    rows = make_copy(server, copy)
    assert (rows["photo"], rows["snapshot"]) == (1, 2)
    assert rows["log_shot"] > 400
    assert copy.stat().st_mode & 0o777 == 0o600

    empty = tmp_path / "empty"
    there = LocalServer(empty, forgetful=True)
    url = there.start()
    try:
        assert put_back(there, copy) == rows
        owner = create_engine(there.owner_url())
        migrate(owner)
        owner.dispose()
        app = create_app(Settings(url, settings.secret_key, argon_time_cost=1, argon_memory_kib=64))
        again = signed_in(app, "fitter@scarp-end.example", "chalk and slate")
        assert answers(again) == before
        assert again.get(f"{base}/photos/{photo}").get_data() == client.get(f"{base}/photos/{photo}").get_data()
        app.extensions["oblatus_database"].engine.dispose()
    finally:
        there.stop()


def damaged(copy, target, *, manifest=None, dump=None) -> None:
    with zipfile.ZipFile(copy) as whole, zipfile.ZipFile(target, "w") as out:
        told = json.loads(whole.read("manifest.json"))
        out.writestr("manifest.json", json.dumps({**told, **(manifest or {})}))
        out.writestr("database.dump", dump if dump is not None else whole.read("database.dump"))


def test_what_is_damaged_is_not_put_back_and_nothing_is_touched(server, database, tmp_path):
    copy = tmp_path / "copy.oblatus"
    rows = make_copy(server, copy)
    bad = tmp_path / "bad.oblatus"
    for change in (
        {"dump": b"no dump"},
        {"manifest": {"rows": {**rows, "strike": 3}}},
        {"manifest": {"format": "another"}},
        {"manifest": {"version": 2}},
    ):
        damaged(copy, bad, **change)
        with pytest.raises(SetUpError):
            put_back(server, bad)
    bad.write_bytes(copy.read_bytes()[:-400])
    with pytest.raises(SetUpError, match="damaged"):
        put_back(server, bad)
    with database.engine.connect() as connection:
        assert connection.execute(text("select count(*) from fitting")).scalar() == rows["fitting"]


def test_the_oldest_copies_make_way(tmp_path):
    for i in range(5):
        path = tmp_path / f"{i}.oblatus"
        path.write_text("")
        path.touch()
    prune(tmp_path, 2)
    assert len(list(tmp_path.glob("*.oblatus"))) == 2


def test_the_shell_copies_restores_and_keeps_fitters(tmp_path, capsys, monkeypatch):
    folder, copy = tmp_path / "data", tmp_path / "copy.oblatus"
    where = ["--data", str(folder)]
    assert main(["backup", str(copy), *where]) == 1
    assert "no data folder" in capsys.readouterr().err
    folder.mkdir()
    monkeypatch.setattr("builtins.input", lambda _: "chalk and flint")
    assert main(["user", "add", "New@Example.com", "--name", "New Fitter", "--studio", "Long Barrow", *where]) == 0
    assert main(["user", "list", *where]) == 0
    assert "new@example.com\tNew Fitter\tLong Barrow" in capsys.readouterr().out
    assert main(["user", "add", "new@example.com", "--name", "Again", *where]) == 2
    assert "taken" in capsys.readouterr().err
    assert main(["backup", str(copy), *where]) == 0
    assert main(["user", "add", "two@example.com", "--name", "Two", *where]) == 0
    assert main(["user", "password", "two@example.com", *where]) == 0
    assert main(["user", "remove", "new@example.com", *where]) == 0
    assert main(["restore", str(copy), *where]) == 0
    capsys.readouterr()
    assert main(["user", "list", *where]) == 0
    assert capsys.readouterr().out.split("\t")[0] == "new@example.com"
    assert main(["nightly", "--copies", "1", *where]) == 0
    assert len(list((folder / "copies").glob("*.oblatus"))) == 1
    assert main(["restore", str(folder / "nothing"), *where]) == 1
    for secret in ("password.oblatus", "password.oblatus_app", "secret", "postgres.log"):
        assert (folder / secret).stat().st_mode & 0o077 == 0, secret
