"""What every answer carries."""

from django.http import HttpResponse
from django.test import RequestFactory, SimpleTestCase

from server.config.middleware import head_alone
from tests.server.people import WorkshopCase


class HeadAlone(SimpleTestCase):
    def test_it_comes_without_a_body_and_with_its_length(self) -> None:
        def answered(request: object) -> HttpResponse:
            answer = HttpResponse(b"twelve bytes", status=201, headers={"Content-Length": "12", "X-Own": "y"})
            answer.set_cookie("kept", "1")
            return answer

        respond = head_alone(answered)
        answer = respond(RequestFactory().head("/"))
        assert isinstance(answer, HttpResponse)
        self.assertEqual((answer.content, answer.status_code, answer["Content-Length"]), (b"", 201, "12"))
        self.assertEqual((answer["X-Own"], answer.cookies["kept"].value), ("y", "1"))
        whole = respond(RequestFactory().get("/"))
        assert isinstance(whole, HttpResponse)
        self.assertEqual(whole.content, b"twelve bytes")


class Private(WorkshopCase):
    def test_nothing_keeps_what_the_api_answers(self) -> None:
        answer = self.as_("viewer").get(f"/api/vehicles/{self.vehicle.pk}/")
        self.assertEqual(answer["Cache-Control"], "no-store")
