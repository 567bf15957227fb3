"""Changes to workshops and their members; each is told who acts."""

from __future__ import annotations

from django.db import transaction
from rest_framework import serializers

from server.accounts.models import User
from server.api.errors import Refused
from server.workshops.models import Membership, Role, Workshop


@transaction.atomic
def create_workshop(user: User, name: str) -> Workshop:
    """A new workshop owned by the user."""
    workshop = Workshop.objects.create(name=name)
    Membership.objects.create(workshop=workshop, user=user, role=Role.OWNER)
    return workshop


def rename_workshop(user: User, workshop: Workshop, name: str) -> None:
    """Give the workshop another name."""
    workshop.name = name
    workshop.save(update_fields=["name"])


def add_member(user: User, workshop: Workshop, username: str, role: Role) -> Membership:
    """Let somebody with an account into the workshop.

    Raises:
        serializers.ValidationError: no such account, or a member already.
    """
    joining = User.objects.filter(username__iexact=username, is_active=True).first()
    if joining is None:
        raise serializers.ValidationError({"username": f'There is no account named "{username}".'})
    membership, created = Membership.objects.get_or_create(workshop=workshop, user=joining, defaults={"role": role})
    if not created:
        raise serializers.ValidationError({"username": f"{joining.username} is a member already."})
    return membership


@transaction.atomic
def change_role(user: User, membership: Membership, role: Role) -> None:
    """Give a member another role; the last owner stays one."""
    if role != Role.OWNER:
        _keep_an_owner(membership)
    membership.role = role
    membership.save(update_fields=["role"])


@transaction.atomic
def remove_member(user: User, membership: Membership) -> None:
    """Take somebody out of the workshop; the last owner stays."""
    _keep_an_owner(membership)
    membership.delete()


def _keep_an_owner(membership: Membership) -> None:
    owners = Membership.objects.select_for_update().filter(workshop=membership.workshop, role=Role.OWNER)
    if list(owners) == [membership]:
        raise Refused("A workshop needs an owner: make somebody else one first.")
