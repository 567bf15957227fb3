"""Drawn designs for what is built: lines of every kind of stage, mounted in every way."""

from __future__ import annotations

import copy
from typing import Any

from hypothesis import strategies as st

from tests.core.designs import PLAIN
from ydrometer.document import design
from ydrometer.document.stages import KINDS
from ydrometer.document.walk import shaft_paths

IN_BRANCH = [kind for kind, stage in KINDS.items() if not stage.several_speeds]
MOUNTS: tuple[dict[str, Any], ...] = (
    {
        "mount": "slot",
        "slot": {"start": ["10 mm", "20 mm"], "end": ["40 mm", "20 mm"]},
        "diameter": "5 mm",
        "opening": "14 mm",
        "bolts": {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": "12 mm", "depth": "4 mm"},
    },
    {
        "mount": "fixed",
        "at": ["120 mm", "48 mm"],
        "diameter": "8 mm",
        "opening": "22 mm",
        "length": "52 mm",
        "stack": {
            "between": "48 mm",
            "items": [
                {"name": "bearing", "width": "7 mm", "bearing": True},
                {"name": "spacer", "width": "5 mm", "spacer": True},
            ],
        },
    },
    {"mount": "holes", "at": ["60 mm", "48 mm"], "diameter": "10 mm", "shape": "keyway"},
    {"mount": "fixed", "at": ["60 mm", "12 mm"], "eccentric": "1 mm"},
    {"mount": "free"},
)
PLATE = {"hole_pitch": "12 mm", "across": 26, "up": 8, "hole": "5 mm", "thickness": "3 mm"}

ADAPTER = {
    "name": "motor to axle",
    "sides": [
        {
            "name": "motor",
            "bolts": {"count": 4, "circle": "44 mm", "hole": "4.3 mm", "length": "12 mm"},
            "head": "7 mm",
        },
        {"name": "axle", "bolts": {"count": 3, "circle": "60 mm", "hole": "6.4 mm"}, "centring": "30 mm"},
    ],
    "plates": 2,
    "outside": "80 mm",
    "dowels": {"count": 2, "circle": "70 mm", "hole": "4 mm", "angle": "30 deg"},
    "joint": {"count": 4, "circle": "70 mm", "hole": "4.3 mm", "angle": "60 deg"},
    "coupling": "30 mm",
    "coupling_diameter": "20 mm",
}


def stage(kind: str) -> dict[str, Any]:
    """A usual stage of a kind."""
    return {"kind": kind, **copy.deepcopy(dict(KINDS[kind].start))}


@st.composite
def lines(draw: st.DrawFn) -> dict[str, Any]:
    """Designs whose lines are of any shape that a document allows."""
    kinds = st.lists(st.sampled_from(IN_BRANCH), max_size=3)
    copied = copy.deepcopy(PLAIN)
    branch = copied["drive"]["branches"][0]
    branches = draw(st.integers(1, 3))
    copied["drive"] = {
        **copied["drive"],
        "units": draw(st.integers(1, 6)),
        "branches": [
            {**copy.deepcopy(branch), "count": draw(st.integers(1, 6)), "stages": [stage(k) for k in draw(kinds)]}
            for _ in range(branches)
        ],
        "stages": [stage(kind) for kind in draw(kinds)],
    }
    if draw(st.booleans()):
        copied["drive"]["stages"].insert(0, stage("speeds"))
    copied["build"] = {"locking": draw(st.sampled_from(["locker", "lock nuts"]))}
    if draw(st.booleans()):
        paths = shaft_paths(design.read(copied).design)
        said = draw(st.lists(st.sampled_from(paths), unique=True))
        copied["fit"] = {"shafts": [{"shaft": path, **draw(st.sampled_from(MOUNTS))} for path in said]}
        copied["fit"] |= {"plate": PLATE} if draw(st.booleans()) else {}
        copied["fit"] |= {"adapters": [ADAPTER]} if draw(st.booleans()) else {}
    return copied
