"""Draws for hypothesis that change with a test alone, not with unrelated edits of the source.

Hypothesis mixes numbers that it finds in the project's own modules into what it draws. That helps to explore, but a
constant changed in one module would then change the examples of every test. What matters is pinned by explicit
examples.
"""

from __future__ import annotations

from functools import cached_property
from typing import Any

from hypothesis import settings
from hypothesis.internal.conjecture.providers import AVAILABLE_PROVIDERS, HypothesisProvider
from hypothesis.internal.constants_ast import Constants


class SteadyProvider(HypothesisProvider):
    """Hypothesis's own provider without the numbers of the project's modules."""

    @cached_property
    def _local_constants(self) -> Any:
        return Constants()


def use() -> None:
    """Draw so in every test, from seeds that hang on the test's own text."""
    AVAILABLE_PROVIDERS["steady"] = f"{__name__}.{SteadyProvider.__qualname__}"
    settings.register_profile("steady", settings.get_profile("ci"), backend="steady")
    settings.load_profile("steady")
