"""Who may see and change what. What somebody may not see does not exist for them."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Any, TypeVar, cast
from uuid import UUID

from django.db.models import Model, QuerySet
from django.http import Http404
from rest_framework.exceptions import PermissionDenied
from rest_framework.request import Request

from server.accounts.models import User
from server.workshops.models import Membership, Role, Workshop

M = TypeVar("M", bound=Model)
F = TypeVar("F", bound=Callable[..., Any])

READERS = (Role.OWNER, Role.EDITOR, Role.VIEWER)
EDITORS = (Role.OWNER, Role.EDITOR)
OWNERS = (Role.OWNER,)


def acting(request: Request) -> User:
    """The user who acts; permission classes have let nobody else in."""
    return cast(User, request.user)


def workshop_of(place: Any) -> UUID:
    """The id of the workshop that something belongs to: a workshop itself, what has one, or what a vehicle has."""
    if isinstance(place, Workshop):
        return place.pk
    workshop: UUID = place.workshop_id if hasattr(place, "workshop_id") else place.vehicle.workshop_id
    return workshop


def standing(user: User | None) -> QuerySet[Membership]:
    """Somebody's memberships of the workshops that are seen: open ones, and whole ones."""
    return Membership.objects.filter(user=user, workshop__closed_at__isnull=True, workshop__coming=False)


def need(user: User, place: Any, roles: tuple[Role, ...], *, closed: bool = False) -> None:
    """Let an action go on only for those who may do it.

    Args:
        user: who acts.
        place: a workshop, or what belongs to one.
        roles: that may.
        closed: whether the workshop may be a closed one.

    Raises:
        Http404, PermissionDenied: as `workshop_for`.
    """
    of_user = Membership.objects.filter(workshop_id=workshop_of(place), user=user)
    membership = (of_user if closed else of_user.filter(workshop__closed_at__isnull=True)).first()
    if membership is None:
        raise Http404
    _in_role(membership, roles)


def may(user: User | None, place: Any, roles: tuple[Role, ...]) -> bool:
    """Whether somebody may do something, for what goes on by itself long after they have asked for it."""
    return user is not None and standing(user).filter(workshop_id=workshop_of(place), role__in=roles).exists()


def allowed(roles: tuple[Role, ...], *, closed: bool = False) -> Callable[[F], F]:
    """Make an action check its actor before it does anything, so that no view can forget it.

    The action is told who acts first, and then what is changed: a workshop, or what belongs to one.

    Args:
        roles: that may.
        closed: whether the workshop may be a closed one.
    """

    def around(action: F) -> F:
        @wraps(action)
        def checked(user: User, place: Any, *args: Any, **kwargs: Any) -> Any:
            need(user, place, roles, closed=closed)
            return action(user, place, *args, **kwargs)

        return cast(F, checked)

    return around


def workshop_for(user: User, workshop: UUID, roles: tuple[Role, ...] = READERS) -> Workshop:
    """The workshop, where the user is a member of one of the roles.

    Raises:
        Http404: it is not theirs to see.
        PermissionDenied: they see it, but may not do this.
    """
    membership = standing(user).filter(workshop_id=workshop).select_related("workshop").first()
    if membership is None:
        raise Http404
    return _in_role(membership, roles).workshop


def closed_workshop_for(user: User, workshop: UUID) -> Workshop:
    """A workshop, closed or not, where the user is an owner.

    Raises:
        Http404, PermissionDenied: as `workshop_for`.
    """
    mine = Membership.objects.filter(workshop_id=workshop, user=user, workshop__coming=False)
    membership = mine.select_related("workshop").first()
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
    mine = query.filter(workshop__in=standing(user).values("workshop"))
    row = mine.filter(**which).first()
    if row is None:
        raise Http404
    workshop_for(user, row.workshop_id, roles)  # type: ignore[attr-defined]
    return row
