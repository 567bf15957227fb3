"""How far assumed values are usually off, as one standard deviation, by the last key of their path.

A share of the value, or of the loss for efficiencies: halves of the ranges that texts on machine design and on
vehicle dynamics give for the same part or ground.
"""

OF_THE_VALUE = {
    "rolling_resistance": 0.25,
    "grip": 0.12,
    "creep": 0.3,
    "slip": 0.3,
    "friction": 0.15,
    "cg_height": 0.08,
    "drag_area": 0.2,
}
OF_THE_LOSS = {"efficiency": 0.3}
OTHER = 0.05
"""Of whatever else is marked as assumed."""
