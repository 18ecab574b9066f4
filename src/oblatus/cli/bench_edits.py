"""Edits of every kind in the served program: how soon they are answered, and how soon the whole rack is."""

from __future__ import annotations

import copy
from collections.abc import Callable
from functools import partial
from typing import Any
from uuid import uuid4

import numpy as np

from oblatus.cli.bench_carries import times
from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

ROUNDS = 4
PLAYERS = 3
Document = dict[str, Any]


def _lean(player: Document, n: int) -> None:
    player["delivery"]["lean_deg"]["mean"] += 0.1


def _attack_spread(player: Document, n: int) -> None:
    player["delivery"]["attack_deg"]["spread"] += 0.05


def _entry(player: Document, n: int) -> None:
    player["delivery"]["entry_mm"]["mean"] -= 0.5


def _handicap(player: Document, n: int) -> None:
    player["handicap"] += 0.5


def _school(player: Document, n: int) -> None:
    player["schools"]["tight_firm"] = ("use_edge", "use_sole")[n % 2]


def _share(grounds: list[Document], n: int) -> None:
    grounds[0]["share"] -= 0.02
    grounds[-1]["share"] += 0.02


def _turf(grounds: list[Document], n: int) -> None:
    grounds[0]["turf"]["firmness_g"] += 1.0


def _sand(grounds: list[Document], n: int) -> None:
    grounds[0]["sand"]["penetrometer_kg_cm2"] += 0.02


def _practice(choices: Document, n: int) -> None:
    choices["economy"]["practice"] = 0.03 + 0.001 * n


KINDS: dict[str, tuple[str, Callable[[Any, int], None]]] = {
    "lean": ("player", _lean),
    "attack_spread": ("player", _attack_spread),
    "entry": ("player", _entry),
    "handicap": ("player", _handicap),
    "school": ("player", _school),
    "share": ("grounds", _share),
    "turf": ("grounds", _turf),
    "sand": ("grounds", _sand),
    "practice": ("choices", _practice),
}
"""The section that an edit is of, and what it changes there."""


def measure_edits() -> dict[str, float]:
    """Every kind of edit in turn, of the demo players, as a screen sends it.

    Milliseconds to the answer among the clubs near, and from the question for the whole rack to its answer.
    """
    served = Served.start()
    near: dict[str, list[float]] = {name: [] for name in KINDS}
    whole: dict[str, list[float]] = {name: [] for name in KINDS}
    try:
        tablet = Tablet(served.address, DEMO_EMAIL, DEMO_PASSWORD)
        tablet.sign_in()
        for line in tablet.insist("GET", "/api/fittings").body["fittings"][:PLAYERS]:
            path = f"/api/fittings/{line['id']}"
            view = tablet.insist("GET", path).body
            for n in range(ROUNDS + 1):
                for name, (section, change) in KINDS.items():
                    taken, view = _edited(tablet, path, view, section, change, n)
                    waited = 1e3 * float(times(partial(_whole, tablet, path), 1)[0])
                    if n > 0:  # the first of a kind warms the server
                        near[name].append(taken)
                        whole[name].append(waited)
    finally:
        served.stop()
    return _told("edit", near) | _told("whole_after_edit", whole)


def _edited(
    tablet: Tablet, path: str, view: Document, section: str, change: Callable[[Any, int], None], n: int
) -> tuple[float, Document]:
    """Milliseconds to the answer, and what it says."""
    base = {section: view["document"][section]}
    mine = copy.deepcopy(base)
    change(mine[section], n)
    body = {"revision": view["revision"], "edit_id": str(uuid4()), "base": base, **mine, "settled": []}
    answers: list[Document] = []
    taken = 1e3 * float(times(lambda _: answers.append(tablet.insist("PATCH", path, body).body), 1)[0])
    answer = answers[0]
    if answer.get("refused") or answer.get("conflicts") or answer["revision"] == view["revision"]:
        raise AssertionError(f"an edit did not go in: {answer}")
    return taken, answer


def _whole(tablet: Tablet, path: str, _: int) -> None:
    if not tablet.insist("GET", path).body["recommendation"]["whole_rack"]:
        raise AssertionError("not the whole rack's answer")


def _told(what: str, taken: dict[str, list[float]]) -> dict[str, float]:
    every = [one for some in taken.values() for one in some]
    figures = {f"{what}_p{part}_ms": float(np.percentile(every, part)) for part in (50, 95)}
    return figures | {f"{what}_of_{name}_p50_ms": float(np.median(some)) for name, some in taken.items()}
