"""A recorded session: one JSON object a line with the seconds since the strike before and the figures of a strike."""

from __future__ import annotations

import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from oblatus.devices.protocol import figures_of
from oblatus.errors import OblatusError, fault

LONGEST_PAUSE = 3600.0
MOST = 100_000


@dataclass(frozen=True, slots=True)
class Recorded:
    """A strike of a recording: seconds since the one before, figures with their units in the names."""

    after_s: float
    figures: Mapping[str, float]


def dump_recording(strikes: Sequence[Recorded]) -> str:
    """The recording as text."""
    return "".join(
        json.dumps({"after_s": round(item.after_s, 3), "strike": dict(item.figures)}, allow_nan=False) + "\n"
        for item in strikes
    )


def load_recording(text: str) -> tuple[Recorded, ...]:
    """Read a recording.

    Raises
    ------
    InputError
        With the line that cannot be used and why, or if there is none.
    """
    found = []
    for number, line in enumerate(text.splitlines(), start=1):
        if not line.strip():
            continue
        try:
            data = json.loads(line)
            after, figures = data["after_s"], figures_of(data["strike"])
        except (ValueError, KeyError, TypeError, RecursionError):
            raise fault(f"line {number}", "is not a strike of a recording: after_s and strike are needed") from None
        except OblatusError as error:
            raise fault(f"line {number}", error.message) from None
        usable = isinstance(after, (int, float)) and not isinstance(after, bool) and math.isfinite(after)
        if not usable or not 0.0 <= after <= LONGEST_PAUSE:
            raise fault(f"line {number}", f"after_s must be between 0 and {LONGEST_PAUSE:g} s")
        found.append(Recorded(float(after), figures))
        if len(found) > MOST:
            raise fault("recording", f"has more than {MOST} strikes")
    if not found:
        raise fault("recording", "holds no strike")
    return tuple(found)
