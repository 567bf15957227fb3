"""Efficiencies to assume where a design gives none, for sound parts, aligned and lubricated.

Middle values of the ranges that texts on machine design give for small drives under load.
"""

EXTERNAL_MESH = 0.97
INTERNAL_MESH = 0.95
BEVEL_MESH = 0.95
PLANETARY_STEP = 0.95
SYNCHRONOUS_BELT = 0.96
V_BELT = 0.93
FRICTION_ROLLER = 0.92
ROLLER_CHAIN = 0.96
GEARBOX = 0.90
SPEEDS = 0.97
