"""How vehicles move: currents, forces, the run from rest, and the measures drawn from it."""
