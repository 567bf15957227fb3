"""Each check in words: what it is about, its formula and source, and what to mind where a part is near its limit."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Check:
    """A check in words.

    Attributes:
        title. clause: what is told of a part, with {} for how much. formula, source: of its use.
    """

    title: str
    clause: str
    formula: str
    source: str


ELECTRIC = (
    "Direct-current motor in steady state behind a loss-free converter: Hughes and Drury, Electric Motors and Drives, "
    "chapters 3 and 4. Ratings: the makers'."
)
THERMAL = (
    "Two-node thermal network: Hendershot and Miller, Design of Brushless Permanent-Magnet Motors, chapter Cooling; "
    "resistance of a warm winding: IEC 60034-1."
)
GEARING = "Ratio of teeth or pitch diameters: ISO 53, ISO 606, ISO 5294, ISO 4184. Limits: the makers'."
FUSES = "Least opening times of blade fuses: ISO 8820-3."
LEWIS = (
    "Lewis bending equation with Barth's factor: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter "
    "Spur and helical gears; teeth bent both ways: ISO 6336-5; application factor: ISO 6336-6."
)
BELTS = "Synchronous belts, calculation of power rating: ISO 5295; application factor: ISO 6336-6."
CAPSTAN = (
    "Capstan equation with wedge: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Flexible "
    "mechanical elements."
)
CHAINS = "Roller chains: ISO 606 and makers' manuals; application factor: ISO 6336-6."
APPLIED = "Application factor: ISO 6336-6. Ratings: the makers'."
SHAFTS = (
    "Von Mises in shafts: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and shaft "
    "components; application factor: ISO 6336-6."
)
FATIGUE = (
    "DE-Goodman criterion: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and shaft "
    "components; application factor: ISO 6336-6."
)
KEYS = "Parallel keys: DIN 6892, sections ISO/R 773; application factor: ISO 6336-6."
HELD = (
    "Holding power of setscrews: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and "
    "shaft components; application factor: ISO 6336-6."
)
ROLLING = "Rating life of rolling bearings: ISO 281."
PITTING = "Surface durability (pitting): ISO 6336-2; application factor: ISO 6336-6."
CHAIN_SPEED = "Selection of roller chain drives: ISO 10823."
WIRES = "Current-carrying capacity of wires: IEC 60204-1. Ratings: the makers'."
BEAM = (
    "Cantilever with a moment: Budynas and Nisbett, Shigley's Mechanical Engineering Design, table of beams. Limits: "
    "the makers' manuals."
)
DYNAMICS = "Longitudinal model of a vehicle: Gillespie, Fundamentals of Vehicle Dynamics, chapters 1 and 3."


CHECKS = {
    "motor_peak_current": Check(
        "current for a moment",
        "carries {} the current that it stands for a moment",
        "The largest current of one motor over its rating for a moment.",
        ELECTRIC,
    ),
    "winding_temperature": Check(
        "winding over the day",
        "warms its winding by {} what that stands",
        "Heat that came less heat that left, over the winding's heat capacity; that over what it stands above the air.",
        THERMAL,
    ),
    "mount_softening": Check(
        "mount by the case's heat",
        "warms its mount by {} what that stands",
        "The same for the case, against where its mount gets soft, less a margin.",
        THERMAL,
    ),
    "source_speed": Check(
        "speed",
        "turns at {} the speed that it may",
        "The fastest speed over the one that its maker allows.",
        GEARING,
    ),
    "controller_peak": Check(
        "controller for a moment",
        "asks of its controller {} what that carries for a moment",
        "The largest current of one motor over what its controller carries.",
        ELECTRIC,
    ),
    "controller_continuous": Check(
        "controller for long",
        "asks of its controller {} what that carries for long",
        "The root mean square of the current over the day, waits of more than a minute left out, over its rating.",
        ELECTRIC,
    ),
    "supply_peak": Check(
        "current for a moment",
        "gives {} the current that it stands for a moment",
        "The largest current of the supply over its rating for a moment.",
        ELECTRIC,
    ),
    "supply_continuous": Check(
        "current for long",
        "gives {} the current that it stands for long",
        "The root mean square of the supply's current over the day over its continuous rating.",
        ELECTRIC,
    ),
    "supply_voltage": Check(
        "voltage left",
        "has electronics that drop out at {} the lowest voltage",
        "The voltage at which electronics drop out over the lowest of the bus.",
        ELECTRIC,
    ),
    "fuse": Check(
        "fuse",
        "sends through its fuse {} what that is sure to carry",
        "The current that is passed for longer than a time, over what the fuse is sure to carry for that time.",
        FUSES,
    ),
    "gear_tooth": Check(
        "teeth",
        "carries {} what its teeth stand",
        "Force at the teeth with both factors over width, module and form factor; that over what the teeth stand.",
        LEWIS,
    ),
    "belt_force": Check(
        "pull",
        "pulls {} what its width carries",
        "Pull with the application factor, and what the belt's own mass takes, over what its width carries.",
        BELTS,
    ),
    "belt_jump": Check(
        "teeth held down",
        "needs {} the tension that it has, or its teeth jump",
        "What the slack run loses against rest, over the tension that is left there.",
        BELTS,
    ),
    "v_belt_slip": Check(
        "grip",
        "pulls {} what it holds before it slips",
        "The pull over what friction in the groove holds.",
        CAPSTAN,
    ),
    "chain_force": Check(
        "pull",
        "pulls {} what it is allowed",
        "Pull with the application factor, and what the chain's own mass takes, over a fifth of what breaks it.",
        CHAINS,
    ),
    "chain_teeth": Check(
        "teeth of the small sprocket",
        "has fewer teeth than a chain runs well on",
        "Teeth on which a chain runs well, over those of the smaller sprocket.",
        CHAINS,
    ),
    "box_torque": Check(
        "torque",
        "passes {} the torque that it is rated for",
        "Torque at the output, with the application factor, over its rating.",
        APPLIED,
    ),
    "box_speed": Check(
        "input speed",
        "is turned at {} the speed that it is rated for",
        "The fastest speed of its input over the one that its maker allows.",
        GEARING,
    ),
    "shaft_stress": Check(
        "bending and twist",
        "bears {} what it is allowed",
        "Bending and twist together, with the application factor, over half the yield strength.",
        SHAFTS,
    ),
    "brakes": Check(
        "stopping",
        "takes {} the distance in which it has to stop",
        "The way to stand still from top speed, over the distance in which it has to stop.",
        DYNAMICS,
    ),
    "bus_voltage_high": Check(
        "highest voltage",
        "gets {} the voltage that it stands",
        "The highest voltage of the bus, full at rest or driven back, over what its maker allows.",
        ELECTRIC,
    ),
    "wire": Check(
        "wire",
        "sends through its wire {} what that carries for long",
        "The root mean square of the current over the day over what a wire of that area carries.",
        WIRES,
    ),
    "connector": Check(
        "connector",
        "sends through its connector {} what that carries for long",
        "The root mean square of the current over the day over the connector's rating.",
        WIRES,
    ),
    "shaft_fatigue": Check(
        "fatigue",
        "takes {} what it endures turn after turn",
        "Bending that turns round with every turn, and twist, each over what the shaft endures of it.",
        FATIGUE,
    ),
    "key": Check(
        "key",
        "loads its key with {} what that is allowed",
        "Pressure at the sides of the key, or shear along it, over what the softest of shaft, hub and key is allowed.",
        KEYS,
    ),
    "set_screw": Check(
        "set screw",
        "asks of its set screws {} what they hold",
        "Torque with the application factor over what the screws hold at the shaft's surface.",
        HELD,
    ),
    "clamp": Check(
        "clamp",
        "asks of its clamp {} what that holds",
        "Torque with the application factor over what friction makes of the screws' preload.",
        HELD,
    ),
    "press": Check(
        "press fit",
        "asks of its press fit {} what that holds",
        "Torque with the application factor over what its maker says that the fit holds.",
        APPLIED,
    ),
    "bearing_life": Check(
        "life of a bearing",
        "loads a bearing with {} what it bears for as long as it has to last",
        "What the bearing holds, averaged by the cube over the turns of the day, over the load for the wanted life.",
        ROLLING,
    ),
    "radial_load": Check(
        "force across its shaft",
        "is drawn aside with {} what its bearings stand",
        "The force of its first stage across its shaft, with the application factor, over what its maker allows.",
        APPLIED,
    ),
    "axle_stress": Check(
        "axle of a road wheel",
        "bends a wheel's axle to {} what that is allowed",
        "Bending by one and a half times a wheel's share of the weight, and twist, over half the yield strength.",
        SHAFTS,
    ),
    "chain_speed": Check(
        "speed of the small sprocket",
        "turns at {} the speed that it runs well at",
        "The fastest speed of the smaller sprocket over the one at which links strike its teeth too hard.",
        CHAIN_SPEED,
    ),
    "gear_pitting": Check(
        "pressure on the flanks",
        "presses its flanks with {} what they stand",
        "Pressure between the flanks of the worse mesh over what the material stands for a million changes.",
        PITTING,
    ),
    "plate_tilt": Check(
        "plate that leans",
        "leans with its plate by {} what its first stage allows",
        "The slope of the plate under the overhung motor over what its first stage allows.",
        BEAM,
    ),
    "order_of_steps": Check(
        "order of the steps",
        "has a weak step where most is carried",
        "A weak step belongs at the motor's end, where less torque is.",
        APPLIED,
    ),
}


_POWER = "First power with the wheels off the ground, on a firm stand; a fuse or breaker close to the battery."
_HOT = "A hot motor burns skin: let it cool before it is touched. Its maker's limits come first."
_PACK = "Charge lithium packs watched and in a fire-safe place, and never draw more than their maker allows."
_HANDS = "Guards over it, and no hands near it before the battery is disconnected and the motor blocked."
_BRAKES = (
    "Match the brakes before the speed is raised, more so on hills. Helmet and proper ground for anything ridden; "
    "event rules and local law come first."
)
_WIRE = (
    "A wire or connector that is too thin burns: choose the thicker one, and a fuse that it stands. Disconnect the "
    "battery before anything is changed."
)
_AXLE = (
    "A wheel whose axle breaks comes off at speed: look at it for cracks before each run. Event rules and makers' "
    "instructions come first."
)
_SPEED = "Never over its safe speed, and never with its governor defeated; bystanders clear."
CAUTIONS = {
    "motor_peak_current": _POWER,
    "controller_peak": _POWER,
    "controller_continuous": _POWER,
    "winding_temperature": _HOT,
    "mount_softening": _HOT,
    "supply_peak": _PACK,
    "supply_continuous": _PACK,
    "fuse": "Never put in a larger fuse than leads and battery stand.",
    "source_speed": _SPEED,
    "box_speed": _SPEED,
    "gear_tooth": _HANDS,
    "belt_force": _HANDS,
    "belt_jump": _HANDS,
    "v_belt_slip": _HANDS,
    "chain_force": _HANDS,
    "shaft_stress": _HANDS,
    "brakes": _BRAKES,
    "bus_voltage_high": _PACK,
    "wire": _WIRE,
    "connector": _WIRE,
    "shaft_fatigue": _HANDS,
    "key": _HANDS,
    "set_screw": _HANDS,
    "clamp": _HANDS,
    "press": _HANDS,
    "bearing_life": _HANDS,
    "radial_load": _HANDS,
    "axle_stress": _AXLE,
    "chain_speed": _HANDS,
    "gear_pitting": _HANDS,
    "plate_tilt": _HANDS,
}
"""What to mind where a part is near its limit or over it, by check."""
