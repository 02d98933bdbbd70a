"""A database made while 0003 was still being written lacks a column that 0003 makes now: it gets it here. An applied migration is never edited."""

from django.db import migrations

HEAL = """
ALTER TABLE drives_saying ADD COLUMN IF NOT EXISTS works jsonb NOT NULL DEFAULT '[]'::jsonb;
ALTER TABLE drives_saying ALTER COLUMN works DROP DEFAULT;
"""


class Migration(migrations.Migration):

    dependencies = [("drives", "0003_whole_sheets")]

    operations = [migrations.RunSQL(HEAL, migrations.RunSQL.noop)]
