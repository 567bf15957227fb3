"""Efficiencies to assume where a design gives none, for sound parts, aligned and lubricated.

Middle values of the ranges that machine-design texts give for small drives under load
(Niemann/Winter, Maschinenelemente, vol. 2 and 3; Shigley, Mechanical Engineering Design, ch. 13 and 17).
"""

EXTERNAL_MESH = 0.97
INTERNAL_MESH = 0.95
SYNCHRONOUS_BELT = 0.96
ROLLER_CHAIN = 0.96
GEARBOX = 0.90
