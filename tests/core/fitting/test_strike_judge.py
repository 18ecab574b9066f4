"""The strike engine as judge, how sure it is, and what schools change."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from oblatus.core.delivery import Estimate
from oblatus.core.fitting import StrikeJudge, explain, recommend
from oblatus.core.fitting.evidence import find_flips, resample
from oblatus.core.fitting.schools import under_each_school
from oblatus.core.grounds import Turf
from oblatus.core.strike import FamilyPool
from oblatus.formats.convert import fitting_from
from oblatus.formats.rack import demo_rack
from oblatus.usecases.seed import demo_fittings

JUDGE = StrikeJudge(FamilyPool())
FITTINGS = [fitting_from(document, demo_rack()) for document in demo_fittings()]


@pytest.fixture(scope="module")
def orla():
    return FITTINGS[0], recommend(FITTINGS[0], JUDGE)


def test_values_are_strike_times_needs(orla):
    _, found = orla
    parts = found.judgement.parts
    assert set(parts) == {"strike", "stop", "lip", "reach"}
    assert found.judgement.values == pytest.approx(np.prod(list(parts.values()), axis=0))
    for part in parts.values():
        assert np.isfinite(part).all()
        assert part.min() >= 0
        assert part.max() <= 1


def test_needs_bite_where_they_should(orla):
    _, found = orla
    scenarios = found.scenarios
    lip, stop = found.judgement.parts["lip"], found.judgement.parts["stop"]
    lips = [i for i, s in enumerate(scenarios) if s.shot.lip]
    assert (np.delete(lip, lips, axis=1) == 1.0).all()
    high = next(i for i in lips if scenarios[i].ground.lip_height > 2)
    low = next(i for i in lips if scenarios[i].ground.lip_height < 1.5)
    assert lip[:, high].max() < lip[:, low].max()
    runner = next(i for i, s in enumerate(scenarios) if s.shot.key == "low_runner")
    soft = next(i for i, s in enumerate(scenarios) if s.shot.key == "short_pitch")
    lofts = [c.head.loft_deg for c in found.candidates]
    least, most = int(np.argmin(lofts)), int(np.argmax(lofts))
    assert stop[least, runner] >= stop[most, runner]
    assert stop[most, soft] > stop[least, soft]


def test_bounce_pays_for_the_steep_on_soft_turf_and_costs_the_level_on_firm():
    base = FITTINGS[0]
    ground = base.grounds[0]

    def mean_bounce(lean, attack, firmness, lie):
        habit = replace(base.player.habit, lean_deg=Estimate(lean, 2.0), attack_deg=Estimate(attack, 1.2))
        one = replace(ground, share=1.0, turf=Turf(firmness, lie, 0.6))
        fitting = replace(base, player=replace(base.player, habit=habit), grounds=(one,), ladder_deg=(55.0,))
        found = recommend(fitting, JUDGE)
        pitch = next(i for i, s in enumerate(found.scenarios) if s.shot.key == "pitch")
        values = found.judgement.parts["strike"][:-1, pitch]
        bounce = np.array([c.head.bounce_deg for c in found.candidates])
        return float(np.corrcoef(values, bounce)[0, 1])

    assert mean_bounce(9.0, -8.0, 55.0, 0.005) > 0.5
    assert mean_bounce(0.0, -3.0, 140.0, 0.001) < -0.5


def test_ties_are_settled_by_the_bench_rules_and_said(orla):
    _, found = orla
    level = [c for c in found.contenders if found.contenders[0].score - c.score < 0.02 or c is found.contenders[0]]
    assert found.contenders[0].bench == max(c.bench for c in level if c.score > max(x.score for x in level) - 0.02)
    assert found.tied > 1
    assert any("cannot tell" in words for kind, words in explain.notes(found) if kind == "rule")


def test_a_wider_rack_never_scores_lower():
    fitting = FITTINGS[1]
    ladder = recommend(fitting, JUDGE).ladder.lofts_deg
    whole = recommend(replace(fitting, ladder_deg=ladder), JUDGE)
    rng = np.random.default_rng(1)
    for _ in range(4):
        some = tuple(item for item in fitting.stock if item.owned or rng.random() < 0.7)
        few = recommend(replace(fitting, stock=some, ladder_deg=ladder), JUDGE)
        if not few.missing_lofts_deg:
            assert max(c.score for c in few.contenders) <= max(c.score for c in whole.contenders) + 1e-9


def test_survival_is_a_share_of_500_and_more_strikes_make_it_surer():
    fitting = FITTINGS[1]
    found = recommend(fitting, JUDGE)
    habit = fitting.player.habit

    def survival(count):
        estimates = {
            name: replace(getattr(habit, name), count=count, source="measured")
            for name in ("attack_deg", "lean_deg", "entry")
        }
        who = replace(fitting.player, habit=replace(habit, **estimates))
        evidence = resample(replace(fitting, player=who), found, JUDGE)
        assert evidence.count == 500
        for slot in range(len(found.clubs)):
            assert sum(s.share for s in evidence.shares if s.slot == slot) == pytest.approx(1.0)
        picks = {(slot, found.candidates[club.pick].stock.code) for slot, club in enumerate(found.clubs)}
        return min(s.share for s in evidence.shares if (s.slot, s.code) in picks), evidence

    few, loose = survival(3)
    many, _ = survival(300)
    assert many >= few
    assert many > 0.9
    assert not loose.assumed_count
    assert resample(FITTINGS[3], recommend(FITTINGS[3], JUDGE), JUDGE).assumed_count


def test_a_flip_really_flips():
    flipped = 0
    for fitting in FITTINGS[1:3]:
        found = recommend(fitting, JUDGE)
        for flip in find_flips(fitting, found, JUDGE):
            if flip.axis not in ("lean", "attack", "entry"):
                continue
            field = flip.axis if flip.axis == "entry" else f"{flip.axis}_deg"
            estimate = replace(getattr(fitting.player.habit, field), mean=flip.at)
            habit = replace(fitting.player.habit, **{field: estimate})
            moved = replace(fitting, player=replace(fitting.player, habit=habit), ladder_deg=found.ladder.lofts_deg)
            then = recommend(moved, JUDGE)
            assert flip.code in {then.candidates[c.pick].stock.code for c in then.clubs}
            flipped += 1
    assert flipped


def test_every_other_school_is_asked_and_says_what_it_asks():
    fitting = FITTINGS[2]
    found = recommend(fitting, JUDGE)
    told = []
    outcomes = under_each_school(fitting, found, JUDGE, lambda done, total: told.append((done, total)))
    assert told[-1] == (len(outcomes), len(outcomes))
    assert len({(o.question, o.choice) for o in outcomes}) == len(outcomes) >= 17
    assert all(o.asks for o in outcomes)
    assert any(o.changed for o in outcomes)
    assert all(getattr(fitting.player.schools, o.question) != o.choice for o in outcomes)


def test_what_was_asked_before_is_remembered_and_equal():
    fitting = fitting_from(demo_fittings()[0], demo_rack())
    fresh, used = StrikeJudge(FamilyPool()), StrikeJudge(FamilyPool())
    first = recommend(fitting, used)
    moved = replace(fitting, ladder_deg=tuple(loft + 0.5 for loft in first.ladder.lofts_deg))
    recommend(moved, used)
    calls = []
    used.pool.expect = lambda *asked: calls.append(asked)  # whatever is asked twice must not get here
    again = recommend(fitting, used)
    assert calls == []
    assert (again.judgement.values == first.judgement.values).all()
    assert (recommend(fitting, fresh).judgement.values == first.judgement.values).all()
