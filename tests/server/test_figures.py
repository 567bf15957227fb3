"""Uncertainties, workings and aids over the API: what goes in, what comes out, how faults are told."""

from rest_framework.test import APIClient, APITestCase

from server.accounts.models import User
from tests.core.designs import PLAIN, changed


class Figures(APITestCase):
    def setUp(self) -> None:
        self.client.force_login(User.objects.create_user("somebody"))

    def test_the_working_of_a_measure(self) -> None:
        body = {"document": PLAIN, "measure": "time_to_distance", "at": 5.0}
        answer = self.client.post("/api/working/", body, format="json")
        self.assertEqual(answer.status_code, 200)
        told = answer.json()
        self.assertAlmostEqual(sum(told["table"][3]["values"]), 5.0, places=5)
        self.assertAlmostEqual(told["steps"][-1]["value"], told["value"], places=6)

    def test_what_has_no_working_is_told(self) -> None:
        for asked in ({"measure": "beauty"}, {"measure": "top_speed", "branch": 5}):
            answer = self.client.post("/api/working/", {"document": PLAIN, **asked}, format="json")
            self.assertEqual(answer.status_code, 400)
            self.assertTrue(answer.json()["detail"])

    def test_faults_come_with_their_paths_all_at_once(self) -> None:
        raw = changed({"vehicle.mass": "heavy", "vehicle.driven": "rear", "drive.branches.0.count": 0})
        for address in ("live", "uncertainties"):
            answer = self.client.post(f"/api/{address}/", {"document": raw}, format="json").json()
            paths = [fault["path"] for fault in answer["faults"]]
            self.assertEqual(paths, ["vehicle.mass", "drive.branches[0].count"])

    def test_doubts_of_assumed_values_can_be_left_out(self) -> None:
        answer = self.client.post("/api/uncertainties/", {"document": PLAIN, "assumed": True}, format="json").json()
        self.assertLess(answer["gauges"][0]["low"], answer["gauges"][0]["high"])
        answer = self.client.post("/api/uncertainties/", {"document": PLAIN, "assumed": False}, format="json").json()
        self.assertEqual((answer["first"], answer["gauges"][0]["low"]), ("", None))

    def test_an_aid_names_each_wrong_value(self) -> None:
        given = {"x": "3 kg", "n": ""}
        told = self.client.post("/api/aids/", {"aid": "rolled_distance", "given": given}, format="json").json()
        self.assertEqual([fault["path"] for fault in told["faults"]], ["x", "n"])
        answer = self.client.post(
            "/api/aids/", {"aid": "rolled_distance", "given": {"x": "1178 mm", "n": "3"}}, format="json"
        )
        self.assertEqual(answer.json()["typed"], "124.99 mm")

    def test_a_session_is_looked_up_once_in_a_while(self) -> None:
        body = {"document": PLAIN}
        self.client.post("/api/live/", body, format="json")
        with self.assertNumQueries(0):
            self.assertEqual(self.client.post("/api/live/", body, format="json").status_code, 200)
        with self.assertNumQueries(0):
            self.assertEqual(self.client.post("/api/loads/", body, format="json").status_code, 200)
        self.client.logout()
        self.assertEqual(self.client.post("/api/live/", body, format="json").status_code, 401)

    def test_a_recent_session_needs_its_token_too(self) -> None:
        asked = APIClient(enforce_csrf_checks=True)
        asked.force_login(User.objects.create_user("careful"))
        for _ in range(2):
            self.assertEqual(asked.post("/api/live/", {"document": PLAIN}, format="json").status_code, 403)

    def test_an_address_that_is_none(self) -> None:
        answer = self.client.get("/api/nowhere/")
        self.assertEqual((answer.status_code, answer.json()["detail"]), (404, "There is nothing at this address."))
