"""What several sections of a fitting's document are made of."""

from __future__ import annotations

import math
from typing import Annotated, Any, Literal

from pydantic import StringConstraints

from oblatus.core.bounds import Bound
from oblatus.core.clubs import Head
from oblatus.core.figures import figures
from oblatus.core.words import quantity
from oblatus.formats.fields import Within, at_field
from oblatus.formats.limits import NAME_LETTERS

SHARE_TOLERANCE = 0.005
LOFT = figures(Head)["loft_deg"].bound

Name = Annotated[str, StringConstraints(min_length=1, max_length=NAME_LETTERS, strip_whitespace=True)]
Note = Annotated[str, StringConstraints(max_length=2000)]
Share = Annotated[float, Within(Bound(0, 1, "", percent=True))]
Source = Literal["measured", "typed", "earlier", "assumed"]
GroundSource = Literal["measured", "typed", "copied", "assumed"]


def check_whole(shares: Any, where: str) -> None:
    """Raise at a field unless the shares sum to 1."""
    total = math.fsum(shares)
    if abs(total - 1.0) > SHARE_TOLERANCE:
        raise at_field(where, f"the shares sum to {quantity(f'{100 * total:.4g}', '%')}, not 100")
