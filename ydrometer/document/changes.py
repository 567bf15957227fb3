"""What was changed between two design documents, in builders' words: "driven sprocket 28 → 24"."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from ydrometer.document import names
from ydrometer.document.stages import KINDS

LONGEST_VALUE = 40
LONGEST = 160
"""Characters of a line that sums up what was changed."""

_SENTENCES = {
    "name": "renamed",
    "notes": "notes",
    "units": "drive units",
    "count": "motors a unit",
    "reversed": "turned round",
    "driven": "driven wheels",
}


def changes(before: Mapping[str, Any], after: Mapping[str, Any]) -> list[str]:
    """Every change from one document to another, the line's first.

    The documents need not be valid: what has another shape is told as changed and no more.
    """
    sentences: list[str] = []
    drive, other = _object(before.get("drive")), _object(after.get("drive"))
    if None not in (_split(drive), _split(other)) and _split(drive) != _split(other):
        drive, other = _in_one_row(drive), _in_one_row(other)
    sentences += _branches(_list(drive.get("branches")), _list(other.get("branches")))
    sentences += _stages(_list(drive.get("stages")), _list(other.get("stages")))
    sentences += _values(_without(drive, "branches", "stages"), _without(other, "branches", "stages"), "")
    for key in ("vehicle", "conditions", "run"):
        sentences += _values(_object(before.get(key)), _object(after.get(key)), "")
    sentences += _targets(_list(before.get("targets")), _list(after.get("targets")))
    for key in ("name", "notes"):
        sentences += _values({key: before.get(key)}, {key: after.get(key)}, "")
    return sentences


def summary(before: Mapping[str, Any], after: Mapping[str, Any]) -> str:
    """The changes in one line; what is too much is counted."""
    sentences = changes(before, after)
    line = ""
    for number, entry in enumerate(sentences):
        longer = f"{line}, {entry}" if line else entry
        if len(longer) > LONGEST and number:
            return f"{line}, and {len(sentences) - number} more"
        line = longer
    return line[: 2 * LONGEST]


def _split(drive: Mapping[str, Any]) -> int | None:
    """How many stages stand before the trunk; None where there is more than one branch."""
    branches = _list(drive.get("branches"))
    return len(_list(_object(branches[0]).get("stages"))) if len(branches) == 1 else None


def _in_one_row(drive: Mapping[str, Any]) -> Mapping[str, Any]:
    """A drive of one branch with all its stages in the trunk: where they stand makes no difference to what it does."""
    branch = _object(_list(drive.get("branches"))[0])
    stages = [*_list(branch.get("stages")), *_list(drive.get("stages"))]
    return {**drive, "branches": [{**branch, "stages": []}], "stages": stages}


def _branches(before: list[Any], after: list[Any]) -> Iterator[str]:
    for b in range(max(len(before), len(after))):
        where = f"branch {b + 1}: " if max(len(before), len(after)) > 1 else ""
        if b >= len(before) or b >= len(after):
            yield f"branch {b + 1} {'added' if b >= len(before) else 'taken out'}"
            continue
        first, second = _object(before[b]), _object(after[b])
        for entry in _stages(_list(first.get("stages")), _list(second.get("stages"))):
            yield where + entry
        for entry in _values(_without(first, "stages"), _without(second, "stages"), ""):
            yield where + entry


def _stages(before: list[Any], after: list[Any]) -> Iterator[str]:
    """Stages compared from both ends inwards, so that one added in the middle is told as one added."""
    head = 0
    while head < min(len(before), len(after)) and _alike(before[head], after[head]):
        head += 1
    tail = 0
    while tail < min(len(before), len(after)) - head and _alike(before[-1 - tail], after[-1 - tail]):
        tail += 1
    for place in range(head):
        yield from _stage(_object(before[place]), _object(after[place]))
    gone, new = before[head : len(before) - tail], after[head : len(after) - tail]
    if sorted(map(repr, gone)) == sorted(map(repr, new)) and gone:
        yield "stages in another order"
    else:
        for old, added in zip(gone, new, strict=False):
            yield f"{_kind(added)} instead of {_kind(old)}"
        for old in gone[len(new) :]:
            yield f"{_kind(old)} taken out"
        for added in new[len(gone) :]:
            yield f"{_kind(added)} added"
    for place in range(tail, 0, -1):
        yield from _stage(_object(before[-place]), _object(after[-place]))


def _alike(first: Any, second: Any) -> bool:
    return bool(_object(first).get("kind") == _object(second).get("kind"))


def _kind(stage: Any) -> str:
    return names.stage_noun(str(_object(stage).get("kind")))


def _stage(before: Mapping[str, Any], after: Mapping[str, Any]) -> Iterator[str]:
    for key in _keys(before, after):
        first, second = before.get(key), after.get(key)
        if first == second:
            continue
        yield _change(_wheel(before, key) or f"{_words(key)} of the {_kind(before)}", first, second)


def _wheel(stage: Mapping[str, Any], key: str) -> str:
    """The wheel whose teeth or diameter stand under a key: "driven sprocket"; empty where it is another key."""
    kind = KINDS.get(str(stage.get("kind")))
    if kind is None or kind.form is None:
        return ""
    return {f"{end}_{kind.form.measure}": f"{end} {kind.form.noun}" for end in ("driver", "driven")}.get(key, "")


def _values(before: Mapping[str, Any], after: Mapping[str, Any], place: str) -> Iterator[str]:
    for key in _keys(before, after):
        first, second = before.get(key), after.get(key)
        if first == second:
            continue
        if (
            isinstance(first, Mapping)
            and isinstance(second, Mapping)
            and "value" not in first
            and "value" not in second
        ):
            yield from _values(first, second, key)
        else:
            yield _change(_words(key, place), first, second)


def _targets(before: list[Any], after: list[Any]) -> Iterator[str]:
    if before != after:
        known = [[names.measure_name(str(_object(t).get("measure"))) for t in targets] for targets in (before, after)]
        added = [name for name in known[1] if name not in known[0]]
        gone = [name for name in known[0] if name not in known[1]]
        yield from (f"target for {name[:60]} added" for name in added)
        yield from (f"target for {name[:60]} taken out" for name in gone)
        if not added and not gone:
            yield "targets changed"


def _change(words: str, before: Any, after: Any) -> str:
    if _plain(before) is None or _plain(after) is None:
        return f"{words} {'given' if before is None else 'no longer given' if after is None else 'changed'}"
    return f"{words} {_plain(before)} → {_plain(after)}"


def _plain(value: Any) -> str | None:
    """A value short enough to be told."""
    if isinstance(value, Mapping):
        value = value.get("value")
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list) and all(isinstance(entry, int | float) for entry in value):
        value = " ".join(f"{entry:g}" for entry in value)
    text = f"{value:g}" if isinstance(value, int | float) else value if isinstance(value, str) else None
    return text if text is not None and len(text) <= LONGEST_VALUE else None


def _words(key: str, place: str = "") -> str:
    if key in _SENTENCES:
        return _SENTENCES[key]
    if key == "resistance" and place:
        return f"resistance of the {place}"
    return names.INPUTS.get(key, key.replace("_", " ")).removeprefix("the ")


def _keys(before: Mapping[str, Any], after: Mapping[str, Any]) -> list[str]:
    """In one order however the documents were kept; a driver before what it drives."""
    return sorted({*before, *after}, key=lambda key: (not key.startswith("driver"), key))


def _object(value: Any) -> Mapping[str, Any]:
    return value if isinstance(value, Mapping) else {}


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else []


def _without(value: Mapping[str, Any], *keys: str) -> dict[str, Any]:
    return {key: entry for key, entry in value.items() if key not in keys}
