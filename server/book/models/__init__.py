"""The household's book: what is kept, with its rules in the database.

Ingredients and cuts are named by their catalogue keys. Amounts are canonical (g, cm, s, C);
beside them stands what the cook typed, to be shown back as typed.
"""

from book.models.batches import Batch, BatchLine, Jar, Pour
from book.models.blends import Blend, Line, Revision, Target, Use, label_of, line_key, load_inside, method_of
from book.models.cooks import Cook, Layer, LayerRow, Piece, Stack, StackLayer, Step, WeighBack
from book.models.household import Household, Preferences, Price
from book.models.rows import Row, Stale, claim_version
from book.models.trials import Arm, Card, Look, Sample, Score, Taster, Trial

__all__ = [
    "Arm", "Batch", "BatchLine", "Blend", "Card", "Cook", "Household", "Jar", "Layer", "LayerRow", "Line",
    "Look",
    "Piece", "Pour", "Preferences", "Price", "Revision", "Row", "Sample", "Score", "Stack", "StackLayer",
    "Stale", "Step",
    "Target", "Taster", "Trial", "Use", "WeighBack", "claim_version", "label_of",
    "line_key", "load_inside", "method_of",
]  # fmt: skip
