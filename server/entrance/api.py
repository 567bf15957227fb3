"""Signing up, in and out, changing the password, and whose bench one stands at."""

from __future__ import annotations

from typing import Any, cast

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.exceptions import NotAuthenticated
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.validators import UniqueValidator
from rest_framework.views import APIView

from server.accounts import patience
from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, SIGNED_OUT, TOO_MANY, Refused
from server.api.requests import read
from server.config.logs import security
from server.entrance import actions, devices
from server.entrance.sure import confirm
from server.workshops import access


class CredentialsSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class SignUpSerializer(CredentialsSerializer):
    username = serializers.CharField(
        max_length=150,
        validators=[
            UnicodeUsernameValidator(),
            UniqueValidator(User.objects.all(), "That name is taken.", lookup="iexact"),
        ],
    )


class PasswordSerializer(serializers.Serializer[Any]):
    current = serializers.CharField(max_length=200, trim_whitespace=False)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class DeletingSerializer(serializers.Serializer[Any]):
    """The password again, to be sure who asks."""

    password = serializers.CharField(max_length=200, trim_whitespace=False)


class BenchSerializer(serializers.Serializer[Any]):
    workshop = serializers.UUIDField()


class SessionSerializer(serializers.Serializer[Any]):
    """Who is signed in, if anybody; whether this is the demo, and they its visitor, who has no password; whether the
    server can send mail.
    """

    username = serializers.CharField(allow_null=True)
    demo = serializers.BooleanField()
    mail = serializers.BooleanField()
    visitor = serializers.BooleanField()


def session(user: User | None) -> dict[str, Any]:
    visitor = user is not None and not user.has_usable_password()
    return {
        "username": user.username if user else None,
        "demo": settings.DEMO,
        "mail": bool(settings.EMAIL_HOST),
        "visitor": visitor,
    }


class PublicView(APIView):
    """Open to those not signed in; Django's token is asked for all the same."""

    permission_classes = (AllowAny,)

    @method_decorator(csrf_protect)
    def dispatch(self, *args: Any, **kwargs: Any) -> Any:
        return super().dispatch(*args, **kwargs)


class SessionView(PublicView):
    @method_decorator(ensure_csrf_cookie)
    @extend_schema(responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        user = request.user if isinstance(request.user, User) else None
        if user is not None:
            devices.note(request, user)
        return Response(session(user))

    @extend_schema(request=BenchSerializer, responses={204: None, **BAD, **HIDDEN})
    def patch(self, request: Request) -> Response:
        """Says whose bench is before the user now: the next visit begins there."""
        if not request.user.is_authenticated:
            raise NotAuthenticated
        workshop = access.workshop_for(access.acting(request), read(BenchSerializer, request)["workshop"])
        actions.stand_at(access.acting(request), workshop)
        return Response(status=status.HTTP_204_NO_CONTENT)


class SignUpView(PublicView):
    @extend_schema(request=SignUpSerializer, responses={201: SessionSerializer, **BAD, **TOO_MANY})
    def post(self, request: Request) -> Response:
        # Counted before the form is looked at, which tells whether a name is taken.
        patience.count((patience.SIGN_UP, patience.address_of(request)))
        form = SignUpSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        with patience.hashing():
            user = actions.sign_up(**form.validated_data)
        patience.signed_in(user.username, patience.address_of(request))
        login(request, user)
        devices.note(request, user)
        security.info("account %s signed up", user.pk)
        return Response(session(user), status=status.HTTP_201_CREATED)


class SignInView(PublicView):
    @extend_schema(request=CredentialsSerializer, responses={200: SessionSerializer, **BAD, **TOO_MANY})
    def post(self, request: Request) -> Response:
        form = CredentialsSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        name, address = form.validated_data["username"], patience.address_of(request)
        patience.count_sign_in(name, address)
        with patience.hashing():
            user = authenticate(request, **form.validated_data)
        if user is None:
            security.warning("sign-in failed from %s", address)
            raise serializers.ValidationError({"password": "This name and password do not belong together."})
        patience.signed_in(name, address)
        login(request, user)
        devices.note(request, user)
        security.info("account %s signed in", user.pk)
        return Response(session(user))


class SignOutView(APIView):
    @extend_schema(request=None, responses={204: None, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        devices.end(
            access.acting(request), access.acting(request).devices.filter(session_key=request.session.session_key)
        )
        logout(request)
        return Response(status=status.HTTP_204_NO_CONTENT)


class PasswordView(APIView):
    @extend_schema(request=PasswordSerializer, responses={204: None, **BAD, **SIGNED_OUT, **TOO_MANY})
    def post(self, request: Request) -> Response:
        user = cast(User, request.user)
        form = PasswordSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        confirm(user, form.validated_data["current"], "current")
        with patience.hashing():
            actions.change_password(user, form.validated_data["password"])
        devices.end(user, user.devices.exclude(session_key=request.session.session_key))
        update_session_auth_hash(request, user)
        devices.note(request, user)
        security.info("account %s changed its password", user.pk)
        return Response(status=status.HTTP_204_NO_CONTENT)


class DeletingView(APIView):
    @extend_schema(request=DeletingSerializer, responses={204: None, **BAD, **SIGNED_OUT, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """Deletes the account, and all that is only theirs."""
        user = access.acting(request)
        if not user.has_usable_password():
            raise Refused("The demo's visitor stays: everybody who looks in shares this account.")
        confirm(user, read(DeletingSerializer, request)["password"])
        actions.delete_account(user)
        logout(request)
        return Response(status=status.HTTP_204_NO_CONTENT)
