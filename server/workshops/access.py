"""Who may see and change what. What somebody may not see does not exist for them."""

from __future__ import annotations

from typing import TypeVar, cast
from uuid import UUID

from django.db.models import Model, QuerySet
from django.http import Http404
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request

from server.accounts.models import User
from server.workshops.models import Membership, Role, Workshop

M = TypeVar("M", bound=Model)

READERS = (Role.OWNER, Role.EDITOR, Role.VIEWER)
EDITORS = (Role.OWNER, Role.EDITOR)
OWNERS = (Role.OWNER,)


def acting(request: Request) -> User:
    """The user who acts; permission classes have let nobody else in."""
    return cast(User, request.user)


def workshop_for(user: User, workshop: UUID, roles: tuple[Role, ...] = READERS) -> Workshop:
    """The workshop, where the user is a member of one of the roles.

    Raises:
        Http404: it is not theirs to see.
        PermissionDenied: they see it, but may not do this.
    """
    mine = Membership.objects.filter(workshop_id=workshop, user=user, workshop__closed_at__isnull=True)
    membership = mine.select_related("workshop").first()
    if membership is None:
        raise Http404
    return _in_role(membership, roles).workshop


def closed_workshop_for(user: User, workshop: UUID) -> Workshop:
    """A workshop, closed or not, where the user is an owner.

    Raises:
        Http404, PermissionDenied: as `workshop_for`.
    """
    membership = Membership.objects.filter(workshop_id=workshop, user=user).select_related("workshop").first()
    if membership is None:
        raise Http404
    return _in_role(membership, OWNERS).workshop


def _in_role(membership: Membership, roles: tuple[Role, ...]) -> Membership:
    if membership.role not in roles:
        raise PermissionDenied(f"This takes an {' or '.join(roles)}; you are {membership.role} of this workshop.")
    return membership


def belonging(query: QuerySet[M], user: User, roles: tuple[Role, ...] = READERS, **which: object) -> M:
    """The one object of a query over things with a `workshop`, where the user may do this with it.

    Raises:
        Http404, PermissionDenied: as `workshop_for`.
    """
    mine = query.filter(workshop__memberships__user=user, workshop__closed_at__isnull=True)
    found = mine.filter(**which).first()
    if found is None:
        raise Http404
    workshop_for(user, found.workshop_id, roles)  # type: ignore[attr-defined]
    return found
