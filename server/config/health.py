"""Whether the application lives, and whether it can do its work."""

from __future__ import annotations

import shutil

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from server.config.migrations import waiting

LEAST_ROOM = 200_000_000
"""Bytes."""


@require_safe
@never_cache
def alive(request: HttpRequest) -> JsonResponse:
    """It answers."""
    return JsonResponse({"alive": True})


@require_safe
@never_cache
def ready(request: HttpRequest) -> JsonResponse:
    """The database answers, is as this version wants it, and the disks have room; 503 where not."""
    try:
        late = waiting(MigrationExecutor(connection))
    except DatabaseError:
        return JsonResponse({"ready": False, "detail": "The database does not answer."}, status=503)
    if late:
        return JsonResponse({"ready": False, "detail": "The database waits for a migration."}, status=503)
    left = room()
    if left < LEAST_ROOM:
        megabytes = f"{left // 1_000_000:,} MB"
        return JsonResponse({"ready": False, "detail": f"The disk is nearly full: {megabytes} are left."}, status=503)
    return JsonResponse({"ready": True})


def room() -> int:
    """Bytes that are left on the fullest disk that is written to."""
    return min(shutil.disk_usage(disk).free for disk in settings.DISKS)
