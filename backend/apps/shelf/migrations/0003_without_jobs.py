"""The shelf knows nothing of jobs any more: takings, wants and custody went over to them (jobs 0005)."""

from django.db import migrations, models
from django.db.models import Q


class Migration(migrations.Migration):

    dependencies = [("shelf", "0002_owned_flag"), ("jobs", "0005_home_of_the_job")]

    operations = [
        migrations.RemoveIndex("part", "away"),
        migrations.RemoveField("part", "owner_job"),
        migrations.RemoveField("part", "away_since"),
        migrations.AddConstraint("part", models.CheckConstraint(condition=Q(("is_owned", False), ("count", 0), _connector="OR"), name="custody_is_never_stock")),
        migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel("Taking"), migrations.DeleteModel("Want")]),
    ]
