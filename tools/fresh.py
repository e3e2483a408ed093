"""Print what an empty book is made of as SQL: its tables, constraints and triggers, and which migrations made them.

A new book is then there at once, and not after every migration since the first was gone through.
"""

import os
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path


def lines(book: Path) -> list[str]:
    """Return the statements that make an empty book like one."""
    with closing(sqlite3.connect(book)) as opened:
        made = [
            f"{sql};" for (sql,) in opened.execute(
                "SELECT sql FROM sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite_%' ORDER BY"
                " CASE type WHEN 'table' THEN 0 WHEN 'index' THEN 1 ELSE 2 END, name"
            )
        ]  # fmt: skip
        names = opened.execute("SELECT app, name FROM django_migrations ORDER BY id").fetchall()
    return [*made, *(
        f"INSERT INTO django_migrations (app, name, applied) VALUES ('{app}', '{name}', CURRENT_TIMESTAMP);"
        for app, name in names
    )]  # fmt: skip


if __name__ == "__main__":
    data = Path(tempfile.mkdtemp())
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    os.environ["RAVSKA_DATA"] = str(data)
    import django

    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0, step_by_step=True)
    print("\n".join(lines(data / "ravska.sqlite3")))
