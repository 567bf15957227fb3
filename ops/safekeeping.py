"""Backup and restore of the user's own data."""

from __future__ import annotations

import time
from pathlib import Path

from ops import say, setup
from ops.places import need_space
from ops.say import GiveUp
from ops.serving import MAIN, OWN, prepare

INCOMING = "ydrometer_incoming"


def backup(file: Path) -> int:
    """Write all own data into one file; an existing one is not overwritten."""
    if file.exists():
        raise GiveUp(f"{file} exists already: choose another name")
    if not file.parent.is_dir():
        raise GiveUp(f"there is no folder {file.parent}")
    need_space(file.parent)
    setup.set_up()
    started = MAIN.start()
    try:
        if OWN.database not in MAIN.databases():
            raise GiveUp("there is no own data yet: ./ydro start makes it")
        partial = file.with_name(file.name + ".partial")
        with say.step(f"Backup to {file}"):
            partial.touch(mode=0o600)
            MAIN.client("pg_dump", "-Fc", "-d", OWN.database, "-f", partial.resolve())
            partial.rename(file)
    finally:
        if started:
            MAIN.stop()
    return 0


def restore(file: Path) -> int:
    """Put a backup in the place of the own data, which is kept beside it under another name."""
    if not file.is_file():
        raise GiveUp(f"there is no file {file}")
    if OWN.running():
        raise GiveUp("it is serving: ./ydro stop first")
    need_space()
    setup.set_up()
    started = MAIN.start()
    try:
        with say.step(f"Reading {file}"):
            MAIN.sql(f'drop database if exists "{INCOMING}"')
            MAIN.sql(f'create database "{INCOMING}"')
            try:
                MAIN.client("pg_restore", "--exit-on-error", "--no-owner", "-d", INCOMING, file.resolve())
            except GiveUp as error:
                MAIN.sql(f'drop database "{INCOMING}"')
                raise GiveUp(
                    f"{file} is not a backup this version can read; your data is as it was ({error})"
                ) from None
        if OWN.database in MAIN.databases():
            kept = f"{OWN.database}_{time.strftime('%Y%m%d_%H%M%S')}"
            MAIN.sql(f'alter database "{OWN.database}" rename to "{kept}"')
            print(f"· what was there before is kept as database {kept}")
        MAIN.sql(f'alter database "{INCOMING}" rename to "{OWN.database}"')
        prepare(MAIN, OWN)
    finally:
        if started:
            MAIN.stop()
    return 0
