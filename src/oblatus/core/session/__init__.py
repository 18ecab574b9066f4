"""What a session of strikes says of the player: the habit with its doubt, its trend, and faults with their evidence."""

from oblatus.core.session.faults import Fault, find_faults
from oblatus.core.session.summary import Figure, Session, StationSummary, Trend, summarise
from oblatus.core.session.table import StrikeTable, table_of

__all__ = ["Fault", "Figure", "Session", "StationSummary", "StrikeTable", "Trend", "find_faults", "summarise", "table_of"]
