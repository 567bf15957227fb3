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
import time
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from ops import say
from ops.database_server import DatabaseServer
from ops.places import IS_ROOT, ROOT, need_space
from ops.say import GiveUp

ADMIN = "ydrometer"
"""Makes databases and roles; only the commands here use it."""
APPLICATION = "ydrometer_app"
"""Owns the databases and may do nothing else; what serves uses it."""
OWNERS = """
do $$ declare step record; begin
  for step in
    select format('alter table public.%I owner to {role}', relname) as words from pg_class
    where relnamespace = 'public'::regnamespace and relkind in ('r', 'p', 'v')
    union all
    select format('alter sequence public.%I owner to {role}', relname) from pg_class
    where relnamespace = 'public'::regnamespace and relkind = 'S'
      and not exists (select 1 from pg_depend where objid = pg_class.oid and deptype in ('a', 'i'))
    union all
    select format('alter routine %s owner to {role}', oid::regprocedure) from pg_proc
    where pronamespace = 'public'::regnamespace
    union all
    select format('alter type public.%I owner to {role}', typname) from pg_type
    where typnamespace = 'public'::regnamespace and typtype = 'e'
  loop execute step.words; end loop;
end $$;
alter schema public owner to {role};
"""
"""Gives all of a database to a role; the bootstrap role's own things cannot be reassigned in one step."""
REVIVAL_S = 30.0
QUICK_RECOVERY = "-c recovery_init_sync_method=syncfs"
"""After a crash it first has all its files written to disk: by one call, not by opening each of two thousand."""


@dataclass(frozen=True)
class Cluster(DatabaseServer):
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
        """Of the role that administers; kept in the checkout, readable by its owner alone."""
        return ROOT / ".run" / f"pgpass-{self.name}"

    @property
    def application_passfile(self) -> Path:
        """Of the role that serves."""
        return ROOT / ".run" / f"pgpass-{self.name}-app"

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
        return f"postgresql://{APPLICATION}@127.0.0.1:{self.port}/{database}"

    def env(self, database: str) -> dict[str, str]:
        """The environment in which Django finds a database."""
        place = {"DATABASE_URL": self.url(database), "YDROMETER_DATA": str(self.data)}
        return {**os.environ, **place, "PGPASSFILE": str(self.application_passfile)}

    def running(self) -> bool:
        """Whether this very server runs."""
        return self._made() and self._try("pg_ctl", "-D", self.data, "status")

    def start(self) -> bool:
        """Make it where it is not there, start it where it does not run; whether it was started now."""
        if not self.durable and self._made() and not self.passfile.exists():
            # Of a checkout that stood here before: nobody misses what a test server holds.
            self.stop()
            (self.home / "made").unlink()
        if not self._made():
            with say.step("Database server, made once"):
                self._make()
        self._check_version()
        if self.running():
            self._need_application_role()
            return False
        need_space(self.home)
        if port_taken(self.port):
            raise GiveUp(
                f"port {self.port}, which this checkout's database uses, is taken by another program: stop that one"
            )
        self._begin(60)
        self._need_application_role()
        return True

    def alive(self) -> bool:
        """Whether its first process lives; cheap enough to be asked twice a second."""
        try:
            process = int((self.data / "postmaster.pid").read_text().split()[0])
            os.kill(process, 0)
        except (OSError, ValueError, IndexError):
            return False
        return True

    def revive(self) -> None:
        """Start it after it died, as soon as what it left behind has gone.

        Raises:
            GiveUp: it does not come back.
        """
        limit = time.monotonic() + REVIVAL_S
        while True:
            try:
                self._begin(10)
                return
            except GiveUp:
                if time.monotonic() > limit:
                    raise
                time.sleep(0.2)

    def _begin(self, limit_s: int) -> None:
        self._as_owner(
            "pg_ctl", "-D", self.data, "-l", self.home / "log", "-o", QUICK_RECOVERY, "-w", "-t", str(limit_s), "start"
        )

    def stop(self) -> None:
        """Stop it, letting nobody's work be lost."""
        try:
            if self.running():
                self._as_owner("pg_ctl", "-D", self.data, "-m", "fast", "-w", "stop")
        except GiveUp:
            # Somebody else, the command that served, may have stopped it meanwhile.
            if self.running():
                raise

    def need_database(self, database: str) -> None:
        """Have a database that belongs to the application; one of an earlier version is handed over to it."""
        if database not in self.databases():
            self.create(database)
        owner = self.sql(f"select pg_get_userbyid(datdba) from pg_database where datname = '{database}'").strip()
        if owner != APPLICATION:
            self.sql(OWNERS.format(role=APPLICATION), database)
            self.sql(f'alter database "{database}" owner to {APPLICATION}')

    def create(self, database: str) -> None:
        """An empty database of the application's."""
        self.sql(f'create database "{database}" owner {APPLICATION}')

    def client(self, program: str, *arguments: str | Path, role: str = "") -> str:
        """Run one of PostgreSQL's clients against this server."""
        role = role or ADMIN
        connection = ["-h", "127.0.0.1", "-p", str(self.port), "-U", role, "-w"]
        passfile = self.passfile if role == ADMIN else self.application_passfile
        env = {**os.environ, "PGPASSFILE": str(passfile)}
        return say.run([self.binary(program), *connection, *arguments], env=env)

    @property
    def owner(self) -> str:
        """Who owns what is restored."""
        return APPLICATION

    def _need_application_role(self) -> None:
        if self.application_passfile.exists():
            return
        exists = self.sql(f"select 1 from pg_roles where rolname = '{APPLICATION}'").strip()
        password = secrets.token_urlsafe(24)
        # The tests make databases of their own.
        rights = "nosuperuser nocreaterole login " + ("nocreatedb" if self.durable else "createdb")
        self.sql(f"{'alter' if exists else 'create'} role {APPLICATION} {rights} password '{password}'")
        self._write_pass(self.application_passfile, APPLICATION, password)

    def _write_pass(self, file: Path, role: str, password: str) -> None:
        file.parent.mkdir(exist_ok=True)
        file.unlink(missing_ok=True)
        file.touch(mode=0o600)
        file.write_text(f"127.0.0.1:{self.port}:*:{role}:{password}\n")

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
            "initdb",
            "-D",
            self.data,
            "-U",
            ADMIN,
            "--auth=scram-sha-256",
            f"--pwfile={given}",
            "--encoding=UTF8",
            "--locale=C.UTF-8",
            "--no-instructions",
        )
        given.unlink()
        port = _free_port(self.name)
        safety = "" if self.durable else "fsync = off\nsynchronous_commit = off\nfull_page_writes = off\n"
        settings = f"port = {port}\nlisten_addresses = '127.0.0.1'\nunix_socket_directories = ''\n{safety}"
        self._write(self._settings, settings)
        self._write_pass(self.passfile, ADMIN, password)
        self.application_passfile.unlink(missing_ok=True)
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

    def binary(self, program: str) -> Path:
        """One of PostgreSQL's programs, of the version that the data are of."""
        version = self.data / "PG_VERSION"
        if version.exists():
            return Path(f"/usr/lib/postgresql/{version.read_text().strip()}/bin/{program}")
        return newest_binary(program)

    def _as_owner(self, program: str, *arguments: str | Path) -> None:
        say.run([*self._owner(), self.binary(program), *arguments], cwd=Path("/"))

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


def newest_binary(program: str) -> Path:
    """One of PostgreSQL's programs, of the newest version that is installed."""
    folders = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: float(p.parts[-3]))
    return folders[-1].parent / program


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
