"""The design document: what a builder has decided, as frozen types in SI; its names, changes and differences."""
