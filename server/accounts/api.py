"""Signing up, in and out, and changing the password."""

from __future__ import annotations

from typing import Any, cast

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.validators import UniqueValidator
from rest_framework.views import APIView

from server.accounts import actions
from server.accounts.models import User
from server.api.errors import BAD, SIGNED_OUT, TOO_MANY


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


class SessionSerializer(serializers.Serializer[Any]):
    """Who is signed in, if anybody, and whether this is the demo."""

    username = serializers.CharField(allow_null=True)
    demo = serializers.BooleanField()


def session(user: User | None) -> dict[str, Any]:
    return {"username": user.username if user else None, "demo": settings.DEMO}


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
        return Response(session(request.user if isinstance(request.user, User) else None))


class SignUpView(PublicView):
    throttle_classes = (ScopedRateThrottle,)
    throttle_scope = "sign-in"

    @extend_schema(request=SignUpSerializer, responses={201: SessionSerializer, **BAD, **TOO_MANY})
    def post(self, request: Request) -> Response:
        form = SignUpSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        user = actions.sign_up(**form.validated_data)
        login(request, user)
        return Response(session(user), status=status.HTTP_201_CREATED)


class SignInView(PublicView):
    throttle_classes = (ScopedRateThrottle,)
    throttle_scope = "sign-in"

    @extend_schema(request=CredentialsSerializer, responses={200: SessionSerializer, **BAD, **TOO_MANY})
    def post(self, request: Request) -> Response:
        form = CredentialsSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        user = authenticate(request, **form.validated_data)
        if user is None:
            raise serializers.ValidationError({"password": "This name and password do not belong together."})
        login(request, user)
        return Response(session(user))


class SignOutView(APIView):
    @extend_schema(request=None, responses={204: None, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        logout(request)
        return Response(status=status.HTTP_204_NO_CONTENT)


class PasswordView(APIView):
    @extend_schema(request=PasswordSerializer, responses={204: None, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        user = cast(User, request.user)
        form = PasswordSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        if not user.check_password(form.validated_data["current"]):
            raise serializers.ValidationError({"current": "This is not the present password."})
        actions.change_password(user, form.validated_data["password"])
        update_session_auth_hash(request, user)
        return Response(status=status.HTTP_204_NO_CONTENT)
