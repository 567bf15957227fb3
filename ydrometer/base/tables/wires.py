"""What wires carry for long (IEC 60204-1, Safety of machinery: Electrical equipment of machines, current-carrying
capacity; PVC at 40 °C, laid free or bundled, as a power law through its values).
"""

from __future__ import annotations

FREE, BUNDLED, POWER = 12.5, 8.0, 0.61
"""A that a wire of 1 mm² carries free and bundled, and the power of the area in mm²."""
INSULATION = {"pvc": 1.0, "silicone": 1.5}
"""How many times that of PVC a wire carries by what it is insulated with."""
INSULATIONS = tuple(INSULATION)
USUAL_INSULATION = "pvc"
