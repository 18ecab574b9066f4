"""What balls have shown of a head, and where else it holds."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.clubs import Head
from oblatus.core.fitting.proved import OTHER_SITUATIONS, OTHER_SURFACE, HeadShift, proof_words, same_sole, shifts_of
from oblatus.core.fitting.scenarios import build_scenarios

HEAD = Head(56, 10, sole_width=0.021)


@pytest.fixture(scope="module")
def scenarios(fittings):
    fitting = fittings[0]
    return [s for s in build_scenarios(fitting.player, fitting.grounds, fitting.layouts) if s.shot.kind != "full"]


def of(scenarios, key):
    return next(s for s in scenarios if s.shot.key == key)


def test_a_shift_holds_whole_where_it_was_proved_and_in_part_elsewhere(scenarios):
    shift = HeadShift(HEAD, (("pitch", -0.20), ("chip", -0.10)))
    assert shift.at(of(scenarios, "pitch")) == -0.20
    turf = next(s for s in scenarios if s.shot.surface == "turf" and s.shot.key not in ("pitch", "chip"))
    sand = next(s for s in scenarios if s.shot.surface == "sand")
    assert shift.at(turf) == pytest.approx(OTHER_SITUATIONS * -0.15)
    assert shift.at(sand) == pytest.approx(OTHER_SURFACE * -0.15)
    assert HeadShift(HEAD, ()).at(sand) == 0.0


def test_a_bent_head_has_the_same_sole_and_another_head_has_not():
    assert same_sole(HEAD, HEAD.bent(2.0))
    assert same_sole(HEAD, HEAD.bent(-1.5))
    assert same_sole(HEAD, replace(HEAD, lie_deg=HEAD.lie_deg + 2.0, mass=HEAD.mass + 0.004)), "lie and mass are no sole"
    assert not same_sole(HEAD, replace(HEAD, loft_deg=58.0)), "a loft of its own with the same bounce is another head"
    assert not same_sole(HEAD, replace(HEAD, sole_width=0.022))
    assert not same_sole(HEAD, replace(HEAD, bounce_deg=11.0))


def test_what_several_proofs_showed_of_a_head_adds_up_and_leaves_others_alone(scenarios):
    first, second = HeadShift(HEAD, (("pitch", -0.20),)), HeadShift(HEAD.bent(1.0), (("pitch", 0.05),))
    found = shifts_of([HEAD, Head(60, 8)], scenarios, [first, second])
    place = scenarios.index(of(scenarios, "pitch"))
    assert found[0, place] == pytest.approx(-0.15)
    assert np.all(found[1] == 0.0)
    assert np.all(found[0] < 0.0), "it holds in part everywhere"


def test_the_words_say_by_how_much_against_which_club_and_by_how_many_balls():
    shift = HeadShift(HEAD, (("pitch", -0.2), ("chip", -0.1)), "Barrow 56", "proved", "Hanger 56", "3 May", 20)
    assert (
        proof_words(shift)
        == "proved: 0.15 strokes a shot better than expected against Hanger 56, 20 balls with each on 3 May"
    )
    assert proof_words(replace(shift, standing="open", shots=(("pitch", 0.1),))).startswith(
        "not settled: 0.10 strokes a shot worse"
    )
