"""Places of a design in words, as the parts list and the steps name them."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.build.workshop import Workshop

_WHOLE = {
    "drive.supply": "supply", "fit.plate": "plate", "vehicle.wheel_diameter": "wheels on the ground",
    "build.locking": "all screws",
}  # fmt: skip


def place_words(shop: Workshop, path: str) -> str:
    """Where something goes, in words.

    Args:
        shop: of the design.
        path: a wheel as stacks name it, a stage, a shaft, a source, or a section.
    """
    for wheel in shop.line.wheels:
        if wheel.name == path:
            return f"on the {shop.shaft(wheel.shaft)}"
    for between in shop.line.stages:
        if between.path == path:
            return f"{between.stage.noun} {between.stage.told}"
    if path in shop.line.shafts:
        return shop.line.shafts[path]
    return _WHOLE.get(path, path.rpartition(".")[2].partition("[")[0].replace("_", " "))


def places_words(shop: Workshop, paths: Sequence[str]) -> str:
    """Several places, each once; many are counted."""
    words = list(dict.fromkeys(place_words(shop, path) for path in paths))
    return "; ".join(words) if len(words) <= 3 else f"{words[0]}; and {len(words) - 1} more places"
