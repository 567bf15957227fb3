"""A password that was forgotten: a code from somebody who may give one, and with it a new password, once."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone
from rest_framework import serializers

from server.accounts import codes
from server.accounts.models import ResetCode, User
from server.api.errors import Refused
from server.config.logs import security
from server.entrance import actions, devices, mail
from server.workshops.access import OWNERS, allowed
from server.workshops.models import Membership, Role, Workshop

GONE = {"code": "This link does not stand, or no longer: ask for another one."}
STANDS_FOR = timedelta(hours=24)


def make(user: User, author: User | None = None) -> str:
    """A code with which the user chooses a new password; an earlier one no longer stands. It is told only now."""
    code, code_hash = codes.draw()
    fresh = {"code_hash": code_hash, "author": author, "expires_at": timezone.now() + STANDS_FOR}
    ResetCode.objects.update_or_create(user=user, defaults=fresh)
    security.warning("a new password for account %s may be chosen, given by %s", user.pk, author.pk if author else "-")
    return code


@allowed(OWNERS)
def make_for_member(owner: User, membership: Membership) -> str:
    """As `make`, by an owner of the workshop.

    Whoever brings the code is that member from then on. So it is given only where the owner sees all of theirs anyway.

    Raises:
        Refused: the member has a place in a workshop that is not the owner's, or is the demo's visitor.
    """
    member = membership.user
    if not member.has_usable_password():
        raise Refused("The demo's visitor has no password.")
    if not _sees_all(owner, member):
        sentence = f"{member.username} also works where you are no owner. Whoever looks after this machine can help:"
        raise Refused(f"{sentence} ./ydro reset-password {member.username}")
    return make(member, owner)


def _sees_all(owner: User, member: User) -> bool:
    """Whether an account has nothing but what an owner of a workshop in which it is sees anyway."""
    owned = Membership.objects.filter(user=owner, role=Role.OWNER, user__is_active=True).values("workshop")
    if not member.memberships.filter(workshop__in=owned).exists():
        return False
    elsewhere = member.memberships.exclude(workshop__in=owned).select_related("workshop")
    return all(_is_empty(membership.workshop) for membership in elsewhere)


def _is_empty(workshop: Workshop) -> bool:
    """Whether nothing and nobody else is in it, as in the workshop with which everybody begins."""
    relations = [relation for relation in Workshop._meta.related_objects if relation.related_model is not User]
    managers = [(relation.related_model._default_manager, relation.field.name) for relation in relations]
    return sum(manager.filter(**{name: workshop}).count() for manager, name in managers) == 1  # the one membership


@transaction.atomic
def use(code: str, password: str) -> User:
    """Give the account of a code another password, and sign it out everywhere.

    An owner's right to give one is asked again: the account may have come by more since.

    Raises:
        serializers.ValidationError: the code does not stand, or the password is too weak.
    """
    if "." in code:
        return _by_mail(code, password)
    standing = ResetCode.objects.select_for_update(of=("self",)).filter(
        expires_at__gt=timezone.now(), user__is_active=True
    )
    link = standing.filter(code_hash=codes.hash_of(code)).select_related("user", "author").first()
    if link is None or (link.author is not None and not _sees_all(link.author, link.user)):
        raise serializers.ValidationError(GONE)
    _choose(link.user, password)
    link.delete()
    return link.user


def _by_mail(code: str, password: str) -> User:
    user = mail.user_of(code)
    if user is None:
        raise serializers.ValidationError(GONE)
    _choose(user, password)
    return user


def _choose(user: User, password: str) -> None:
    actions.change_password(user, password)
    devices.end(user, user.devices.all())
    security.info("account %s chose a new password with a link", user.pk)
