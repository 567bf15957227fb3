"""From a design to a thing that holds together: what it needs, the steps in their order, and the days to an event."""
