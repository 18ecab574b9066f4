"""Limits that the front server holds too, which reads no format."""

LARGEST_FITTING = 200_000_000
"""Of a fitting's file, with its photos [bytes]."""
