"""The database server that DATABASE_URL names: somebody else's, reached as whoever the address says."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import unquote, urlsplit, urlunsplit

from ops import say
from ops.cluster import newest_binary
from ops.database_server import DatabaseServer


@dataclass(frozen=True)
class Remote(DatabaseServer):
    """A server by the address of one of its databases."""

    address: str

    @property
    def database(self) -> str:
        """The one that the address names."""
        return urlsplit(self.address).path.strip("/")

    def url(self, database: str) -> str:
        return urlunsplit(urlsplit(self.address)._replace(path=f"/{database}"))

    def env(self, database: str) -> dict[str, str]:
        """The environment in which Django finds a database."""
        return {**os.environ, "DATABASE_URL": self.url(database)}

    def start(self) -> bool:
        """It runs, or not; that is not for us to say."""
        return False

    def stop(self) -> None:
        """As `start`."""

    def create(self, database: str) -> None:
        """An empty database; the role of the address needs the right to make one."""
        self.sql(f'create database "{database}"')

    def client(self, program: str, *arguments: str | Path, role: str = "") -> str:
        """Run one of PostgreSQL's clients against this server; the password goes by the environment, not the list of
        processes that everybody sees.
        """
        parts = urlsplit(self.address)
        user = role or unquote(parts.username or "")
        connection = ["-h", parts.hostname or "", "-p", str(parts.port or 5432), "-U", user, "-w"]
        env = {**os.environ, **({"PGPASSWORD": unquote(parts.password)} if parts.password else {})}
        return say.run([self.binary(program), *connection, *arguments], env=env)

    def binary(self, program: str) -> Path:
        """One of PostgreSQL's programs, the newest here."""
        return newest_binary(program)

    @property
    def owner(self) -> str:
        """Who owns what is restored."""
        return unquote(urlsplit(self.address).username or "")
