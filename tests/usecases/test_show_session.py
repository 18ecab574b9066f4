"""The session as it is told from columns says what the strikes say one by one."""

from __future__ import annotations

from uuid import UUID, uuid4

import numpy as np
import pytest
from sqlmodel import select

from oblatus.core.fitting.session_of import session_of
from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.formats.session import session_out
from oblatus.store.tables import Studio
from oblatus.usecases import show_session as told
from oblatus.usecases.actor import Actor
from oblatus.usecases.show_carries import inputs_of

CLUBS = (("own:0", 50.0), ("own:1", 53.5), ("pw", 46.0), ("HG50", 50.0), ('a\nb\u2028c"', 58.0))
SWINGS = ("full", "900", "pitch", "sand", "practice")
COUNT = 400


@pytest.fixture
def actor(database) -> Actor:
    with database.transaction() as session:
        return Actor(UUID(int=0), session.exec(select(Studio)).one().id, "somebody")


def strikes() -> list[dict]:
    """Of several clubs at several stations, most figures unknown, some set aside, one club's loft corrected since."""
    rng = np.random.default_rng(4)
    keys = [key for key in STRIKE_FIGURES if key not in {"loft_deg", "exit_mm", "dynamic_loft_deg"}]
    found = []
    for n in range(COUNT):
        club, loft = CLUBS[n % len(CLUBS)]
        one = {"id": str(uuid4()), "club": club, "loft_deg": loft, "swing": SWINGS[n // 7 % len(SWINGS)]}
        for key in keys:
            bound = STRIKE_FIGURES[key].bound
            low, high = max(bound.low, -90.0), min(bound.high, 9000.0)
            if rng.random() < 0.6:
                one[key] = round(float(low + (high - low) * rng.beta(4, 4)), 1)
        if one.get("entry_mm") is not None and one["swing"] == "sand":
            one["exit_mm"] = one["entry_mm"] + 150.0
        one |= {
            "carry_m": round(20.0 + 0.1 * n, 1),
            "set_aside": "thin" if n % 11 == 0 else None,
            "simulated": n % 5 == 0,
        }
        found.append(one)
    return found


def test_every_figure_trend_and_fault_is_the_same_to_the_last_digit(client, fitting, database, actor, monkeypatch):
    base = f"/api/fittings/{fitting['id']}"
    assert client.post(f"{base}/strikes", json={"strikes": strikes()}).status_code == 200
    inputs = inputs_of(database, actor, UUID(fitting["id"]))
    whole = inputs.fitting()
    lofts = {strike.loft_deg for strike in whole.strikes if strike.club == "own:1"}
    assert 53.5 not in lofts, "the loft as it is now stands in for the one that was typed then"
    one_by_one = session_out(
        *session_of(whole), whole.swings, inputs.strikes, len(inputs.strikes), sum(s.simulated for s in inputs.strikes)
    )
    assert one_by_one.faults, "or nothing is compared"
    assert one_by_one.overall.figures[1].inferred > 0
    found = told.show_session(database, actor, UUID(fitting["id"]))
    assert found == one_by_one
    monkeypatch.setattr(told, "MOST_SHOWN", 50)
    fewer = told.show_session(database, actor, UUID(fitting["id"]))
    listed = {str(strike.id) for strike in inputs.strikes[-50:]}
    assert [strike.id for strike in fewer.strikes] == [strike.id for strike in inputs.strikes[-50:]]
    assert (fewer.total, fewer.overall) == (one_by_one.total, one_by_one.overall)
    for some, every in zip(fewer.faults, one_by_one.faults, strict=True):
        assert some.shown == every.shown
        assert some.strikes == [one for one in every.strikes if one in listed]


def test_no_strike_says_nothing(client):
    made = client.post("/api/fittings", json={"player_name": "Nobody yet"}).get_json()
    found = client.get(f"/api/fittings/{made['id']}/session").get_json()
    assert (found["total"], found["strikes"], found["faults"], found["stations"]) == (0, [], [], [])
    assert found["overall"]["figures"] == []
