"""Layouts as people choose them: the design's own, its neighbours, and a small picture of each."""

from __future__ import annotations

import copy
import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base.errors import DocumentError
from ydrometer.document import design, names
from ydrometer.document.stages import KINDS, size_keys
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.search.layout import PAIRS, BoxChoice

MOST_SUGGESTED = 6
TOOTHED = [kind for kind, pair in PAIRS.items() if pair.form.toothed]
_PICTURED: dict[str, dict[str, Any]] = {
    kind.kind: {"kind": kind.kind, **{key: value for key, value in kind.start.items() if key not in size_keys(kind)}}
    for kind in KINDS.values()
    if kind.kind in PAIRS or kind.kind == BoxChoice.kind
}
"""What a stage looks like whose parts are not chosen yet."""

Layout = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Picture:
    """A layout with its words and its line in miniature; none where the design cannot be drawn with it."""

    layout: Layout
    words: str
    line: LineDrawing | None


def suggested(document: Mapping[str, Any]) -> list[Picture]:
    """The design's own layout first, then what is one step from it."""
    own = stages_of(document)
    layouts: dict[str, list[dict[str, Any]]] = {}
    for stages in (own, *_neighbours(own)):
        layouts.setdefault(json.dumps(stages, sort_keys=True), stages)
    return [picture(document, {"stages": stages}) for stages in list(layouts.values())[:MOST_SUGGESTED]]


def picture(document: Mapping[str, Any], layout: Layout) -> Picture:
    """One layout, drawn with typical parts."""
    stages = layout.get("stages")
    listed = [stage for stage in stages if isinstance(stage, Mapping)] if isinstance(stages, list) else []
    return Picture(layout, words_of(listed), _drawn(document, listed))


def words_of(stages: Sequence[Mapping[str, Any]]) -> str:
    """A layout in words: "gears, then toothed belt"."""
    kinds = [str(_stage(stage).get("kind", "")) for stage in stages]
    return ", then ".join(names.stage_noun(kind) for kind in kinds) or "straight to the wheels"


def stages_of(document: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The choices that the design's own stages stand for: pairs and boxes from the bin, the rest as it is."""
    drive = document.get("drive")
    drive = drive if isinstance(drive, Mapping) else {}
    branches = drive.get("branches")
    first = branches[0] if isinstance(branches, list) and branches and isinstance(branches[0], Mapping) else {}
    stages = [*_list(first.get("stages")), *_list(drive.get("stages"))]
    return [_choice(stage) for stage in stages if isinstance(stage, Mapping)]


def _choice(stage: Mapping[str, Any]) -> dict[str, Any]:
    if stage.get("kind") in PAIRS and _is_plain(stage):
        return {"kind": stage["kind"]}
    if stage.get("kind") == BoxChoice.kind:
        return {"kind": BoxChoice.kind}
    return {"kind": "fixed", "stage": copy.deepcopy(dict(stage))}


def _is_plain(stage: Mapping[str, Any]) -> bool:
    """Whether a stage, as typed, is two wheels of its kind's form and nothing more, as a search makes them."""
    try:
        (read,) = design.read_stages([dict(stage)])
    except DocumentError:
        return True
    wheels = [member.form for member in read.members]
    return wheels == [read.form, read.form] and not read.crossed


def _neighbours(own: list[dict[str, Any]]) -> Iterator[list[dict[str, Any]]]:
    """One pair of another kind, one pair more behind it, one pair less."""
    pairs = [i for i, stage in enumerate(own) if stage["kind"] in PAIRS]
    for i in pairs:
        for kind in TOOTHED:
            yield [*own[:i], {"kind": kind}, *own[i + 1 :]]
    for i in pairs[:1]:
        yield [*own[: i + 1], {"kind": TOOTHED[0]}, *own[i + 1 :]]
    for i in pairs if len(own) > 1 else []:
        yield [*own[:i], *own[i + 1 :]]
    if not pairs:
        yield [{"kind": TOOTHED[0]}, *own]


def _stage(choice: Mapping[str, Any]) -> Mapping[str, Any]:
    inner = choice.get("stage")
    return inner if choice.get("kind") == "fixed" and isinstance(inner, Mapping) else choice


def _drawn(document: Mapping[str, Any], stages: Sequence[Mapping[str, Any]]) -> LineDrawing | None:
    drawn = copy.deepcopy(dict(document))
    shown = [
        dict(_stage(stage)) if stage.get("kind") == "fixed" else _PICTURED.get(str(stage.get("kind")), {})
        for stage in stages
    ]
    try:
        drive = drawn["drive"]
        drive["branches"] = [{**drive["branches"][0], "stages": []}]
        drive["stages"] = shown
        return draw_line(design.read(drawn).design)
    except (DocumentError, KeyError, IndexError, TypeError):
        return None


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else []
