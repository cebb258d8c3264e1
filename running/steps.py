"""The steps that a new version takes the database through, and what each changes of what somebody
chose."""

from __future__ import annotations

import sys

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.migration import Migration


def not_done() -> list[Migration]:
    """The steps that the database has still to take, in their order."""
    executor = MigrationExecutor(connection)
    plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
    return [migration for migration, _backwards in plan]


def said_of(migration: Migration) -> str:
    """What a step changes of what somebody chose, in the words that stand beside it; empty for
    nothing."""
    module = sys.modules[type(migration).__module__]
    return str(getattr(module, "SAID", ""))
