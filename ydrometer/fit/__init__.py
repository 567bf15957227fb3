"""Shapes in the plane: whether the parts go together."""
