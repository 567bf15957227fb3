"""Exercises that teach what a builder must not get wrong: drawn fresh from a seed, answered by the core itself."""

from ydrometer.practice.exercise import Exercise, exercise
from ydrometer.practice.judge import Judgement, judge
from ydrometer.practice.kinds import IDEAS, KINDS

__all__ = ["IDEAS", "KINDS", "Exercise", "Judgement", "exercise", "judge"]
