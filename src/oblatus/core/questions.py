"""What is asked of a fitter in words: questions with their answers, each by the key that documents have."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Choice:
    """An answer in words, and what the player would have to do; nothing where the habit is kept."""

    words: str
    asks: str = ""


@dataclass(frozen=True, slots=True)
class Question:
    """A question in words with its answers by key."""

    words: str
    choices: dict[str, Choice]


QUESTIONS: dict[str, Question] = {
    "opening": Question(
        "Opens the face",
        {"square": Choice("never"), "when_needed": Choice("when needed"), "always": Choice("always")},
    ),
    "release": Question(
        "Release",
        {"dragged": Choice("handle dragged"), "level": Choice("level"), "early": Choice("head passes early")},
    ),
    "wear_class": Question(
        "Wear of sole and grooves",
        {
            "unknown": Choice("not looked at"),
            "fresh": Choice("fresh"),
            "used": Choice("used"),
            "worn": Choice("worn smooth"),
        },
    ),
}
"""Of the habit and of a wedge; the schools' are in `core/schools.py`."""
