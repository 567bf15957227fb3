"""./ydro COMMAND."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

from ops import checks, safekeeping, say, serving, setup
from ops.places import PYTHON

BENCHES = {
    "fit": "tests.bench.fit",
    "ui": "tests.bench.ui",
    "core": "tests.bench.core",
    "api": "tests.bench.load",
    "search": "tests.bench.search",
    "options": "tests.bench.options",
}
"""What can be measured, and the module that does it."""


def main() -> int:
    """Run one command; returns its exit status."""
    parser = argparse.ArgumentParser(prog="./ydro", description="Ydrometer: set up, serve, test, keep safe.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for name, about in (("demo", "serve the invented scenario"), ("start", "serve your own data")):
        serve = commands.add_parser(name, help=about)
        serve.add_argument("--port", type=int, default=8000)
    commands.add_parser("worker", help="run one more worker for large searches; DATABASE_URL names another machine's")
    commands.add_parser("stop", help="stop all that runs")
    commands.add_parser("status", help="say what runs")
    test = commands.add_parser("test", help="run every check")
    test.add_argument("only", nargs="*", help="names of checks; all without")
    for name, about in (
        ("backup", "write your data into FILE"),
        ("restore", "bring your data back from FILE"),
    ):
        keep = commands.add_parser(name, help=about)
        keep.add_argument("file", type=Path, metavar="FILE")
    bench = commands.add_parser("bench", help="measure speed: " + ", ".join(BENCHES))
    bench.add_argument("what", choices=list(BENCHES))
    bench.add_argument("--without-largest", action="store_true", help="of search: leave 10^8 out")
    commands.add_parser("evaluate", help="DESIGN.json...: print the measures of design files")
    commands.add_parser("search", help="REQUEST.json: look through all combinations of parts, print the best")
    commands.add_parser("fit", help="DESIGN.json: print what its sizes say about how the stages go together")
    commands.add_parser("schema", help="print the JSON Schema of a design file")
    commands.add_parser("selfcheck", help="work out cases known in closed form, and print the errors")
    commands.add_parser("set-up-core", help="only what evaluate needs")
    commands.add_parser("refresh", help="write the API's schema and the page's client anew")
    commands.add_parser("shots", help="take the pictures in docs/screenshots anew")
    chosen = parser.parse_args()
    try:
        return run(chosen)
    except say.GiveUp as error:
        return say.complain(error)
    except KeyboardInterrupt:
        return 130


def run(chosen: argparse.Namespace) -> int:
    """Do what was asked."""
    match chosen.command:
        case "demo" | "start":
            return serving.serve(serving.DEMO if chosen.command == "demo" else serving.OWN, chosen.port)
        case "worker":
            return serving.work()
        case "stop":
            return serving.stop()
        case "status":
            return serving.status()
        case "test":
            return checks.test(chosen.only)
        case "backup":
            return safekeeping.backup(chosen.file)
        case "restore":
            return safekeeping.restore(chosen.file)
        case "refresh":
            setup.set_up(testing=True)
            return checks.refresh()
        case "bench" | "shots":
            module = BENCHES[chosen.what] if chosen.command == "bench" else "tests.bench.shots"
            setup.set_up(testing=True)
            flags = ["--without-largest"] if getattr(chosen, "without_largest", False) else []
            return checks.with_test_database([str(PYTHON), "-m", module, *flags])
    setup.python()
    return 0


sys.exit(main())
