"""Blends on paper: lists, recipes, CSV and Markdown, in and out."""

from ravska_core.exchange.asking import InHand, answered, in_hand, usual_kind
from ravska_core.exchange.bring import bring, steps_of
from ravska_core.exchange.csv import write_csv
from ravska_core.exchange.finding import SURE, Found, Sought, find
from ravska_core.exchange.forms import LONGEST_FILE
from ravska_core.exchange.items import MEASURED, Amount, Item, ListLine, by_eye
from ravska_core.exchange.jsonld import write_jsonld
from ravska_core.exchange.lists import read_amount
from ravska_core.exchange.markdown import write_markdown
from ravska_core.exchange.taking import Put, Taken, put_in, take, weighed

__all__ = [
    "LONGEST_FILE",
    "MEASURED",
    "SURE",
    "Amount",
    "Found",
    "InHand",
    "Item",
    "ListLine",
    "Put",
    "Sought",
    "Taken",
    "answered",
    "bring",
    "by_eye",
    "find",
    "in_hand",
    "put_in",
    "read_amount",
    "steps_of",
    "take",
    "usual_kind",
    "weighed",
    "write_csv",
    "write_jsonld",
    "write_markdown",
]
