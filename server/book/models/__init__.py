"""The household's book: what is kept, with its rules in the database.

Ingredients and cuts are named by their catalogue keys. Amounts are canonical (g, cm, s, C);
beside them stands what the cook typed, to be shown back as typed.
"""

from book.models.answered import Answered
from book.models.batches import Batch, BatchLine, Jar, Pour, in_jars_g
from book.models.blends import Blend, Line, Revision, Target, Use, line_key
from book.models.cooks import Cook
from book.models.household import Household, Preferences, Price, Stock
from book.models.layers import Layer, LayerRow
from book.models.log import EVENTS, LARGEST_PHOTO, TAKEN_BACK, CookClock, Device, Event, Photo, ProbeUse, Reading
from book.models.own import OwnCooker, OwnCut, OwnIngredient, OwnName
from book.models.pieces import LETTERS, Piece
from book.models.rows import Row, Stale, claim_version
from book.models.sides import Seat, SideDish
from book.models.steps import Step
from book.models.trials import Card, Look, Sample, Score, Serving, Taster, Trial
from book.models.verdicts import Band, Decision
from book.models.ways import Way, WayLayer
from book.models.weigh_backs import WeighBack

__all__ = [
    "EVENTS",
    "LARGEST_PHOTO",
    "LETTERS",
    "TAKEN_BACK",
    "Answered",
    "Band",
    "Batch",
    "BatchLine",
    "Blend",
    "Card",
    "Cook",
    "CookClock",
    "Decision",
    "Device",
    "Event",
    "Household",
    "Jar",
    "Layer",
    "LayerRow",
    "Line",
    "Look",
    "OwnCooker",
    "OwnCut",
    "OwnIngredient",
    "OwnName",
    "Photo",
    "Piece",
    "Pour",
    "Preferences",
    "Price",
    "ProbeUse",
    "Reading",
    "Revision",
    "Row",
    "Sample",
    "Score",
    "Seat",
    "Serving",
    "SideDish",
    "Stale",
    "Step",
    "Stock",
    "Target",
    "Taster",
    "Trial",
    "Use",
    "Way",
    "WayLayer",
    "WeighBack",
    "claim_version",
    "in_jars_g",
    "line_key",
]  # fmt: skip
