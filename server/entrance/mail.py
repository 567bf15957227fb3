"""A forgotten password by e-mail, where the server can send any: Django's own form and tokens."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.forms import PasswordResetForm
from django.contrib.auth.tokens import default_token_generator
from django.http import Http404
from django.utils.http import urlsafe_base64_decode
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts import patience
from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, SIGNED_OUT, TOO_MANY
from server.api.requests import read
from server.entrance.api import PublicView
from server.entrance.sure import confirm
from server.workshops.access import acting


class ForgottenSerializer(serializers.Serializer[Any]):
    email = serializers.EmailField()


class KnownEmailSerializer(serializers.Serializer[Any]):
    """Empty where none is known."""

    email = serializers.CharField(allow_blank=True)


class EmailSerializer(serializers.Serializer[Any]):
    """An empty address takes it away. The password again, for whoever reads the mail can choose a new one."""

    email = serializers.EmailField(allow_blank=True)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class ForgottenView(PublicView):
    @extend_schema(request=ForgottenSerializer, responses={204: None, **BAD, **HIDDEN, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """Sends a link to the accounts with this address. The answer does not tell whether there are any."""
        if not settings.EMAIL_HOST:
            raise Http404
        patience.count((patience.RESET, patience.address_of(request)))
        form = PasswordResetForm(read(ForgottenSerializer, request))
        if form.is_valid():
            form.save(request=request._request, use_https=request.is_secure())
        return Response(status=status.HTTP_204_NO_CONTENT)


class EmailView(APIView):
    @extend_schema(responses={200: KnownEmailSerializer, **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        """Where a link for a new password is sent."""
        return Response({"email": acting(request).email})

    @extend_schema(request=EmailSerializer, responses={204: None, **BAD, **SIGNED_OUT, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """Another address."""
        user, body = acting(request), read(EmailSerializer, request)
        confirm(user, body["password"])
        user.email = body["email"]
        user.save(update_fields=["email"])
        return Response(status=status.HTTP_204_NO_CONTENT)


def user_of(code: str) -> User | None:
    """The account that a link from a mail is for, where it still stands: until it was used, or for a day."""
    uid, _, token = code.partition(".")
    try:
        number = int(urlsafe_base64_decode(uid))
    except ValueError:
        return None
    user = User.objects.filter(pk=number, is_active=True).first()
    return user if user is not None and default_token_generator.check_token(user, token) else None
