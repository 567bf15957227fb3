"""How vehicles move: currents, forces, the run from rest, and the measures drawn from it.

The functions marked `kernel` are kernels: one design (a `Plant`), one gear, one speed, plain floats in SI.
`measures` passes batches of designs through them.
"""
