"""Scenarios, the search over sets, bench rules and explanation."""

from oblatus.core.fitting.bench_rules import BenchRules
from oblatus.core.fitting.judge import Judgement, SoleJudge
from oblatus.core.fitting.recommend import Bag, ClubChoice, Fitting, Recommendation, recommend
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.fitting.sets import Candidate, ClubSet
from oblatus.core.fitting.strike_judge import StrikeJudge

__all__ = [
    "Bag",
    "BenchRules",
    "Candidate",
    "ClubChoice",
    "ClubSet",
    "Fitting",
    "Judgement",
    "Recommendation",
    "Scenario",
    "SoleJudge",
    "StrikeJudge",
    "build_scenarios",
    "recommend",
]
