"""Gears, loops and chains in the plane: pure functions of their sizes, in metres and radians."""
