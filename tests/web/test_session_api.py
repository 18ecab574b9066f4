"""The session through the API: figures by station, faults, and strikes that tell the habit but no carry."""

from __future__ import annotations

from uuid import uuid4

import pytest


def strike(**figures) -> dict:
    return {"id": str(uuid4()), "club": "own:1", "loft_deg": 54.6, "swing": "pitch", **figures}


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def take(client, base, strikes):
    reply = client.post(f"{base}/strikes", json={"strikes": strikes})
    assert reply.status_code == 200, reply.get_json()


def test_strikes_of_short_stations_tell_the_habit_and_leave_carries_alone(client, base):
    before = client.post(f"{base}/carries", json={}).get_json()
    take(client, base, [strike(attack_deg=-6.0 - 0.2 * i, lean_deg=5.0, entry_mm=-40.0, carry_m=30) for i in range(6)])
    found = client.get(f"{base}/session").get_json()
    pitch = next(s for s in found["stations"] if s["station"] == "pitch")
    attack = next(f for f in pitch["figures"] if f["key"] == "attack_deg")
    assert (pitch["count"], attack["count"], attack["mean"]) == (6, 6, pytest.approx(-6.5))
    assert attack["low"] < -6.5 < attack["high"]
    after = client.post(f"{base}/carries", json={}).get_json()
    assert [c["carry_m"] for c in after["cells"]] == [c["carry_m"] for c in before["cells"]]
    assert client.get(base).get_json()["steps"]["strikes"] == "done"


def test_lean_is_inferred_from_the_demo_players_launch_and_spin(client, base):
    full = next(s for s in client.get(f"{base}/session").get_json()["stations"] if s["station"] == "full")
    lean = next(f for f in full["figures"] if f["key"] == "lean_deg")
    assert lean["inferred"] == lean["count"] > 10
    assert 6.0 < lean["mean"] < 14.0


def test_faults_name_their_strikes_and_rule(client, base):
    take(client, base, [strike(entry_mm=-75.0) for _ in range(5)])
    fault = client.get(f"{base}/session").get_json()["faults"][0]
    assert (fault["key"], fault["shown"], fault["of"], fault["picture"]) == ("ground_first", 5, 5, "entries")
    assert "55 mm" in fault["rule"]


@pytest.mark.parametrize(
    ("figures", "field"), [({}, "carry_m"), ({"lean_deg": 80}, "lean_deg"), ({"divot": "huge"}, "divot")]
)
def test_a_strike_needs_a_figure_and_each_has_its_range(client, base, figures, field):
    reply = client.post(f"{base}/strikes", json={"strikes": [strike(**figures)]})
    assert reply.status_code == 422
    assert reply.get_json()["faults"][0]["field"] == f"strikes.0.{field}"


def test_readings_of_a_ground_are_summed_up_in_words(client, base, fitting):
    grounds = fitting["document"]["grounds"]
    grounds[0]["turf"]["readings_g"] = [112, 118, 124]
    reply = client.patch(base, json={"revision": fitting["revision"], "grounds": grounds}).get_json()
    assert reply["readings"][0] == {"turf": "118 ± 6 g from 3: firm", "sand": ""}
    assert reply["document"]["grounds"][0]["turf"]["firmness_g"] == 118.0


def test_strikes_leave_as_csv_with_units(client, base):
    reply = client.get(f"{base}/strikes.csv")
    lines = reply.get_data(as_text=True).splitlines()
    assert reply.mimetype == "text/csv"
    assert lines[0].startswith("\ufeffclub,loft (deg),swing,carry (m)")
    assert len(lines) == 45
    assert any(",heavy," in line for line in lines)


def test_a_pitch_changes_no_proposal_and_a_kept_one_stays_fresh_until_a_carry_does(client, base, fitting):
    take(client, base, [strike(attack_deg=-6.0, carry_m=30.0)])
    assert client.get(base).get_json()["strikes"] == fitting["strikes"]
    client.post(f"{base}/kept", json={"revision": fitting["revision"]})
    assert client.get(base).get_json()["steps"]["lofts"] == "done"
    take(client, base, [strike(attack_deg=-6.0, carry_m=31.0)])
    assert client.get(base).get_json()["steps"]["lofts"] == "done"
    take(client, base, [strike(swing="900", carry_m=39.0)])
    assert client.get(base).get_json()["steps"]["lofts"] == "stale"


def test_an_own_swing_may_not_take_the_key_of_a_station(client, base, fitting):
    swing = {"key": "pitch", "name": "pitch", "speed_share": 0.6}
    reply = client.patch(base, json={"revision": fitting["revision"], "measuring": {"swings": [swing]}})
    assert reply.status_code == 422
    assert reply.get_json()["faults"][0]["field"] == "measuring.swings"


def test_more_is_said_of_a_strike_and_the_rest_stays(client, fitting):
    base = f"/api/fittings/{fitting['id']}"
    strike = {"id": str(uuid4()), "club": "own:1", "loft_deg": 56, "swing": "sand", "entry_mm": -60, "origin": "typed"}
    assert client.post(f"{base}/strikes", json={"strikes": [strike]}).status_code == 200
    path = f"{base}/strikes/{strike['id']}"
    for change in ({"exit_mm": 95.0}, {"mark_back_mm": 12.0, "mark_toe_mm": -4.0}, {"note": "wet", "divot": "deep"}):
        assert client.patch(path, json=change).status_code == 204
    assert client.patch(path, json={"set_aside": "thin"}).status_code == 204
    session = client.get(f"{base}/session").get_json()
    found = next(s for s in session["strikes"] if s["id"] == strike["id"])
    told = ("entry_mm", "exit_mm", "mark_back_mm", "mark_toe_mm", "note", "divot", "set_aside")
    assert [found[name] for name in told] == [-60, 95, 12, -4, "wet", "deep", "thin"]
    assert client.patch(path, json={"set_aside": None, "note": None}).status_code == 204
    sand = next(s for s in client.get(f"{base}/session").get_json()["stations"] if s["station"] == "sand")
    mark = next(f for f in sand["figures"] if f["key"] == "sand_mark")
    assert (mark["mean"], mark["unit"]) == (155, "mm")
    refused = client.patch(path, json={"exit_mm": -70.0})
    assert refused.get_json()["faults"][0]["field"] == "exit_mm"
    assert client.patch(path, json={"mark_back_mm": 60.0}).status_code == 422
    assert client.patch(path, json={"carry_m": 60.0}).status_code == 422
