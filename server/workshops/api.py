"""Workshops and their members."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.workshops import access, actions
from server.workshops.access import acting
from server.workshops.models import Membership, Role, Workshop


class WorkshopSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(read_only=True)
    name = serializers.CharField(max_length=120)
    role = serializers.ChoiceField(Role.choices, read_only=True)


class NewMemberSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(max_length=150)
    role = serializers.ChoiceField(Role.choices)


class MemberSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField(read_only=True)
    username = serializers.CharField(read_only=True, source="user.username")
    role = serializers.ChoiceField(Role.choices)


def _shown(workshop: Workshop, user: User) -> dict[str, Any]:
    role = Membership.objects.get(workshop=workshop, user=user).role
    return {"id": workshop.id, "name": workshop.name, "role": role}


class WorkshopsView(APIView):
    @extend_schema(responses={200: WorkshopSerializer(many=True), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        mine = Membership.objects.filter(user=acting(request)).select_related("workshop").order_by("workshop__name")
        return Response([{"id": m.workshop_id, "name": m.workshop.name, "role": m.role} for m in mine])

    @extend_schema(request=WorkshopSerializer, responses={201: WorkshopSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        form = WorkshopSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        workshop = actions.create_workshop(acting(request), form.validated_data["name"])
        return Response(_shown(workshop, acting(request)), status=status.HTTP_201_CREATED)


class WorkshopView(APIView):
    @extend_schema(responses={200: WorkshopSerializer, **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        return Response(_shown(access.workshop_for(acting(request), workshop), acting(request)))

    @extend_schema(request=WorkshopSerializer, responses={200: WorkshopSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, workshop: UUID) -> Response:
        found = access.workshop_for(acting(request), workshop, access.OWNERS)
        form = WorkshopSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        actions.rename_workshop(acting(request), found, form.validated_data["name"])
        return Response(_shown(found, acting(request)))


class MembersView(APIView):
    @extend_schema(responses={200: MemberSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        found = access.workshop_for(acting(request), workshop)
        return Response(MemberSerializer(found.memberships.select_related("user"), many=True).data)

    @extend_schema(request=NewMemberSerializer, responses={201: MemberSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        found = access.workshop_for(acting(request), workshop, access.OWNERS)
        form = NewMemberSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        member = actions.add_member(acting(request), found, **form.validated_data)
        return Response(MemberSerializer(member).data, status=status.HTTP_201_CREATED)


class MemberView(APIView):
    @extend_schema(request=MemberSerializer, responses={200: MemberSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, workshop: UUID, member: int) -> Response:
        membership = self._membership(request, workshop, member)
        form = MemberSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        actions.change_role(acting(request), membership, form.validated_data["role"])
        return Response(MemberSerializer(membership).data)

    @extend_schema(responses={204: None, **BAD, **HIDDEN})
    def delete(self, request: Request, workshop: UUID, member: int) -> Response:
        actions.remove_member(acting(request), self._membership(request, workshop, member))
        return Response(status=status.HTTP_204_NO_CONTENT)

    def _membership(self, request: Request, workshop: UUID, member: int) -> Membership:
        found = access.workshop_for(acting(request), workshop, access.OWNERS)
        return get_object_or_404(found.memberships.select_related("user"), pk=member)
