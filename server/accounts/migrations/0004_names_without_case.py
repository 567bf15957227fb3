from django.db import migrations, models
from django.db.models.functions import Lower


def tell_apart(apps, schema_editor):
    """Of names that differ in case alone, the account that came first keeps its name."""
    User = apps.get_model("accounts", "User")
    taken = set()
    for user in User.objects.order_by("pk"):
        name, number = user.username, 1
        while name.lower() in taken:
            number += 1
            name = f"{user.username[:140]}-{number}"
        taken.add(name.lower())
        if name != user.username:
            User.objects.filter(pk=user.pk).update(username=name)


class Migration(migrations.Migration):
    dependencies = [("accounts", "0003_resetcode_signedin")]

    operations = [
        migrations.RunPython(tell_apart, migrations.RunPython.noop),
        migrations.AddConstraint(
            model_name="user",
            constraint=models.UniqueConstraint(Lower("username"), name="one_account_a_name_without_case"),
        ),
    ]
