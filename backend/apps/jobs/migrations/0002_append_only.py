"""The database itself keeps the tape append-only: no line is changed, none deleted, whoever asks."""

from django.db import migrations

REFUSE = """
CREATE FUNCTION jobs_tape_is_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the tape is append-only: a line is struck by a line of its own';
END $$;
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON jobs_tapeline
    FOR EACH ROW EXECUTE FUNCTION jobs_tape_is_append_only();
"""
ALLOW = """
DROP TRIGGER append_only ON jobs_tapeline;
DROP FUNCTION jobs_tape_is_append_only();
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0001_initial")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
