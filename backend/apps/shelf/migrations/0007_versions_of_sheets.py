"""The shelf's version rises with the sheets of consoles and with what was learnt as well: what is newest beside a drive's sheet is asked again then."""

from django.db import migrations

TABLES = ("drives_console", "drives_layer")
MAKE = "\n".join(
    f"CREATE TRIGGER shelf_changed AFTER INSERT OR UPDATE OR DELETE ON {table} FOR EACH STATEMENT EXECUTE FUNCTION shelf_has_changed();" for table in TABLES
)
UNMAKE = "\n".join(f"DROP TRIGGER shelf_changed ON {table};" for table in TABLES)


class Migration(migrations.Migration):

    dependencies = [("shelf", "0006_belt_sizes"), ("drives", "0007_layer")]

    operations = [migrations.RunSQL(MAKE, UNMAKE)]
