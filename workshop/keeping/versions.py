"""Which version of the program a database belongs to."""

from __future__ import annotations

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.recorder import MigrationRecorder


def steps() -> tuple[list[str], list[str]]:
    """The steps a database has taken that this program does not know, since a later one took them; and
    those it has still to take before this program can work in it."""
    executor = MigrationExecutor(connection)
    known = executor.loader.disk_migrations or {}
    applied = MigrationRecorder(connection).applied_migrations()
    later = sorted(f"{app} {name}" for app, name in applied if (app, name) not in known)
    plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
    return later, [f"{step.app_label} {step.name}" for step, _ in plan]


def is_empty() -> bool:
    """Whether nothing was ever kept in it."""
    return not MigrationRecorder(connection).applied_migrations()
