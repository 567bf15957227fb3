"""The page: one document, which routes itself."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import cache

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.template.loader import get_template
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from server.workshops.api import mine

EVERYWHERE = ("/api/session/", "/api/vocabulary/")
"""What every screen asks for first."""
ON_THE_BENCH = ("/api/workshops/", "/api/workshops/{}/vehicles/", "/api/workshops/{}/cards/")
"""What the bench of somebody who is signed in asks for next, of the workshop at hand."""


@cache
def version() -> str:
    """The name of the page's first script. It changes with anything in the page; a page that is open knows its own."""
    source = get_template("index.html").render()
    match = re.search(r'src="[^"]*/(index-[^"/]+)\.js"', source)
    return match[1] if match else ""


@require_safe
@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The built page, with the cookie its first writing request will need, and what its scripts will ask for first: the
    browser asks for that while the scripts are read.
    """
    answer = render(request, "index.html")
    addresses = [*EVERYWHERE, *(_of_the_bench(request) if request.path == "/" else ())]
    answer.headers["Link"] = ", ".join(f"<{address}>; rel=preload; as=fetch; crossorigin" for address in addresses)
    return answer


def _of_the_bench(request: HttpRequest) -> Iterator[str]:
    if not request.user.is_authenticated:
        return
    for membership in mine(request.user)[:1]:
        for address in ON_THE_BENCH:
            yield address.format(membership.workshop_id)
