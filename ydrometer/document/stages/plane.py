"""How a stage lies in the plane of a plate: what Fit checks and the drawing lays out, without naming a kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

LoopForm = Literal["belt", "chain", "v_belt"]
"""How what runs around wheels is painted: with teeth, with links, or plain."""
LOOP_FORMS = get_args(LoopForm)


@dataclass(frozen=True, slots=True)
class Mesh:
    """Wheels in a row whose teeth mesh, each on a shaft of its own; `check` is the rough check without tools."""

    check: str


@dataclass(frozen=True, slots=True)
class Contact:
    """Two rims pressed on each other; `check` is the rough check without tools."""

    check: str


@dataclass(frozen=True, slots=True)
class Coaxial:
    """A closed box: its output is in line with its input."""


@dataclass(frozen=True, slots=True)
class OtherPlane:
    """A stage that turns the axis: what is behind it stands on another plate."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Loop:
    """Something that runs around two wheels.

    Attributes:
        form: as it is painted. part: kind of a bin's parts that have its lengths. noun: as sentences have it.
        pieces: what its length is counted in, empty where it is a plain length.
        pieces_key: the key under which a stage says how many pieces its loop has, empty likewise; part_key: the one
        under which a part of the bin says it.
        step: of how many pieces each longer loop has more. opens: whether it can be parted and joined again.
        least_in_mesh: teeth of a wheel below which it is rated lower, 0 where teeth do not carry it.
        stretch: share of its distance by which it may stand nearer than taut.
        sag: usual depth at mid-span of a slack run, as a share of the span, 0 where it is run taut.
        polygon: whether its speed ripples as links come on the wheel.
        put_on_pieces, put_on_share: to put it on, by how many pitches and by what share of its length the shafts have
        to come nearer. tighten_share, take_up_share, wear_share: to tighten it, by what share of its length the way
        around has to be longer, and by what share of its length and of their distance the shafts farther apart.
        straight: how far from the straight edge the other wheel may be, as a share of the distance.
        check: the rough check without tools.
    """

    form: LoopForm
    part: str
    noun: str
    pieces: str = ""
    pieces_key: str = ""
    part_key: str = ""
    step: int = 1
    opens: bool = False
    least_in_mesh: int = 0
    stretch: float = 0.0
    sag: float = 0.0
    polygon: bool = False
    put_on_pieces: float = 0.0
    put_on_share: float = 0.0
    tighten_share: float = 0.0
    take_up_share: float = 0.0
    wear_share: float = 0.0
    straight: float
    check: str

    def named(self, length: float, size: float) -> str:
        """A length as people say it: "84 teeth", "950 mm".

        Args:
            length: m.
            size: pitch, m, where it is counted in pieces.
        """
        return f"{length / size:.0f} {self.pieces}" if self.pieces else f"{length * 1e3:.5g} mm"


InPlane = Mesh | Contact | Coaxial | OtherPlane | Loop
