"""One option as it is looked at: its words, its values, the parts it takes, and what it changes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base.tables.measures import ELSEWHERE
from ydrometer.document.changes import changes
from ydrometer.document.stages import KINDS, Stage
from ydrometer.document.stages.forms import OF_PART
from ydrometer.document.stages.plane import Loop
from ydrometer.document.target import Target
from ydrometer.document.walk import stages_with_paths
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.evaluation.evaluate import Evaluation, Known
from ydrometer.evaluation.targets import Standing
from ydrometer.loads.rows import State
from ydrometer.loads.summary import in_short
from ydrometer.parts.names import called
from ydrometer.search.answer import design_of
from ydrometer.search.choices import NO_PART, StageSlot
from ydrometer.search.cost import head_needs
from ydrometer.search.groups import Group
from ydrometer.search.known_stages import read_known
from ydrometer.search.on_plate import OnPlate
from ydrometer.search.option import Option
from ydrometer.search.request import SearchRequest
from ydrometer.taking.wheels import ENDS

SIZES = tuple(dict.fromkeys(key for form in OF_PART.values() for key in form.size_keys))
_BROUGHT = {bring.to.format(member=end) for kind in KINDS.values() for bring in kind.brings for end in ENDS}
_PIECES = {kind.in_plane.pieces_key for kind in KINDS.values() if isinstance(kind.in_plane, Loop)}
LEFT_OPEN = (_PIECES | _BROUGHT) - {"efficiency"}
"""What a search leaves open, or takes from the parts without being asked."""


@dataclass(frozen=True, slots=True)
class Use:
    """A part that an option takes: how many are needed, how many of them have to be bought, and what one costs."""

    id: str
    name: str
    needed: int
    buy: int
    price: float | None


@dataclass(frozen=True, slots=True)
class Standings:
    """A target's margin and the word for it."""

    margin: float | None
    standing: Standing


@dataclass(frozen=True, slots=True)
class WorstUse:
    """The part that is nearest to what it stands: how near, and in words."""

    state: State
    use: float | None
    words: str


@dataclass(frozen=True, slots=True)
class OtherWay:
    """Other parts that do the same: its stages in words, its price, what has to be bought, whether it goes on the
    plate, and its design file.
    """

    words: str
    price: float
    buy: int
    mounts: bool
    design: dict[str, Any]


@dataclass(frozen=True, slots=True)
class OptionRow:
    """One option.

    Attributes:
        words: its stages in words. ratio: overall, in the lowest gear. line: in miniature, of those in the list.
        values: in the order of the measures. targets: how each target stands.
        price: of what has to be bought. buy: how many parts that is. uses: the parts it takes.
        changes: from the present design to it, in words. design: as a design file.
        ways: options that do the same, this one among them; None where they were not counted. from_bin: of those how
        many take owned parts alone. from_price: the least that one of them costs. others: a few, the best first.
        mounts: whether it goes on the design's plate, where one is known.
        worst: of its loads, of those in the list.
    """

    words: str
    ratio: float
    line: LineDrawing | None
    values: list[float | None]
    targets: list[Standings]
    price: float
    buy: int
    uses: list[Use]
    changes: list[str]
    design: dict[str, Any]
    ways: int | None
    from_bin: int
    from_price: float
    others: list[OtherWay]
    mounts: bool
    worst: WorstUse | None


@dataclass(frozen=True, slots=True)
class Shown:
    """One option that is to be shown: itself, its group in the list, None where it only stands in the field, and its
    design file.
    """

    option: Option
    group: Group | None
    raw: dict[str, Any]


class OptionRows:
    """The options of one search as rows, each told against the design that was searched for."""

    def __init__(
        self,
        request: SearchRequest,
        layouts: Sequence[list[StageSlot]],
        evaluation: Evaluation,
        shown: Sequence[Target],
        plate: OnPlate,
    ) -> None:
        """Keep what all rows have in common.

        Args:
            request: what was searched for.
            layouts: the options of the stages of each layout.
            evaluation: the present design, then the options'.
            shown: measures in the order of a row's values.
            plate: of the design.
        """
        self._request, self._layouts, self._evaluation, self._shown = request, layouts, evaluation, shown
        self._plate = plate
        self._present = _without_sizes(request.raw["design"])
        self._sizes = {str(stage[key]) for stage in _stages(request.raw["design"]) for key in SIZES if key in stage}

    def values(self, index: int, known: Known) -> list[float | None]:
        """What is shown of one design of the evaluation; `known` is what that alone cannot tell."""
        return [
            known.get(target.measure) if target.measure in ELSEWHERE else self._evaluation.value_for(target, index)
            for target in self._shown
        ]

    def _other(self, option: Option) -> OtherWay:
        raw = design_of(self._request, self._layouts[option.layout], option)
        return OtherWay(
            _words(raw, read_known(_stages(raw)), self._sizes), option.price, option.buy, self._plate.goes(option), raw
        )

    def row(self, index: int, shown: Shown) -> OptionRow:
        """One option, whose design has this index in the evaluation."""
        evaluation, option = self._evaluation, shown.option
        design = evaluation.documents[index].design
        short = in_short(evaluation, index) if shown.group else None
        known: Known = {**(short.known if short else {}), "price": option.price}
        judged = [evaluation.judge(target, index, known).verdict for target in design.targets]
        return OptionRow(
            words=_words(shown.raw, [stage for _, stage in stages_with_paths(design)], self._sizes),
            ratio=evaluation.value("overall_ratio", index)[0],
            line=draw_line(design) if shown.group else None,
            values=self.values(index, known),
            targets=[Standings(verdict.margin, verdict.standing) for verdict in judged],
            price=option.price,
            buy=option.buy,
            uses=_uses(self._request, self._layouts[option.layout], option),
            changes=changes(self._present, _without_sizes(shown.raw)),
            design=shown.raw,
            ways=shown.group.count if shown.group else None,
            from_bin=shown.group.from_bin if shown.group else 0,
            from_price=shown.group.price if shown.group else option.price,
            others=[self._other(other) for other in shown.group.options[1:]] if shown.group else [],
            mounts=self._plate.goes(option) if shown.group else True,
            worst=WorstUse(short.state, short.use, short.words) if short else None,
        )


def _stages(raw: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The stages of a design of one branch, as typed, in the order of power."""
    drive = raw["drive"]
    return [*drive["branches"][0].get("stages", []), *drive.get("stages", [])]


def _without_sizes(raw: Mapping[str, Any]) -> dict[str, Any]:
    """A design of one branch without the sizes that a search leaves open, all its stages in the trunk."""
    drive = raw["drive"]
    stages = [{key: value for key, value in stage.items() if key not in LEFT_OPEN} for stage in _stages(raw)]
    return {**raw, "drive": {**drive, "branches": [{**drive["branches"][0], "stages": []}], "stages": stages}}


def _words(raw: Mapping[str, Any], read: Sequence[Stage], usual: set[str]) -> str:
    return " · ".join(_stage_words(typed, stage, usual) for typed, stage in zip(_stages(raw), read, strict=True))


def _stage_words(stage: dict[str, Any], read_stage: Stage, usual: set[str]) -> str:
    """A stage as people say it, with its tooth size where that is not a usual one: "gears 14 : 56, 0.5 mm"."""
    noun = read_stage.noun.removeprefix("toothed ")
    size = next((str(stage[key]) for key in SIZES if key in stage), "")
    return f"{noun} {read_stage.sizes_words}" + (f", {size}" if size and size not in usual else "")


def _uses(request: SearchRequest, options: list[StageSlot], option: Option) -> list[Use]:
    units = request.document.design.drive.units
    needed: Counter[int] = Counter()
    for place, number in head_needs(request, option.head):
        needed[place] += number
    for slot, chosen in zip(options, option.chosen, strict=True):
        for place in slot.parts[chosen].tolist():
            needed[place] += units
    needed.pop(NO_PART, None)
    parts = request.body.parts
    return [
        Use(parts[i].id, called(request.raw["parts"][i]), number, max(0, number - parts[i].owned), parts[i].price)
        for i, number in needed.items()
    ]
