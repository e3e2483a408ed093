from collections.abc import Mapping
from pathlib import Path
from typing import Any

from django.core.management import CommandError, CommandParser
from django.core.management.commands.migrate import Command as Migrate
from django.db import DEFAULT_DB_ALIAS, connections
from django.db.backends.base.base import BaseDatabaseWrapper
from django.db.migrations import Migration
from django.db.migrations.executor import MigrationExecutor

from book.carry import Reshapes, Spoiled, carried_over

Plan = list[tuple[Migration, bool]]
"""Migrations, each with whether it is taken back."""


FRESH = Path(__file__).resolve().parents[2] / "fresh.sql"
"""What an empty book is made of; `make fresh` writes it anew from all migrations."""


class Command(Migrate):
    help = f"{Migrate.help} A book with something in it is copied first, and only replaced when all went well."

    def add_arguments(self, parser: CommandParser) -> None:
        super().add_arguments(parser)
        parser.add_argument("--step-by-step", action="store_true", help="Go through all migrations for a new book too.")

    def handle(self, *args: object, **options: Any) -> None:
        connection = connections[options.get("database") or DEFAULT_DB_ALIAS]
        book = Path(str(connection.settings_dict["NAME"]))
        looks_only = options.get("plan") or options.get("check_unapplied")
        in_memory = connection.is_in_memory_db()  # type: ignore[attr-defined]  # SQLite's
        if not book.exists() and not looks_only and not in_memory:
            self._make(connection, book, *args, **options)
            return
        if in_memory or not connection.introspection.table_names():
            self._at_once(connection, options)
            super().handle(*args, **options)
            return
        plan = self._plan(connection, options)
        if not plan:
            super().handle(*args, **options)
            return
        reshapes = self._reshapes(plan)
        connection.close()
        try:
            with carried_over(book, reshapes) as aside:
                connection.settings_dict["NAME"] = str(aside)
                try:
                    super().handle(*args, **options)
                finally:
                    connection.close()
                    connection.settings_dict["NAME"] = str(book)
        except Spoiled as fault:
            raise CommandError(f"The book was not carried over and is as it was. {fault}") from fault

    def _make(self, connection: BaseDatabaseWrapper, book: Path, *args: object, **options: Any) -> None:
        """Make a new book on the side: at every moment there is none or a whole one."""
        connection.close()
        making = book.with_name(f"{book.name}.making")
        making.unlink(missing_ok=True)
        connection.settings_dict["NAME"] = str(making)
        try:
            self._at_once(connection, options)
            super().handle(*args, **options)
            with connection.cursor() as cursor:
                cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        finally:
            connection.close()
            connection.settings_dict["NAME"] = str(book)
        making.replace(book)

    def _at_once(self, connection: BaseDatabaseWrapper, options: Mapping[str, Any]) -> None:
        """Make an empty book of all that is in it, where nothing is; what was added since is migrated after it."""
        asked = any(options.get(one) for one in ("app_label", "step_by_step", "fake", "plan", "check_unapplied"))
        if asked or connection.introspection.table_names():
            return
        connection.ensure_connection()
        connection.connection.executescript(f"BEGIN;\n{FRESH.read_text()}\nCOMMIT;")

    def _plan(self, connection: BaseDatabaseWrapper, options: Mapping[str, Any]) -> Plan:
        """Return the migrations this run would apply or take back."""
        executor = MigrationExecutor(connection)
        label, name = options.get("app_label"), options.get("migration_name")
        if options.get("run_syncdb") or options.get("check_unapplied") or options.get("plan") or options.get("fake"):
            return []
        if not label:
            targets = executor.loader.graph.leaf_nodes()
        elif not name:
            targets = [key for key in executor.loader.graph.leaf_nodes() if key[0] == label]
        elif name == "zero":
            targets = [(label, None)]
        else:
            targets = [(label, executor.loader.get_migration_by_prefix(label, name).name)]
        return executor.migration_plan(targets)

    def _reshapes(self, plan: Plan) -> Reshapes:
        """Return what the migrations say they change: tables filled or emptied, tables under a new name."""
        tables: set[str] = set()
        renamed: dict[str, str] = {}
        for migration, backwards in plan:
            tables |= {f"book_{model}" for model in getattr(migration, "reshapes", ())}
            for old, new in getattr(migration, "renames", {}).items():
                old, new = (f"book_{name}" for name in ((new, old) if backwards else (old, new)))
                renamed[old] = new
        return Reshapes(tables, renamed)
