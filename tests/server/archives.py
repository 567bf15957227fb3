"""Archives as a test makes them, and all that a workshop has, to be compared with what comes back."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from PIL import Image

from server.designs.models import Vehicle
from server.practice.models import ExerciseSet
from server.runs.models import Plan
from server.workshops.models import Workshop


def packed(files: dict[str, Any]) -> bytes:
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:
        for name, content in files.items():
            archive.writestr(name, content if isinstance(content, bytes | str) else json.dumps(content))
    return stream.getvalue()


def archive(
    *vehicles: dict[str, Any], files: Mapping[str, Any] = MappingProxyType({}), version: int = 2, head: Any = ()
) -> bytes:
    whole = {"format": "ydrometer-archive", "version": version, "name": "Sent", "vehicles": list(vehicles)}
    return packed({"workshop.json": whole | dict(head), "parts.json": [], **files})


def picture(color: str = "white") -> bytes:
    stream = io.BytesIO()
    Image.new("RGB", (20, 10), color).save(stream, "JPEG")
    return stream.getvalue()


def everything(workshop: Workshop) -> dict[str, Any]:
    """All that a workshop has and an archive takes along, but the ids."""
    return {
        "parts": list(workshop.parts.values_list("ref", "document")),
        "templates": list(workshop.step_templates.values_list("name", "steps")),
        "vehicles": [_vehicle(vehicle) for vehicle in workshop.vehicles.filter(scratch=False)],
        "races": [(race.made_at, _race(race.document, workshop)) for race in workshop.races.all()],
        "sets": [_set(exercise_set) for exercise_set in workshop.exercise_sets.all()],
    }


def _vehicle(vehicle: Vehicle) -> dict[str, Any]:
    runs = list(vehicle.runs.select_related("tried"))
    place = {str(run.pk): k for k, run in enumerate(runs)}
    build, plan = getattr(vehicle, "build", None), Plan.objects.filter(vehicle=vehicle).first()
    return {
        "about": (vehicle.name, vehicle.put_away),
        "revisions": list(vehicle.revisions.values_list("number", "name", "summary", "saved_at", "document")),
        "runs": [
            (run.made_at, run.origin, run.put_away, run.changed, run.document, run.tried.document, run.tried.revision)
            for run in runs
        ],
        "lessons": [(one.learnt_at, one.together, [place[key] for key in one.runs]) for one in vehicle.lessons.all()],
        "plan": plan and {**plan.document, "done": {k: place[v] for k, v in plan.document.get("done", {}).items()}},
        "book": build and build.book,
        "steps": list(
            vehicle.step_entries.values_list(
                "step", "doing", "at", "minutes", "value", "note", "reason", "about", "title", "made_from"
            )
        ),
        "parts": list(vehicle.part_entries.values_list("key", "state", "at", "expected", "paid")),
        "inspections": list(vehicle.inspections.values_list("at", "document")),
        "photos": list(vehicle.photos.values_list("step", "taken_at")),
    }


def _race(document: dict[str, Any], workshop: Workshop) -> dict[str, Any]:
    names = {str(vehicle.pk): vehicle.name for vehicle in workshop.vehicles.all()}
    entries = [{**entry, "vehicle": names.get(entry["vehicle"])} for entry in document["entries"]]
    return {**document, "entries": entries}


def _set(exercise_set: ExerciseSet) -> tuple[Any, ...]:
    pupils = [
        (p.number, p.nickname, p.joined_at, [*p.answers.values_list("place", "given", "verdict", "mistake", "at")])
        for p in exercise_set.pupils.all()
    ]
    plan, seed = exercise_set.plan, exercise_set.seed
    return exercise_set.name, plan, exercise_set.own_numbers, seed, exercise_set.units, exercise_set.made_at, pupils
