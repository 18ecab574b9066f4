"""A proof through the API: planned, hit, set aside, judged, counted in the proposal, out and in with its file."""

from __future__ import annotations

from uuid import uuid4

import pytest

WINTER = "Vale clay, winter"


@pytest.fixture
def tam(client) -> dict:
    """The demo player with a finished proof."""
    lines = client.get("/api/fittings").get_json()["fittings"]
    line = next(line for line in lines if line["player_name"] == "Tam Hollis")
    return client.get(f"/api/fittings/{line['id']}").get_json()


def plan(client, fitting: dict, **changes) -> dict:
    body = {
        "id": str(uuid4()), "candidates": ["HG54", "own:0"],
        "situations": [{"shot": "sand_greenside", "ground": WINTER}, {"shot": "chip", "ground": WINTER}],
        "balls_per_block": 3, "rounds": 2, "seed": 4, **changes,
    }  # fmt: skip
    reply = client.post(f"/api/fittings/{fitting['id']}/proofs", json=body)
    assert reply.status_code == 201, reply.get_json()
    return reply.get_json()


def at(fitting: dict, proof: dict) -> str:
    return f"/api/fittings/{fitting['id']}/proofs/{proof['document']['id']}"


def ball(block: dict, **seen) -> dict:
    return {"id": str(uuid4()), "club": block["club"], "situation": block["situation"], "block": block["place"], **seen}


def seen(client, fitting: dict) -> dict:
    return client.get(f"/api/fittings/{fitting['id']}/proofs").get_json()["proofs"][0]


def test_the_demo_proof_is_finished_and_stands_at_its_head_in_the_set(client, tam):
    proof = seen(client, tam)
    assert proof["verdict"]["words"] == "Enough: take the Barrow 55."
    assert proof["verdict"]["complete"]
    assert sum(b["ball"]["set_aside"] is not None for b in proof["balls"]) == 1
    club = next(club for club in tam["recommendation"]["clubs"] if club["code"] == "BN55")
    assert club["proofs"][0]["standing"] == "proved"
    assert "than expected against set sand" in club["proofs"][0]["words"]
    assert tam["steps"]["proof"] == "done"


def test_a_plan_says_what_it_can_tell_before_the_first_ball(client, tam):
    proof = plan(client, tam)
    blocks = proof["plan"]["blocks"]
    assert (proof["plan"]["balls"], proof["plan"]["balls_each"], len(blocks)) == (24, 6, 8)
    query = "situations=2&balls_per_block=3&rounds=2"
    ahead = client.get(f"/api/fittings/{tam['id']}/proof-plan?{query}").get_json()
    assert ahead["words"] == proof["plan"]["words"]
    assert "0.1 would take 250" in ahead["words"]
    assert client.get(f"/api/fittings/{tam['id']}/proof-plan?{query[:-1]}99").status_code == 422
    assert proof["verdict"]["advice"] == "none"


def test_balls_sent_twice_are_taken_once_and_all_or_none(client, tam):
    proof = plan(client, tam)
    base, block = at(tam, proof), proof["plan"]["blocks"][0]
    balls = [ball(block, outcome="good", to_hole_m=2.0), ball(block, outcome="heavy")]
    assert client.post(f"{base}/balls", json={"balls": balls}).get_json() == {"taken": 2}
    assert client.post(f"{base}/balls", json={"balls": balls}).get_json() == {"taken": 0}
    other = {**ball(block, outcome="good"), "club": 1 - block["club"]}
    reply = client.post(f"{base}/balls", json={"balls": [ball(block, outcome="thin"), other]})
    assert reply.status_code == 422
    assert "balls" in reply.get_json()["faults"][0]["field"]
    nothing = client.post(f"{base}/balls", json={"balls": [ball(block)]})
    assert nothing.status_code == 422
    assert nothing.get_json()["faults"][0]["field"] == "balls.0.outcome"
    after = seen(client, tam)
    assert [b["ball"]["outcome"] for b in after["balls"]] == ["good", "heavy"]
    assert after["plan"]["blocks"][0]["hit"] == 2
    assert client.get(f"/api/fittings/{tam['id']}").get_json()["steps"]["proof"] == "done"


def test_a_ball_is_left_in_only_where_there_is_sand(client, tam):
    proof = plan(client, tam)
    blocks = proof["plan"]["blocks"]
    sand, turf = (next(block for block in blocks if block["situation"] == n) for n in (0, 1))
    base = at(tam, proof)
    reply = client.post(f"{base}/balls", json={"balls": [ball(turf, outcome="good"), ball(turf, outcome="left_in")]})
    assert reply.status_code == 422
    assert [fault["field"] for fault in reply.get_json()["faults"]] == ["balls.1.outcome"]
    assert client.post(f"{base}/balls", json={"balls": [ball(sand, outcome="left_in")]}).get_json() == {"taken": 1}
    assert [b["ball"]["outcome"] for b in seen(client, tam)["balls"]] == ["left_in"]


def test_a_ball_set_aside_counts_no_more_and_stays_and_one_taken_out_comes_back(client, tam):
    proof = plan(client, tam)
    base, block = at(tam, proof), proof["plan"]["blocks"][0]
    balls = [ball(block, outcome="good", to_hole_m=1.0 + n) for n in range(3)]
    client.post(f"{base}/balls", json={"balls": balls})
    first = f"{base}/balls/{balls[0]['id']}"
    assert client.patch(first, json={"set_aside": "disturbed"}).status_code == 204
    after = seen(client, tam)
    assert (after["plan"]["blocks"][0]["hit"], after["plan"]["blocks"][0]["aside"], len(after["balls"])) == (2, 1, 3)
    assert client.patch(first, json={"set_aside": None}).status_code == 204
    assert seen(client, tam)["plan"]["blocks"][0]["hit"] == 3
    assert client.patch(first, json={"out": True}).status_code == 204
    assert len(seen(client, tam)["balls"]) == 2
    assert client.patch(first, json={"out": False}).status_code == 204
    assert [b["ball"]["id"] for b in seen(client, tam)["balls"]] == [b["id"] for b in balls]
    assert client.put(f"{base}/feel", json={"block": 0, "value": 4}).status_code == 204
    assert seen(client, tam)["plan"]["blocks"][0]["feel"] == 4
    assert client.put(f"{base}/feel", json={"block": 0, "value": 6}).status_code == 422


def test_a_mishit_counts_and_moves_the_verdict_towards_the_other_club(client, tam):
    proof = plan(client, tam)
    base = at(tam, proof)
    for block in proof["plan"]["blocks"]:
        outcome = "heavy" if block["club"] == 0 else "good"
        client.post(f"{base}/balls", json={"balls": [ball(block, outcome=outcome) for _ in range(3)]})
    found = seen(client, tam)
    verdict, document = found["verdict"], found["document"]
    overall = next(c for c in verdict["comparisons"] if c["situation"] is None)
    assert overall["seen"] > 0.2
    assert overall["mean"] > overall["expected"]
    shots = document["shots_a_round"] * document["round_share"]
    assert 0.0 < shots < 20.0
    assert overall["a_round"] == pytest.approx(overall["mean"] * shots, abs=0.001)
    evidence = client.get(f"{base}/evidence").get_json()["evidence"]
    assert [one["name"] for one in evidence] == ["Hanger 54"]
    assert all(shot["strokes"] > 0 for shot in evidence[0]["shots"])


def test_what_a_proof_showed_moves_the_choice_and_out_of_the_document_it_does_not(client, tam):
    gain = tam["recommendation"]["gain_strokes_round"]
    evidence = [{**one, "shots": [{**s, "strokes": 0.5} for s in one["shots"]]} for one in tam["document"]["evidence"]]
    base = f"/api/fittings/{tam['id']}"

    def with_evidence(value) -> dict:
        revision = client.get(base).get_json()["revision"]
        return client.patch(base, json={"revision": revision, "evidence": value}).get_json()["recommendation"]

    worse = with_evidence(evidence)
    assert "BN55" not in {club["code"] for club in worse["clubs"]}
    without = with_evidence([])
    assert without["gain_strokes_round"] < gain
    assert all(club["proofs"] == [] for club in without["clubs"])


def test_unknown_clubs_and_situations_are_refused_at_their_field(client, tam):
    body = {
        "id": str(uuid4()), "candidates": ["HG54", "NONE"],
        "situations": [{"shot": "chip", "ground": WINTER}],
    }  # fmt: skip
    reply = client.post(f"/api/fittings/{tam['id']}/proofs", json=body)
    assert reply.status_code == 422
    assert reply.get_json()["faults"][0]["field"] == "candidates.1"
    other = {**body, "candidates": ["HG54", "own:0"], "situations": [{"shot": "chip", "ground": "the moon"}]}
    reply = client.post(f"/api/fittings/{tam['id']}/proofs", json=other)
    assert reply.status_code == 422
    assert "situations" in reply.get_json()["faults"][0]["field"]


def test_a_proof_goes_out_and_in_with_its_fitting_and_stays_in_its_studio(client, stranger, tam):
    base = f"/api/fittings/{tam['id']}"
    assert stranger.get(f"{base}/proofs").status_code == 404
    document = client.get(f"{base}/export").get_json()
    reply = stranger.post("/api/fittings/import", json=document)
    assert reply.status_code == 201, reply.get_json()
    there = reply.get_json()
    mine, theirs = seen(client, tam), seen(stranger, there)
    assert theirs["document"]["id"] != mine["document"]["id"]
    assert there["document"]["evidence"][0]["source_id"] == theirs["document"]["id"]
    assert [b["strokes"] for b in theirs["balls"]] == [b["strokes"] for b in mine["balls"]]
    assert theirs["verdict"] == mine["verdict"]
    proof = at(tam, mine)
    assert client.delete(proof).status_code == 204
    assert client.get(f"{base}/proofs").get_json()["proofs"] == []
    (out,) = client.get(f"{base}/out").get_json()["proofs"]
    clubs = [one["name"] for one in mine["document"]["candidates"]]
    assert (out["id"], out["clubs"]) == (mine["document"]["id"], clubs)
    assert client.post(f"{proof}/back").status_code == 204
    assert client.get(f"{base}/out").get_json()["proofs"] == []
    assert seen(client, tam)["verdict"] == mine["verdict"]


def test_a_club_of_a_proof_goes_with_its_wedge_to_another_place_and_is_no_other_once_it_left(client, tam):
    (mine,) = tam["document"]["bag"]["wedges"]
    other = {**mine, "name": "found in the loft", "loft_deg": 50.0}
    plan(client, tam)

    def code_with(*wedges: dict) -> str:
        now = client.get(f"/api/fittings/{tam['id']}").get_json()
        bag = {**now["document"]["bag"], "wedges": wedges}
        reply = client.patch(f"/api/fittings/{tam['id']}", json={"revision": now["revision"], "bag": bag})
        assert reply.status_code == 200, reply.get_json()
        second = seen(client, tam)["document"]["candidates"][1]
        assert second["name"] == mine["name"]
        return second["code"]

    assert code_with(other, mine) == "own:1"
    assert code_with(other).startswith("was:")
