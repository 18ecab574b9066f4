"""How far each step is: what is known, what was kept, what changed since."""

from __future__ import annotations

import pytest

from oblatus.formats.fitting import FittingDocument, GroundDocument, OwnedWedgeDocument, PlayerDocument, parse_fitting
from oblatus.usecases.seed import demo_fittings
from oblatus.usecases.step_states import LATER, STEPS, step_states

NEW = FittingDocument(player=PlayerDocument(name="New"), grounds=(GroundDocument(name="home", share=1.0),))


def changed(**sections) -> FittingDocument:
    return parse_fitting({**NEW.model_dump(mode="json"), **sections})


def test_every_step_has_a_state_and_those_to_come_say_so():
    states = step_states(NEW, 1, None)
    assert tuple(states) == STEPS
    assert {step for step, state in states.items() if state == "later"} == set(LATER)
    assert (states["player"], states["ground"], states["bag"]) == ("empty", "empty", "empty")


def test_a_measured_player_is_done():
    states = step_states(demo_fittings()[0], 1, None)
    assert (states["player"], states["ground"], states["bag"]) == ("done", "partly", "done")


def test_one_number_makes_it_partly():
    player = {**NEW.player.model_dump(mode="json"), "pitching_wedge_carry_m": 100.0}
    assert step_states(changed(player=player), 1, None)["player"] == "partly"
    ground = NEW.grounds[0].model_dump(mode="json")
    ground["turf"]["firmness_source"] = "measured"
    assert step_states(changed(grounds=[ground]), 1, None)["ground"] == "partly"


def test_a_bag_is_done_when_every_wedge_was_measured():
    wedge = OwnedWedgeDocument(name="sand", loft_deg=56.0, bounce_deg=10.0).model_dump(mode="json")
    bag = NEW.bag.model_dump(mode="json")
    assert step_states(changed(bag={**bag, "wedges": [wedge]}), 1, None)["bag"] == "partly"
    measured = {**wedge, "measured": True}
    assert step_states(changed(bag={**bag, "wedges": [measured]}), 1, None)["bag"] == "done"
    assert step_states(changed(bag={**bag, "wedges": [wedge, measured]}), 1, None)["bag"] == "partly"


@pytest.mark.parametrize(("kept", "state"), [(None, "partly"), (4, "done"), (3, "stale")])
def test_a_kept_proposal_goes_stale_with_the_next_edit(kept, state):
    states = step_states(NEW, 4, kept)
    assert (states["lofts"], states["soles"]) == (state, state)
