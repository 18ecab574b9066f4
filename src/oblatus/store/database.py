"""Connections: one engine a process, one transaction a use case."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy import Engine, text
from sqlmodel import Session, create_engine


class Database:
    """The engine and its sessions. Made after a worker forks, never before."""

    def __init__(self, url: str) -> None:
        self.engine: Engine = create_engine(
            url, pool_pre_ping=True, pool_size=16, max_overflow=16, pool_timeout=10, hide_parameters=True
        )

    @contextmanager
    def transaction(self) -> Iterator[Session]:
        """A session that commits at the end, or leaves nothing behind when an error passes through."""
        with Session(self.engine, expire_on_commit=False) as session, session.begin():
            yield session

    def answers(self) -> bool:
        """Whether the server answers a query."""
        try:
            with self.engine.connect() as connection:
                return connection.execute(text("select 1")).scalar() == 1
        except OSError:
            return False
