"""The command line, and what a process does before its first request."""
