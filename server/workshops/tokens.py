"""Tokens of a workshop: with one, somebody's own instrument may send readings, and do nothing else."""

from __future__ import annotations

import secrets
from typing import Any

from django.db.models import F
from django.utils import timezone
from drf_spectacular.extensions import OpenApiAuthenticationExtension
from rest_framework.authentication import BaseAuthentication
from rest_framework.exceptions import AuthenticationFailed
from rest_framework.request import Request

from server.accounts import codes
from server.accounts.models import User
from server.config.logs import security
from server.workshops.access import EDITORS, OWNERS, allowed
from server.workshops.models import Membership, Token, Workshop

SCHEME = "Bearer"
PREFIX = "ydro_"


@allowed(OWNERS)
def make(user: User, workshop: Workshop, name: str) -> tuple[Token, str]:
    """A token by a name, and what an instrument sends; that is told only now."""
    secret = PREFIX + secrets.token_urlsafe(32)
    security.info("account %s made token %s of workshop %s", user.pk, name, workshop.pk)
    return Token.objects.create(workshop=workshop, name=name, author=user, secret_hash=codes.hash_of(secret)), secret


@allowed(OWNERS)
def revoke(user: User, token: Token) -> None:
    """Take a token back."""
    token.delete()
    security.info("account %s took token %s of workshop %s back", user.pk, token.name, token.workshop_id)


class TokenAuthentication(BaseAuthentication):
    """Acts as who made the token, as long as they may write in its workshop; the view keeps to that workshop."""

    def authenticate(self, request: Request) -> tuple[User, Token] | None:
        scheme, _, secret = request.headers.get("Authorization", "").partition(" ")
        if scheme != SCHEME:
            return None
        token = Token.objects.select_related("author").filter(secret_hash=codes.hash_of(secret.strip())).first()
        if token is None or not token.author.is_active or not _may_write(token):
            raise AuthenticationFailed("This token does not stand, or no longer: make another one.")
        Token.objects.filter(pk=token.pk).update(used_at=timezone.now(), uses=F("uses") + 1)
        return token.author, token

    def authenticate_header(self, request: Request) -> str:
        return SCHEME


def _may_write(token: Token) -> bool:
    members = Membership.objects.filter(workshop=token.workshop_id, workshop__closed_at__isnull=True)
    return members.filter(user=token.author_id, role__in=EDITORS).exists()


class TokenScheme(OpenApiAuthenticationExtension):
    """How the published schema names it."""

    target_class = "server.workshops.tokens.TokenAuthentication"
    name = "token"

    def get_security_definition(self, auto_schema: Any) -> dict[str, str]:
        return {"type": "http", "scheme": "bearer"}
