"""Scenarios, costs in strokes, the search over sets, the steps of change, doubt, schools and explanation."""

from oblatus.core.fitting.bench_rules import BenchRules
from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.economy import Economy
from oblatus.core.fitting.fitting import Bag, Fitting
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.fitting.recommend import recommend
from oblatus.core.fitting.recommendation import ClubChoice, Recommendation
from oblatus.core.fitting.scenarios import Scenario, build_scenarios
from oblatus.core.fitting.sets import ClubSet
from oblatus.core.fitting.steps import Step

__all__ = [
    "Bag",
    "BenchRules",
    "Candidate",
    "ClubChoice",
    "ClubSet",
    "Economy",
    "Fitting",
    "Recommendation",
    "Scenario",
    "Step",
    "StrokesJudge",
    "build_scenarios",
    "recommend",
]
