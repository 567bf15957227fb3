"""What the server counts of itself, as text for Prometheus, told to this machine alone.

The processes of one server count each for themselves into files of one folder; where PROMETHEUS_MULTIPROC_DIR names
none, each process tells of itself.
"""

from __future__ import annotations

import os
import time
from collections.abc import Callable, Iterator

from django.db import DatabaseError, connection
from django.http import HttpRequest, HttpResponse, HttpResponseBase, HttpResponseNotFound
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.core import GaugeMetricFamily, Metric
from prometheus_client.multiprocess import MultiProcessCollector
from prometheus_client.registry import Collector

HERE = frozenset({"127.0.0.1", "::1"})
BOUNDS_S = (0.005, 0.01, 0.02, 0.03, 0.05, 0.08, 0.12, 0.2, 0.3, 0.5, 1.0, 2.0, 5.0, 10.0)

OPEN = ("waiting", "running")
"""States of a search that is not over."""
Respond = Callable[[HttpRequest], HttpResponseBase]

requests = Counter("ydrometer_requests", "Requests answered.", ["route", "method", "status"])
seconds = Histogram("ydrometer_request_seconds", "Time to answer a request.", ["route"], buckets=BOUNDS_S)


def count_requests(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Counts each request under its route; ids of vehicles and people are never part of it."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        begun = time.perf_counter()
        response = get_response(request)
        route = getattr(request.resolver_match, "route", None) or "elsewhere"
        requests.labels(route, request.method, response.status_code).inc()
        seconds.labels(route).observe(time.perf_counter() - begun)
        return response

    return respond


@require_safe
@never_cache
def metrics(request: HttpRequest) -> HttpResponse:
    """Requests, evaluation times (the routes live and sweep), the row of searches, and the database."""
    if request.META.get("REMOTE_ADDR") not in HERE:
        return HttpResponseNotFound()
    registry = _counted()
    registry.register(_Database())
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)


def _counted() -> CollectorRegistry:
    registry = CollectorRegistry()
    if "PROMETHEUS_MULTIPROC_DIR" in os.environ:
        MultiProcessCollector(registry)
    else:
        registry.register(requests)
        registry.register(seconds)
    return registry


class _Database(Collector):
    """What is asked of the database when somebody wants to know."""

    def collect(self) -> Iterator[Metric]:
        """Each number once, whichever process is asked."""
        begun = time.perf_counter()
        try:
            with connection.cursor() as cursor:
                cursor.execute(
                    "select state, count(*) from searches_search where state = any(%s) group by 1", [list(OPEN)]
                )
                searches = dict(cursor.fetchall())
                cursor.execute("select pg_database_size(current_database())")
                (size,) = cursor.fetchone()
        except DatabaseError:
            yield GaugeMetricFamily("ydrometer_database_up", "Whether the database answers.", 0)
            return
        taken = time.perf_counter() - begun
        yield GaugeMetricFamily("ydrometer_database_up", "Whether the database answers.", 1)
        yield GaugeMetricFamily("ydrometer_database_answer_seconds", "Time of two questions to it.", taken)
        yield GaugeMetricFamily("ydrometer_database_bytes", "Size of the database.", size)
        for state in OPEN:
            about = f"Searches that are {state}."
            yield GaugeMetricFamily(f"ydrometer_searches_{state}", about, searches.get(state, 0))
