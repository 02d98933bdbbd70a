"""Whose a part is becomes a flag of the part; which job's owner it is, is kept by the jobs (jobs 0005)."""

from django.db import migrations, models
from django.db.models import Q


def flag(apps, _editor):
    apps.get_model("shelf", "Part").objects.filter(owner_job__isnull=False).update(is_owned=True)


class Migration(migrations.Migration):

    dependencies = [("shelf", "0001_initial")]

    operations = [
        migrations.AddField("part", "is_owned", models.BooleanField(default=False)),
        migrations.RunPython(flag, migrations.RunPython.noop),
        migrations.RemoveConstraint("part", "custody_is_never_stock"),
    ]
