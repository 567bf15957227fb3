"""The visitor of the demo signs in with one button; elsewhere this address does not exist."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth import login
from django.http import Http404
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response

from server.accounts.models import User
from server.api.errors import REFUSAL
from server.demo.load import VISITOR
from server.entrance.api import PublicView, SessionSerializer, session


class DemoSignInView(PublicView):
    @extend_schema(request=None, responses={200: SessionSerializer, 404: REFUSAL})
    def post(self, request: Request) -> Response:
        visitor = User.objects.filter(username=VISITOR).first() if settings.DEMO else None
        if visitor is None:
            raise Http404
        login(request, visitor)
        return Response(session(visitor))
