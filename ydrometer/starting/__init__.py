"""Where somebody begins who has nothing yet: whole designs to start from, and a few questions in plain words."""
