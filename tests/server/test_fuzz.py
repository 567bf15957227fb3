"""The published schema against the running server: drawn requests, none of which may break it or surprise it."""

from __future__ import annotations

import json
import os
import traceback
from typing import Any

import schemathesis
from django.conf import settings
from django.test import Client, LiveServerTestCase
from hypothesis import HealthCheck, Phase, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as HypothesisTestCase
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from ops.places import GENERATED
from server.accounts.models import User
from server.designs.actions import add_vehicle
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import PLAIN, changed

SCHEMA = GENERATED / "openapi.json"
EXAMPLES = int(os.environ.get("YDROMETER_FUZZ", "6"))
"""Drawn requests for each address and verb; more with the environment's leave."""
CHECKS = [
    schemathesis.checks.not_a_server_error,
    status_code_conformance,
    content_type_conformance,
    response_schema_conformance,
]
LEFT_OUT = {"/api/accounts/password/", "/api/accounts/sign-out/"}
"""These end the session that the others need."""


class Fuzz(LiveServerTestCase):
    maxDiff = None

    def setUp(self) -> None:
        self.user = User.objects.create_user("fuzz", password="a long enough one")
        self.workshop = Workshop.objects.create(name="Fuzz")
        Membership.objects.create(workshop=self.workshop, user=self.user, role=Role.OWNER)
        self.vehicle = add_vehicle(self.user, self.workshop, changed())
        client = Client()
        client.force_login(self.user)
        token = "a" * 32
        session = client.cookies[settings.SESSION_COOKIE_NAME].value
        self.headers = {"Cookie": f"{settings.SESSION_COOKIE_NAME}={session}; csrftoken={token}", "X-CSRFToken": token}

    def test_no_request_breaks_the_server_or_its_schema(self) -> None:
        schema = schemathesis.openapi.from_dict(json.loads(SCHEMA.read_text()))
        count = 0
        for operation in schema.get_all_operations():
            made: Any = operation.ok()  # type: ignore[union-attr]  # a schema that is none fails its own check
            if made.path in LEFT_OUT:
                continue
            with self.subTest(f"{made.method} {made.path}"):
                count += self.try_operation(made)
        self.assertGreater(count, 100)

    def try_operation(self, operation: Any) -> int:
        tried = 0

        @hypothesis_settings(
            max_examples=EXAMPLES,
            deadline=None,
            derandomize=True,
            database=None,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )
        @given(case=operation.as_strategy())
        def send(case: Any) -> None:
            nonlocal tried
            tried += 1
            # Half of the addresses are real ones, so that more than "not found" is tried.
            if tried % 2:
                real = {"workshop": str(self.workshop.id), "vehicle": str(self.vehicle.id), "number": 1, "member": 1}
                case.path_parameters = {key: real.get(key, value) for key, value in case.path_parameters.items()}
            answer = case.call(base_url=self.live_server_url, headers=self.headers, timeout=20)
            case.validate_response(answer, checks=CHECKS)

        found = ""
        try:
            send()
        except (Exception, BaseExceptionGroup) as error:  # whatever was found
            found = "".join(traceback.format_exception_only(error))
        # What was found cannot go from one process to another as it is, not even as what another was raised from: the
        # tests would wait for it for good.
        self.assertEqual(found, "")
        return tried


QUANTITIES = st.sampled_from(["14 kg", "-1 mm", "5 m/s +/- 9", "1e999 V"])
ANYTHING = st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=12) | QUANTITIES,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)


def places(node: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """The path of every value of a document."""
    found = [path] if path else []
    if isinstance(node, dict):
        found += [p for key, value in node.items() for p in places(value, (*path, key))]
    if isinstance(node, list):
        found += [p for i, value in enumerate(node) for p in places(value, (*path, i))]
    return found


class Hostile(HypothesisTestCase):
    """Documents with anything at any place: refused with faults that have paths, or computed; never broken."""

    @hypothesis_settings(max_examples=150, deadline=None, derandomize=True, database=None)
    @given(place=st.sampled_from(places(PLAIN)), value=ANYTHING)
    def test_anything_anywhere(self, place: tuple[Any, ...], value: Any) -> None:
        raw = json.loads(json.dumps(PLAIN))
        at = raw
        for key in place[:-1]:
            at = at[key]
        at[place[-1]] = value
        self.client.force_login(User.objects.get_or_create(username="hostile")[0])
        try:
            body = json.dumps({"document": raw})
        except ValueError:
            return
        answer = self.client.post("/api/live/", body, content_type="application/json")
        self.assertIn(answer.status_code, (200, 400))
        if answer.status_code == 400:
            told = answer.json()
            self.assertTrue(told["detail"])
            for fault in told.get("faults", []):
                self.assertTrue(fault["path"] and fault["problem"] and fault["remedy"])
