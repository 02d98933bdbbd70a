"""The test database: filled once with the demo scenario, and put back quickly for tests that really commit."""

import pytest
from apps.demo.services import is_empty, load
from django.db import connection, connections, transaction

TABLES = [
    "people_user",
    "writing_usedkey",
    "shop_shop",
    "drives_sheet",
    "drives_saying",
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
    settings = connections["default"].settings_dict
    settings["CONN_MAX_AGE"] = 0
    settings.setdefault("OPTIONS", {})["options"] = "-c spindle.may_wipe=yes"  # the tape is emptied between tests that really commit


@pytest.fixture(scope="session")
def snapshot(django_db_setup, django_db_blocker):
    """The demo scenario as the tables' own bytes, loaded through the services once."""
    with django_db_blocker.unblock():
        load()
        with connection.cursor() as cursor:
            return {table: _rows(cursor, table) for table in TABLES}


def _rows(cursor, table):
    with cursor.copy(f"COPY {table} TO STDOUT") as copy:
        return b"".join(bytes(row) for row in copy)


def put_back(snapshot):
    """Fill the database again, if a test that really commits has left it empty."""
    if is_empty():
        with transaction.atomic(), connection.cursor() as cursor:
            for table, rows in snapshot.items():
                with cursor.copy(f"COPY {table} FROM STDIN") as copy:
                    copy.write(rows)
                cursor.execute(f"SELECT setval(pg_get_serial_sequence('{table}', 'id'), max(id)) FROM {table} HAVING max(id) IS NOT NULL")


@pytest.fixture
def demo(snapshot, transactional_db):
    """The demo scenario for a test that really commits: the database is emptied after each of those."""
    put_back(snapshot)
