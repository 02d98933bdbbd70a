"""Versions of the shelf and of names come from a sequence: one that was taken back with its transaction is never given again, for something else."""

from django.db import migrations

COUNTED = (("shelf_has_changed", "shelf_version"), ("names_have_changed", "names_version"))


def _functions(given: str) -> str:
    return "\n".join(
        f"""
CREATE OR REPLACE FUNCTION {name}() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE shop_shop SET {field} = {given.format(field=field)} WHERE id = 1;
    RETURN NULL;
END $$;"""
        for name, field in COUNTED
    )


MAKE = f"""
CREATE SEQUENCE shop_versions;
SELECT setval('shop_versions', greatest(1, (SELECT max(greatest(shelf_version, names_version)) FROM shop_shop)));
{_functions("nextval('shop_versions')")}
"""
UNMAKE = f"{_functions('{field} + 1')} DROP SEQUENCE shop_versions;"


class Migration(migrations.Migration):

    dependencies = [("shop", "0008_names_version"), ("shelf", "0007_versions_of_sheets"), ("people", "0008_names_version")]

    operations = [migrations.RunSQL(MAKE, UNMAKE)]
