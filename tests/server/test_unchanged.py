"""What was found in the book is kept until something in it changes, by whoever changes it."""

import os
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]

# in a process of its own: a test's own book lies in a transaction, where nothing is kept
SCRIPT = """
import sqlite3
import django

django.setup()
from book.models import Household
from book.unchanged import kept_while_unchanged
from django.core.management import call_command
from django.db import connection, transaction

call_command("migrate", verbosity=0, skip_checks=True)
asked = []

@kept_while_unchanged
def names(more=""):
    asked.append(more)
    return [row.name for row in Household.objects.order_by("name")] + [more]

def found(*more):
    before = len(asked)
    return names(*more)[:-1], len(asked) - before

print(found(), found(), found("x"), found("x"), found())
Household.objects.create(name="ours")
print(found(), found())
with sqlite3.connect(connection.settings_dict["NAME"]) as other:
    other.execute("UPDATE book_household SET name = 'theirs'")
print(found(), found())
try:
    with transaction.atomic():
        Household.objects.update(name="taken back")
        print(found(), found())
        raise KeyError
except KeyError:
    print(found(), found())
connection.close()
print(found(), found())
for number in range(300):
    found(str(number))
print(found("0"), found("0"))
"""


def test_it_is_asked_again_after_a_write_of_this_connection_or_another_and_within_a_transaction(tmp_path):
    env = os.environ | {
        "RAVSKA_DATA": str(tmp_path), "PYTHONPATH": f"{ROOT / 'core'}{os.pathsep}{ROOT / 'server'}",
        "DJANGO_SETTINGS_MODULE": "ravska.settings",
    }  # fmt: skip
    done = subprocess.run([sys.executable, "-c", SCRIPT], env=env, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    assert done.stdout.splitlines() == [
        "([], 1) ([], 0) ([], 1) ([], 0) ([], 0)",
        "(['ours'], 1) (['ours'], 0)",
        "(['theirs'], 1) (['theirs'], 0)",
        "(['taken back'], 1) (['taken back'], 1)",
        "(['theirs'], 1) (['theirs'], 0)",
        "(['theirs'], 1) (['theirs'], 0)",
        "(['theirs'], 1) (['theirs'], 0)",
    ]
