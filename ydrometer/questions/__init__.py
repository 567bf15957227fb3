"""Questions that take many evaluations of a design, and the measuring aids."""
