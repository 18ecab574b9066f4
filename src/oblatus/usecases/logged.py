"""The log of a fitting as it is judged: its shots beside what was expected of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from oblatus.core.card.setup import Tool
from oblatus.core.fitting import Fitting
from oblatus.core.log.expected import Expectations
from oblatus.core.log.says import Noted
from oblatus.core.log.shots import APPROACH, LoggedShot, strokes_of_shot
from oblatus.core.shots import BY_KEY
from oblatus.formats.convert import fitting_from, former_names
from oblatus.formats.fitting import FittingDocument
from oblatus.formats.log_shots import LogShotDocument
from oblatus.store.database import Database
from oblatus.store.rounds import StudioRounds
from oblatus.store.tables import LogShotRow
from oblatus.usecases.actor import Actor
from oblatus.usecases.engine import engine
from oblatus.usecases.show_carries import FittingInputs, inputs_of
from oblatus.usecases.strikes_of import measured


@dataclass(frozen=True, slots=True)
class Logged:
    """The log of a fitting with all that judging it takes."""

    document: FittingDocument
    fitting: Fitting
    tools: tuple[Tool, ...]
    expectations: Expectations
    rows: Sequence[LogShotRow]
    shots: Sequence[LoggedShot]
    noted: list[Noted | None]

    @property
    def known(self) -> list[Noted]:
        """The shots that are judged."""
        return [one for one in self.noted if one is not None]


def shot_of_row(row: LogShotRow) -> LogShotDocument:
    """A shot as it is kept."""
    return LogShotDocument.model_validate(
        {**row.shot, "id": str(row.id), "round": str(row.round), "on": row.on.isoformat(),
         "removed": row.removed_at is not None}
    )  # fmt: skip


def _logged(row: LogShotRow) -> LoggedShot:
    """A kept shot as the engine takes it: it was looked at when it came."""
    shot = row.shot
    return LoggedShot(
        str(row.round), row.on, shot["situation"], shot["ground"], shot["distance_m"], shot["club"], shot["advised"],
        shot["result"], shot["left_m"], shot["holed_in"],
    )  # fmt: skip


def read_log(database: Database, actor: Actor, fitting_id: UUID) -> Logged:
    """The log of a fitting, judged; raises NotFoundError, and InputError where nothing can be expected."""
    return judged_log(*inputs_and_rows(database, actor, fitting_id))


def inputs_and_rows(database: Database, actor: Actor, fitting_id: UUID) -> tuple[FittingInputs, Sequence[LogShotRow]]:
    """What the carries of a fitting stand on, and its shots as they are stored."""
    inputs = inputs_of(database, actor, fitting_id)
    with database.transaction() as session:
        return inputs, StudioRounds(session, actor.studio_id).shots(fitting_id)


def judged_log(inputs: FittingInputs, rows: Sequence[LogShotRow]) -> Logged:
    """The rows of a log with what the model expected of each."""
    document = inputs.document
    proofs_only = document.model_copy(update={"evidence": tuple(e for e in document.evidence if e.source == "proof")})
    fitting = fitting_from(proofs_only, inputs.rack, measured(inputs.strikes))
    tools = tuple(Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned)
    expectations = Expectations(fitting, tools, engine().judge, fitting.proved)
    shots = [_logged(row) for row in rows]
    noted = [
        None if one is None else Noted(shot, one, strokes_of_shot(shot, one.layout, expectations.handicap))
        for shot, one in zip(shots, expectations.of(shots), strict=True)
    ]
    return Logged(document, fitting, tools, expectations, rows, shots, noted)


def names_of(log: Logged) -> dict[str, str]:
    """Names of clubs by code, former ones too."""
    names = {tool.code: tool.name for tool in log.expectations.tools}
    return former_names(log.document.bag) | names


def situation_name(key: str) -> str:
    """A situation in words."""
    return "approach" if key == APPROACH else BY_KEY[key].name
