"""The card through the API: as proposed, in the reader's units, on paper, and never as markup."""

from __future__ import annotations

import csv
import io
import socket

import pypdfium2
import pytest
import weasyprint


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def edited(client, base, **sections) -> None:
    revision = client.get(base).get_json()["revision"]
    reply = client.patch(base, json={"revision": revision, **sections})
    assert reply.status_code == 200, reply.get_json()


def words_of(pdf: bytes) -> str:
    with pypdfium2.PdfDocument(pdf) as document:
        return " ".join(page.get_textpage().get_text_range() for page in document).replace("\r\n", " ")


def test_the_card_is_of_the_proposed_set_and_in_the_readers_unit(client, base, fitting):
    card = client.get(f"{base}/card").get_json()
    assert card["basis"] == "proposed"
    assert [c["code"] for c in card["clubs"]] == [c["code"] for c in fitting["recommendation"]["clubs"]]
    assert card["every_m"] == 5.0
    assert 2 <= len(card["drills"]) <= 3
    assert sum(lie["share"] for lie in card["lies"]) < 1.0
    assert "\xa0m/s into the wind" in card["rules"][0]
    client.put("/api/session/units", json={"distance": "yd", "speed": "mph"})
    yards = client.get(f"{base}/card").get_json()
    assert yards["distances"][0]["distance_m"] == pytest.approx(
        round(yards["distances"][0]["distance_m"] / 4.572) * 4.572, abs=0.01
    )
    assert "\xa0mph into the wind" in yards["rules"][0]
    header = client.get(f"{base}/card/distances.csv").get_data(as_text=True).splitlines()[0]
    assert header.lstrip("\ufeff") == "distance (yd),club and swing,9 mph into the wind,firm green"


def test_left_handers_stand_on_the_other_side_and_nothing_else_changes(client, base):
    right = client.get(f"{base}/card").get_json()
    player = client.get(base).get_json()["document"]["player"]
    edited(client, base, player={**player, "hand": "left"})
    left = client.get(f"{base}/card").get_json()
    turned = [lie for lie in right["lies"] if abs(lie["stance_open_deg"]) > 1]
    assert turned
    for a, b in zip(right["lies"], left["lies"], strict=True):
        assert a["stance_open_deg"] == pytest.approx(-b["stance_open_deg"], abs=0.011)
        assert {**a, "stance_open_deg": 0} == {**b, "stance_open_deg": 0}


def test_paper_is_cut_to_size_and_says_what_to_leave_out(client, base):
    card = client.get(f"{base}/card").get_json()
    pdf = client.get(f"{base}/card/bag.pdf")
    assert pdf.mimetype == "application/pdf"
    with pypdfium2.PdfDocument(pdf.data) as document:
        assert len(document) == 1
        assert [round(mm * 25.4 / 72) for mm in document[0].get_size()] == [105, 148]
    words = words_of(pdf.data)
    for row in card["rows"]:
        assert row["swing_name"] in words
    edited(client, base, card={"size": "pocket"})
    unfit = client.get(f"{base}/card/bag.pdf")
    assert unfit.status_code == 422
    assert "leave out" in unfit.get_json()["faults"][0]["message"]
    assert unfit.get_json()["message"].startswith("The card does not fit on this paper: leave out")
    edited(client, base, card={"size": "pocket", "parts": ["distances"], "ball": "a soft ball"})
    pocket = client.get(f"{base}/card/bag.pdf").data
    assert "a soft ball" in words_of(pocket)
    setup = words_of(client.get(f"{base}/card/setup.pdf").data)
    assert all(lie["shot_name"] in setup for lie in card["lies"])
    png = client.get(f"{base}/card/bag.png")
    assert png.data.startswith(b"\x89PNG")
    rows = list(csv.reader(io.StringIO(client.get(f"{base}/card/distances.csv").get_data(as_text=True))))
    assert rows[0][0] == "distance (m)"
    assert len(rows) == 3 + len(card["distances"]) + len(card["rows"])


def test_no_page_is_set_for_a_screen_that_chose_otherwise_meanwhile(client, base, monkeypatch):
    edited(client, base, card={"ball": "a ball of this test"})
    set_pages, render = [], weasyprint.HTML.render
    monkeypatch.setattr(weasyprint.HTML, "render", lambda *some, **named: set_pages.append(1) or render(*some, **named))
    here, screen = socket.socketpair()
    with here, screen:
        screen.close()
        assert client.get(f"{base}/card/bag.png", environ_overrides={"gunicorn.socket": here}).status_code == 503
        assert set_pages == []
    assert client.get(f"{base}/card/bag.png").status_code == 200
    assert set_pages == [1]


def test_a_hostile_name_is_text_everywhere(client, base):
    player = client.get(base).get_json()["document"]["player"]
    name = '<img src="file:///etc/hosts">=cmd|x'
    edited(client, base, player={**player, "name": name})
    assert name in words_of(client.get(f"{base}/card/bag.pdf").data)
    bag = client.get(base).get_json()["document"]["bag"]
    wedges = [{**wedge, "name": "=2+2"} for wedge in bag["wedges"]]
    edited(client, base, bag={**bag, "wedges": wedges})
    text = client.get(f"{base}/card/distances.csv").get_data(as_text=True)
    assert not any(cell.startswith("=") for row in csv.reader(io.StringIO(text)) for cell in row)
