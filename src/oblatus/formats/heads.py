"""A head as JSON: its geometry, its section for drawing, the height of its edge."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from oblatus.core.clubs import Head
from oblatus.core.figures import in_document
from oblatus.core.geometry import deliver, head_outline
from oblatus.formats.rounded import rounded
from oblatus.formats.sections.bag import HeadDocument


@lru_cache(maxsize=4096)
def head_out(head: Head) -> HeadDocument:
    """Static geometry in the document's units; remembered, because every edit shows the same heads again."""
    return HeadDocument(**{key: rounded(value) for key, value in in_document(head).items()})


@lru_cache(maxsize=4096)
def outline_mm(head: Head) -> list[list[float]]:
    """The head's section for drawing [mm]."""
    return [[x, z] for x, z in np.round(1000 * head_outline(head), 2).tolist()]


@lru_cache(maxsize=4096)
def edge_height_mm(head: Head) -> float:
    """Height of the leading edge with the shaft upright and the sole on the floor [mm], as a gauge reads it."""
    return rounded(1000 * deliver(head, 0.0, 0.0).leading_edge_height)
