"""One judge for the tests of the verdict."""

from __future__ import annotations

import pytest

from oblatus.formats.convert import fitting_from
from oblatus.formats.demo import demo_fittings, demo_rack
from oblatus.usecases.engine import engine


@pytest.fixture(scope="session")
def judge():
    return engine().judge


@pytest.fixture(scope="session")
def fittings():
    """The four demo players."""
    return [fitting_from(document, demo_rack()) for document in demo_fittings()]


@pytest.fixture(scope="session")
def found(fittings, judge):
    """Their proposals."""
    from oblatus.core.fitting import recommend

    return [recommend(fitting, judge) for fitting in fittings]
