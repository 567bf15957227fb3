"""Shapes in the plane: what goes together, how far apart, and how it is set."""
