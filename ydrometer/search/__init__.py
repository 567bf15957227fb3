"""Looking through all combinations of parts that a request allows, exactly."""

from ydrometer.search.answer import answer
from ydrometer.search.request import LARGEST, SearchRequest, read_request

__all__ = ["LARGEST", "SearchRequest", "answer", "read_request"]
