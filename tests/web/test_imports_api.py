"""A file of strikes through the API: looked at, checked, taken all or none, once, and taken back."""

from __future__ import annotations

import csv
import io
import time
from datetime import timedelta
from uuid import UUID

import pytest
from sqlmodel import select

from oblatus.store.tables import ImportRow, now
from oblatus.usecases import run_import
from tests.files import workbook

GOOD = "Club;Swing;Carry (yd);Angle of attack\nPW;full;100,5;-4\nPW;full;99;-4,2\nPW;9:00;70;-5\n"


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def send(client, base: str, text: str | bytes, name: str = "bay.csv") -> str:
    content = text.encode() if isinstance(text, str) else text
    reply = client.post(f"{base}/imports?name={name}", data=content, content_type="application/octet-stream")
    assert reply.status_code == 200, reply.get_json()
    return f"{base}/imports/{reply.get_json()['id']}"


def look(client, run: str, **body) -> dict:
    reply = client.post(f"{run}/look", json=body)
    assert reply.status_code == 200, reply.get_json()
    return reply.get_json()


def go(client, run: str, mapping: dict, **options) -> dict:
    reply = client.post(f"{run}/run", json={"mapping": mapping, **options})
    assert reply.status_code == 200, reply.get_json()
    deadline = time.monotonic() + 120
    while (found := client.get(run).get_json())["state"] == "running":
        assert time.monotonic() < deadline
        time.sleep(0.02)
    return found


def imported(client, base: str) -> list[dict]:
    return [s for s in client.get(f"{base}/session").get_json()["strikes"] if s["origin"] == "file"]


def test_a_file_is_guessed_checked_taken_once_and_taken_back(client, base):
    run = send(client, base, GOOD)
    seen = look(client, run)
    assert (seen["layout"]["delimiter"], seen["rows"], seen["layout"]["header_row"]) == ("semicolon", 3, 1)
    assert [s["carry_m"] for s in seen["strikes"]] == pytest.approx([91.8972, 90.5256, 64.008])
    assert [c["samples"][0] for c in seen["columns"]] == ["PW", "full", "100,5", "-4"]
    checked = go(client, run, seen["mapping"])
    assert checked["counts"] == {"rows": 3, "ready": 3, "known": 0, "left_out": 0, "wrong": 0, "taken": 0}
    assert imported(client, base) == []
    taken = go(client, run, seen["mapping"], take=True, keep_as="the bay")
    assert (taken["state"], taken["counts"]["taken"]) == ("taken", 3)
    assert [s["attack_deg"] for s in imported(client, base)] == [-4.0, -4.2, -5.0]
    # the same file again, and a longer export of the session, under the mapping that was saved
    again = send(client, base, GOOD, "again.csv")
    assert look(client, again)["saved_as"] == "the bay"
    assert go(client, again, look(client, again)["mapping"], take=True)["counts"]["taken"] == 0
    longer = send(client, base, GOOD + "PW;9:00;71;-5\n", "longer.csv")
    found = go(client, longer, look(client, longer)["mapping"], take=True)
    assert (found["counts"]["known"], found["counts"]["taken"]) == (3, 1)
    assert len(imported(client, base)) == 4
    assert client.post(f"{run}/withdraw").get_json()["state"] == "withdrawn"
    assert [s["carry_m"] for s in imported(client, base)] == pytest.approx([71 * 0.9144])


def test_one_wrong_row_takes_nothing_until_it_is_left_out_by_word(client, base):
    run = send(client, base, GOOD + "PW;full;1000;-4\n=cmd();full;90;-4\n")
    mapping = look(client, run)["mapping"]
    refused = go(client, run, mapping, take=True)
    assert (refused["state"], refused["counts"]["taken"], refused["counts"]["wrong"]) == ("checked", 0, 2)
    assert imported(client, base) == []
    assert [(w["row"], w["column"]) for w in refused["wrong"]] == [(5, "Carry (yd)"), (6, "club")]
    listed = client.get(f"{run}/wrong.csv").get_data(as_text=True).lstrip("\ufeff")
    assert [row["value"] for row in csv.DictReader(io.StringIO(listed))] == ["1000", "'=cmd();"[:-1]]
    assert go(client, run, mapping, take=True, leave_out_wrong=True)["counts"]["taken"] == 3
    assert len(imported(client, base)) == 3


def test_rows_like_those_of_another_file_can_be_other_strikes(client, base):
    mapping = look(client, send(client, base, GOOD))["mapping"]
    assert go(client, send(client, base, GOOD), mapping, take=True)["counts"]["taken"] == 3
    other = "Club;Swing;Carry (yd);Angle of attack\nPW;full;100,5;-4\n"
    run = send(client, base, other)
    assert go(client, run, mapping)["counts"]["known"] == 1
    assert go(client, run, mapping, take=True, other_strikes=True)["counts"]["taken"] == 1
    assert len(imported(client, base)) == 4


def test_the_own_export_comes_back_as_the_same_strikes(client, base):
    text = client.get(f"{base}/strikes.csv").get_data()
    run = send(client, base, text)
    mapping = look(client, run)["mapping"]
    checked = go(client, run, mapping)
    assert checked["counts"]["wrong"] == 0
    assert checked["counts"]["known"] == checked["counts"]["ready"] == checked["counts"]["rows"] > 0


def test_a_stopped_run_and_one_whose_server_died_take_nothing_and_can_go_again(client, base, database, monkeypatch):
    text = "club,carry (m)\n" + "\n".join(f"pw,{60 + i % 40}" for i in range(11_000)) + "\n"
    run = send(client, base, text)
    mapping = look(client, run)["mapping"]
    tell = run_import.ImportRun._tell

    def stopping(self, stage, done, total):
        if stage == "taking":
            run_import.stop_import(self.database, self.actor, self.fitting_id, self.import_id)
        tell(self, stage, done, total)

    monkeypatch.setattr(run_import.ImportRun, "_tell", stopping)
    stopped = go(client, run, mapping, take=True)
    assert (stopped["state"], stopped["words"]) == ("stopped", "Stopped: nothing was taken.")
    assert imported(client, base) == []
    monkeypatch.setattr(run_import.ImportRun, "_tell", tell)
    with database.transaction() as session:
        row = session.exec(select(ImportRow).where(ImportRow.id == UUID(run.rsplit("/", 1)[1]))).one()
        row.state, row.beat_at = "running", now() - timedelta(minutes=2)
        session.add(row)
    assert client.get(run).get_json()["state"] == "stopped"
    assert go(client, run, mapping, take=True)["counts"]["taken"] == 11_000


def test_a_file_whose_server_died_is_forgotten_with_the_next(client, base, database):
    run = send(client, base, GOOD)
    with database.transaction() as session:
        row = session.exec(select(ImportRow).where(ImportRow.id == UUID(run.rsplit("/", 1)[1]))).one()
        row.state = "running"
        session.add(row)
    send(client, base, GOOD)
    assert client.get(run).status_code == 200  # it may be at work still
    with database.transaction() as session:
        row = session.exec(select(ImportRow).where(ImportRow.id == UUID(run.rsplit("/", 1)[1]))).one()
        row.beat_at = now() - timedelta(minutes=2)
        session.add(row)
    send(client, base, GOOD)
    assert client.get(run).status_code == 404


def test_a_layout_or_mapping_that_does_not_fit_is_said_at_its_field(client, base):
    run = send(client, base, GOOD)
    assert (
        client.post(f"{run}/look", json={"layout": {"header_row": 9}})
        .get_json()["faults"][0]["field"]
        .endswith("header_row")
    )
    assert client.post(f"{run}/look", json={"layout": {"delimiter": "star"}}).status_code == 422
    wide = {"columns": [{"column": 9, "field": "carry_m", "unit": "m"}], "club": "pw"}
    assert "4 columns, not 9" in client.post(f"{run}/look", json={"mapping": wide}).get_json()["message"]
    bare = look(client, send(client, base, "60\n61\n62\n"))
    assert bare["mapping"] is None
    assert bare["faults"]
    assert client.post(f"{base}/imports?name=x", data=b"").get_json()["faults"][0]["field"] == "file"


def test_yards_read_as_metres_are_asked_about(client, base):
    session = client.get(f"{base}/session").get_json()["strikes"]
    full = [s for s in session if s["swing"] == "full" and s["carry_m"]]
    text = "loft,club,carry\n" + "".join(f"{s['loft_deg']},{s['club']},{s['carry_m'] / 0.9144:.2f}\n" for s in full * 2)
    seen = look(client, send(client, base, text))
    assert seen["question"]
    assert "yards" in seen["question"]


def test_ten_thousand_rows_and_more_are_listed_in_part_and_counted_whole(client, base):
    text = "club,carry (m)\n" + "\n".join(f"pw,{60 + i % 40}.{i}" for i in range(12_000)) + "\n"
    run = send(client, base, text)
    assert go(client, run, look(client, run)["mapping"], take=True)["counts"]["taken"] == 12_000
    found = client.get(f"{base}/session").get_json()
    assert found["total"] > 12_000
    assert len(found["strikes"]) < 5_000


def test_what_is_out_of_turn_is_refused_and_a_file_that_fails_says_why(client, base, monkeypatch):
    run = send(client, base, GOOD)
    mapping = look(client, run)["mapping"]
    assert client.post(f"{run}/withdraw").get_json()["faults"][0]["message"] == "was not taken"
    beyond = {**mapping, "layout": {"header_row": 900}}
    failed = go(client, run, beyond, take=True)
    assert (failed["state"], failed["counts"]) == ("failed", None)
    assert "must be at most" in failed["words"]
    monkeypatch.setattr(run_import, "MOST_STRIKES", 10)
    full = go(client, run, mapping, take=True)
    assert (full["state"], imported(client, base)) == ("failed", [])
    assert "at most 10 strikes" in full["words"]
    monkeypatch.undo()
    assert go(client, run, mapping, take=True, keep_as="bay")["state"] == "taken"
    again = client.post(f"{run}/run", json={"mapping": mapping, "take": True})
    assert again.get_json()["faults"][0]["message"] == "is taken already"
    assert client.post(f"{run}/look", json={}).status_code == 422


def test_a_saved_mapping_reads_its_sheet_and_what_is_shown_is_what_is_taken(client, base):
    """Two sheets of one header: that of the mapping was taken, and the other one shown."""
    header = ["Club", "Swing", "Carry (m)"]
    autumn, spring = ([header, *[["PW", "full", 90 + n] for n in range(many)]] for many in (5, 2))
    book = workbook({"autumn": autumn, "spring": spring})
    run = send(client, base, book, "bay.xlsx")
    assert look(client, run)["layout"]["sheet"] == "autumn"
    go(client, run, look(client, run, layout={"sheet": "spring"})["mapping"], take=True, keep_as="bay")
    again = send(client, base, book + b" ", "bay.xlsx")
    seen = look(client, again)
    assert (seen["saved_as"], seen["layout"]["sheet"], len(seen["strikes"])) == ("bay", "spring", 2)
    assert go(client, again, seen["mapping"])["counts"]["rows"] == 2
    other = send(client, base, workbook({"notes": [["a", "b"]] * 9, "winter": autumn}), "bay.xlsx")
    seen = look(client, other)
    assert (seen["saved_as"], seen["layout"]["sheet"], len(seen["strikes"])) == ("bay", "winter", 5)
    assert go(client, other, seen["mapping"])["counts"]["rows"] == 5


def test_a_mapping_is_saved_over_its_name_and_forgotten(client, base, stranger):
    for text in (GOOD, GOOD + "PW;full;88;-3\n"):
        run = send(client, base, text)
        go(client, run, look(client, run)["mapping"], take=True, keep_as="bay")
    saved = client.get("/api/mappings").get_json()["mappings"]
    assert [m["name"] for m in saved] == ["bay"]
    assert stranger.get("/api/mappings").get_json()["mappings"] == []
    assert stranger.delete(f"/api/mappings/{saved[0]['id']}").status_code == 404
    assert client.delete(f"/api/mappings/{saved[0]['id']}").status_code == 204
    assert client.get("/api/mappings").get_json() == {"mappings": [], "forgotten": saved}
    assert stranger.get("/api/mappings").get_json()["forgotten"] == []
    assert look(client, send(client, base, GOOD))["saved_as"] is None
    assert stranger.post(f"/api/mappings/{saved[0]['id']}/back").status_code == 404
    assert client.post(f"/api/mappings/{saved[0]['id']}/back").status_code == 204
    assert client.get("/api/mappings").get_json() == {"mappings": saved, "forgotten": []}
    assert look(client, send(client, base, GOOD))["saved_as"] == "bay"


def test_a_saved_mapping_takes_no_other_players_clubs_along(client, base, fitting):
    run = send(client, base, "Club;Carry (m)\nOld faithful;70\n")
    mapping = look(client, run)["mapping"]
    assert mapping["clubs"] == {}
    mapping["clubs"] = {"Old faithful": "own:1", "Driver": None}
    go(client, run, mapping, take=True, keep_as="bay")
    fresh = client.post("/api/fittings", json={"player_name": "Somebody Else"}).get_json()
    other = f"/api/fittings/{fresh['id']}"
    seen = look(client, send(client, other, "Club;Carry (m)\nOld faithful;70\n"))
    assert seen["saved_as"] == "bay"
    assert seen["mapping"]["clubs"] == {"Driver": None}
    assert seen["wrong"][0]["reason"] == "is no club that was chosen"
