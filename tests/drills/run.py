"""Run drills, and print the table; the exit status says whether all hold."""

from __future__ import annotations

import sys
import time
from collections.abc import Callable, Iterator

from tests.drills import (
    archives,
    browsing,
    crowd,
    drawing,
    full_disk,
    guessing,
    hostile,
    hosts,
    keeping,
    killing,
    moving,
    overload,
    strangers,
    upgrading,
)
from tests.drills.report import Row, table
from tests.drills.site import site

DRILLS: dict[str, Callable[[int], Iterator[Row]]] = {
    "stranger": strangers.drill,
    "file": hostile.drill,
    "half-open": crowd.half_open,
    "unread": crowd.unread,
    "load": crowd.load,
    "crowd": crowd.many,
    "overload": overload.drill,
    "archive": archives.drill,
    "hosts": hosts.drill,
    "clock": hosts.clock,
    "moved": moving.drill,
    "guessing": guessing.drill,
    "parts": browsing.parts,
    "kill": killing.drill,
    "restore": keeping.drill,
    "disk": full_disk.drill,
    "upgrade": upgrading.drill,
    "drawn": drawing.drill,
    "tab": browsing.tabs,
}
"""In this order: guessing leaves waits behind, killing and restoring take the server down."""


def main(only: list[str]) -> int:
    """Run the named drills, or all."""
    unknown = [name for name in only if name not in DRILLS]
    if unknown:
        print(f"there is no drill {unknown[0]}: known are {', '.join(DRILLS)}", file=sys.stderr)
        return 2
    rows: list[Row] = []
    with site() as port:
        for name, drill in DRILLS.items():
            if only and name not in only:
                continue
            begun = time.monotonic()
            print(f"· {name} …", flush=True)
            try:
                rows += drill(port)
            except Exception as error:  # a drill that breaks off is a figure too
                rows.append(Row(name, "breaks off", repr(error)[:60], "an end", False))
            print(f"  {time.monotonic() - begun:.0f} s", flush=True)
    print(f"\n{table(rows)}")
    failed = sum(not row.holds for row in rows)
    print(f"\n{len(rows) - failed} hold, {failed} do not")
    return int(failed > 0)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
