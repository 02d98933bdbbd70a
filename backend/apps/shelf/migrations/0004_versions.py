"""Every change of what a unit could use raises the shop's shelf version, whoever makes it: what was computed from it is known to be old."""

from django.db import migrations

TABLES = ("shelf_part", "shelf_kind", "shelf_donor", "shelf_order", "shelf_check", "shelf_supplier", "drives_sheet", "drives_saying")
MAKE = """
CREATE FUNCTION shelf_has_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE shop_shop SET shelf_version = shelf_version + 1 WHERE id = 1;
    RETURN NULL;
END $$;
""" + "\n".join(
    f"CREATE TRIGGER shelf_changed AFTER INSERT OR UPDATE OR DELETE ON {table} FOR EACH STATEMENT EXECUTE FUNCTION shelf_has_changed();" for table in TABLES
)
UNMAKE = "\n".join(f"DROP TRIGGER shelf_changed ON {table};" for table in TABLES) + "DROP FUNCTION shelf_has_changed();"


class Migration(migrations.Migration):

    dependencies = [("shelf", "0003_without_jobs"), ("shop", "0002_money_clock_versions"), ("drives", "0004_heal_sayings")]

    operations = [migrations.RunSQL(MAKE, UNMAKE)]
