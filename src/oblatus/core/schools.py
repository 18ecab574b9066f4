"""Where good practitioners differ: the questions, what can be answered, and what each answer asks of the player."""

from __future__ import annotations

from oblatus.core.questions import Choice, Question

HABIT = Choice("own habit")

SCHOOLS: dict[str, Question] = {
    "tight_firm": Question(
        "Tight lie, firm ground",
        {
            "measured": HABIT,
            "use_sole": Choice("use the sole", "from tight firm lies: 4° less lean, 2° shallower, ball forward"),
            "use_edge": Choice("use the edge", "from tight firm lies: 4° more lean, 2° steeper, ball back"),
        },
    ),
    "tight_soft": Question(
        "Tight lie, soft ground",
        {
            "measured": HABIT,
            "brush": Choice("brush it", "from tight soft lies: 3° less lean and 2° shallower"),
            "same_swing": Choice("same swing", "from tight soft lies: nothing, the same swing"),
        },
    ),
    "sand_opening": Question(
        "Sand: opening",
        {
            "measured": HABIT,
            "always_open": Choice("always open", "in sand: open the face 35° every time, vary only the speed"),
            "square": Choice("square", "in sand: leave the face square"),
        },
    ),
    "sand_club": Question(
        "Sand: club",
        {
            "measured": Choice("whichever serves"),
            "most_loft": Choice("most loft", "in sand: take the most loft"),
            "most_bounce": Choice("most bounce", "in sand: take the club with most bounce"),
        },
    ),
    "long_sand": Question(
        "Long sand",
        {
            "measured": HABIT,
            "blast": Choice("shallow blast", "from long sand: 2° less lean, 2° shallower"),
            "clip": Choice("ball first", "from long sand: ball first, 3° more lean"),
        },
    ),
    "hands": Question(
        "Hands",
        {
            "measured": HABIT,
            "quiet": Choice("quiet", "short shots: quiet wrists, the handle level at the finish"),
            "free": Choice("free release", "short shots: let the head pass the hands, 2° less lean"),
        },
    ),
    "arc": Question(
        "Arc",
        {
            "measured": HABIT,
            "wide": Choice("wide", "short shots: a wide arc, 1° shallower"),
            "early_set": Choice("early set", "short shots: set the wrists early, 1° steeper"),
        },
    ),
    "clubs": Question(
        "Clubs",
        {
            "club_per_shot": Choice("a club per shot", "a club for each shot"),
            "favourite": Choice("one favourite", "one club for every short shot"),
        },
    ),
    "gaps": Question(
        "Gaps",
        {
            "equal_carry": Choice("equal carries", "nothing: gaps of equal carry"),
            "equal_loft": Choice("equal lofts", "nothing: gaps of equal loft"),
            "clock_cover": Choice("clock swings", "fill the distances with clock swings"),
        },
    ),
}
"""By question, with the answers that `Schools` takes."""
