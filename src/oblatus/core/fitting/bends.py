"""Strokes of a head's bends: three of them exact, those between on a parabola. docs/models/strokes.md, 4."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.candidates import Candidate

Floats = NDArray[np.float64]

FEW = 40


def between_bends(exact: Floats, nodes: Sequence[int], candidates: Sequence[Candidate]) -> Floats:
    """Raw strokes of every candidate (candidates, size): exact those of the nodes (`exact_of`), the others on a parabola
    between those of their head.
    """
    raw = np.empty((len(candidates), exact.shape[1]))
    raw[list(nodes)] = exact
    known = set(nodes)
    for some in _by_code(candidates).values():
        mine, between = [i for i in some if i in known], [i for i in some if i not in known]
        if between:
            at, bends = (np.array([candidates[i].bend_deg for i in part]) for part in (mine, between))
            raw[between] = _lagrange(at, bends) @ raw[mine]
    return raw


def _by_code(candidates: Sequence[Candidate]) -> dict[str, list[int]]:
    found: dict[str, list[int]] = {}
    for i, candidate in enumerate(candidates):
        found.setdefault(candidate.stock.code, []).append(i)
    return found


def exact_of(candidates: Sequence[Candidate]) -> list[int]:
    """The candidates whose strokes a search reckons from the start: few are all, else of every head the bends that carry
    the others.
    """
    if len(candidates) <= FEW:
        return list(range(len(candidates)))
    return [i for some in _by_code(candidates).values() for i in _nodes([candidates[n].bend_deg for n in some], some)]


def _nodes(bends: Sequence[float], indices: Sequence[int]) -> list[int]:
    places = {int(np.argmin(bends)), int(np.argmax(bends)), int(np.argmin(np.abs(bends)))}
    return [indices[place] for place in sorted(places)]


def _lagrange(at: Floats, x: Floats) -> Floats:
    """Weights of the polynomial through the nodes (x, nodes)."""
    weights = np.ones((len(x), len(at)))
    for n, a in enumerate(at):
        for b in at[at != a]:
            weights[:, n] *= (x - b) / (a - b)
    return weights
