"""The page: one document, which routes itself."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

EVERYWHERE = ("/api/session/", "/api/vocabulary/")
"""What every screen asks for first."""
ON_THE_BENCH = ("/api/workshops/",)
"""What the bench of somebody who is signed in asks for next."""


@require_safe
@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The built page, with the cookie its first writing request will need, and what its scripts will ask for first: the
    browser asks for that while the scripts are read.
    """
    answer = render(request, "index.html")
    bench = request.path == "/" and settings.SESSION_COOKIE_NAME in request.COOKIES
    addresses = EVERYWHERE + ON_THE_BENCH if bench else EVERYWHERE
    answer.headers["Link"] = ", ".join(f"<{address}>; rel=preload; as=fetch; crossorigin" for address in addresses)
    return answer
