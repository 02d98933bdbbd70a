"""The test database: filled once with the demo scenario, and put back quickly for tests that really commit."""

import os

import pytest
from apps.demo.services import is_empty, load
from apps.drives.consoles import forget_sheets
from apps.jobs.folding import forget_folded
from django.apps import apps
from django.conf import settings
from django.db import connection, connections, transaction
from hypothesis import settings as settings_of_properties

# a busy machine is no defect: benchmarks measure, tests don't time. And the same code is tried on the same examples: what falls, falls by
# a change of it (decision 0044); ./dev examples and ./dev laws look further
settings_of_properties.register_profile("steady", deadline=None, derandomize="SPINDLE_NEW_EXAMPLES" not in os.environ)
settings_of_properties.load_profile("steady")

TABLES = [
    "people_user",
    "writing_usedkey",
    "shop_shop",
    "shop_meter",
    "drives_sheet",
    "drives_console",
    "drives_saying",
    "photos_photo",
    "sounds_sound",
    "shelf_supplier",
    "shelf_kind",
    "shelf_donor",
    "shelf_order",
    "shelf_part",
    "shelf_check",
    "jobs_job",
    "jobs_tapeline",
    "shelf_movement",
    "jobs_taking",
    "jobs_want",
    "jobs_custody",
]
"""In an order in which each finds what it points at."""


@pytest.fixture(scope="session")
def django_db_modify_db_settings(django_db_modify_db_settings):
    """The live server's threads let go of the test database after each request, so that it can be dropped."""
    own = connections["default"].settings_dict
    own["CONN_MAX_AGE"] = 0
    own.setdefault("OPTIONS", {})["options"] = "-c spindle.may_wipe=yes"  # the tape is emptied between tests that really commit


@pytest.fixture(scope="session")
def snapshot(django_db_setup, django_db_blocker, tmp_path_factory):
    """The demo scenario as the tables' own bytes, loaded through the services once; its pictures and recordings in folders of their own."""
    settings.PHOTOS, settings.SOUNDS = tmp_path_factory.mktemp("photos"), tmp_path_factory.mktemp("sounds")
    with django_db_blocker.unblock():
        load()
        filled = {m._meta.db_table for m in apps.get_models() if m.__module__.startswith("apps.") and m.objects.exists()}
        assert filled <= set(TABLES), f"the demo fills what is not put back: {filled - set(TABLES)}"
        with connection.cursor() as cursor:
            return {table: _rows(cursor, table) for table in TABLES}


def _rows(cursor, table):
    with cursor.copy(f"COPY {table} TO STDOUT") as copy:
        return b"".join(bytes(row) for row in copy)


def put_back(snapshot):
    """Fill the database again, if a test that really commits has left it empty."""
    if is_empty():
        forget_folded()
        forget_sheets()  # numbers begin anew: what was read of a sheet of that number is another's
        with transaction.atomic(), connection.cursor() as cursor:
            for table, rows in snapshot.items():
                with cursor.copy(f"COPY {table} FROM STDIN") as copy:
                    copy.write(rows)
                cursor.execute(f"SELECT setval(pg_get_serial_sequence('{table}', 'id'), max(id)) FROM {table} HAVING max(id) IS NOT NULL")


@pytest.fixture
def demo(snapshot, transactional_db):
    """The demo scenario for a test that really commits: the database is emptied after each of those."""
    put_back(snapshot)
