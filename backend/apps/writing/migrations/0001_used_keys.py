"""Used keys move here from the people: the table is renamed, every key that was used stays used."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ("people", "0002_write"),
        ("jobs", "0004_writes_to_people"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            database_operations=[
                migrations.RunSQL("ALTER TABLE people_write RENAME TO writing_usedkey", "ALTER TABLE writing_usedkey RENAME TO people_write"),
                migrations.RunSQL("CREATE INDEX writing_usedkey_at ON writing_usedkey (at)", "DROP INDEX writing_usedkey_at"),
            ],
            state_operations=[
                migrations.CreateModel(
                    name="UsedKey",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("key", models.CharField(max_length=64, unique=True)),
                        ("digest", models.CharField(max_length=64)),
                        ("result", models.CharField(max_length=60)),
                        ("at", models.DateTimeField(db_index=True)),
                        ("by", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to=settings.AUTH_USER_MODEL)),
                    ],
                ),
            ],
        ),
    ]
