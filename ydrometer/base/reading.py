"""Reading JSON into frozen types, collecting every fault with its path instead of stopping at the first.

A type is a dataclass whose fields are declared with the functions below (`quantity`, `whole`, `nested` …).
The declaration is all there is: what may stand there, its bounds, and what holds where it is absent.
Keys a type does not declare are refused, so that nothing is ever dropped in silence.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal, TypeVar, cast

from ydrometer.base import units
from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.base.tables.dimensions import DIMENSIONS

T = TypeVar("T")
ORIGINS = ("given", "measured", "part", "assumed")
LONGEST_LIST = 64
LONGEST_TEXT = 2000
_UNREADABLE: Any = object()


Bounds = tuple[float, float, float]
"""(above, at least, at most), in SI."""
UNBOUNDED: Bounds = (-math.inf, -math.inf, math.inf)


@dataclass(frozen=True, slots=True)
class Value:
    """A quantity as it was read.

    Attributes:
        si: its value. dimension: its kind of quantity.
        origin: how it was come by, one of `ORIGINS`, or "default" where the document does not give it.
        spread: one standard deviation, SI, 0 where none is given. bounds: what the format allows.
        note: what was written beside it.
    """

    si: float
    dimension: str
    origin: str
    spread: float = 0.0
    bounds: Bounds = UNBOUNDED
    note: str = ""


@dataclass(slots=True)
class Reading:
    """What one pass over a document gathers besides the types themselves."""

    faults: list[Fault] = field(default_factory=list)
    values: dict[str, Value] = field(default_factory=dict)
    assumed: list[str] = field(default_factory=list)

    def fault(self, path: str, problem: str, remedy: str) -> Any:
        """Note a fault; returns the marker of an unreadable value."""
        self.faults.append(Fault(path or "$", problem, remedy))
        return _UNREADABLE


Schema = dict[str, Any]
"""A JSON Schema, or a part of one."""


@dataclass(frozen=True, slots=True)
class Reader:
    """Reads what stands at a path, and says in JSON Schema what may stand there."""

    read: Callable[[Any, str, Reading], Any]
    schema: Callable[[], Schema]

    def __call__(self, raw: Any, path: str, reading: Reading) -> Any:
        """The value read, or the marker of an unreadable one with its faults noted."""
        return self.read(raw, path, reading)


@dataclass(frozen=True, slots=True)
class _Absent:
    """What is to be noted where a quantity with a default is not given."""

    dimension: str
    assumed: bool
    bounds: Bounds


@dataclass(frozen=True, slots=True)
class _Spec:
    read: Reader
    absent: _Absent | None = None


def _declare(read: Reader, default: Any, *, absent: _Absent | None = None) -> Any:
    metadata = {"spec": _Spec(read, absent)}
    if default is dataclasses.MISSING:
        return field(metadata=metadata)
    return field(default=default, metadata=metadata)


def field_of(read: Reader, default: Any = dataclasses.MISSING) -> Any:
    """A field read by a reader of one's own."""
    return _declare(read, default)


def labelled(label: str, declared: Any) -> Any:
    """A field with what a screen calls it; without a label it is left to drawings and files."""
    return field(default=declared.default, metadata={**declared.metadata, "label": label})


Control = Literal["quantity", "whole", "numbers", "flag", "choice"]
"""How the value of a field is typed on a screen."""
_CONTROLS: dict[str, Control] = {"integer": "whole", "array": "numbers", "boolean": "flag"}


@dataclass(frozen=True, slots=True)
class LabelledField:
    """A field that screens show: its key, its label, how it is typed, the dimension of a quantity, empty otherwise, and
    whether it may be left empty.
    """

    key: str
    label: str
    control: Control
    dimension: str
    optional: bool


def labelled_fields(kind: type[Any]) -> list[LabelledField]:
    """The fields of a type that screens show, in the order of its declaration."""
    return [_labelled(f) for f in dataclasses.fields(kind) if f.metadata.get("label")]


def _labelled(declared: dataclasses.Field[Any]) -> LabelledField:
    spec: _Spec = declared.metadata["spec"]
    schema = spec.read.schema()
    control: Control = "quantity" if spec.absent else _CONTROLS.get(schema.get("type", ""), "choice")
    dimension = spec.absent.dimension if spec.absent else ""
    optional = declared.default is not dataclasses.MISSING
    return LabelledField(declared.name, declared.metadata["label"], control, dimension, optional)


def quantity(
    dimension: str,
    *,
    above: float = -math.inf,
    at_least: float = -math.inf,
    at_most: float = math.inf,
    default: Any = dataclasses.MISSING,
    assumed: bool = False,
) -> Any:
    """A field holding a quantity in SI; bounds in SI. `assumed`: its default is a guess to be shown as one."""
    reader = quantity_reader(dimension, above=above, at_least=at_least, at_most=at_most)
    return _declare(reader, default, absent=_Absent(dimension, assumed, (above, at_least, at_most)))


def quantity_reader(
    dimension: str, *, above: float = -math.inf, at_least: float = -math.inf, at_most: float = math.inf
) -> Reader:
    """Reads a quantity within bounds in SI."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        return read_quantity(raw, path, reading, dimension, (above, at_least, at_most))

    bounds = {"exclusiveMinimum": above, "minimum": at_least, "maximum": at_most}
    number = {"type": "number", **{key: bound for key, bound in bounds.items() if math.isfinite(bound)}}
    about = f"{DIMENSIONS[dimension].name}, such as {DIMENSIONS[dimension].example}; a bare number is SI"
    return Reader(read, lambda: {"description": about, "anyOf": [number, *QUANTITY_FORMS]})


QUANTITY_FORMS = [{"$ref": "#/$defs/quantity"}]
"""What besides a bare number a quantity may be: a text with its unit, or an object that says more."""


def quantity_definition() -> Schema:
    """The part of the schema that all quantities share."""
    text = {"type": "string", "pattern": r"\d", "maxLength": 170}
    kept = {"value": {"anyOf": [text, {"type": "number"}]}, "origin": {"enum": list(ORIGINS)},
            "note": {"type": "string", "maxLength": LONGEST_TEXT}}  # fmt: skip
    return {"anyOf": [text, {"type": "object", "properties": kept, "required": ["value"],
                             "additionalProperties": False}]}  # fmt: skip


def read_quantity(raw: Any, path: str, reading: Reading, dimension: str, bounds: Bounds = UNBOUNDED) -> Any:
    """Read one quantity: a text, a bare SI number, or an object of value, origin and note."""
    origin, note = "given", ""
    if isinstance(raw, Mapping):
        raw, origin, note = _unwrap(raw, path, reading)
        if raw is _UNREADABLE:
            return _UNREADABLE
    try:
        value, spread = units.parse_spread(raw, dimension)
    except QuantityError as error:
        return reading.fault(path, str(error), f"give {error.remedy}")
    wrong = _out_of_bounds(value, bounds)
    if wrong:
        return reading.fault(path, f"{_shown(raw)} is out of range", f"give a value {wrong}")
    reading.values[path] = Value(value, dimension, origin, spread, bounds, note)
    return value


def _unwrap(raw: Mapping[str, Any], path: str, reading: Reading) -> tuple[Any, str, str]:
    origin, note = raw.get("origin", "given"), raw.get("note", "")
    unreadable = (_UNREADABLE, "given", "")
    before = len(reading.faults)
    for key in raw:
        if key not in ("value", "origin", "note"):
            reading.fault(f"{path}.{printable(key)}", "unknown key", "a quantity object has value, origin and note")
    if origin not in ORIGINS:
        reading.fault(f"{path}.origin", f"{_shown(origin)} is no origin", "use one of " + ", ".join(ORIGINS))
    if not isinstance(note, str) or len(note) > LONGEST_TEXT:
        reading.fault(f"{path}.note", "not such a text", f"give a text of at most {LONGEST_TEXT} characters")
    if "value" not in raw:
        reading.fault(f"{path}.value", "missing", "give the quantity")
    elif isinstance(raw["value"], Mapping):
        reading.fault(f"{path}.value", "not a quantity", "give a text or a number")
    return unreadable if len(reading.faults) > before else (raw["value"], str(origin), note)


def _out_of_bounds(value: float, bounds: Bounds) -> str:
    above, least, most = bounds
    if value <= above:
        return f"above {above:g}"
    if value < least:
        return f"of at least {least:g}"
    if value > most:
        return f"of at most {most:g}"
    return ""


def whole(least: int, most: int, default: Any = dataclasses.MISSING) -> Any:
    """A field holding a whole number between `least` and `most`, both included."""
    return _declare(whole_reader(least, most), default)


def whole_reader(least: int, most: int) -> Reader:
    """Reads a whole number between `least` and `most`, both included."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        number = isinstance(raw, int | float) and not isinstance(raw, bool)
        if not number or not least <= raw <= most or raw != int(raw):
            return reading.fault(path, f"{_shown(raw)} given", f"give a whole number from {least} to {most}")
        return int(raw)

    return Reader(read, lambda: {"type": "integer", "minimum": least, "maximum": most})


def text(default: str = "", *, longest: int = LONGEST_TEXT) -> Any:
    """A field holding a text of at most `longest` characters."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, str) or len(raw) > longest or "\0" in raw:
            return reading.fault(path, f"{_shown(raw)} given", f"give a text of at most {longest} characters")
        return raw

    return _declare(Reader(read, lambda: {"type": "string", "maxLength": longest}), default)


def flag(default: bool = False) -> Any:
    """A field that is true or false."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, bool):
            return reading.fault(path, f"{_shown(raw)} given", "give true or false")
        return raw

    return _declare(Reader(read, lambda: {"type": "boolean"}), default)


def choice(options: tuple[str, ...], *, default: Any = dataclasses.MISSING) -> Any:
    """A field that is one of `options`."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, str) or raw not in options:
            return reading.fault(path, f"{_shown(raw)} given", "use one of " + ", ".join(options))
        return raw

    return _declare(Reader(read, lambda: {"enum": list(options)}), default)


def nested(kind: type[Any], default: Any = dataclasses.MISSING) -> Any:
    """A field holding an object of the type `kind`."""
    return _declare(object_reader(kind), default)


def object_reader(kind: type[Any]) -> Reader:
    """Reads an object of the type `kind`."""
    return Reader(lambda raw, path, reading: read_object(kind, raw, path, reading), lambda: object_schema(kind))


def object_schema(kind: type[Any]) -> Schema:
    """What an object of the type `kind` may hold; what only shows in combination is not said."""
    fields = dataclasses.fields(kind)
    properties = {f.name: f.metadata["spec"].read.schema() for f in fields}
    needed = [f.name for f in fields if f.default is dataclasses.MISSING]
    return {"type": "object", "properties": properties, "required": needed, "additionalProperties": False}


def one_of(kinds: Mapping[str, type[Any]], *, default: Any = dataclasses.MISSING) -> Any:
    """A field holding an object whose key `kind` says which type it is."""
    return _declare(kind_reader(kinds), default)


def kind_reader(kinds: Mapping[str, type[Any]]) -> Reader:
    """Reads an object whose key `kind` names its type in `kinds`."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, Mapping):
            return reading.fault(path, f"{_shown(raw)} given", "give an object with its kind")
        kind = raw.get("kind")
        if not isinstance(kind, str) or kind not in kinds:
            given = f"{_shown(kind)} given" if "kind" in raw else "missing"
            return reading.fault(f"{path}.kind", given, "use one of " + ", ".join(kinds))
        rest = {key: value for key, value in raw.items() if key != "kind"}
        return read_object(kinds[kind], rest, path, reading)

    def schema() -> Schema:
        shapes = [object_schema(kind) for kind in kinds.values()]
        for name, shape in zip(kinds, shapes, strict=True):
            shape["properties"] = {"kind": {"const": name}, **shape["properties"]}
            shape["required"] = ["kind", *shape["required"]]
        return {"oneOf": shapes}

    return Reader(read, schema)


def items(read_item: Reader, *, least: int = 0, most: int = LONGEST_LIST, required: bool = False) -> Any:
    """A field holding a list of things read by `read_item`, as a tuple; empty where it is absent and not required."""
    return _declare(list_reader(read_item, least=least, most=most), dataclasses.MISSING if required else ())


def list_reader(read_item: Reader, *, least: int = 0, most: int = LONGEST_LIST) -> Reader:
    """Reads a list of things read by `read_item`, as a tuple."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, list | tuple):
            return reading.fault(path, f"{_shown(raw)} given", "give a list")
        if not least <= len(raw) <= most:
            return reading.fault(path, f"{len(raw)} entries given", f"give {least} to {most} entries")
        return tuple(read_item(entry, f"{path}[{index}]", reading) for index, entry in enumerate(raw))

    def schema() -> Schema:
        return {"type": "array", "items": read_item.schema(), "minItems": least, "maxItems": most}

    return Reader(read, schema)


def read_object(kind: type[T], raw: Any, path: str, reading: Reading) -> T:
    """Read a mapping into the dataclass `kind`; faults are noted in `reading`.

    After its fields, the type's own rule is asked: a method `faults()` that yields
    (key, problem, remedy) for what only shows in combination.
    """
    if not isinstance(raw, Mapping):
        return cast(T, reading.fault(path, f"{_shown(raw)} given", "give an object"))
    fields = {f.name: f for f in dataclasses.fields(cast(Any, kind))}
    _refuse_unknown(raw, fields, path, reading)
    before = len(reading.faults)
    values = {name: _read_field(f, raw, _join(path, name), reading) for name, f in fields.items()}
    if len(reading.faults) > before or any(value is _UNREADABLE for value in values.values()):
        return cast(T, _UNREADABLE)
    made = kind(**values)
    for key, problem, remedy in getattr(made, "faults", tuple)():
        reading.fault(_join(path, key), problem, remedy)
    return made


def _read_field(declared: dataclasses.Field[Any], raw: Mapping[str, Any], path: str, reading: Reading) -> Any:
    spec: _Spec = declared.metadata["spec"]
    if declared.name in raw:
        return spec.read(raw[declared.name], path, reading)
    if declared.default is dataclasses.MISSING:
        return reading.fault(path, "missing", "this value is needed")
    if spec.absent and declared.default is not None:
        origin = "assumed" if spec.absent.assumed else "default"
        reading.values[path] = Value(declared.default, spec.absent.dimension, origin, bounds=spec.absent.bounds)
        if spec.absent.assumed:
            reading.assumed.append(f"{path} = {declared.default:g}")
    return declared.default


def _refuse_unknown(raw: Mapping[str, Any], fields: Mapping[str, Any], path: str, reading: Reading) -> None:
    for key in raw:
        if key not in fields:
            known = ", ".join(fields)
            reading.fault(_join(path, printable(key)), "unknown key", f"known here: {known}")


def finish(made: T, reading: Reading) -> T:
    """`made`, or every fault at once.

    Raises:
        DocumentError: anything was wrong.
    """
    if reading.faults:
        raise DocumentError(reading.faults)
    return made


def _join(path: str, key: str) -> str:
    return f"{path}.{key}" if path else key


def printable(key: object) -> str:
    """A stranger's key or text, fit to be shown in one line."""
    printable = "".join(c if c.isprintable() else "?" for c in str(key))
    return printable[:60]


def _shown(value: Any) -> str:
    if isinstance(value, Mapping):
        return "an object"
    if isinstance(value, list | tuple):
        return "a list"
    if value is None:
        return "null"
    shown = printable(value)
    return f'"{shown[:40]}"' if isinstance(value, str) else shown[:40]
