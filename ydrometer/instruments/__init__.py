"""What instruments say, one reading a line: counters, light gates, a spring scale, a logger; a bench to practise on.

`lines` reads the lines, `findings` makes readings of runs out of them, `rig` is a simulated bench that speaks them.
"""
