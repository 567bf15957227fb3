"""Setting up, serving, testing and keeping safe: the commands of ./ydro. Standard library only."""
