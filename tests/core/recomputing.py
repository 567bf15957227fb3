"""A working worked out once more, from the numbers that it shows and nothing else."""

from typing import Any
from unittest import TestCase

from ydrometer.working import Working
from ydrometer.working.sheet import evaluate


def recomputed(case: TestCase, steps: Working) -> None:
    """From the inputs and the table alone, step by step."""
    known: dict[str, Any] = {entry.symbol: entry.value for entry in steps.inputs}
    known |= {column.symbol: column.values for column in steps.table}
    for step in steps.steps:
        value = evaluate(step.expression, known)
        case.assertAlmostEqual(value, step.value, delta=1e-12 * abs(value))
        if step.check:
            case.assertAlmostEqual(value, known[step.symbol], delta=1e-6 * max(1e-3, abs(value)), msg=step.symbol)
        known[step.symbol] = value
