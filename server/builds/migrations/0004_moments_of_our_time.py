from datetime import UTC, datetime

from django.db import migrations
from django.db.models import F
from django.utils import timezone

FIRST = datetime(2000, 1, 1, tzinfo=UTC)


def mend(apps, schema_editor):
    """What a wrong clock has dated before our time happened when it came; where that is not known, now."""
    for name in ("StepEntry", "PartEntry"):
        apps.get_model("builds", name).objects.filter(at__lt=FIRST).update(at=F("came_at"))
    apps.get_model("builds", "InspectionEntry").objects.filter(at__lt=FIRST).update(at=timezone.now())
    apps.get_model("runs", "Run").objects.filter(made_at__lt=FIRST).update(made_at=timezone.now())


class Migration(migrations.Migration):
    dependencies = [("builds", "0003_booklet_author"), ("runs", "0003_learntanswer")]

    operations = [migrations.RunPython(mend, migrations.RunPython.noop)]
