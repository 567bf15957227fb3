"""The bin: what parts there are, as types, as a table to type in, and as files."""
