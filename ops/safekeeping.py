"""Backup and restore of the user's own data, and what restoring has kept."""

from __future__ import annotations

import os
import re
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops import say, setup
from ops.database_server import DatabaseServer
from ops.places import PYTHON, ROOT, need_space
from ops.remote import Remote
from ops.say import GiveUp
from ops.serving import MAIN, OWN, migrate

SUFFIX = re.compile(r"_\d{8}_\d{6}(_\d+)?")
"""What a kept database has behind its name: when it was put aside."""


def backup(file: Path) -> int:
    """Write all own data into one file; an existing one is not overwritten."""
    if file.exists():
        raise GiveUp(f"{file} exists already: choose another name")
    if not file.resolve().parent.is_dir():
        raise GiveUp(f"there is no folder {file.parent}")
    need_space(file.resolve().parent)
    setup.set_up()
    server, database = _own()
    with _started(server), say.step(f"Backup to {file}"):
        dump(server, database, file)
    return 0


def restore(file: Path) -> int:
    """Put a backup in the place of the own data, which is kept beside it under another name."""
    if not file.is_file():
        raise GiveUp(f"there is no file {file}")
    if OWN.running():
        raise GiveUp("it is serving: ./ydro stop first")
    need_space()
    setup.set_up()
    server, database = _own()
    with _started(server):
        put_aside = bring_back(server, database, file)
    if put_aside:
        print(f"· what was there before is kept as {put_aside}: ./ydro kept lists it and takes it away")
    return 0


COUNTED = {
    "accounts": "accounts_user",
    "workshops": "workshops_workshop",
    "vehicles": "designs_vehicle",
    "revisions": "designs_revision",
    "parts": "parts_part",
    "runs": "runs_run",
    "steps of builds": "builds_stepentry",
    "photos": "builds_photo",
}
"""What a backup is counted by, and the table that holds it."""


def check(file: Path) -> int:
    """Read a backup into a database beside, count what is in it beside what is in the own data, and drop it again.

    1 where it holds nothing that the own data do.
    """
    if not file.is_file():
        raise GiveUp(f"there is no file {file}")
    setup.python()
    server, database = _own()
    with _started(server):
        refuse_foreign(server, file)
        scratch = f"{database}_checked"
        server.sql(f'drop database if exists "{scratch}"')
        try:
            with say.step(f"Reading {file}"):
                read_dump_into(server, scratch, file)
            counts = {name: counted(server, scratch, table) for name, table in COUNTED.items()}
            present = {name: counted(server, database, table) for name, table in COUNTED.items()}
        finally:
            server.sql(f'drop database if exists "{scratch}"')
    print(f"{'':18}{'backup':>10}{'now':>10}")
    for name, count in counts.items():
        print(f"{name:18}{count:10}{present[name]:10}")
    return int(not any(counts.values()) and any(present.values()))


def counted(server: DatabaseServer, database: str, table: str) -> int:
    """Rows of a table, 0 where there is none of that name: a backup may be older than it."""
    known = server.sql(f"select to_regclass('public.{table}') is not null", database).strip() == "t"
    return int(server.sql(f"select count(*) from {table}", database)) if known else 0


def kept() -> int:
    """List what restoring has kept, with its size."""
    server, database = _own()
    with _started(server):
        copies = kept_of(server, database)
        for name in copies:
            size = int(server.sql(f"select pg_database_size('{name}')"))
            print(f"{name}   {size / 1e6:.0f} MB")
    print("./ydro kept --remove NAME takes one away" if copies else "Nothing is kept.")
    return 0


def remove(name: str) -> int:
    """Take a kept database away for good."""
    server, database = _own()
    with _started(server):
        copies = kept_of(server, database)
        if name not in copies:
            raise GiveUp(f"{name} is not kept: there are {', '.join(copies) or 'none'}")
        server.sql(f'drop database "{name}"')
    print(f"· {name} is gone")
    return 0


def kept_of(server: DatabaseServer, database: str) -> list[str]:
    """Names of the databases that restoring has put aside, the oldest first."""
    names = server.databases()
    return sorted(n for n in names if n.startswith(database) and SUFFIX.fullmatch(n.removeprefix(database)))


def _own() -> tuple[DatabaseServer, str]:
    """Where the own data are: where DATABASE_URL says, else on our own server."""
    if "DATABASE_URL" in os.environ:
        remote = Remote(os.environ["DATABASE_URL"])
        return remote, remote.database
    return MAIN, OWN.database


def dump(server: DatabaseServer, database: str, file: Path) -> None:
    """Write a database into a file readable by its owner alone; a broken attempt leaves no file of that name."""
    if database not in server.databases():
        raise GiveUp("there is no own data yet: ./ydro start makes it")
    partial = file.resolve().with_name(file.name + ".partial")
    partial.unlink(missing_ok=True)
    partial.touch(mode=0o600)
    server.client("pg_dump", "-Fc", "--no-owner", "--no-privileges", "-d", database, "-f", partial)
    partial.rename(file)


def bring_back(server: DatabaseServer, database: str, file: Path) -> str | None:
    """Read a dump beside the present data, bring it up to this version, and only then change their places.

    Returns:
        The name under which the data that was there is kept, None where there was none.

    Raises:
        GiveUp: it cannot be brought back; nothing was changed.
    """
    refuse_foreign(server, file)
    _refuse_in_use(server, database)
    incoming = f"{database}_incoming"
    server.sql(f'drop database if exists "{incoming}"')
    try:
        with say.step(f"Reading {file}"):
            read_dump_into(server, incoming, file)
            migrate({**server.env(incoming), "YDROMETER_DEMO": "0"})
        return _change_places(server, database, incoming)
    except GiveUp as error:
        server.sql(f'drop database if exists "{incoming}"')
        raise GiveUp(f"{file} could not be brought back; your data is as it was ({_first(error)})") from None


def read_dump_into(server: DatabaseServer, database: str, file: Path) -> None:
    """A new database with what a dump holds."""
    server.create(database)
    server.client(
        "pg_restore",
        "--exit-on-error",
        "--no-owner",
        "--no-privileges",
        "--single-transaction",
        "-d",
        database,
        file.resolve(),
        role=server.owner,
    )


def _change_places(server: DatabaseServer, database: str, incoming: str) -> str | None:
    put_aside = None
    if database in server.databases():
        put_aside = _free_name(server, f"{database}_{time.strftime('%Y%m%d_%H%M%S')}")
        server.sql(f'alter database "{database}" rename to "{put_aside}"')
    try:
        server.sql(f'alter database "{incoming}" rename to "{database}"')
    except GiveUp:
        if put_aside:
            server.sql(f'alter database "{put_aside}" rename to "{database}"')
        raise
    return put_aside


def _free_name(server: DatabaseServer, wanted: str) -> str:
    taken, name, number = server.databases(), wanted, 1
    while name in taken:
        number += 1
        name = f"{wanted}_{number}"
    return name


def refuse_foreign(server: DatabaseServer, file: Path) -> None:
    """Look into a file before anything is touched: what it is, whether it is whole, and which version wrote it."""
    untouched = "; your data is as it was"
    if file.stat().st_size == 0:
        raise GiveUp(f"{file} is empty{untouched}")
    with file.open("rb") as opened:
        if opened.read(5) != b"PGDMP":
            raise GiveUp(f"{file} is no backup, which ./ydro backup writes{untouched}")
    try:
        contents = server.read_dump("-l", file.resolve())
        applied = server.read_dump("--data-only", "-t", "django_migrations", "-f", "-", file.resolve())
    except GiveUp as error:
        raise GiveUp(f"{file} is damaged or cut short ({_first(error)}){untouched}") from None
    if "TABLE DATA public designs_vehicle " not in contents:
        raise GiveUp(f"{file} is a dump of something else, not of Ydrometer{untouched}")
    ahead = _unknown_here(applied)
    if ahead:
        raise GiveUp(f"{file} was written by a newer Ydrometer ({ahead}): use that version{untouched}")


def _unknown_here(applied: str) -> str:
    """The first migration among those of a dump that this version does not have, empty where it has all."""
    rows = [line.split("\t") for line in applied.splitlines() if line.count("\t") == 3]
    of_file = [f"{app}.{name}" for _, app, name, _ in rows]
    return say.run([PYTHON, "manage.py", "newer_migrations", *of_file], cwd=ROOT).strip()


def _refuse_in_use(server: DatabaseServer, database: str) -> None:
    users = server.sql(f"select count(*) from pg_stat_activity where datname = '{database}'").strip()
    if users != "0":
        raise GiveUp(
            f"{users} connections to {database} are open, of a worker perhaps: end it first. Nothing was changed"
        )


def _first(error: GiveUp) -> str:
    return " ".join(line.strip() for line in str(error).splitlines()[:2])


@contextmanager
def _started(server: DatabaseServer) -> Iterator[None]:
    started = server.start()
    try:
        yield
    finally:
        if started:
            server.stop()
