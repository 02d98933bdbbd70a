"""Every change of somebody's name raises the shop's names version, whoever makes it: a tape that was read with the old one is read anew."""

from django.db import migrations

MAKE = """
CREATE FUNCTION names_have_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE shop_shop SET names_version = names_version + 1 WHERE id = 1;
    RETURN NULL;
END $$;
CREATE TRIGGER names_changed AFTER UPDATE OF first_name, last_name, username ON people_user FOR EACH ROW
WHEN ((OLD.first_name, OLD.last_name, OLD.username) IS DISTINCT FROM (NEW.first_name, NEW.last_name, NEW.username)) EXECUTE FUNCTION names_have_changed();
"""
UNMAKE = "DROP TRIGGER names_changed ON people_user; DROP FUNCTION names_have_changed();"


class Migration(migrations.Migration):

    dependencies = [("people", "0007_wanted_look"), ("shop", "0008_names_version")]

    operations = [migrations.RunSQL(MAKE, UNMAKE)]
