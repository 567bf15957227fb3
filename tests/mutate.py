"""./ydro mutate: small changes drawn in the core, each run against the nearest tests; lists those that no test noticed.

A change stands in a copy of the sources. Nearest are the tests that import the changed module, else those that import
what imports it; what these do not notice is shown to those that ask everything. A changed kernel runs as plain Python,
so that nothing is compiled anew for it.
"""

from __future__ import annotations

import argparse
import ast
import copy
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cache
from pathlib import Path

ROOT = Path(__file__).parents[1]
COPIED = ("ydrometer", "tests", "server", "ops", "docs", "pyproject.toml", "uv.lock", "README.md")
LEFT_OUT = ("ydrometer/base/tables", "ydrometer/command/warm.py", "ydrometer/starting")
"""Data, and what only makes things quicker."""
NEAREST = 6
"""Test modules that are run for a change, at most."""
LIMIT_S = 120.0
"""A test module that takes longer than this has noticed the change."""
SLOW = ("test_motion", "test_interpreted", "test_every_kind")
"""Modules that are too slow as plain Python."""
OF_ALL = ("test_live", "test_cases", "test_limits", "test_fit", "test_build", "test_options", "test_every_kind")
"""Modules that ask the core everything, the quick ones first."""
SIDE_BY_SIDE = 2
GOAL = 0.95
COMPARED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
}
RECKONED: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
}
CALLED = {"min": "max", "max": "min", "any": "all", "all": "any", "sin": "cos", "cos": "sin"}


@dataclass(frozen=True)
class Change:
    """One change: the module's path, its line, what stood there and what stands there now, the whole new text."""

    path: str
    line: int
    before: str
    after: str
    text: str


@dataclass(frozen=True)
class Verdict:
    """What became of a change: the test module that noticed it, empty where none did."""

    change: Change
    noticed_by: str
    tests: tuple[str, ...]


def changed(node: ast.AST) -> Iterator[ast.AST]:
    """What might stand in the place of a node: the same but for one thing."""
    other = copy.deepcopy(node)
    match other:
        case ast.Compare(ops=[op]) if type(op) in COMPARED:
            other.ops = [COMPARED[type(op)]()]
            yield other
        case ast.BinOp(op=op) if type(op) in RECKONED:
            other.op = RECKONED[type(op)]()
            yield other
        case ast.BoolOp(op=op):
            other.op = ast.Or() if isinstance(op, ast.And) else ast.And()
            yield other
        case ast.UnaryOp(op=ast.Not() | ast.USub(), operand=inner):
            yield inner
        case ast.Constant(value=bool() as value):
            other.value = not value
            yield other
        case ast.Constant(value=int() | float() as number):
            other.value = number + 1 if isinstance(number, int) else (1.1 * number or 0.1)
            yield other
        case ast.Call(func=ast.Name(id=name)) if name in CALLED:
            other.func = ast.Name(CALLED[name], ast.Load())
            yield other
        case ast.IfExp(body=body, orelse=orelse):
            other.body, other.orelse = orelse, body
            yield other


def places(tree: ast.Module) -> list[ast.AST]:
    """The nodes of a module that can be changed: inside functions, and not in what is only said of types."""
    nodes = []
    for function in (node for node in ast.walk(tree) if isinstance(node, ast.FunctionDef)):
        for statement in function.body:
            if not isinstance(statement, ast.FunctionDef | ast.Assert):
                nodes += [node for node in ast.walk(statement) if any(True for _ in changed(node))]
    return list(dict.fromkeys(nodes))


def draw(random_: random.Random, files: list[Path]) -> Change:
    """One change somewhere in the core; longer modules are drawn more often."""
    sizes = [file.stat().st_size for file in files]
    while True:
        (file,) = random_.choices(files, sizes)
        text = file.read_text()
        known = places(ast.parse(text))
        if known:
            return _made(file, text, random_.choice(known))


def _made(file: Path, text: str, node: ast.AST) -> Change:
    other = next(changed(node))
    lines = text.splitlines(keepends=True)
    start = _offset(lines, node.lineno, node.col_offset)  # type: ignore[attr-defined]  # expressions have a place
    end = _offset(lines, node.end_lineno, node.end_col_offset)  # type: ignore[attr-defined]
    data = text.encode()
    new = f"({ast.unparse(other)})".encode()
    return Change(
        file.relative_to(ROOT).as_posix(),
        node.lineno,  # type: ignore[attr-defined]
        ast.unparse(node),
        ast.unparse(other),
        (data[:start] + new + data[end:]).decode(),
    )


def _offset(lines: list[str], line: int, column: int) -> int:
    """Bytes before a place: the columns of a tree count bytes."""
    return len("".join(lines[: line - 1]).encode()) + column


@cache
def imported(file: Path) -> frozenset[str]:
    """Modules of the core that a file imports."""
    names = set()
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("ydrometer"):
            names |= {node.module or "", *(f"{node.module}.{alias.name}" for alias in node.names)}
    return frozenset(names)


def nearest(path: str) -> list[str]:
    """Test modules that import a module, then those that import what imports it, and so on."""
    core = {file: _name(file) for file in sorted((ROOT / "ydrometer").rglob("*.py"))}
    tests = [test for test in sorted((ROOT / "tests" / "core").glob("test_*.py")) if test.stem not in SLOW]
    level, seen, near = {_name(ROOT / path)}, set[str](), list[str]()
    while level and len(near) < NEAREST:
        mine = [test for test in tests if imported(test) & level and _name(test) not in near]
        # Of equally near ones those that import least are about it most.
        near += [_name(test) for test in sorted(mine, key=lambda test: len(imported(test)))]
        seen |= level
        level = {name for file, name in core.items() if imported(file) & level} - seen
    return near[:NEAREST]


def _name(file: Path) -> str:
    return file.relative_to(ROOT).with_suffix("").as_posix().removesuffix("/__init__").replace("/", ".")


class Copy:
    """A copy of the sources in which changes are tried, one at a time."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        for name in COPIED:
            source = ROOT / name
            if source.is_dir():
                shutil.copytree(source, folder / name, ignore=shutil.ignore_patterns("__pycache__"))
            else:
                shutil.copy(source, folder / name)
        self._run("-m", "ydrometer.command.warm")

    def tried(self, change: Change) -> Verdict:
        """Put a change in, run the nearest tests until one fails, take it out."""
        file = self.folder / change.path
        kernel = "from ydrometer.base.jit import" in change.text
        wide = [f"tests.core.{name}" for name in OF_ALL if not (kernel and name in SLOW)]
        before, tests = file.read_text(), list(dict.fromkeys([*nearest(change.path), *wide]))
        file.write_text(change.text)
        try:
            noticed = next((test for test in tests if not self.passes(test, plain=kernel)), "")
        finally:
            file.write_text(before)
        return Verdict(change, noticed, tuple(tests))

    def passes(self, test: str, *, plain: bool) -> bool:
        """Whether a test module passes in time, with kernels as plain Python or compiled."""
        try:
            return self._run("-m", "unittest", "-f", test, plain=plain, limit=LIMIT_S) == 0
        except subprocess.TimeoutExpired:
            return False

    def _run(self, *arguments: str, plain: bool = False, limit: float | None = None) -> int:
        environment = {**os.environ, "PYTHONPATH": str(self.folder), "PYTHONDONTWRITEBYTECODE": "1"}
        if plain:
            environment["YDROMETER_INTERPRET"] = "1"
        command = [sys.executable, *arguments]
        done = subprocess.run(
            command, cwd=self.folder, env=environment, capture_output=True, timeout=limit, check=False
        )
        return done.returncode


def main() -> None:
    """Draw, try, and print what nobody noticed."""
    parser = argparse.ArgumentParser(prog="./ydro mutate")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--count", type=int, default=60)
    arguments = parser.parse_args()
    files = [
        file
        for file in sorted((ROOT / "ydrometer").rglob("*.py"))
        if not file.relative_to(ROOT).as_posix().startswith(LEFT_OUT)
    ]
    random_ = random.Random(arguments.seed)
    changes = [draw(random_, files) for _ in range(arguments.count)]
    begun = time.monotonic()
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        copies = [Copy(Path(folder) / str(k)) for k in range(SIDE_BY_SIDE)]
        shares = (changes[k::SIDE_BY_SIDE] for k in range(SIDE_BY_SIDE))
        verdicts = [verdict for share in pool.map(_all, copies, shares) for verdict in share]
    survivors = [verdict for verdict in verdicts if not verdict.noticed_by]
    for verdict in survivors:
        change = verdict.change
        print(f"{change.path}:{change.line}: {change.before}  →  {change.after}   ({len(verdict.tests)} modules)")
    killed = len(verdicts) - len(survivors)
    print(
        f"{killed} of {len(verdicts)} noticed, {100.0 * killed / len(verdicts):.0f} % (goal {100 * GOAL:g} %), "
        f"{time.monotonic() - begun:.0f} s"
    )


def _all(copy_: Copy, changes: list[Change]) -> list[Verdict]:
    verdicts = []
    for change in changes:
        verdict = copy_.tried(change)
        words = f"noticed by {verdict.noticed_by}" if verdict.noticed_by else "not noticed"
        print(f"{change.path}:{change.line}: {words}", file=sys.stderr, flush=True)
        verdicts.append(verdict)
    return verdicts


if __name__ == "__main__":
    main()
