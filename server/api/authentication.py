"""Django's sessions, answering 401 where nobody is signed in."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.cache import caches
from drf_spectacular.extensions import OpenApiAuthenticationExtension
from rest_framework import authentication
from rest_framework.request import Request


class SessionAuthentication(authentication.SessionAuthentication):
    def authenticate_header(self, request: Request) -> str:
        return "Session"


class RecentSession(SessionAuthentication):
    """The same without a look into the database for some seconds after one.

    For what is asked at typing speed, is answered from the request alone, and keeps nothing: somebody whose session has
    been ended meanwhile learns no more from it than from their own design.
    """

    def authenticate(self, request: Request) -> tuple[Any, None] | None:
        key = request.COOKIES.get(settings.SESSION_COOKIE_NAME)
        user = caches["recent"].get(key) if key else None
        if user is not None:
            self.enforce_csrf(request)
            return user, None
        signed_in: tuple[Any, None] | None = super().authenticate(request)
        if signed_in is not None and key:
            caches["recent"].set(key, signed_in[0])
        return signed_in


class SessionScheme(OpenApiAuthenticationExtension):
    """How the published schema names it."""

    target_class = "server.api.authentication.SessionAuthentication"
    name = "session"

    def get_security_definition(self, auto_schema: Any) -> dict[str, str]:
        return {"type": "apiKey", "in": "cookie", "name": settings.SESSION_COOKIE_NAME}


class RecentScheme(SessionScheme):
    """The same cookie."""

    target_class = "server.api.authentication.RecentSession"
    name = "recent session"
