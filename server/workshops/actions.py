"""Changes to workshops, their members and invitations; each is told who acts."""

from __future__ import annotations

from datetime import timedelta

from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone
from rest_framework import serializers

from server.accounts import codes
from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import MOST_WORKSHOPS
from server.api.quotas import need_room
from server.config.logs import security
from server.workshops.access import OWNERS, allowed, need
from server.workshops.models import Invitation, Membership, Role, Workshop

OPEN_FOR = timedelta(days=14)
"""How long an invitation stands."""


@transaction.atomic
def create_workshop(user: User, name: str) -> Workshop:
    """A new workshop owned by the user."""
    codes.end_given(user)
    workshop = Workshop.objects.create(name=name)
    Membership.objects.create(workshop=workshop, user=user, role=Role.OWNER)
    return workshop


def need_room_for_another(user: User) -> None:
    """Refuse one workshop more than an account may own.

    Raises:
        Full: it owns that many.
    """
    owned = Membership.objects.filter(user=user, role=Role.OWNER).count()
    need_room("workshops", owned, MOST_WORKSHOPS)


@allowed(OWNERS)
def rename_workshop(user: User, workshop: Workshop, name: str) -> None:
    """Give the workshop another name."""
    workshop.name = name
    workshop.save(update_fields=["name"])


@allowed(OWNERS)
def close_workshop(user: User, workshop: Workshop, name: str) -> None:
    """Close a workshop: it goes out of everybody's sight, and nothing of it is lost.

    Raises:
        serializers.ValidationError: the name, which is typed to be sure, is another.
    """
    if name.strip() != workshop.name.strip():
        raise serializers.ValidationError({"name": f'To close it, type its name: "{workshop.name}".'})
    workshop.closed_at = timezone.now()
    workshop.save(update_fields=["closed_at"])
    security.info("account %s closed workshop %s", user.pk, workshop.pk)


@allowed(OWNERS, closed=True)
def open_again(user: User, workshop: Workshop) -> None:
    """Open a closed workshop."""
    workshop.closed_at = None
    workshop.save(update_fields=["closed_at"])
    security.info("account %s opened workshop %s again", user.pk, workshop.pk)


@allowed(OWNERS, closed=True)
def erase_workshop(user: User, workshop: Workshop, name: str) -> None:
    """Take a closed workshop away for good, with everything in it.

    Raises:
        serializers.ValidationError: the name, which is typed to be sure, is another.
        Refused: it is open.
    """
    if workshop.closed_at is None:
        raise Refused("It is open: close it first. A closed workshop can be opened again, an erased one cannot.")
    if name.strip() != workshop.name.strip():
        raise serializers.ValidationError({"name": f'To erase it, type its name: "{workshop.name}".'})
    security.warning("account %s erased workshop %s", user.pk, workshop.pk)
    workshop.delete()


@allowed(OWNERS)
def invite(user: User, workshop: Workshop, role: Role, username: str = "") -> tuple[Invitation, str]:
    """Ask an account by name to join, or make a code that one person can join with; the code is told only now.

    Raises:
        serializers.ValidationError: no such account, or a member already.
    """
    expires = timezone.now() + OPEN_FOR
    if not username:
        code, code_hash = codes.draw()
        invitation = Invitation.objects.create(
            workshop=workshop, role=role, code_hash=code_hash, author=user, expires_at=expires
        )
        return invitation, code
    to = User.objects.filter(username__iexact=username, is_active=True).first()
    if to is None:
        raise serializers.ValidationError({"username": f'There is no account named "{username}".'})
    if workshop.memberships.filter(user=to).exists():
        raise serializers.ValidationError({"username": f"{to.username} is a member already."})
    invitation, _ = Invitation.objects.update_or_create(
        workshop=workshop, to=to, defaults={"role": role, "author": user, "expires_at": expires}
    )
    return invitation, ""


def withdraw(user: User, invitation: Invitation) -> None:
    """Take an invitation back, or decline one's own."""
    if invitation.to_id != user.pk:
        need(user, invitation, OWNERS)
    invitation.delete()


def standing() -> QuerySet[Invitation]:
    """Invitations that can still be accepted."""
    return Invitation.objects.filter(expires_at__gt=timezone.now(), workshop__closed_at__isnull=True)


def by_code(code: str) -> Invitation | None:
    """The invitation that a code belongs to, where it still stands."""
    return standing().filter(code_hash=codes.hash_of(code)).select_related("workshop", "author").first()


@transaction.atomic
def accept(user: User, invitation: Invitation) -> Membership:
    """Become a member; the invitation is used up.

    Raises:
        Refused: somebody else was faster, or it was taken back.
    """
    locked = standing().select_for_update(of=("self",)).filter(pk=invitation.pk).first()
    if locked is None:
        raise Refused("This invitation no longer stands: ask for another one.")
    try:
        with transaction.atomic():
            membership = Membership.objects.create(workshop=locked.workshop, user=user, role=locked.role)
    except IntegrityError:
        raise Refused("You are a member already.") from None
    locked.delete()
    codes.end_given(user)
    security.info("account %s joined workshop %s as %s", user.pk, membership.workshop_id, membership.role)
    return membership


@allowed(OWNERS)
@transaction.atomic
def change_role(user: User, membership: Membership, role: Role) -> None:
    """Give a member another role; the last owner stays one."""
    if role == Role.OWNER:
        codes.end_given(membership.user)
    else:
        _keep_an_owner(membership)
    membership.role = role
    membership.save(update_fields=["role"])
    security.info("account %s made %s %s of %s", user.pk, membership.user_id, role, membership.workshop_id)


@allowed(OWNERS)
@transaction.atomic
def hand_over(user: User, workshop: Workshop, to: Membership) -> None:
    """Make another member the owner, and oneself an editor."""
    codes.end_given(to.user)
    to.role = Role.OWNER
    to.save(update_fields=["role"])
    workshop.memberships.filter(user=user).update(role=Role.EDITOR)
    security.info("account %s handed workshop %s over to %s", user.pk, workshop.pk, to.user_id)


@transaction.atomic
def remove_member(user: User, membership: Membership) -> None:
    """Take somebody out of the workshop, oneself perhaps; the last owner stays."""
    if membership.user_id != user.pk:
        need(user, membership, OWNERS)
    _keep_an_owner(membership)
    if not membership.user.has_usable_password():
        raise Refused("The demo's visitor stays: everybody who looks in shares this account.")
    membership.delete()
    security.info("account %s took %s out of %s", user.pk, membership.user_id, membership.workshop_id)


def _keep_an_owner(membership: Membership) -> None:
    owners = Membership.objects.select_for_update().filter(workshop=membership.workshop, role=Role.OWNER)
    if list(owners) == [membership]:
        raise Refused("A workshop needs an owner: make somebody else one first, or close the workshop.")
