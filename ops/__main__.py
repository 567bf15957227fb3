"""./ydro COMMAND."""

from __future__ import annotations

import argparse
import subprocess
import sys
from pathlib import Path
from typing import Any

from ops import checks, production, safekeeping, say, serving, setup
from ops.places import PYTHON, ROOT

BENCHES = {
    "fit": "tests.bench.fit",
    "loads": "tests.bench.loads",
    "build": "tests.bench.build",
    "grown": "tests.bench.grown",
    "full": "tests.bench.full",
    "practice": "tests.bench.practice",
    "calibrate": "tests.bench.calibrate",
    "logger": "tests.bench.logger",
    "ui": "tests.bench.ui",
    "core": "tests.bench.core",
    "api": "tests.bench.load",
    "search": "tests.bench.search",
    "options": "tests.bench.options",
}
"""What can be measured, and the module that does it."""
KEEPING = {"backup": safekeeping.backup, "restore": safekeeping.restore, "check-backup": safekeeping.check}
"""What is done with the file of a backup."""


def main() -> int:
    """Run one command; returns its exit status."""
    parser = argparse.ArgumentParser(prog="./ydro", description="Ydrometer: set up, serve, test, keep safe.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    _ways_to_serve(commands)
    commands.add_parser("worker", help="run one more worker for large searches; DATABASE_URL names another machine's")
    commands.add_parser("stop", help="stop all that runs")
    commands.add_parser("status", help="say what runs")
    logs = commands.add_parser("logs", help="print the end of what the application has written")
    logs.add_argument("which", nargs="?", choices=["start", "demo"], help="what runs, or ran last, without")
    logs.add_argument("--lines", type=int, default=100)
    kept = commands.add_parser("kept", help="list what restoring has kept, or take one of them away")
    kept.add_argument("--remove", metavar="NAME")
    reset = commands.add_parser("reset-password", help="print a link with which NAME chooses a new password, once")
    reset.add_argument("name", metavar="NAME")
    test = commands.add_parser("test", help="run every check")
    test.add_argument("only", nargs="*", help="names of checks; all without")
    for name, about in (
        ("backup", "write your data into FILE"),
        ("restore", "bring your data back from FILE"),
        ("check-backup", "read FILE into a database beside, count what is in it, and drop it again"),
    ):
        keep = commands.add_parser(name, help=about)
        keep.add_argument("file", type=Path, metavar="FILE")
    bench = commands.add_parser("bench", help="measure speed: " + ", ".join(BENCHES))
    bench.add_argument("what", choices=list(BENCHES))
    bench.add_argument("--without-largest", action="store_true", help="of search: leave 10^8 out")
    mutate = commands.add_parser("mutate", help="draw small changes in the core, list those that no test notices")
    mutate.add_argument("--seed", type=int, default=1)
    mutate.add_argument("--count", type=int, default=60)
    drill = commands.add_parser("drill", help="make go wrong what could, on a server of its own, and print a table")
    drill.add_argument("only", nargs="*", help="names of drills; all without")
    commands.add_parser("evaluate", help="DESIGN.json...: print the measures of design files")
    commands.add_parser("search", help="REQUEST.json: look through all combinations of parts, print the best")
    commands.add_parser("fit", help="DESIGN.json: print what its sizes say about how the stages go together")
    commands.add_parser("limits", help="DESIGN.json...: print what each part has to stand, and does")
    commands.add_parser("calibrate", help="RUNS.json...: print what test runs teach about the losses")
    commands.add_parser("parts", help="DESIGN.json...: print what a design needs, what of it the bin has")
    commands.add_parser("build", help="DESIGN.json...: print the steps that make it, and the days to an event")
    commands.add_parser("practice", help="--kind KIND --level 2 --seed 7: print an exercise; --list prints all kinds")
    commands.add_parser("schema", help="print the JSON Schema of a design file, a parts list or a build")
    commands.add_parser("selfcheck", help="work out cases known in closed form, and print the errors")
    core = commands.add_parser("set-up-core", help="only what evaluate needs")
    core.add_argument("--kernels", action="store_true", help="and compile what is compiled when it is first used")
    commands.add_parser("refresh", help="make the API's schema and the page's client anew after a change")
    commands.add_parser("shots", help="take the pictures in docs/screenshots anew")
    chosen = parser.parse_args()
    try:
        return run(chosen)
    except say.GiveUp as error:
        return say.complain(error)
    except KeyboardInterrupt:
        return 130


def _ways_to_serve(commands: Any) -> None:
    for name, about in (("demo", "serve the invented scenario"), ("start", "serve your own data")):
        serve = commands.add_parser(name, help=about)
        serve.add_argument("--port", type=int, default=8000)
        serve.add_argument("--lan", action="store_true", help="serve the local network too: phones, other computers")
        serve.add_argument("--https", action="store_true", help="with --lan: by HTTPS, its certificate made here")
        if name == "demo":
            serve.add_argument("--fresh", action="store_true", help="put the demo's workshop back to what it was")
    host = commands.add_parser("serve", help="serve others from this host, settings from the environment")
    host.add_argument("--production", action="store_true", required=True)
    host.add_argument("--port", type=int, default=8000)
    host.add_argument("--address", default=serving.HERE, help="to listen on; without it only this machine")
    change = commands.add_parser("migrate", help="bring the host's database up to this version")
    change.add_argument("--back", action="store_true", help="back to how far it was before")


def run(chosen: argparse.Namespace) -> int:
    """Do what was asked."""
    match chosen.command:
        case "demo" | "start":
            demo = chosen.command == "demo"
            service = serving.DEMO if demo else serving.OWN
            reach = serving.Reach(chosen.lan, chosen.https)
            return serving.serve(service, chosen.port, fresh=demo and chosen.fresh, reach=reach)
        case "serve":
            return production.serve(chosen.port, chosen.address)
        case "migrate":
            return production.migrate(back=chosen.back)
        case "worker" | "stop" | "status":
            return {"worker": serving.work, "stop": serving.stop, "status": serving.status}[chosen.command]()
        case "logs":
            named = {"start": serving.OWN, "demo": serving.DEMO}.get(chosen.which)
            return serving.logs(named, chosen.lines)
        case "kept":
            return safekeeping.remove(chosen.remove) if chosen.remove else safekeeping.kept()
        case "reset-password":
            return serving.reset_password(chosen.name)
        case "backup" | "restore" | "check-backup":
            return KEEPING[chosen.command](chosen.file)
        case "test" | "refresh" | "mutate":
            return _checked(chosen)
        case "drill":
            setup.set_up(testing=True)
            return checks.with_test_database([str(PYTHON), "-m", "tests.drills.run", *chosen.only])
        case "bench" | "shots":
            module = BENCHES[chosen.what] if chosen.command == "bench" else "tests.bench.shots"
            setup.set_up(testing=True)
            flags = ["--without-largest"] if getattr(chosen, "without_largest", False) else []
            return checks.with_test_database([str(PYTHON), "-m", module, *flags])
    setup.set_up_core(compiled=getattr(chosen, "kernels", False))
    return 0


def _checked(chosen: argparse.Namespace) -> int:
    """What is for those who work on it."""
    if chosen.command == "test":
        return checks.test(chosen.only)
    setup.set_up_but_kernels(testing=True)
    if chosen.command == "refresh":
        return checks.refresh()
    drawn = ["--seed", str(chosen.seed), "--count", str(chosen.count)]
    return subprocess.call([str(PYTHON), "-m", "tests.mutate", *drawn], cwd=ROOT)


sys.exit(main())
