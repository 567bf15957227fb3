"""What the server counts of itself, and whom it tells."""

from __future__ import annotations

from prometheus_client.parser import text_string_to_metric_families

from tests.server.people import WorkshopCase


class Metrics(WorkshopCase):
    def test_told_to_this_machine_alone(self) -> None:
        self.assertEqual(self.client.get("/metrics", REMOTE_ADDR="192.0.2.7").status_code, 404)
        self.assertEqual(self.client.get("/metrics", REMOTE_ADDR="127.168.1.23").status_code, 404)
        self.assertEqual(self.client.get("/metrics").status_code, 200)

    def test_each_number_once_and_no_ids(self) -> None:
        self.as_("owner").get(f"/api/vehicles/{self.vehicle.pk}/")
        text = self.client.get("/metrics").content.decode()
        rows = {family.name: family for family in text_string_to_metric_families(text)}
        routes = {sample.labels.get("route") for sample in rows["ydrometer_requests"].samples}
        self.assertIn("api/vehicles/<uuid:vehicle>/", routes)
        self.assertNotIn(str(self.vehicle.pk), text)
        self.assertEqual(rows["ydrometer_database_up"].samples[0].value, 1.0)
        for name in ("database_up", "database_bytes", "searches_waiting", "searches_running"):
            self.assertEqual(len(rows[f"ydrometer_{name}"].samples), 1)
