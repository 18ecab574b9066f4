"""What the compiler made of a kernel does what is written: the same arrays from the plain function, which looks at every
index it reads, where compiled code would read beyond the end and go on."""

from __future__ import annotations

import copy
from collections.abc import Callable
from types import ModuleType
from typing import Any

import numpy as np
import pytest

from oblatus.core.clubs import Head, StockHead
from oblatus.core.delivery import Estimate, Habit, Player
from oblatus.core.fitting import Bag, Fitting, _draws, _search, _speeds, recommend
from oblatus.core.fitting.evidence import doubt_of
from oblatus.core.fitting.judge import StrokesJudge
from oblatus.core.gapping import SWINGS, MeasuredStrike, _kernels, _settling, fit_player_model
from oblatus.core.gapping.estimates import Cell
from oblatus.core.grounds import Ground, Sand, Turf
from oblatus.core.strokes import _matrix
from oblatus.usecases.engine import engine

Calls = list[tuple[Any, ...]]
SLOTS, POOL = 5, 13
"""Places among the arguments of what reads families."""


def heard(
    monkeypatch: pytest.MonkeyPatch, module: ModuleType, name: str, part: Callable[[tuple[Any, ...]], Any] = tuple
) -> Calls:
    """The arguments of every call of a kernel from now on, or a part of them, as they were before it, arrays copied."""
    kernel, calls = getattr(module, name), []

    def listen(*given: Any) -> Any:
        calls.append(tuple(copy.deepcopy(one) for one in part(given)))
        return kernel(*given)

    listen.py_func = kernel.py_func  # type: ignore[attr-defined]
    listen.compiled = kernel  # type: ignore[attr-defined]
    monkeypatch.setattr(module, name, listen)
    return calls


def few_rows(given: tuple[Any, ...]) -> list[Any]:
    """Of a kernel that goes row by row through the families of a pool: six rows, and of the pool what they read."""
    some = list(given)
    for place in (*range(7), 8, 9, -2, -1):
        some[place] = given[place][:6]
    some[SLOTS], some[POOL] = np.arange(len(some[SLOTS])), given[POOL][some[SLOTS]]
    return some


def same(module: ModuleType, name: str, given: tuple[Any, ...], rel: float = 1e-9) -> None:
    """Both ways from the same arguments: result, and every array as it stands then."""
    kernel = getattr(module, name)
    results, arrays = [], []
    for function in (kernel.compiled, kernel.py_func):
        mine = tuple(copy.deepcopy(one) for one in given)
        with np.errstate(all="ignore"):
            results.append(function(*mine))
        arrays.append([one for one in mine if isinstance(one, np.ndarray)])
    assert results[0] == pytest.approx(results[1], rel=rel, nan_ok=True) if results[0] is not None else results[1] is None
    for compiled, plain in zip(*arrays, strict=True):
        np.testing.assert_allclose(compiled, plain, rtol=rel, atol=1e-12)


@pytest.fixture(scope="module")
def little() -> Fitting:
    """One ground, two owned wedges and two heads on the rack: quick in plain Python too."""
    habit = Habit(Estimate(-5.0, 1.5), Estimate(5.0, 1.8), Estimate(-0.034, 0.012))
    ground = Ground("home", 1.0, Turf(95.0, 0.0035, 0.3), Sand(2.0, 0.06, 0.2), "medium", 0.9)
    stock = (
        StockHead("own:0", "old gap", Head(51, 8), owned=True, bend_limit_deg=1.0),
        StockHead("own:1", "old sand", Head(57, 11), owned=True, bend_limit_deg=1.0),
        StockHead("A", "a", Head(54, 12), bend_limit_deg=0.5),
        StockHead("B", "b", Head(58, 6), bend_limit_deg=0.5),
    )
    return Fitting(Player(habit, 12.0, 100.0), (ground,), Bag(Head(46, 6, 0.018)), stock)


def a_judge() -> StrokesJudge:
    """One that remembers nothing: every kernel is asked."""
    return StrokesJudge(engine().pool)


def recommended(fitting: Fitting) -> Callable[[], object]:
    return lambda: recommend(fitting, a_judge())


@pytest.mark.parametrize(("module", "name"), [(_search, "search"), (_kernels, "score"), (_speeds, "clean_speeds")])
def test_the_search_and_what_it_stands_on(monkeypatch, little, module, name):
    calls = heard(monkeypatch, module, name)
    recommended(little)()
    assert calls
    for given in calls[:: max(len(calls) // 3, 1)]:
        same(module, name, given)


@pytest.mark.parametrize("name", ["short_shots", "stock_swings"])
def test_strokes_of_strikes(monkeypatch, little, name):
    calls = heard(monkeypatch, _matrix, name, few_rows)
    recommended(little)()
    assert calls
    same(_matrix, name, calls[-1], rel=1e-7)


@pytest.mark.parametrize("name", ["score_drawn", "score_sets"])
def test_draws_of_the_doubt(monkeypatch, little, name):
    judge = a_judge()
    found = recommend(little, judge)
    calls = heard(monkeypatch, _draws, name)
    doubt_of(found, judge)
    assert calls
    given = calls[0]
    if name == "score_drawn":  # six of the five hundred draws, their scores and the model's
        given = (given[0][:6], *given[1:-2], given[-2][:6], given[-1][:6])
    same(_draws, name, given)


def test_the_fit_of_a_players_carries(monkeypatch):
    calls = heard(monkeypatch, _settling, "settle")
    rng = np.random.default_rng(5)
    cells = [Cell("pw", 46.0, swing.key) for swing in SWINGS]
    strikes = [
        MeasuredStrike(str(n), "pw", 46.0, SWINGS[n % 3].key, float(carry * rng.normal(1.0, 0.04)))
        for n, carry in enumerate([104.0, 88.0, 66.0] * 4)
    ]
    fit_player_model(Player(Habit(), pitching_wedge_carry=104.0), 46.0, strikes, cells)
    assert calls
    same(_settling, "settle", calls[0], rel=1e-6)
