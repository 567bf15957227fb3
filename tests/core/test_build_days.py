import random
import unittest
from collections.abc import Iterator
from datetime import date, datetime, timedelta
from functools import partial
from itertools import permutations
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import PLAIN
from tests.core.lines import lines
from ydrometer.build.hours import LEAST_PIECE, Hours, lanes
from ydrometer.build.late import LateCase, _longer, reliefs, sentence
from ydrometer.build.parts_list import orders, parts_list
from ydrometer.build.plan import PartOrder, WorkPlan, pace, plan
from ydrometer.build.schedule import Task, _least, _placed, schedule
from ydrometer.build.step import Step
from ydrometer.build.steps import steps_of
from ydrometer.build.workshop import workshop
from ydrometer.document import design

NOW = datetime(2027, 5, 3, 12)
EVENT = datetime(2027, 6, 12, 9)
WEEK = Hours(1, (2, 2, 2, 2, 2, 6, 6))


def step(
    id_: str,
    minutes: float = 30.0,
    *needs: str,
    wait: float = 0.0,
    parts: tuple[str, ...] = (),
    uses: tuple[str, ...] = (),
) -> Step:
    return Step(
        id=id_, title=id_, kind="own", place="", minutes=minutes, needs=needs, wait=wait, parts=parts, uses=uses
    )


def of_design(document: dict[str, Any]) -> tuple[list[Step], list[PartOrder]]:
    shop = workshop(design.read(document))
    return steps_of(shop), orders(parts_list(shop))


class Days(unittest.TestCase):
    def check(self, steps: list[Step], planned: WorkPlan, hours: Hours) -> None:
        for day in planned.days:
            most = 60.0 * hours.people * hours.weekdays[day.date.weekday()]
            self.assertLessEqual(day.minutes, most + 1e-6, day.date)
        worked = sum(day.minutes for day in planned.days)
        self.assertAlmostEqual(worked, sum(one.minutes for one in steps), delta=0.1)
        known = {one.id: one for one in steps}
        for one in steps:
            for need in known.keys() & set(one.needs):
                earliest = planned.starts[need] + timedelta(minutes=known[need].minutes, seconds=known[need].wait - 1)
                self.assertGreaterEqual(planned.starts[one.id], earliest, f"{one.id} waits for {need}")

    weekdays = st.tuples(*[st.sampled_from([0.0, 0.25, 1.0, 2.0, 5.0, 14.0])] * 7).filter(any)

    @settings(max_examples=40, deadline=None, derandomize=True)
    @given(lines(), weekdays, st.integers(1, 3), st.integers(0, 60))
    def test_keep_hours_needs_and_waits(
        self, document: dict[str, Any], weekdays: tuple[float, ...], people: int, days: int
    ) -> None:
        steps, bought = of_design(document)
        steps = [one for one in steps if one.minutes <= 120]
        hours = Hours(people, weekdays)
        event = NOW + timedelta(days=days)
        try:
            planned = plan(steps, bought, event, NOW, hours)
        except ValueError:  # quarters of an hour a week take years
            return
        self.check(steps, planned, hours)
        ends = max(planned.starts.values())
        self.assertTrue(planned.late_by_days or ends <= event)
        self.assertTrue(all(start >= NOW for start in planned.starts.values()))

    def test_work_is_as_late_as_it_can_be(self) -> None:
        planned = plan([step("a"), step("b", 30, "a")], [], EVENT, NOW, WEEK)
        # Nobody works on the day of the event before nine; on Friday from 18 to 20.
        self.assertEqual(planned.starts["b"], datetime(2027, 6, 11, 19, 30))
        self.assertEqual(planned.starts["a"], datetime(2027, 6, 11, 19, 0))

    def test_waits_run_through_nights(self) -> None:
        planned = plan([step("glue", wait=86400.0), step("on", 30, "glue")], [], EVENT, NOW, WEEK)
        self.assertEqual(planned.starts["glue"], datetime(2027, 6, 10, 19, 0))

    def test_no_piece_of_work_is_shorter_than_a_quarter_of_an_hour(self) -> None:
        planned = plan([step("long", 125)], [], EVENT, NOW, WEEK)
        minutes = [day.minutes for day in planned.days]
        self.assertEqual(sorted(minutes), [15.0, 110.0])
        self.assertGreaterEqual(min(minutes), LEAST_PIECE)

    def test_orders_are_due_before_the_first_step_that_handles_the_part(self) -> None:
        bought = [PartOrder("pulley", "pulley", ("drive.stages[0] driver",), 7.0)]
        steps = [step("on", parts=("drive.stages[0] driver",), uses=("pulley",))]
        planned = plan(steps, bought, EVENT, NOW, WEEK)
        self.assertEqual(str(planned.starts["on"].date()), "2027-06-11")
        self.assertEqual(str(planned.orders[0].latest), "2027-06-03", "here on the day before")

    def test_a_delivery_holds_what_cannot_be_done_without_it_and_nothing_else(self) -> None:
        at = ("drive.stages[0]",)
        steps = [step("bearings", parts=at, uses=("bearing",)), step("belt", parts=at, uses=("belt",))]
        planned = plan(steps, [PartOrder("belt", "belt", at, 30.0)], NOW + timedelta(days=9), NOW, WEEK)
        self.assertLess(planned.starts["bearings"], NOW + timedelta(days=1))
        self.assertGreaterEqual(planned.starts["belt"], NOW + timedelta(days=30))

    def test_nobody_works_on_any_day(self) -> None:
        with self.assertRaises(ValueError):
            plan([step("a")], [], EVENT, NOW, Hours(1, (0.0,) * 7))


class Exact(unittest.TestCase):
    """Plans of a few tasks against the best of all orders in which they could be placed."""

    @staticmethod
    def drawn(rng: random.Random) -> tuple[list[Task], Hours]:
        tasks = []
        for number in range(rng.randint(4, 6)):
            after = tuple((k, rng.choice([0.0, 120.0, 1440.0])) for k in range(number) if rng.random() < 0.3)
            head, tail = rng.choice([0.0, 0.0, 2880.0]), rng.choice([0.0, 1440.0])
            tasks.append(Task(rng.choice([10.0, 20.0, 45.0, 90.0, 150.0]), after, head, tail))
        hours = tuple(rng.choice([0.0, 1.0, 2.0, 6.0]) for _ in range(6))
        return tasks, Hours(rng.randint(1, 3), (*hours, 2.0))

    @staticmethod
    def orders(tasks: list[Task]) -> Iterator[list[float]]:
        """How urgent each is, in every order that can be followed."""
        for order in permutations(range(len(tasks))):
            place = {task: number for number, task in enumerate(order)}
            if all(place[before] < place[number] for number, task in enumerate(tasks) for before, _ in task.after):
                yield [-float(place[number]) for number in range(len(tasks))]

    def test_none_is_over_a_day_later_than_the_best(self) -> None:
        rng = random.Random(72)  # the same plans each time
        for case in range(72):
            tasks, hours = self.drawn(rng)
            people = partial(lanes, hours, NOW, 1)
            found = schedule(tasks, people, 7 * 1440.0 / hours.a_week, lambda over: over)
            best = min(_placed(tasks, people(), urgency).over for urgency in self.orders(tasks))
            self.assertLessEqual(found.over, best + 1e-6, case)
            self.assertLessEqual(_least(tasks, people), best + 1e-6, case)


class Longer(unittest.TestCase):
    def test_an_hour_more_on_each_day_and_never_more_than_a_day(self) -> None:
        steps, bought = of_design(PLAIN)
        case = LateCase(steps, bought, EVENT, NOW, Hours(1, (2.0, 0.0, 23.5, 24.0, 2.0, 2.0, 2.0)))
        self.assertEqual(_longer(case).hours.weekdays, (3.0, 1.0, 24.0, 24.0, 3.0, 3.0, 3.0))


class Windows(unittest.TestCase):
    def test_evenings_begin_at_six_longer_days_at_ten_the_longest_at_midnight(self) -> None:
        hours = Hours(1, (0.0, 4.0, 6.0, 12.0, 14.0, 0.0, 24.0))
        begun = [hours.window(date(2027, 5, 3 + k)) for k in range(7)]
        self.assertEqual([start.hour for start, _ in begun], [18, 18, 10, 10, 0, 18, 0])
        spans = [(end - start) / timedelta(hours=1) for start, end in begun]
        self.assertEqual(spans, list(hours.weekdays))
        self.assertEqual(hours.a_week, 3600.0)


class Late(unittest.TestCase):
    def asked(self, event: datetime) -> LateCase:
        steps, bought = of_design(PLAIN)
        return LateCase(steps, bought, event, NOW, WEEK)

    def test_is_told_with_what_helps(self) -> None:
        asked = self.asked(NOW + timedelta(days=5))
        planned = asked.plan()
        self.assertGreater(planned.late_by_days, 0)
        self.assertRegex(sentence(asked, planned), r"^Late by \d+ days?\. Order today: ")
        helping = reliefs(asked, planned)
        self.assertTrue(helping)
        self.assertTrue(all(one.late_by_days < planned.late_by_days for one in helping))

    def test_in_time_says_what_is_next(self) -> None:
        asked = self.asked(EVENT)
        self.assertRegex(sentence(asked, asked.plan()), r"^In time\. Next: order the .* by \w+day, \d\d \w+\.$")

    def test_what_is_done_is_not_planned(self) -> None:
        steps, bought = of_design(PLAIN)
        planned = plan(steps, bought, EVENT, NOW, WEEK, done={steps[0].id})
        self.assertNotIn(steps[0].id, planned.starts)

    def test_the_longest_way_is_critical(self) -> None:
        steps = [step("glue", wait=86400.0), step("paint"), step("on", 30, "glue", "paint")]
        self.assertEqual(plan(steps, [], EVENT, NOW, WEEK).critical, ["glue", "on"])


class Pace(unittest.TestCase):
    def test_is_the_median_once_five_steps_are_known(self) -> None:
        four = [(20.0, 10.0), (30.0, 10.0), (10.0, 10.0), (15.0, 10.0)]
        self.assertEqual((pace(four), pace([*four, (100.0, 10.0)])), (1.0, 2.0))
