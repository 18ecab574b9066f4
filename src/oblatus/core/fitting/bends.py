"""Strokes of a head's bends: three of them exact, those between on a parabola. docs/models/strokes.md, 4."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from oblatus.core.fitting.candidates import Candidate
from oblatus.core.fitting.costs import Sheet

Floats = NDArray[np.float64]

FEW = 40


def between_bends(sheet: Sheet, candidates: Sequence[Candidate]) -> tuple[Floats, NDArray[np.bool_]]:
    """Raw strokes of every candidate: exact for a head's strongest, weakest and least bend, between them a parabola.

    Of few candidates all are exact.
    """
    if len(candidates) <= FEW:
        return sheet.raw([candidate.head for candidate in candidates]), np.ones(len(candidates), dtype=bool)
    by_code = _by_code(candidates)
    nodes = {code: _nodes([candidates[i].bend_deg for i in some], some) for code, some in by_code.items()}
    wanted = [i for some in nodes.values() for i in some]
    exact = np.zeros(len(candidates), dtype=bool)
    exact[wanted] = True
    raw = np.empty((len(candidates), sheet.size))
    raw[wanted] = sheet.raw([candidates[i].head for i in wanted])
    for code, some in by_code.items():
        between = [i for i in some if not exact[i]]
        at, bends = (np.array([candidates[i].bend_deg for i in part]) for part in (nodes[code], between))
        raw[between] = _lagrange(at, bends) @ raw[nodes[code]]
    return raw, exact


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
