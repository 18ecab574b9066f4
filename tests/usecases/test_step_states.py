"""How far each step is: what is known, what was kept, what changed since."""

from __future__ import annotations

import pytest

from oblatus.formats.demo import demo_fittings
from oblatus.formats.fitting import FittingDocument, parse_fitting
from oblatus.formats.sections.bag import OwnedWedgeDocument
from oblatus.formats.sections.grounds import GroundDocument
from oblatus.formats.sections.player import PlayerDocument
from oblatus.store.repositories import Stands
from oblatus.usecases.step_states import STEPS, step_states

NEW = FittingDocument(player=PlayerDocument(name="New"), grounds=(GroundDocument(name="home", share=1.0),))


def changed(**sections) -> FittingDocument:
    return parse_fitting({**NEW.model_dump(mode="json"), **sections})


def test_every_step_has_a_state():
    states = step_states(NEW, (), None)
    assert tuple(states) == tuple(STEPS)
    assert set(states.values()) <= {"empty", "partly", "done", "stale"}


def test_a_log_is_begun_by_a_shot_and_done_once_its_mix_was_answered():
    assert step_states(NEW, (), None)["log"] == "empty"
    assert step_states(NEW, (), None, Stands(logged=3))["log"] == "partly"
    answered = {"decisions": [{"key": "mix", "accepted": False, "on": "2026-05-01", "shots": 3}]}
    assert step_states(changed(after=answered), (), None, Stands(logged=3))["log"] == "done"


def test_a_new_player_is_empty():
    states = step_states(NEW, (), None)
    assert (states["player"], states["ground"], states["bag"]) == ("empty", "empty", "empty")


def test_a_measured_player_is_done():
    states = step_states(demo_fittings()[0], (), None)
    assert (states["player"], states["ground"], states["bag"]) == ("done", "partly", "done")


def test_one_number_makes_it_partly():
    player = {**NEW.player.model_dump(mode="json"), "pitching_wedge_carry_m": 100.0}
    assert step_states(changed(player=player), (), None)["player"] == "partly"
    ground = NEW.grounds[0].model_dump(mode="json")
    ground["turf"]["firmness_source"] = "measured"
    assert step_states(changed(grounds=[ground]), (), None)["ground"] == "partly"


def test_a_bag_is_done_when_every_wedge_was_measured():
    wedge = OwnedWedgeDocument(name="sand", loft_deg=56.0, bounce_deg=10.0).model_dump(mode="json")
    bag = NEW.bag.model_dump(mode="json")
    assert step_states(changed(bag={**bag, "wedges": [wedge]}), (), None)["bag"] == "partly"
    measured = {**wedge, "measured": True}
    assert step_states(changed(bag={**bag, "wedges": [measured]}), (), None)["bag"] == "done"
    assert step_states(changed(bag={**bag, "wedges": [wedge, measured]}), (), None)["bag"] == "partly"


@pytest.mark.parametrize(("fresh", "state"), [(None, "partly"), (True, "done"), (False, "stale")])
def test_a_kept_proposal_goes_stale_with_the_next_edit(fresh, state):
    states = step_states(NEW, (), fresh)
    assert (states["lofts"], states["soles"]) == (state, state)


def test_carries_are_done_with_three_strikes_for_every_club_and_clock_swing():
    document = demo_fittings()[0]
    assert step_states(document, (), None)["carries"] == "empty"
    assert step_states(document, document.strikes, None)["carries"] == "partly"
    one = document.strikes[0]
    clubs = ["pw", *(f"own:{n}" for n in range(len(document.bag.wedges)))]
    every = [
        one.model_copy(update={"club": club, "swing": swing, "set_aside": None})
        for club in clubs
        for swing in ("full", "1030", "900")
        for _ in range(3)
    ]
    assert step_states(document, every, None)["carries"] == "done"
    every[0] = every[0].model_copy(update={"set_aside": "thin"})
    assert step_states(document, every, None)["carries"] == "partly"
