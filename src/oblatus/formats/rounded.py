"""Figures of answers, rounded far below what any screen shows."""

PLACES = 6


def rounded(value: float, places: int = PLACES) -> float:
    """A figure for an answer, without a negative zero.

    Six decimals: a screen rounds it again, to metres or hundredths of a stroke, and has to come to the figure that a
    sentence or a print has of the same value. Rounded to one decimal more than is shown, one in twenty comes out another.
    """
    return round(float(value), places) + 0.0
