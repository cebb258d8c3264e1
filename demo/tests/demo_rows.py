"""The demo's data for a test: computed once in a process, put back as rows after that."""

from django.db import connection, transaction

from demo.load import load

_KEPT: dict[str, tuple[str, list[tuple]]] = {}


def fill() -> None:
    """Into tables that are empty, as load() does it."""
    # one row may name another that comes after it
    with transaction.atomic(), connection.cursor() as cursor:
        if _KEPT:
            for insert, rows in _KEPT.values():
                cursor.executemany(insert, rows)
            return
        empty = [name for name in connection.introspection.table_names() if not _rows(cursor, name)]
        load()
        for name in empty:
            rows = _rows(cursor, name)
            if rows:
                places = ", ".join(["%s"] * len(rows[0]))
                _KEPT[name] = (f'INSERT INTO "{name}" VALUES ({places})', rows)


def _rows(cursor, name: str) -> list[tuple]:
    return cursor.execute(f'SELECT * FROM "{name}"').fetchall()
