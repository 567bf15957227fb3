from django.apps import apps
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TestCase, TransactionTestCase
from django.utils import timezone
from rest_framework.test import APIClient

from server.accounts.models import User
from server.builds.site import Clock, present, site_of
from server.demo.load import KEPT_FOR, LEFT, VISITOR, WORKSHOP, load, repair
from server.designs.actions import add_vehicle
from server.designs.models import Revision, Vehicle
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import changed
from tests.server.people import WorkshopCase, beginning
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.sweep import variants
from ydrometer.screens.build_shown import build_shown, refused, steps_for


class Demo(TestCase):
    def documents(self) -> dict[str, list[dict[str, object]]]:
        workshop = load()
        return {
            vehicle.name: [r.document for r in vehicle.revisions.order_by("number")]
            for vehicle in Vehicle.objects.filter(workshop=workshop)
        }

    def test_the_same_every_time(self) -> None:
        first = self.documents()
        self.assertEqual(list(first), ["Sandpiper", "Knot", "Dunlin", "Turnstone", "Knot, on a light panel"])
        self.assertEqual(self.documents(), first)

    def test_sandpiper_asks_a_question_that_one_tooth_answers(self) -> None:
        document = design.read(self.documents()["Sandpiper"][-1])
        evaluation = evaluate([document])
        missed = [r.target.measure for r in evaluation.target_results(0) if not r.verdict.met]
        self.assertEqual(missed, ["pushing_force"])
        self.assertEqual(evaluation.value("pushing_limit", 0), "torque")
        answers = [
            teeth
            for teeth, variant in variants(document, "drive.branches[0].stages[0]", "driver")
            if variant and all(r.verdict.met for r in evaluate([variant]).target_results(0))
        ]
        self.assertEqual(answers, [14])

    def test_what_was_built_was_built_in_its_time_and_knot_is_signed(self) -> None:
        load()
        for vehicle in Vehicle.objects.filter(step_entries__isnull=False).distinct():
            clock = Clock(None)
            site, document = site_of(vehicle, clock), present(vehicle)
            steps = steps_for(document, site.bench)
            for number, entry in enumerate(site.entries):
                held = refused(steps, site.entries[:number], entry.step, entry.at)
                self.assertEqual(bool(held), bool(entry.reason), f"{entry.step}: {held}")
        knot = Vehicle.objects.get(name="Knot")
        self.assertIsNotNone(build_shown(present(knot), site_of(knot, Clock(None))).signed_at)

    def test_every_vehicle_meets_its_targets_or_asks_about_one(self) -> None:
        body = {"Sandpiper": ["pushing_force"], "Knot": ["time_to_distance"]}
        for name, documents in self.documents().items():
            missed = [
                r.target.measure for r in evaluate([design.read(documents[-1])]).target_results(0) if not r.verdict.met
            ]
            self.assertEqual(missed, body.get(name, []), name)

    def test_the_visitor_changes_what_stands_there_and_not_who_belongs_to_it(self) -> None:
        workshop = load()
        client = APIClient()
        client.force_login(User.objects.get(username=VISITOR))
        home = f"/api/workshops/{workshop.id}/"
        self.assertEqual(
            client.post(f"{home}vehicles/", beginning("Mine"), format="json").status_code,
            201,
        )
        self.assertEqual(client.post(f"{home}leaving/").status_code, 400)
        for address in ("invitations/", "closing/"):
            self.assertEqual(client.post(home + address, {"role": "owner"}, format="json").status_code, 403)
        self.assertEqual(workshop.memberships.count(), 1)

    def test_what_is_as_it_was_stays(self) -> None:
        repair()
        before = list(Vehicle.objects.values_list("pk", flat=True))
        repair()
        self.assertEqual(list(Vehicle.objects.values_list("pk", flat=True)), before)

    def test_what_visitors_made_is_kept_beside_it_for_a_day(self) -> None:
        first = self.documents()
        workshop = Workshop.objects.get(id=WORKSHOP)
        visitor = User.objects.get(username=VISITOR)
        add_vehicle(visitor, workshop, changed({"name": "Mine"}))
        intruder = User.objects.create_user("intruder")
        Membership.objects.create(workshop=workshop, user=intruder, role=Role.OWNER)
        repair()
        self.assertEqual([m.user for m in workshop.memberships.all()], [visitor])
        self.assertEqual(workshop.memberships.get().role, Role.EDITOR)
        self.assertEqual([v.name for v in workshop.vehicles.all()], list(first))
        (left,) = Workshop.objects.filter(name__startswith=LEFT)
        self.assertTrue(left.vehicles.filter(name="Mine").exists())
        Workshop.objects.filter(pk=left.pk).update(created_at=timezone.now() - 2 * KEPT_FOR)
        repair()
        self.assertFalse(Vehicle.objects.filter(name="Mine").exists())


class Apart(WorkshopCase):
    def test_other_workshops_are_not_touched(self) -> None:
        before = list(Revision.objects.values_list("pk", flat=True))
        load()
        load()
        self.assertEqual(
            list(Revision.objects.exclude(vehicle__workshop=WORKSHOP).values_list("pk", flat=True)), before
        )
        self.assertEqual(Workshop.objects.count(), 3)


class Migrations(TransactionTestCase):
    def test_forwards_and_back(self) -> None:
        executor = MigrationExecutor(connection)
        own = {app.label for app in apps.get_app_configs() if app.name.startswith("server.")}
        ahead = [key for key in executor.loader.graph.leaf_nodes() if key[0] in own]
        ours = {app for app, _ in ahead}
        # What is taken back and not brought again would be missing to the tests after this one.
        self.assertLessEqual({"accounts", "designs", "practice"}, ours)
        executor.migrate([(app, None) for app in ours - {"accounts"}])
        self.assertNotIn("designs_vehicle", connection.introspection.table_names())
        MigrationExecutor(connection).migrate(ahead)
        self.assertLessEqual({"designs_vehicle", "parts_part"}, set(connection.introspection.table_names()))
        self.assertIn("practice_pupil", connection.introspection.table_names())
