"""Test runs: what was measured beside what was predicted, and what that teaches about the losses.

`runs_file` reads them, `kinds` say what the model makes of each kind, `case` and `unknowns` make designs with other
losses, `fit` finds the most likely ones, `calibrate` tells what comes out.
"""
