"""The job comes home: where it stands is kept beside its tape, and what of the shelf is with it is its own.

Takings, wants and custody come over from the shelf with their rows. A version that had outrun its lines (a write that changed nothing
raised it) comes back to them. TRUNCATE is refused as well, unless the session says that it means it.
"""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

SYNC = "UPDATE jobs_job SET version = COALESCE((SELECT max(version) FROM jobs_tapeline WHERE job_id = jobs_job.id), 0)"
GUARD = """
CREATE FUNCTION jobs_tape_is_not_emptied() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF COALESCE(current_setting('spindle.may_wipe', true), '') <> 'yes' THEN
        RAISE EXCEPTION 'the tape is append-only: it is not emptied';
    END IF;
    RETURN NULL;
END $$;
CREATE TRIGGER not_emptied BEFORE TRUNCATE ON jobs_tapeline FOR EACH STATEMENT EXECUTE FUNCTION jobs_tape_is_not_emptied();
"""
UNGUARD = "DROP TRIGGER not_emptied ON jobs_tapeline; DROP FUNCTION jobs_tape_is_not_emptied();"


def power_of(apps, _editor):
    apps.get_model("jobs", "Job").objects.filter(is_live=True).update(power="live")


def lines_of_takings(apps, _editor):
    """Each taking learns which line took it; one without a line (none is known) keeps a number of its own."""
    taking, line = apps.get_model("jobs", "Taking"), apps.get_model("jobs", "TapeLine")
    by_taking = {body["taking"]: number for number, body in line.objects.filter(kind="part").values_list("number", "body") if body.get("taking")}
    for row in taking.objects.all():
        row.line = by_taking.get(row.pk, 1_000_000 + row.pk)
        row.save(update_fields=["line"])


def custody_of(apps, _editor):
    custody = apps.get_model("jobs", "Custody")
    for part in apps.get_model("shelf", "Part").objects.filter(owner_job__isnull=False):
        custody.objects.create(part_id=part.pk, job_id=part.owner_job_id, away_since=part.away_since)


BIG = models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")
USER = models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to=settings.AUTH_USER_MODEL)


class Migration(migrations.Migration):

    dependencies = [
        ("jobs", "0004_writes_to_people"),
        ("shelf", "0002_owned_flag"),
        ("writing", "0001_used_keys"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.AlterField("job", "stage", models.CharField(default="taken_in", max_length=20)),
        migrations.AlterField("tapeline", "kind", models.CharField(max_length=12)),
        migrations.AddField("job", "power", models.CharField(default="out", max_length=8)),
        migrations.RunPython(power_of, migrations.RunPython.noop),
        migrations.RemoveField("job", "is_live"),
        migrations.AddField("job", "waits_for", models.TextField(default="")),
        migrations.AddField("job", "tried", models.JSONField(default=list)),
        migrations.RunSQL(SYNC, migrations.RunSQL.noop),
        migrations.SeparateDatabaseAndState(
            database_operations=[
                migrations.RunSQL("ALTER TABLE shelf_taking RENAME TO jobs_taking", "ALTER TABLE jobs_taking RENAME TO shelf_taking"),
                migrations.RunSQL("ALTER TABLE shelf_want RENAME TO jobs_want", "ALTER TABLE jobs_want RENAME TO shelf_want"),
            ],
            state_operations=[
                migrations.CreateModel(
                    name="Taking",
                    fields=[
                        ("id", BIG),
                        ("at", models.DateTimeField()),
                        ("ended", models.CharField(blank=True, choices=[("back", "back on the shelf"), ("fitted", "fitted for good")], max_length=8)),
                        ("by", USER.clone()),
                        ("job", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="takings", to="jobs.job")),
                        ("part", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="takings", to="shelf.part")),
                    ],
                    options={"indexes": [models.Index(condition=models.Q(("ended", "")), fields=["job"], name="open_takings")]},
                ),
                migrations.CreateModel(
                    name="Want",
                    fields=[
                        ("id", BIG.clone()),
                        ("repair", models.CharField(max_length=40)),
                        ("level", models.CharField(db_index=True, max_length=20)),
                        ("p_success", models.FloatField()),
                        ("since", models.DateTimeField()),
                        ("job", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="want", to="jobs.job")),
                    ],
                ),
            ],
        ),
        migrations.AddField("taking", "line", models.PositiveIntegerField(null=True)),
        migrations.RunPython(lines_of_takings, migrations.RunPython.noop),
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.AlterField("taking", "line", models.PositiveIntegerField()),
        migrations.AddConstraint("taking", models.UniqueConstraint(fields=("job", "line"), name="one_piece_per_line")),
        migrations.CreateModel(
            name="Custody",
            fields=[
                ("id", BIG.clone()),
                ("away_since", models.DateTimeField(null=True)),
                ("job", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="custody", to="jobs.job")),
                ("part", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="custody", to="shelf.part")),
            ],
            options={"indexes": [models.Index(condition=models.Q(("away_since__isnull", False)), fields=["job"], name="still_away")]},
        ),
        migrations.RunPython(custody_of, migrations.RunPython.noop),
        migrations.CreateModel(
            name="Outlook",
            fields=[
                ("id", BIG.clone()),
                ("rests_on", models.CharField(max_length=64)),
                ("body", models.JSONField()),
                ("job", models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="outlook", to="jobs.job")),
            ],
        ),
        migrations.RunSQL("SET CONSTRAINTS ALL IMMEDIATE", migrations.RunSQL.noop),
        migrations.RunSQL(GUARD, UNGUARD),
    ]
