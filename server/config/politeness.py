"""How far what takes long steps back behind what is answered at once."""

POLITENESS = 10
"""As `nice` counts it, from 0 to 19."""
