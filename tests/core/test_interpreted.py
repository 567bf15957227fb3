"""Kernels as plain Python: the same results as compiled, in a process of its own, since that is chosen at its start."""

from __future__ import annotations

import math
import os
import subprocess
import sys
from pathlib import Path
from unittest import TestCase

from ydrometer.base import jit

ROOT = Path(__file__).parents[2]
ALSO_SO = ("tests.core.test_currents", "tests.core.test_motion.Balances")
"""Tests of motion against an independent reference that are quick in either way."""


@jit.entry
def quotient(dividend: float, divisor: float) -> float:
    """As kernels have it."""
    return jit.over(dividend, divisor)


class Interpreted(TestCase):
    def test_the_same_tests_hold(self) -> None:
        environment = {**os.environ, "YDROMETER_INTERPRET": "1", "PYTHONPATH": str(ROOT)}
        command = [sys.executable, "-m", "unittest", *ALSO_SO]
        done = subprocess.run(command, env=environment, cwd=ROOT, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])

    def test_a_quotient_is_that_of_compiled_kernels(self) -> None:
        values = (0.0, -0.0, 1.0, -1.0, 2.5, math.inf, -math.inf, math.nan)
        for dividend in values:
            for divisor in values:
                compiled, plain = quotient(dividend, divisor), jit.divided(dividend, divisor)
                with self.subTest(dividend=dividend, divisor=divisor):
                    self.assertTrue(compiled == plain or (math.isnan(compiled) and math.isnan(plain)))
