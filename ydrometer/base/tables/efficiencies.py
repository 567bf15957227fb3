"""Efficiencies to assume where a design gives none, for sound parts, aligned and lubricated.

Chosen in the middle of the ranges for small drives under load in Budynas and Nisbett, Shigley's Mechanical Engineering
Design, chapter 13 (gears, worms) and chapter 17 (belts, chains); docs/model.md lists them. Slip is not part of them.
"""

EXTERNAL_MESH = 0.97
INTERNAL_MESH = 0.98
BEVEL_MESH = 0.95
PLANETARY_STEP = 0.95
SYNCHRONOUS_BELT = 0.96
V_BELT = 0.93
FRICTION_ROLLER = 0.92
ROLLER_CHAIN = 0.96
GEARBOX = 0.90
CYCLOIDAL = 0.85
"""Plain pins; with rollers on them some 0.9 (Sensinger, Unified approach to cycloid drive profile, stress, and
efficiency optimization, Journal of Mechanical Design 132, 2010)."""
STRAIN_WAVE = 0.75
SPEEDS = 0.97
