"""Words of a command: those that stand alone, and options with their values."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.base.errors import DocumentError, Fault


def split(words: Sequence[str], known: Sequence[str]) -> tuple[list[str], dict[str, str]]:
    """Words that are no options, and options with their values: `--bin FILE` or `--bin=FILE`.

    Args:
        words: as typed behind the command.
        known: options there are.

    Raises:
        DocumentError: an option is not known, or lacks its value.
    """
    alone: list[str] = []
    options: dict[str, str] = {}
    rest = iter(words)
    for word in rest:
        name, equals, value = word.partition("=")
        if not word.startswith("--"):
            alone.append(word)
        elif name not in known:
            raise DocumentError([Fault(name[:40], "not known here", f"give {', '.join(known)}")])
        else:
            options[name] = value if equals else next(rest, "")
    empty = [Fault(name, "no value", f"give one behind {name}") for name, value in options.items() if not value]
    if empty:
        raise DocumentError(empty)
    return alone, options
