"""Oblatus: select, prove, build and follow up a player's set of wedges."""

__version__ = "0.2.0"
