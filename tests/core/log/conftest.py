"""One player with three wedges, and what is expected of their shots."""

from __future__ import annotations

import pytest

from oblatus.core.card.setup import Tool
from oblatus.core.log.expected import Expectations
from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.engine import engine


@pytest.fixture(scope="session")
def expectations():
    fitting = fitting_from(demo_fittings()[0], demo_rack())
    tools = [Tool(item.code, item.name, item.head) for item in fitting.stock if item.owned]
    return Expectations(fitting, tools, engine().judge, ())
