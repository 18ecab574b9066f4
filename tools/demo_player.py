"""Make the demo player of a year ago: fitted, built, handed over, with a year of rounds, a recheck and a trip ahead.

Everything is done by the use cases of the program on a database of its own; the days are set back afterwards.

    .venv/bin/python tools/demo_player.py src/oblatus/demo/fittings/05-underhay.json
"""

from __future__ import annotations

import json
import sys
import tempfile
from datetime import date, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import UUID, uuid5

import numpy as np
from sqlalchemy import create_engine

from oblatus.core.card.setup import Tool
from oblatus.core.log.expected import Expectations
from oblatus.core.log.shots import APPROACH, SITUATIONS
from oblatus.core.log.simulated import TruePlayer, simulate_rounds
from oblatus.core.shots import default_shot_mix
from oblatus.core.words import Reader
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_rack, demo_venues
from oblatus.formats.fitting import FittingDocument
from oblatus.settings import Settings
from oblatus.store.database import Database
from oblatus.store.migrate import migrate
from oblatus.store.repositories import StudioRows, studios
from oblatus.store.server import LocalServer
from oblatus.usecases.actor import Actor
from oblatus.usecases.build_orders import order_build, see_build, sign_build, tick
from oblatus.usecases.edit_fitting import Edit, edit_fitting
from oblatus.usecases.engine import engine
from oblatus.usecases.hand_over import hand_over
from oblatus.usecases.keep_proposal import keep_proposal
from oblatus.usecases.open_fitting import export_fitting, open_fitting
from oblatus.usecases.seed import seed_once
from oblatus.usecases.start_fitting import import_fitting

FITTED = date(2025, 10, 18)
SEED = 20251018
SPACE = UUID("5f0b2f0e-94a7-4f3c-9a66-0d3f6a2d9c11")


def base() -> dict[str, Any]:
    """The player as they came."""
    venues = {(one.venue, one.season): one.ground for one in demo_venues()}
    home = []
    for (venue, season), share in {("Vale clay", "winter"): 0.5, ("Vale clay", "summer"): 0.5}.items():
        ground = venues[venue, season].model_dump(mode="json")
        ground |= {"name": f"{venue}, {season}", "share": share}
        for kind, key in (("turf", "firmness_source"), ("sand", "penetrometer_source")):
            ground[kind][key] = "copied"
        home.append(ground)
    wedge = {"camber_radius_mm": 46.0, "make": "forged", "measured": True, "bend_limit_deg": 2.0}
    return {
        "format": "oblatus.fitting", "version": 1,
        "player": {
            "name": "Joss Underhay", "hand": "left", "handicap": 15.0,
            "complaints": "Chunks pitches in winter, blades the lob from firm lies.",
            "delivery": {
                "attack_deg": {"mean": -6.4, "spread": 1.7, "count": 24, "source": "measured"},
                "lean_deg": {"mean": 8.2, "spread": 1.9, "count": 24, "source": "measured"},
                "entry_mm": {"mean": -30.0, "spread": 14.0, "count": 18, "source": "measured"},
            },
            "pitching_wedge_carry_m": 104.0,
        },
        "grounds": home,
        "bag": {
            "pitching_wedge_loft_deg": 45.0, "nine_iron_loft_deg": 40.0, "other_clubs": 11,
            "wedges": [
                {
                    **wedge, "name": name, "loft_deg": loft, "bounce_deg": bounce, "sole_width_mm": width,
                    "stamped_loft_deg": stamped,
                }
                for name, loft, bounce, width, stamped in (
                    ("old fifty", 49.6, 7.0, 18.5, 50.0), ("old fifty-six", 55.2, 6.0, 18.0, 56.0),
                    ("old sixty", 59.8, 6.0, 20.0, 60.0),
                )
            ],
        },
        "after": {"use": {"rounds_year": 44, "range_balls_week": 60}},
    }  # fmt: skip


def main() -> None:
    """Write the document."""
    with tempfile.TemporaryDirectory() as folder:
        server = LocalServer(Path(folder), forgetful=True)
        server.start()
        try:
            owner = create_engine(server.owner_url())
            migrate(owner)
            owner.dispose()
            settings = Settings(server.url(), "a key that only this script knows, 32 characters and more")
            document = made(Database(server.url()), settings)
        finally:
            server.stop()
    Path(sys.argv[1]).write_text(json.dumps(document, ensure_ascii=False, separators=(",", ":")) + "\n", encoding="utf-8")


def made(database: Database, settings: Settings) -> dict[str, Any]:
    """The document of the player, with everything that is attached."""
    seed_once(database, settings, demo=False)
    with database.transaction() as session:
        studio = studios(session)[0].id
        fitter = StudioRows(session, studio).fitters()[0]
        actor = Actor(fitter.id, studio, fitter.name)
    view = import_fitting(database, actor, FittingDocument.model_validate(base()))
    fitting_id = view.id
    keep_proposal(database, actor, fitting_id, view.revision, "as fitted")
    built(database, actor, fitting_id)
    view = open_fitting(database, actor, fitting_id)
    handover_id = uuid5(SPACE, "handover")
    hand_over(database, settings, actor, fitting_id, handover_id, view.revision, Reader())
    document = json.loads(export_fitting(database, actor, fitting_id).model_dump_json())
    document["rack"] = None
    return later(document)


def built(database: Database, actor: Actor, fitting_id: UUID) -> None:
    """The proposed set, ordered, worked at, read and signed."""
    order_id = uuid5(SPACE, "order")
    sheet = see_build(database, actor, fitting_id)
    revision = open_fitting(database, actor, fitting_id).revision
    clubs = [
        {
            **club.wish.model_dump(mode="json"),
            "read": {
                "loft_deg": club.after.loft_deg, "lie_deg": club.after.lie_deg,
                "swing_weight": club.built and club.built.swing_weight, "typed": True,
            },
        }
        for club in sheet.clubs
    ]  # fmt: skip
    revision = edit_fitting(database, actor, fitting_id, Edit(revision, {"build": {"clubs": clubs}})).view.revision
    order_build(database, actor, fitting_id, order_id, revision)
    sheet = see_build(database, actor, fitting_id)
    for c, club in enumerate(sheet.clubs):
        for o in range(len(club.operations)):
            tick(database, actor, fitting_id, order_id, c, o, done=True)
    sign_build(database, actor, fitting_id, order_id, revision, "")


def later(document: dict[str, Any]) -> dict[str, Any]:
    """The year after: days set back, scores of a month, rounds, a recheck, a season and a trip."""
    rng = np.random.default_rng(SEED)
    document = json.loads(_set_back(json.dumps(document)))
    attached = document["attached"]
    attached["handovers"][0]["scores"] = scores(attached["handovers"][0]["content"], rng)
    attached["log"] = log_of(document, rng)
    attached["readings"] = recheck(document)
    trips = {one.venue: one.ground for one in demo_venues()}
    there = trips["Shingle Bay"].model_dump(mode="json") | {"name": "Shingle Bay", "share": 1.0}
    document["after"]["trips"] = [
        {"name": "Shingle Bay in June", "from_on": "2027-06-11", "to_on": "2027-06-14", "grounds": [there]},
        {
            "name": "winter", "season": True, "from_on": None, "to_on": None,
            "grounds": [{**document["grounds"][0], "share": 1.0}],
        },
    ]  # fmt: skip
    return document


def _set_back(text: str) -> str:
    """Every moment of this run on the day of the fitting."""
    today = datetime.now().astimezone().date()
    for days in (-1, 0, 1):
        text = text.replace((today + timedelta(days=days)).isoformat(), (FITTED + timedelta(days=days)).isoformat())
    end = (today + timedelta(days=548)).isoformat()
    return text.replace(end, (FITTED + timedelta(days=548)).isoformat())


def scores(page: dict[str, Any], rng: np.random.Generator) -> list[dict[str, Any]]:
    """A month of drills: twice a week each, getting better."""
    found = []
    for drill in page["card"]["drills"]:
        for n in range(9):
            chance = 0.45 + 0.04 * n
            found.append(
                {
                    "id": str(uuid5(SPACE, f"score {drill['key']} {n}")), "drill": drill["key"],
                    "score": int(rng.binomial(drill["count"], chance)), "count": drill["count"],
                    "on": (FITTED + timedelta(days=3 + round(3.5 * n))).isoformat(), "by": "player",
                }
            )  # fmt: skip
    return found


def log_of(document: dict[str, Any], rng: np.random.Generator) -> list[dict[str, Any]]:
    """A year of rounds: more sand than assumed, one head that does less than was promised."""
    whole = FittingDocument.model_validate({**document, "attached": None})
    fitting = fitting_from(whole, demo_rack())
    tools = [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]
    expectations = Expectations(fitting, tools, engine().judge, ())
    assumed = default_shot_mix(fitting.player.handicap)
    mix = {key: share for key, share in assumed.items() if key in SITUATIONS}
    mix[APPROACH] = 1.0 - sum(mix.values())
    mix["sand_greenside"] *= 1.8
    mix["chip"] *= 0.7
    player = TruePlayer(mix, {tools[-1].code: 0.22}, other=0.14, distances=(72.0, 19.0))
    days = [FITTED + timedelta(days=12 + round(8.9 * n)) for n in range(42)]
    shots = simulate_rounds(expectations, days, 11, player, rng)
    places = {scenario.shot.key: scenario.ground.name for scenario in expectations.sheet.short}
    return [
        {
            "id": str(uuid5(SPACE, f"shot {n}")), "round": str(uuid5(SPACE, shot.round)), "on": shot.on.isoformat(),
            "situation": shot.situation, "ground": places.get(shot.situation, ""), "distance_m": shot.distance,
            "club": shot.club, "advised": shot.advised, "result": shot.result, "left_m": shot.left, "holed_in": None,
        }
        for n, shot in enumerate(shots)
    ]  # fmt: skip


def recheck(document: dict[str, Any]) -> list[dict[str, Any]]:
    """The gauge half a year later: one club has drifted."""
    found = []
    for n, wedge in enumerate(document["bag"]["wedges"]):
        for again in range(2):
            drift = (-0.3, 0.1, -1.2)[n % 3] + 0.1 * again
            found.append(
                {
                    "id": str(uuid5(SPACE, f"reading {n} {again}")), "kind": "gauge", "target": f"own:{n}",
                    "figures": {
                        "loft_deg": round(wedge["loft_deg"] + drift, 1), "lie_deg": wedge["lie_deg"],
                        "bounce_deg": round(wedge["bounce_deg"] + drift, 1),
                    },
                    "simulated": True, "set_aside": None, "taken_at": "2026-06-03T10:12:00Z",
                }
            )  # fmt: skip
    return found


if __name__ == "__main__":
    main()
