"""A whole workshop as one open file, and back: designs with their revisions, the bin, all runs, builds and photos."""
