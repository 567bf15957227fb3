"""A PostgreSQL server of this checkout's own, on loopback, reached with a password from a file.

As root the server runs as Debian's user postgres, with its data in a folder that user can reach;
otherwise it runs as the caller with its data in .pg/ of the checkout.
"""

from __future__ import annotations

import hashlib
import os
import pwd
import secrets
import shutil
import socket
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from ops import say
from ops.places import IS_ROOT, ROOT, need_space
from ops.say import GiveUp

ROLE = "ydrometer"


@dataclass(frozen=True)
class Cluster:
    """A server by name ("main", "test"); `durable` keeps it safe against power failure."""

    name: str
    durable: bool = True

    @property
    def home(self) -> Path:
        """Folder of data, log and password."""
        if IS_ROOT:
            return Path("/var/tmp") / f"ydrometer-{_of_checkout():08x}" / self.name
        return ROOT / ".pg" / self.name

    @property
    def data(self) -> Path:
        return self.home / "data"

    @property
    def passfile(self) -> Path:
        """For clients run by the caller; kept in the checkout, readable by its owner alone."""
        return ROOT / ".run" / f"pgpass-{self.name}"

    @property
    def port(self) -> int:
        """Fixed when the server was made, and written into its own settings."""
        for line in self._settings.read_text().splitlines():
            if line.startswith("port = "):
                return int(line.removeprefix("port = "))
        raise GiveUp(f"{self._settings} names no port: it is damaged")

    @property
    def _settings(self) -> Path:
        return self.data / "postgresql.auto.conf"

    def url(self, database: str) -> str:
        return f"postgresql://{ROLE}@127.0.0.1:{self.port}/{database}"

    def env(self, database: str) -> dict[str, str]:
        """The environment in which Django and PostgreSQL's clients find a database."""
        return {**os.environ, "DATABASE_URL": self.url(database), "PGPASSFILE": str(self.passfile)}

    def running(self) -> bool:
        """Whether this very server runs."""
        return self._made() and self._try("pg_ctl", "-D", self.data, "status")

    def start(self) -> bool:
        """Make it where it is not there, start it where it does not run; whether it was started now."""
        if not self._made():
            with say.step("Database server, made once"):
                self._make()
        self._check_version()
        if self.running():
            return False
        need_space(self.home)
        if port_taken(self.port):
            raise GiveUp(
                f"port {self.port}, which this checkout's database uses, is taken by another program: stop that one"
            )
        self._as_owner("pg_ctl", "-D", self.data, "-l", self.home / "log", "-w", "-t", "60", "start")
        return True

    def stop(self) -> None:
        """Stop it, letting nobody's work be lost."""
        try:
            if self.running():
                self._as_owner("pg_ctl", "-D", self.data, "-m", "fast", "-w", "stop")
        except GiveUp:
            # Somebody else, the command that served, may have stopped it meanwhile.
            if self.running():
                raise

    def databases(self) -> list[str]:
        return self.sql("select datname from pg_database where not datistemplate").split()

    def need_database(self, database: str) -> None:
        if database not in self.databases():
            self.sql(f'create database "{database}"')

    def sql(self, statement: str) -> str:
        """Run one statement in the maintenance database; returns bare rows."""
        return self.client("psql", "-d", "postgres", "-Atqc", statement)

    def client(self, program: str, *arguments: str | Path) -> str:
        """Run one of PostgreSQL's clients against this server."""
        connection = ["-h", "127.0.0.1", "-p", str(self.port), "-U", ROLE, "-w"]
        return say.run([self._binary(program), *connection, *arguments], env=self.env("postgres"))

    def _made(self) -> bool:
        return (self.home / "made").exists()

    def _make(self) -> None:
        need_space()
        if not IS_ROOT:
            self.home.mkdir(parents=True, exist_ok=True, mode=0o700)
        else:
            owner = pwd.getpwnam("postgres")
            for folder in (self.home.parent, self.home):
                folder.mkdir(exist_ok=True, mode=0o700)
                os.chown(folder, owner.pw_uid, owner.pw_gid)
        shutil.rmtree(self.data, ignore_errors=True)  # what an interrupted attempt has left
        password = secrets.token_urlsafe(24)
        given = self.home / "password"
        self._write(given, password)
        self._as_owner(
            "initdb", "-D", self.data, "-U", ROLE, "--auth=scram-sha-256", f"--pwfile={given}",
            "--encoding=UTF8", "--locale=C.UTF-8", "--no-instructions",
        )  # fmt: skip
        given.unlink()
        port = _free_port(self.name)
        safety = "" if self.durable else "fsync = off\nsynchronous_commit = off\nfull_page_writes = off\n"
        settings = f"port = {port}\nlisten_addresses = '127.0.0.1'\nunix_socket_directories = ''\n{safety}"
        self._write(self._settings, settings)
        self.passfile.parent.mkdir(exist_ok=True)
        self.passfile.unlink(missing_ok=True)
        self.passfile.touch(mode=0o600)
        self.passfile.write_text(f"127.0.0.1:{port}:*:{ROLE}:{password}\n")
        self._write(self.home / "made", "")

    def _check_version(self) -> None:
        made_by = (self.data / "PG_VERSION").read_text().strip()
        if not Path(f"/usr/lib/postgresql/{made_by}/bin").is_dir():
            here = ", ".join(sorted(p.name for p in Path("/usr/lib/postgresql").iterdir()))
            raise GiveUp(
                f"the database in {self.data} was made by PostgreSQL {made_by}, here is {here}: install "
                f"postgresql-{made_by} again, or move that folder away and restore a backup. Nothing was changed"
            )
        if not self.passfile.exists():
            raise GiveUp(f"{self.passfile} is gone, and with it the password of the database in {self.data}")

    def _binary(self, program: str) -> Path:
        version = self.data / "PG_VERSION"
        folders = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: float(p.parts[-3]))
        if version.exists():
            return Path(f"/usr/lib/postgresql/{version.read_text().strip()}/bin/{program}")
        return folders[-1].parent / program

    def _as_owner(self, program: str, *arguments: str | Path) -> None:
        say.run([*self._owner(), self._binary(program), *arguments], cwd=Path("/"))

    def _try(self, program: str, *arguments: str | Path) -> bool:
        try:
            self._as_owner(program, *arguments)
        except GiveUp:
            return False
        return True

    def _owner(self) -> Sequence[str]:
        return ["runuser", "-u", "postgres", "--"] if IS_ROOT else []

    def _write(self, path: Path, text: str) -> None:
        path.touch(mode=0o600)
        path.write_text(text)
        if IS_ROOT:
            owner = pwd.getpwnam("postgres")
            os.chown(path, owner.pw_uid, owner.pw_gid)


def _of_checkout() -> int:
    return int.from_bytes(hashlib.sha256(str(ROOT).encode()).digest()[:4], "big")


def _free_port(name: str) -> int:
    """A port nobody uses now, the same for the same checkout where it can be."""
    first = 20_000 + (_of_checkout() + sum(name.encode())) % 12_000
    return next(port for port in range(first, first + 200) if not port_taken(port))


def port_taken(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return True
    return False
