"""Whether the application lives, and whether it can do its work."""

from __future__ import annotations

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from server.config.migrations import waiting


@require_safe
@never_cache
def alive(request: HttpRequest) -> JsonResponse:
    """It answers."""
    return JsonResponse({"alive": True})


@require_safe
@never_cache
def ready(request: HttpRequest) -> JsonResponse:
    """The database answers, and is as this version wants it; 503 where not."""
    try:
        late = waiting(MigrationExecutor(connection))
    except DatabaseError:
        return JsonResponse({"ready": False, "detail": "The database does not answer."}, status=503)
    if late:
        return JsonResponse({"ready": False, "detail": "The database waits for a migration."}, status=503)
    return JsonResponse({"ready": True})
