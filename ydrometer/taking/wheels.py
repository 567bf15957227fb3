"""What wheels of the bin say of the stage that takes them: measures, size of the teeth, and what they bring.

What the wheel before said goes with it. A stage has one width, that of its narrower wheel: a wider wheel beside it
changes nothing, a narrower one holds; where both wheels are taken, what they say holds alone.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.stages import Stage
from ydrometer.document.stages.bring import of_wheel
from ydrometer.document.stages.forms import Form, read_typed
from ydrometer.parts.fitting import SAME_SIZE

ENDS = ("driver", "driven")


def wheel_values(kind: type[Stage], stage: Mapping[str, Any], member: str, part: Mapping[str, Any]) -> dict[str, Any]:
    """What one wheel changes in a stage as typed, by its keys; None takes a value out.

    Args:
        kind: of the stage.
        stage: as typed; one without a tooth size takes that of the wheel.
        member: driver, driven, or idler with its number.
        part: a document of the bin, read before.

    Raises:
        DocumentError: the stage has no such wheel, takes no such parts, or has teeth of another size.
    """
    key, form = kind.measure_key(member), kind.form
    if not key or form is None or form.part != part["kind"]:
        words = f"a {part['kind']} as {member[:40] or 'whole'} of {kind.noun}"
        raise DocumentError([Fault("part", words, "take a part of the stage's own kind for one of its wheels")])
    values: dict[str, Any] = {key: part[form.measure]}
    values |= size_values(form, stage, part)
    for bring in of_wheel(kind.brings, form.part):
        to, value = bring.to.format(member=member), bring.of(part)
        if bring.narrower:
            values |= {to: value} if _is_narrower(value, stage.get(to)) else {}
        elif member in ENDS and (value is not None or stage.get(to) is not None):
            values[to] = value
    return values


def pair_values(
    kind: type[Stage], chosen: Mapping[str, Mapping[str, Any]], stage: Mapping[str, Any] | None = None
) -> dict[str, Any]:
    """What a driver and a driven wheel change in a stage that takes both; None takes a value out.

    Args:
        kind: of the stage.
        chosen: documents of the bin's parts, read before, by `driver` and `driven`.
        stage: as typed; a new one where it is None.

    Raises:
        DocumentError: the stage takes no such parts, or they have teeth of different sizes.
    """
    own = {bring.to for bring in kind.brings if bring.narrower}
    now = {key: value for key, value in (stage or {}).items() if key not in own}
    values: dict[str, Any] = {key: None for key in own if stage and stage.get(key) is not None}
    for member in ENDS:
        values |= wheel_values(kind, {**now, **values}, member, chosen[member])
    return values if stage else {key: value for key, value in values.items() if value is not None}


def size_values(form: Form, stage: Mapping[str, Any], part: Mapping[str, Any]) -> dict[str, Any]:
    """The size of the teeth, where the stage does not say it.

    Raises:
        DocumentError: it is another one than the stage's.
    """
    own, its = form.size_in(stage), form.size_in(part)
    if own is None and not any(stage.get(key) is not None for key in form.size_keys):
        return {key: part[key] for key in form.size_keys if part.get(key) is not None}
    if own is not None and its is not None and abs(own - its) > SAME_SIZE * own:
        words = f"teeth of {1e3 * its:.4g} mm where the stage has {1e3 * own:.4g} mm"
        raise DocumentError([Fault("part", words, "take a part of the same module or pitch")])
    return {}


def _is_narrower(value: Any, present: Any) -> bool:
    new, now = read_typed(value, "length"), read_typed(present, "length")
    return new is not None and (now is None or new < now)
