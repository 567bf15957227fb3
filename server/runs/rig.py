"""The practice rig on the server: what is ordered, and the process that does it as time goes by.

An order is worked out whole from the rig's seed and state, and its lines are written when their time has come. A
process that is started again works it out once more, the same, and goes on behind the last line that was written.
"""

from __future__ import annotations

import json
import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass
from uuid import uuid5

from django.db import connection, transaction
from django.db.models import Max

from server.accounts.models import User
from server.api.errors import Refused
from server.designs.models import Vehicle
from server.runs.actions import NewRun, log_run
from server.runs.models import Line, Order, OrderState, Origin, Rig, Tried
from server.workshops.access import EDITORS, allowed, may
from ydrometer.document import design
from ydrometer.instruments import rig as bench
from ydrometer.instruments.rig import Performed, RigBench

TICK_S, IDLE_S = 0.1, 0.4
"""Between two looks while there is something to do, and while there is not."""
LONGEST_S = 12.0
"""Of what is shown: trials that take longer are told faster than they happen."""
KEPT = 20
"""Orders whose lines a rig keeps."""
MOST_REPEATS = 10
ONLY_ONE = 7_270_001
"""Number of the lock that the one process holds which does the work; others stand by."""
OPEN = (OrderState.WAITING, OrderState.RUNNING)


def rig_of(vehicle: Vehicle) -> Rig | None:
    """The rig of a vehicle, where somebody has used it."""
    return Rig.objects.filter(vehicle=vehicle).first()


@allowed(EDITORS)
@transaction.atomic
def order(user: User, vehicle: Vehicle, action: str, repeats: int, of: Tried) -> Order:
    """Have the rig do something with a design.

    Raises:
        Refused: it is busy.
    """
    present = vehicle.revisions.first()
    assert present is not None  # a vehicle is created with its first revision
    fresh = {"seed": secrets.randbelow(2**32), "base": present.document}
    rig_row, _ = Rig.objects.get_or_create(vehicle=vehicle, defaults=fresh)
    locked = Rig.objects.select_for_update().get(pk=rig_row.pk)
    if locked.orders.filter(state__in=OPEN).exists():
        raise Refused("The rig is at work: wait until it is done, or stop it.")
    old = locked.orders.values_list("pk", flat=True).order_by("-pk")[KEPT:]
    Order.objects.filter(pk__in=list(old)).delete()
    return Order.objects.create(rig=locked, action=action, repeats=repeats, tried=of, author=user)


@allowed(EDITORS)
def stop(user: User, rig: Rig) -> None:
    """End what it is doing; nothing of that is logged."""
    rig.orders.filter(state__in=OPEN).update(state=OrderState.STOPPED)


@allowed(EDITORS)
def start_anew(user: User, rig: Rig) -> None:
    """Another vehicle of the same design: hidden anew, the battery full, the motor cold."""
    rig.seed, rig.state, rig.shown = secrets.randbelow(2**32), {}, False
    rig.save(update_fields=["seed", "state", "shown"])


@allowed(EDITORS)
def charge(user: User, rig: Rig) -> None:
    """Fill the battery."""
    rig.state = {**rig.state, "charge": 0.0}
    rig.save(update_fields=["state"])


@allowed(EDITORS)
def show(user: User, rig: Rig) -> None:
    """Show what is hidden."""
    rig.shown = True
    rig.save(update_fields=["shown"])


def truth(rig: Rig) -> list[tuple[str, float]]:
    """What is hidden, as factors on what the present design holds."""
    present = rig.vehicle.revisions.first()
    assert present is not None  # a vehicle is created with its first revision
    return bench.truth(design.read(rig.base), design.read(present.document), rig.seed)


@dataclass(slots=True)
class Under:
    """An order under way: what comes of it, when each line is due, and how many have been written."""

    order: Order
    performed: Performed
    due: list[float]
    written: int
    begun: float


class Worker:
    """Does what is ordered, one step after the other."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self.clock = clock
        self.under: dict[int, Under] = {}

    def step(self) -> None:
        """Take on what is new, drop what was stopped, and write the lines whose time has come."""
        wanted = {
            open_order.pk: open_order
            for open_order in Order.objects.filter(state__in=OPEN).select_related("rig", "tried", "author")
        }
        self.under = {pk: open_order for pk, open_order in self.under.items() if pk in wanted}
        for pk, open_order in wanted.items():
            if pk not in self.under:
                self.under[pk] = self._begun(open_order)
        for under in self.under.values():
            self._go_on(under)

    def _begun(self, order: Order) -> Under:
        rig = order.rig
        on_it = RigBench(
            design.read(rig.base), design.read(order.tried.document), rig.seed, bench.remembered(rig.state)
        )
        performed = on_it.perform(order.action, order.repeats)
        times = [float(json.loads(line).get("t", 0.0)) for line in performed.lines]
        pace = max(1.0, max(times) / LONGEST_S)
        Order.objects.filter(pk=order.pk, state=OrderState.WAITING).update(state=OrderState.RUNNING)
        written = order.lines.count()
        # Where another process has begun it, it goes on from there.
        already = times[written - 1] / pace if written else 0.0
        return Under(order, performed, [t / pace for t in times], written, self.clock() - already)

    def _go_on(self, under: Under) -> None:
        now = self.clock() - under.begun
        ready = under.written
        while ready < len(under.due) and under.due[ready] <= now:
            ready += 1
        with transaction.atomic():
            mine = Order.objects.select_for_update(of=("self",)).filter(pk=under.order.pk, state=OrderState.RUNNING)
            if not mine.exists():
                return
            lines = under.performed.lines[under.written : ready]
            Line.objects.bulk_create(Line(order=under.order, text=text) for text in lines)
            under.written = ready
            if ready == len(under.due):
                self._end(under)

    def _end(self, under: Under) -> None:
        """Log the runs that are read from the lines, and say so to whoever listens."""
        order, rig = under.order, under.order.rig
        # Who ordered it may have left the workshop since.
        still_allowed = may(order.author, rig.vehicle, EDITORS)
        for k, document in enumerate(under.performed.runs() if still_allowed else ()):
            new = NewRun(uuid5(rig.vehicle_id, f"{order.pk} {k}"), document, Origin.RIG)
            log_run(order.author, rig.vehicle, new, order.tried)
        Rig.objects.filter(pk=rig.pk).update(state=bench.kept(under.performed.state))
        Order.objects.filter(pk=order.pk).update(state=OrderState.DONE)
        Line.objects.create(order=order, text=json.dumps({"done": order.pk}))


def work() -> None:
    """Do what is ordered until the process ends; stand by while another one does it."""
    worker = Worker()
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_lock(%s)", [ONLY_ONE])
        while True:
            worker.step()
            time.sleep(TICK_S if worker.under else IDLE_S)


def lines_after(rig: Rig, number: int) -> list[Line]:
    """Lines with larger numbers than one, in order."""
    return list(Line.objects.filter(order__rig=rig, pk__gt=number)[:500])


def newest_line(rig: Rig) -> int:
    """The number of the last line."""
    return int(Line.objects.filter(order__rig=rig).aggregate(last=Max("pk"))["last"] or 0)


def line_before(rig: Rig, under: Order | None) -> int:
    """The number behind which the lines of an order come, or will."""
    first = under.lines.first() if under is not None else None
    return first.pk - 1 if first is not None else newest_line(rig)
