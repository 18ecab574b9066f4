"""Delivered loft and bounce; the sole's surface and section."""

from oblatus.core.geometry.delivered import (
    HANDS_DROP,
    DeliveredHead,
    Hand,
    bounces_of,
    deliver,
    deliver_many,
    head_row,
    lofts_in_plane,
    sole_section,
)
from oblatus.core.geometry.section import head_outline

__all__ = [
    "HANDS_DROP",
    "DeliveredHead",
    "Hand",
    "bounces_of",
    "deliver",
    "deliver_many",
    "head_outline",
    "head_row",
    "lofts_in_plane",
    "sole_section",
]
