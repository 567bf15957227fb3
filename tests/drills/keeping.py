"""Files that are no backup, or of another version: refused before anything is touched."""

from __future__ import annotations

import tempfile
import uuid
from collections.abc import Iterator
from pathlib import Path

from ops import safekeeping
from ops.say import GiveUp
from tests.core.designs import changed
from tests.drills.report import Row, equal
from tests.drills.site import CLUSTER, DRILL
from tests.drills.visitor import Visitor


def drill(port: int) -> Iterator[Row]:
    """On a copy of the drilled database, which nobody uses."""
    Visitor(port).sign_up(f"keeper-{uuid.uuid4().hex[:6]}").add_vehicle(changed({"name": "Kept"}))
    copy = f"{DRILL.database}_copy"
    with tempfile.TemporaryDirectory() as folder:
        good, bad = Path(folder) / "good", Path(folder) / "bad"
        safekeeping.dump(CLUSTER, DRILL.database, good)
        for name in (copy, *safekeeping.kept_of(CLUSTER, copy)):
            CLUSTER.sql(f'drop database if exists "{name}"')
        safekeeping.bring_back(CLUSTER, copy, good)
        before, whole = contents(copy), good.read_bytes()
        yield equal("restore", "a good file brings all back", before, contents(DRILL.database))
        refused = 0
        files = {
            "empty": b"",
            "cut": whole[: len(whole) // 2],
            "damaged": whole[:-4000] + bytes(4000),
            "text": b"hello",
            "foreign": foreign(Path(folder)),
            "newer": newer(copy, Path(folder)),
        }
        for content in files.values():
            bad.write_bytes(content)
            try:
                safekeeping.bring_back(CLUSTER, copy, bad)
            except GiveUp as error:
                refused += "as it was" in str(error)
        yield equal(
            "restore",
            f"of {len(files)} bad files ({', '.join(files)}), refused with what they are",
            refused,
            len(files),
        )
        yield equal("restore", "data after that as before", contents(copy) == before, True)
        try:
            safekeeping.bring_back(CLUSTER, DRILL.database, good)
            lines = "restored"
        except GiveUp:
            lines = "refused"
        yield equal("restore", "a database in use", lines, "refused")
        names = [name for name in CLUSTER.databases() if name.startswith(DRILL.database)]
        yield equal("restore", "databases left behind by all that", sorted(names), [DRILL.database, copy])


def contents(database: str) -> str:
    """Fingerprint of all designs."""
    return CLUSTER.sql("select md5(string_agg(document::text, '' order by id)) from designs_revision", database).strip()


def foreign(folder: Path) -> bytes:
    """A dump of another application's database."""
    CLUSTER.client("pg_dump", "-Fc", "-d", "postgres", "-f", folder / "foreign")
    return (folder / "foreign").read_bytes()


def newer(database: str, folder: Path) -> bytes:
    """A dump of a later version."""
    CLUSTER.sql("insert into django_migrations (app, name, applied) values ('designs', '9999_later', now())", database)
    safekeeping.dump(CLUSTER, database, folder / "newer")
    CLUSTER.sql("delete from django_migrations where name = '9999_later'", database)
    return (folder / "newer").read_bytes()
