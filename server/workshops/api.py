"""Workshops, their members, and invitations to them."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts import patience
from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, SIGNED_OUT, TOO_MANY
from server.api.limits import MOST_INVITATIONS, MOST_TOKENS
from server.api.quotas import need_room
from server.api.requests import NameField, read
from server.workshops import access, actions, tokens
from server.workshops.access import acting
from server.workshops.models import Membership, Role


class WorkshopSerializer(serializers.Serializer[Any]):
    """`closed_at` where its owner has closed it; then nothing of it is to be had."""

    id = serializers.UUIDField(read_only=True)
    name = NameField(max_length=120)
    role = serializers.ChoiceField(Role.choices, read_only=True)
    closed_at = serializers.DateTimeField(read_only=True, allow_null=True)


class CloseSerializer(serializers.Serializer[Any]):
    """The workshop's name, typed to be sure."""

    name = NameField(max_length=120)


class InviteSerializer(serializers.Serializer[Any]):
    """By the name of an account, or without one by a code."""

    username = serializers.CharField(max_length=150, required=False, allow_blank=True, default="")
    role = serializers.ChoiceField(Role.choices)


class InvitationSerializer(serializers.Serializer[Any]):
    """As the workshop's owners see it. `code` is told once, when it is made."""

    id = serializers.UUIDField()
    role = serializers.ChoiceField(Role.choices)
    username = serializers.CharField(source="to.username", default=None, allow_null=True)
    expires_at = serializers.DateTimeField()
    code = serializers.CharField(default="")


class RequestSerializer(serializers.Serializer[Any]):
    """An invitation as the one who is asked sees it."""

    id = serializers.UUIDField()
    workshop = serializers.CharField(source="workshop.name")
    role = serializers.ChoiceField(Role.choices)
    author = serializers.CharField(source="author.username", default=None, allow_null=True)


class AnswerSerializer(serializers.Serializer[Any]):
    accept = serializers.BooleanField()


class JoinSerializer(serializers.Serializer[Any]):
    """A code; without `accept` only what it stands for is told."""

    code = serializers.CharField(max_length=100)
    accept = serializers.BooleanField(default=False)


class MemberSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(read_only=True)
    username = serializers.CharField(read_only=True, source="user.username")
    role = serializers.ChoiceField(Role.choices)


class NewTokenSerializer(serializers.Serializer[Any]):
    """What the instrument is called."""

    name = NameField(max_length=120)


class TokenSerializer(serializers.Serializer[Any]):
    """A token of an instrument. `secret` is told once, when it is made."""

    id = serializers.UUIDField()
    name = serializers.CharField()
    author = serializers.CharField(source="author.username")
    created_at = serializers.DateTimeField()
    used_at = serializers.DateTimeField(allow_null=True)
    uses = serializers.IntegerField()
    secret = serializers.CharField(default="")


def shown(membership: Membership) -> dict[str, Any]:
    workshop = membership.workshop
    return {"id": workshop.id, "name": workshop.name, "role": membership.role, "closed_at": workshop.closed_at}


def mine(user: User) -> list[Membership]:
    """The user's workshops: the one at hand last, then those they own, the oldest first; closed ones at the end."""
    memberships = Membership.objects.filter(user=user, workshop__coming=False).select_related("workshop")
    seen = [m for m in memberships if m.workshop.closed_at is None or m.role == Role.OWNER]
    return sorted(
        seen,
        key=lambda m: (
            m.workshop.closed_at is not None,
            m.workshop_id != user.bench_id,
            m.role != Role.OWNER,
            m.workshop.created_at,
        ),
    )


class HandOverSerializer(serializers.Serializer[Any]):
    """`member` is the number of their membership."""

    member = serializers.IntegerField()


class WorkshopsView(APIView):
    @extend_schema(responses={200: WorkshopSerializer(many=True), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        """The first one is the bench that is shown."""
        return Response([shown(membership) for membership in mine(acting(request))])

    @extend_schema(request=WorkshopSerializer, responses={201: WorkshopSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        user = acting(request)
        form = read(WorkshopSerializer, request)
        actions.need_room_for_another(user)
        workshop = actions.create_workshop(user, form["name"])
        return Response(shown(workshop.memberships.get(user=user)), status=status.HTTP_201_CREATED)


class WorkshopView(APIView):
    @extend_schema(responses={200: WorkshopSerializer, **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(shown(workshop_row.memberships.get(user=acting(request))))

    @extend_schema(request=WorkshopSerializer, responses={200: WorkshopSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        actions.rename_workshop(acting(request), workshop_row, read(WorkshopSerializer, request)["name"])
        return Response(shown(workshop_row.memberships.get(user=acting(request))))


class ClosingView(APIView):
    @extend_schema(request=CloseSerializer, responses={204: None, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Closes a workshop; nothing of it is lost."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        actions.close_workshop(acting(request), workshop_row, read(CloseSerializer, request)["name"])
        return Response(status=status.HTTP_204_NO_CONTENT)

    @extend_schema(request=None, responses={204: None, **BAD, **HIDDEN})
    def delete(self, request: Request, workshop: UUID) -> Response:
        """Opens it again."""
        actions.open_again(acting(request), access.closed_workshop_for(acting(request), workshop))
        return Response(status=status.HTTP_204_NO_CONTENT)


class ErasingView(APIView):
    @extend_schema(request=CloseSerializer, responses={204: None, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Takes a closed workshop away for good."""
        workshop_row = access.closed_workshop_for(acting(request), workshop)
        actions.erase_workshop(acting(request), workshop_row, read(CloseSerializer, request)["name"])
        return Response(status=status.HTTP_204_NO_CONTENT)


class LeavingView(APIView):
    @extend_schema(request=None, responses={204: None, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """One leaves it oneself; the last owner hands it over or closes it first."""
        workshop_row = access.workshop_for(acting(request), workshop)
        actions.remove_member(acting(request), workshop_row.memberships.get(user=acting(request)))
        return Response(status=status.HTTP_204_NO_CONTENT)


class InvitationsView(APIView):
    @extend_schema(responses={200: InvitationSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        open_ones = actions.standing().filter(workshop=workshop_row).select_related("to")
        return Response(InvitationSerializer(open_ones, many=True).data)

    @extend_schema(request=InviteSerializer, responses={201: InvitationSerializer, **BAD, **HIDDEN, **TOO_MANY})
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        patience.count((patience.INVITATION, str(acting(request).pk)))
        body = read(InviteSerializer, request)
        need_room("open invitations", workshop_row.invitations.count(), MOST_INVITATIONS)
        invitation, code = actions.invite(acting(request), workshop_row, body["role"], body["username"])
        return Response({**InvitationSerializer(invitation).data, "code": code}, status=status.HTTP_201_CREATED)


class InvitationView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, workshop: UUID, invitation: UUID) -> Response:
        """Takes it back."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        actions.withdraw(acting(request), get_object_or_404(workshop_row.invitations, pk=invitation))
        return Response(status=status.HTTP_204_NO_CONTENT)


class RequestsView(APIView):
    @extend_schema(responses={200: RequestSerializer(many=True), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        """What one has been asked by name."""
        mine = actions.standing().filter(to=acting(request)).select_related("workshop", "author")
        return Response(RequestSerializer(mine, many=True).data)


class RequestView(APIView):
    @extend_schema(request=AnswerSerializer, responses={204: None, **BAD, **HIDDEN})
    def post(self, request: Request, invitation: UUID) -> Response:
        """Joins, or declines."""
        mine = get_object_or_404(actions.standing(), to=acting(request), pk=invitation)
        if read(AnswerSerializer, request)["accept"]:
            actions.accept(acting(request), mine)
        else:
            actions.withdraw(acting(request), mine)
        return Response(status=status.HTTP_204_NO_CONTENT)


class JoiningView(APIView):
    @extend_schema(request=JoinSerializer, responses={200: RequestSerializer, **BAD, **HIDDEN, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """What a code stands for; with `accept` one joins."""
        key = (patience.JOINING, str(acting(request).pk))
        patience.count(key)
        body = read(JoinSerializer, request)
        invited = actions.by_code(body["code"])
        if invited is None:
            raise serializers.ValidationError({"code": "This code does not stand, or no longer: ask for another one."})
        patience.forgive(key)
        shown = RequestSerializer(invited).data
        if body["accept"]:
            actions.accept(acting(request), invited)
        return Response(shown)


class TokensView(APIView):
    @extend_schema(responses={200: TokenSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        return Response(TokenSerializer(workshop_row.tokens.select_related("author"), many=True).data)

    @extend_schema(request=NewTokenSerializer, responses={201: TokenSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Makes a token for an instrument; what it has to send is told once."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        need_room("tokens", workshop_row.tokens.count(), MOST_TOKENS)
        row, secret = tokens.make(acting(request), workshop_row, read(NewTokenSerializer, request)["name"])
        return Response({**TokenSerializer(row).data, "secret": secret}, status=status.HTTP_201_CREATED)


class TokenView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, workshop: UUID, token: UUID) -> Response:
        """Takes it back: from now on it opens nothing."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        tokens.revoke(acting(request), get_object_or_404(workshop_row.tokens, pk=token))
        return Response(status=status.HTTP_204_NO_CONTENT)


class MembersView(APIView):
    @extend_schema(responses={200: MemberSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(MemberSerializer(workshop_row.memberships.select_related("user"), many=True).data)


class MemberView(APIView):
    @extend_schema(request=MemberSerializer, responses={200: MemberSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, workshop: UUID, member: int) -> Response:
        membership = self._membership(request, workshop, member)
        actions.change_role(acting(request), membership, read(MemberSerializer, request)["role"])
        return Response(MemberSerializer(membership).data)

    @extend_schema(responses={204: None, **BAD, **HIDDEN})
    def delete(self, request: Request, workshop: UUID, member: int) -> Response:
        actions.remove_member(acting(request), self._membership(request, workshop, member))
        return Response(status=status.HTTP_204_NO_CONTENT)

    def _membership(self, request: Request, workshop: UUID, member: int) -> Membership:
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        return get_object_or_404(workshop_row.memberships.select_related("user"), pk=member)


class HandingOverView(APIView):
    @extend_schema(request=HandOverSerializer, responses={204: None, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Makes another member the owner; whoever hands it over stays as an editor."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        member = read(HandOverSerializer, request)["member"]
        to = workshop_row.memberships.exclude(user=acting(request)).filter(pk=member).first()
        if to is None:
            raise serializers.ValidationError({"member": "Nobody else of this workshop has that number."})
        actions.hand_over(acting(request), workshop_row, to)
        return Response(status=status.HTTP_204_NO_CONTENT)
