"""Another kind of stage in the place of one: what both have stays, the rest is as usual."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ydrometer.base import paths
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.document.stages import KINDS, Stage
from ydrometer.document.stages.plane import Loop
from ydrometer.document.walk import in_trunk
from ydrometer.taking.wheels import ENDS

WIDTH = "width"


def exchanged(document: Mapping[str, Any], path: str, kind: str) -> dict[str, Any]:
    """The stage of another kind, as typed.

    Kept are the measures of its wheels where both kinds have the same ones, else the ratio; and a width where both have
    wheels that a bin holds. An efficiency was that of the old kind, and a length that of its loop.

    Args:
        document: a design as typed; it may have faults elsewhere.
        path: of the stage.
        kind: of the new one.

    Raises:
        DocumentError: no such stage or kind, or the kind cannot stand there.
    """
    old = paths.value_at(document, path)
    before = KINDS.get(str(old.get("kind"))) if isinstance(old, Mapping) else None
    after = KINDS.get(kind)
    if before is None or after is None:
        given = f'"{kind[:40]}" at "{path[:60]}"'
        raise DocumentError([Fault("kind", given, f"name a stage and one of {', '.join(KINDS)}")])
    if after.several_speeds:
        _need_room(document, path, after)
    stage = after.started(_ratio(old, before))
    if after.form and before.form and after.form.measure == before.form.measure:
        keys = [after.measure_key(end) for end in ENDS]
        stage |= {key: old[key] for key in keys if key in old}
    if _widens(before) and _widens(after) and old.get(WIDTH) is not None:
        stage[WIDTH] = old[WIDTH]
    loop = after.in_plane
    return {key: value for key, value in stage.items() if not (isinstance(loop, Loop) and key == loop.pieces_key)}


def _ratio(old: Mapping[str, Any], kind: type[Stage]) -> float:
    """The ratio of a stage as typed; of one that cannot be read that of a usual one."""
    for typed in (old, {"kind": kind.kind, **kind.start}):
        try:
            (stage,) = design.read_stages([typed])
        except DocumentError:
            continue
        return stage.ratio
    raise AssertionError("a usual stage can be read")


def _widens(kind: type[Stage]) -> bool:
    """Whether it says how wide its wheels are, and a bin has such wheels."""
    return bool(kind.form and kind.form.toothed and kind.form.part)


def _need_room(document: Mapping[str, Any], path: str, kind: type[Stage]) -> None:
    """A box of several speeds stands once, among the stages that all branches share."""
    trunk = paths.value_at(document, "drive.stages")
    others = [stage for i, stage in enumerate(trunk if isinstance(trunk, list) else []) if f"drive.stages[{i}]" != path]
    several = {name for name, kind in KINDS.items() if kind.several_speeds}
    if not in_trunk(path):
        remedy = "add it behind the stage where all branches have come together"
        raise DocumentError([Fault("kind", f"a {kind.noun} in a branch", remedy)])
    if any(isinstance(other, Mapping) and other.get("kind") in several for other in others):
        raise DocumentError([Fault("kind", f"a second {kind.noun}", "take the first one out: one is computed at most")])
