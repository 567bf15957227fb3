"""What backup and restore need of a database server, whether it is ours or somebody else's."""

from __future__ import annotations

from abc import ABC, abstractmethod
from pathlib import Path

from ops import say


class DatabaseServer(ABC):
    """A PostgreSQL server, and whoever may make databases there."""

    @property
    @abstractmethod
    def owner(self) -> str:
        """The role that owns what is restored."""

    @abstractmethod
    def start(self) -> bool:
        """Start it where it does not run; whether it was started now."""

    @abstractmethod
    def stop(self) -> None:
        """Stop it, where that is for us to do."""

    @abstractmethod
    def create(self, database: str) -> None:
        """Make an empty database."""

    @abstractmethod
    def env(self, database: str) -> dict[str, str]:
        """The environment in which Django finds a database."""

    @abstractmethod
    def client(self, program: str, *arguments: str | Path, role: str = "") -> str:
        """Run one of PostgreSQL's clients against it, as whoever may make databases where no role is named."""

    @abstractmethod
    def binary(self, program: str) -> Path:
        """One of PostgreSQL's programs, of a version that suits it."""

    def databases(self) -> list[str]:
        """Names of all databases."""
        return self.sql("select datname from pg_database where not datistemplate").split()

    def sql(self, statement: str, database: str = "postgres") -> str:
        """Run statements; returns bare rows."""
        return self.client("psql", "-v", "ON_ERROR_STOP=1", "-d", database, "-Atqc", statement)

    def read_dump(self, *arguments: str | Path) -> str:
        """What pg_restore tells of a file, without a server."""
        return say.run([self.binary("pg_restore"), *arguments])
