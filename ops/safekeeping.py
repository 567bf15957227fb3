"""Backup and restore of the user's own data."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops import say, setup
from ops.cluster import Cluster
from ops.places import need_space
from ops.say import GiveUp
from ops.serving import MAIN, OWN, Service, prepare

INCOMING = "ydrometer_incoming"


def backup(file: Path) -> int:
    """Write all own data into one file; an existing one is not overwritten."""
    if file.exists():
        raise GiveUp(f"{file} exists already: choose another name")
    if not file.resolve().parent.is_dir():
        raise GiveUp(f"there is no folder {file.parent}")
    need_space(file.resolve().parent)
    setup.set_up()
    with _started(MAIN), say.step(f"Backup to {file}"):
        dump(MAIN, OWN.database, file)
    return 0


def restore(file: Path) -> int:
    """Put a backup in the place of the own data, which is kept beside it under another name."""
    if not file.is_file():
        raise GiveUp(f"there is no file {file}")
    if OWN.running():
        raise GiveUp("it is serving: ./ydro stop first")
    need_space()
    setup.set_up()
    with _started(MAIN):
        kept = bring_back(MAIN, OWN, file)
    if kept:
        print(f"· what was there before is kept as database {kept}")
    return 0


def dump(cluster: Cluster, database: str, file: Path) -> None:
    """Write a database into a file readable by its owner alone; a broken attempt leaves no file of that name."""
    if database not in cluster.databases():
        raise GiveUp("there is no own data yet: ./ydro start makes it")
    partial = file.resolve().with_name(file.name + ".partial")
    partial.unlink(missing_ok=True)
    partial.touch(mode=0o600)
    cluster.client("pg_dump", "-Fc", "-d", database, "-f", partial)
    partial.rename(file)


def bring_back(cluster: Cluster, service: Service, file: Path) -> str | None:
    """Read a dump beside the present data, and only when it has been read change their places.

    Returns:
        The name under which the data that was there is kept, None where there was none.
    """
    with say.step(f"Reading {file}"):
        _read(cluster, file)
    kept = None
    if service.database in cluster.databases():
        kept = f"{service.database}_{time.strftime('%Y%m%d_%H%M%S')}"
        cluster.sql(f'alter database "{service.database}" rename to "{kept}"')
    cluster.sql(f'alter database "{INCOMING}" rename to "{service.database}"')
    prepare(service, cluster)
    return kept


def _read(cluster: Cluster, file: Path) -> None:
    cluster.sql(f'drop database if exists "{INCOMING}"')
    cluster.sql(f'create database "{INCOMING}"')
    try:
        cluster.client("pg_restore", "--exit-on-error", "--no-owner", "-d", INCOMING, file.resolve())
    except GiveUp as error:
        cluster.sql(f'drop database "{INCOMING}"')
        reason = str(error).splitlines()[0]
        raise GiveUp(f"{file} is no backup that can be read here; your data is as it was ({reason})") from None


@contextmanager
def _started(cluster: Cluster) -> Iterator[None]:
    started = cluster.start()
    try:
        yield
    finally:
        if started:
            cluster.stop()
