"""A controller's continuous current is a value of the controller, where a design has it too."""

from __future__ import annotations

from typing import Any

from django.db import migrations

KEY = "continuous_current"


def _controllers(apps: Any) -> Any:
    return apps.get_model("parts", "Part").objects.filter(document__kind="controller")


def inwards(apps: Any, schema_editor: Any) -> None:
    """From the part into its controller; what stands there already stays."""
    for part in _controllers(apps).filter(document__has_key=KEY):
        document = dict(part.document)
        value = document.pop(KEY)
        part.document = {**document, "controller": {KEY: value, **document["controller"]}}
        part.save(update_fields=["document"])


def outwards(apps: Any, schema_editor: Any) -> None:
    """From the controller to the part, as before; other ratings were not known then."""
    for part in _controllers(apps).filter(document__controller__has_key=KEY):
        controller = dict(part.document["controller"])
        value = controller.pop(KEY)
        part.document = {**part.document, KEY: value, "controller": controller}
        part.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("parts", "0001_initial")]
    operations = [migrations.RunPython(inwards, outwards)]
