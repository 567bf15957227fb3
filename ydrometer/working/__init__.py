"""Where every number comes from: formula, numbers put in, their provenance, and what lies between a plain
estimate and the full value. Made here as data; the page only sets it in type.
"""

from ydrometer.working.recipes import working
from ydrometer.working.sheet import Working

__all__ = ["Working", "working"]
