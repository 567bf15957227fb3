"""What a design becomes by a part of the bin that it takes: the one rule, which page, search and parts list ask."""

from ydrometer.taking.changes import Changes, applied, changes, once_values, whole_stage
from ydrometer.taking.exchange import exchanged
from ydrometer.taking.sources import branch_with, with_source
from ydrometer.taking.wheels import pair_values

__all__ = [
    "Changes",
    "applied",
    "branch_with",
    "changes",
    "exchanged",
    "once_values",
    "pair_values",
    "whole_stage",
    "with_source",
]
