"""What gets hot, slips, bends or breaks: demands of start, shove, turn and day against what parts stand."""
