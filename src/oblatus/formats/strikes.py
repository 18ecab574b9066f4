"""Measured strikes as JSON, and read from pasted text."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any, Literal, Self
from uuid import UUID

from pydantic import StringConstraints, create_model, model_validator

from oblatus.core.gapping import MeasuredStrike
from oblatus.core.gapping.strikes import STRIKE_FIGURES
from oblatus.formats.fields import Strict, Within, at_field
from oblatus.formats.limits import NOTE_LETTERS

ClubCode = Annotated[str, StringConstraints(min_length=1, max_length=40)]
SwingKey = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,24}$")]
Reason = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Note = Annotated[str, StringConstraints(max_length=NOTE_LETTERS)]
Divot = Literal["none", "bruise", "shallow", "deep"]
Origin = Literal["typed", "pasted", "file", "device"]

MOST_SHOWN = 3000
"""Strikes that an answer lists, the newest; figures are over all of them."""

MEASURED = tuple(key for key in STRIKE_FIGURES if key != "loft_deg")
"""Figures that are measured of a strike, in their order."""


class _StrikeDocument(Strict):
    """One strike. `id` is given where it is taken, so that it is never counted twice.

    `club` is 9i, pw, own:N (the Nth owned wedge) or a head's code on the rack; `loft_deg` its loft when it was hit;
    `swing` full, 1030, 900, a swing of the fitter's own, or a station: pitch, chip, sand, practice. At least one figure
    is measured. `set_aside` says why it does not count; `simulated` that a stand-in device made it up.
    """

    id: UUID
    club: ClubCode
    swing: SwingKey
    divot: Divot | None = None
    note: Note = ""
    set_aside: Reason | None = None
    origin: Origin = "typed"
    simulated: bool = False

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    @classmethod
    def of_row(cls, row: dict[str, Any]) -> Self:
        """A strike that was checked when it was taken, with every field given: nothing is looked at again.

        pydantic's own way to that takes 50 microseconds a strike, with 100,000 of them to be made for every question.
        """
        made = cls.__new__(cls)
        object.__setattr__(made, "__dict__", row)
        object.__setattr__(made, "__pydantic_fields_set__", ALL_FIELDS)
        object.__setattr__(made, "__pydantic_extra__", None)
        object.__setattr__(made, "__pydantic_private__", None)
        return made

    @model_validator(mode="after")
    def _something_is_measured(self) -> Self:
        if self.divot is None and all(getattr(self, name) is None for name in MEASURED):
            raise at_field("carry_m", "nothing was measured of this strike")
        if self.exit_mm is not None and self.entry_mm is not None and self.exit_mm <= self.entry_mm:
            raise at_field("exit_mm", "must lie ahead of the entry")
        return self


if TYPE_CHECKING:
    StrikeDocument = _StrikeDocument
else:
    StrikeDocument = create_model(
        "StrikeDocument",
        __base__=_StrikeDocument,
        __doc__=_StrikeDocument.__doc__,
        loft_deg=(Annotated[float, Within(STRIKE_FIGURES["loft_deg"].bound)], ...),
        **{key: (Annotated[float, Within(STRIKE_FIGURES[key].bound)] | None, None) for key in MEASURED},
    )


ALL_FIELDS = set(StrikeDocument.model_fields)
_TAKEN = tuple((key, f.attribute, f.per) for key, f in STRIKE_FIGURES.items())


def strike_from(document: StrikeDocument) -> MeasuredStrike:
    """The engine's strike."""
    known = document.__dict__
    figures = {
        attribute: known[key] if per == 1.0 or known[key] is None else known[key] / per for key, attribute, per in _TAKEN
    }
    return MeasuredStrike(
        id=str(document.id), club=document.club, swing=document.swing, set_aside=document.set_aside, **figures
    )  # fmt: skip
