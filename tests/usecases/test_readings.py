"""From a gauge and a hammer to what they say of a club and a ground: once each, absurd readings flagged."""

from __future__ import annotations

import time

import pytest

from oblatus.devices.instruments import GaugeStandIn, HammerStandIn
from oblatus.devices.monitor import MonitorStandIn
from oblatus.devices.stand_in import Misbehaviour
from oblatus.usecases.bridge import Bridge, connect_to
from tests.waiting import until


@pytest.fixture
def base(fitting) -> str:
    return f"/api/fittings/{fitting['id']}"


def connect(client, base, kind, target, *, wanted=True):
    return client.put(f"{base}/devices/{kind}", json={"wanted": wanted, "target": target})


def device(client, base, kind) -> dict:
    return next(d for d in client.get(f"{base}/devices").get_json()["devices"] if d["kind"] == kind)


def summary(client, base, kind, target) -> dict | None:
    found = client.get(f"{base}/readings").get_json()["summaries"]
    return next((s for s in found if (s["kind"], s["target"]) == (kind, target)), None)


def test_readings_go_to_the_club_and_ground_that_are_chosen_once_each(client, base, database, fitting):
    wrong = Misbehaviour(repeat=0.5, rubbish=0.3)
    gauge, hammer = GaugeStandIn(every=0.02, wrong=wrong).start(), HammerStandIn(every=0.02, wrong=wrong).start()
    devices = {"gauge": f"127.0.0.1:{gauge.port}", "hammer": f"127.0.0.1:{hammer.port}"}
    bridge = Bridge(database, connect_to(devices)).start()
    name = fitting["document"]["grounds"][0]["name"]
    assert connect(client, base, "gauge", "own:0").status_code == 200
    assert connect(client, base, "hammer", name).status_code == 200
    until(lambda: device(client, base, "gauge")["taken"] == 3 and device(client, base, "hammer")["taken"] == 6)
    assert connect(client, base, "gauge", "own:1").status_code == 200
    until(lambda: device(client, base, "gauge")["taken"] == 6)
    bridge.close()
    gauge.close()
    hammer.close()
    first, second = summary(client, base, "gauge", "own:0"), summary(client, base, "gauge", "own:1")
    assert first["count"] == second["count"] == 3
    assert {f["key"] for f in first["figures"]} >= {"loft_deg", "lie_deg", "bounce_deg"}
    drops = summary(client, base, "hammer", name)
    assert (drops["count"], drops["simulated"]) == (6, True)
    assert drops["words"] in {"soft", "medium", "firm", "baked"}
    readings = client.get(f"{base}/readings").get_json()["readings"]
    mine = next(r for r in readings if r["kind"] == "hammer")
    assert client.patch(f"{base}/readings/{mine['id']}", json={"set_aside": "on a stone"}).status_code == 204
    after = summary(client, base, "hammer", name)
    assert (after["count"], after["aside"]) == (5, 1)


def test_what_is_not_there_is_refused_at_its_field(client, base):
    for kind, target in (("gauge", "own:9"), ("gauge", "pw"), ("hammer", "the moon")):
        reply = connect(client, base, kind, target)
        assert reply.status_code == 422
        assert reply.get_json()["faults"][0]["field"] == "target"
    assert client.put(f"{base}/devices/anvil", json={"wanted": True, "target": "own:0"}).status_code in {404, 422}
    assert connect(client, base, "gauge", "own:0", wanted=False).get_json()["state"] == "off"


def test_a_device_of_another_kind_and_an_absurd_reading_are_flagged_and_the_session_goes_on(
    client, base, database, fitting, monkeypatch
):
    told = iter([{"reading": {"peak_g": 9000.0}}, {"strike": {"carry_m": 30.0}}, {"reading": {"peak_g": 90.0}}])
    monkeypatch.setattr(HammerStandIn, "measure", lambda *_: next(told))
    hammer = HammerStandIn(every=0.05, most=3).start()
    bridge = Bridge(database, connect_to({"hammer": f"127.0.0.1:{hammer.port}"})).start()
    name = fitting["document"]["grounds"][0]["name"]
    connect(client, base, "hammer", name)
    until(lambda: device(client, base, "hammer")["taken"] == 1)
    bridge.close()
    hammer.close()
    found = device(client, base, "hammer")
    assert found["refused"] == 2
    assert "is a strike, and this is a hammer" in found["last_refusal"]
    assert summary(client, base, "hammer", name)["figures"][0]["mean"] == 90.0


def test_two_devices_that_claim_one_strike_count_once(client, base, database):
    """The same seed and listener give the same ids: a second device beside the first adds nothing."""
    first, second = MonitorStandIn(seed=7, every=0.02, most=6).start(), MonitorStandIn(seed=7, every=0.02, most=6).start()
    for stand_in in (first, second):
        bridge = Bridge(database, connect_to({"monitor": f"127.0.0.1:{stand_in.port}"})).start()
        client.put(f"{base}/monitor", json={"wanted": True, "club": "pw", "swing": "pitch"})
        stream = stand_in.streams
        until(lambda stream=stream: any(s.made == 6 and not s.unacknowledged for s in stream.values()))
        bridge.close()
        stand_in.close()
    strikes = [s for s in client.get(f"{base}/session").get_json()["strikes"] if s["origin"] == "device"]
    assert len(strikes) == 6
    assert client.get(f"{base}/monitor").get_json()["taken"] == 6


def test_a_lost_connection_brings_no_reading_that_nobody_asked_for_and_another_press_does(client, base, database):
    gauge = GaugeStandIn(every=0.02).start()
    devices = {"gauge": f"127.0.0.1:{gauge.port}"}
    connect(client, base, "gauge", "own:0")
    for _ in range(3):
        bridge = Bridge(database, connect_to(devices)).start()
        until(lambda: device(client, base, "gauge")["state"] == "live" and device(client, base, "gauge")["taken"] >= 3)
        time.sleep(0.3)
        bridge.close()
    assert device(client, base, "gauge")["taken"] == 3
    connect(client, base, "gauge", "own:0")
    bridge = Bridge(database, connect_to(devices)).start()
    until(lambda: device(client, base, "gauge")["taken"] == 6)
    bridge.close()
    gauge.close()
