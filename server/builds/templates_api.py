"""Templates of own steps, kept in a workshop."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.requests import DocumentField, NameField, read
from server.builds import actions
from server.builds.models import StepTemplate
from server.workshops import access
from server.workshops.access import acting
from ydrometer.build.own import MOST_OWN


class NewStepTemplateSerializer(serializers.Serializer[Any]):
    """Own steps as docs/build.md has them, under a name; one that had the name gives way."""

    name = NameField(max_length=120)
    steps = serializers.ListField(child=DocumentField(), min_length=1, max_length=MOST_OWN)


class StepTemplateSerializer(NewStepTemplateSerializer):
    id = serializers.IntegerField()


class StepTemplatesView(APIView):
    @extend_schema(responses={200: StepTemplateSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """All templates of the workshop."""
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(StepTemplateSerializer(workshop_row.step_templates, many=True).data)

    @extend_schema(request=NewStepTemplateSerializer, responses={201: StepTemplateSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Keeps own steps."""
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        body = read(NewStepTemplateSerializer, request)
        template = actions.keep_template(acting(request), workshop_row, body["name"], body["steps"])
        return Response(StepTemplateSerializer(template).data, status=status.HTTP_201_CREATED)


class StepTemplateView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, workshop: UUID, template: int) -> Response:
        """Takes one away; builds that have taken its steps keep them."""
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        actions.remove_template(acting(request), get_object_or_404(StepTemplate, workshop=workshop_row, pk=template))
        return Response(status=status.HTTP_204_NO_CONTENT)
