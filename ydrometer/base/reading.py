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
from functools import cache
from typing import Any, TypeVar, cast

from ydrometer.base.quantities import LONGEST_TEXT, QUANTITY_FORMS, Schema, read_quantity
from ydrometer.base.seen import UNREADABLE, Bounds, Reading, Value, printable, shown
from ydrometer.base.tables.dimensions import DIMENSIONS

T = TypeVar("T")
LONGEST_LIST = 64


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
class Spec:
    """How a field is read, what is to be noted where it is a quantity that is not given, and the key under which it
    stands where that is not its name: a word of the language.
    """

    read: Reader
    absent: _Absent | None = None
    key: str = ""


def _declare(read: Reader, default: Any, *, absent: _Absent | None = None) -> Any:
    metadata = {"spec": Spec(read, absent)}
    if default is dataclasses.MISSING:
        return field(metadata=metadata)
    return field(default=default, metadata=metadata)


def field_of(read: Reader, default: Any = dataclasses.MISSING) -> Any:
    """A field read by a reader of one's own."""
    return _declare(read, default)


def called(key: str, declared: Any) -> Any:
    """A field that stands under a key which cannot be the name of a field."""
    spec: Spec = declared.metadata["spec"]
    return field(default=declared.default, metadata={**declared.metadata, "spec": dataclasses.replace(spec, key=key)})


def key_of(declared: dataclasses.Field[Any]) -> str:
    """The key under which a field stands in a document."""
    spec: Spec = declared.metadata["spec"]
    return spec.key or declared.name


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


def whole(least: int, most: int, default: Any = dataclasses.MISSING) -> Any:
    """A field holding a whole number between `least` and `most`, both included."""
    return _declare(whole_reader(least, most), default)


def whole_reader(least: int, most: int) -> Reader:
    """Reads a whole number between `least` and `most`, both included."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        number = isinstance(raw, int | float) and not isinstance(raw, bool)
        if not number or not least <= raw <= most or raw != int(raw):
            return reading.fault(path, f"{shown(raw)} given", f"give a whole number from {least} to {most}")
        return int(raw)

    return Reader(read, lambda: {"type": "integer", "minimum": least, "maximum": most})


def text(default: str = "", *, longest: int = LONGEST_TEXT) -> Any:
    """A field holding a text of at most `longest` characters."""
    return _declare(text_reader(longest=longest), default)


def line(default: str = "", *, longest: int = LONGEST_TEXT) -> Any:
    """A field holding a text of one line, such as a name; what is typed on several lines is joined by blanks."""
    return _declare(line_reader(longest=longest), default)


def line_reader(*, longest: int = LONGEST_TEXT) -> Reader:
    """Reads a text of one line, of at most `longest` characters."""
    whole = text_reader(longest=longest)

    def read(raw: Any, path: str, reading: Reading) -> Any:
        typed = whole(raw, path, reading)
        return one_line(typed) if isinstance(typed, str) else typed

    return Reader(read, whole.schema)


def one_line(text: str) -> str:
    """A text without line breaks, tabs and other signs that nobody sees.

    Args:
        text: as typed.
    """
    if text.isprintable():
        return text
    return " ".join("".join(sign if sign.isprintable() else " " for sign in text).split())


def text_reader(*, longest: int = LONGEST_TEXT) -> Reader:
    """Reads a text of at most `longest` characters."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, str) or len(raw) > longest or "\0" in raw:
            return reading.fault(path, f"{shown(raw)} given", f"give a text of at most {longest} characters")
        return raw

    return Reader(read, lambda: {"type": "string", "maxLength": longest})


def flag(default: bool | None = False) -> Any:
    """A field that is true or false; with a default of None it need not be said."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, bool):
            return reading.fault(path, f"{shown(raw)} given", "give true or false")
        return raw

    return _declare(Reader(read, lambda: {"type": "boolean"}), default)


def choice(options: tuple[str, ...], *, default: Any = dataclasses.MISSING) -> Any:
    """A field that is one of `options`."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, str) or raw not in options:
            return reading.fault(path, f"{shown(raw)} given", "use one of " + ", ".join(options))
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
    properties = {key_of(f): f.metadata["spec"].read.schema() for f in fields}
    needed = [key_of(f) for f in fields if f.default is dataclasses.MISSING]
    return {"type": "object", "properties": properties, "required": needed, "additionalProperties": False}


def one_of(kinds: Mapping[str, type[Any]], *, default: Any = dataclasses.MISSING) -> Any:
    """A field holding an object whose key `kind` says which type it is."""
    return _declare(kind_reader(kinds), default)


def kind_reader(kinds: Mapping[str, type[Any]], key: str = "kind") -> Reader:
    """Reads an object whose key `kind`, or another one, names its type in `kinds`."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, Mapping):
            return reading.fault(path, f"{shown(raw)} given", f"give an object with its {key}")
        kind = raw.get(key)
        if not isinstance(kind, str) or kind not in kinds:
            given = f"{shown(kind)} given" if key in raw else "missing"
            return reading.fault(f"{path}.{key}", given, "use one of " + ", ".join(kinds))
        rest = {name: value for name, value in raw.items() if name != key}
        return read_object(kinds[kind], rest, path, reading)

    def schema() -> Schema:
        shapes = [object_schema(kind) for kind in kinds.values()]
        for name, shape in zip(kinds, shapes, strict=True):
            shape["properties"] = {key: {"const": name}, **shape["properties"]}
            shape["required"] = [key, *shape["required"]]
        return {"oneOf": shapes}

    return Reader(read, schema)


def items(read_item: Reader, *, least: int = 0, most: int = LONGEST_LIST, required: bool = False) -> Any:
    """A field holding a list of things read by `read_item`, as a tuple; empty where it is absent and not required."""
    return _declare(list_reader(read_item, least=least, most=most), dataclasses.MISSING if required else ())


def or_null(read_item: Reader) -> Reader:
    """Reads null as None, anything else by a reader."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        return None if raw is None else read_item(raw, path, reading)

    return Reader(read, lambda: {"anyOf": [{"type": "null"}, read_item.schema()]})


def list_reader(read_item: Reader, *, least: int = 0, most: int = LONGEST_LIST) -> Reader:
    """Reads a list of things read by `read_item`, as a tuple."""

    def read(raw: Any, path: str, reading: Reading) -> Any:
        if not isinstance(raw, list | tuple):
            return reading.fault(path, f"{shown(raw)} given", "give a list")
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
        return cast(T, reading.fault(path, f"{shown(raw)} given", "give an object"))
    fields = _fields_by_key(cast(Any, kind))
    _refuse_unknown(raw, fields, path, reading)
    before = reading.found
    values = {f.name: _read_field(f, key, raw, _join(path, key), reading) for key, f in fields.items()}
    if reading.found > before or any(value is UNREADABLE for value in values.values()):
        return cast(T, UNREADABLE)
    read_value = kind(**values)
    for key, problem, remedy in getattr(read_value, "faults", tuple)():
        reading.fault(_join(path, key), problem, remedy)
    return read_value


@cache
def _fields_by_key(kind: type[Any]) -> dict[str, dataclasses.Field[Any]]:
    return {key_of(f): f for f in dataclasses.fields(kind)}


def _read_field(declared: dataclasses.Field[Any], key: str, raw: Mapping[str, Any], path: str, reading: Reading) -> Any:
    spec: Spec = declared.metadata["spec"]
    if key in raw:
        return spec.read(raw[key], path, reading)
    if declared.default is dataclasses.MISSING:
        return reading.fault(path, "missing", "this value is needed")
    if spec.absent and declared.default is not None:
        origin = "assumed" if spec.absent.assumed else "default"
        reading.values[path] = Value(declared.default, spec.absent.dimension, origin, bounds=spec.absent.bounds)
        if spec.absent.assumed:
            reading.assumed.append(f"{path} = {declared.default:g}")
    return declared.default


def _refuse_unknown(raw: Mapping[str, Any], fields: Mapping[str, Any], path: str, reading: Reading) -> None:
    known = ", ".join(fields)
    for key in raw:
        if key not in fields:
            reading.fault(_join(path, printable(key)), "unknown key", f"known here: {known}")


def finish(value: T, reading: Reading) -> T:
    """`value`, or every fault at once.

    Raises:
        DocumentError: anything was wrong.
    """
    reading.refuse()
    return value


def _join(path: str, key: str) -> str:
    return f"{path}.{key}" if path else key
