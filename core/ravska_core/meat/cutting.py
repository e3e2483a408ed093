"""What cutting a joint up does to its surface."""

from dataclasses import dataclass

from ravska_core.meat.pieces import Piece, read_piece
from ravska_core.working import Figure, Step, figure


@dataclass(frozen=True)
class CutUp:
    """What cutting a joint does: its surface whole and cut [cm2], and how many times as much that is."""

    whole_cm2: float
    cut_cm2: float
    times: Figure


def cutting(piece: Piece) -> CutUp | None:
    """Determine how the surface jumps when a joint is cut into cubes, strips or steaks; None for a whole one."""
    if not piece.cut_into:
        return None
    whole = read_piece(Piece(piece.cut, piece.mass_g, piece.count, None, piece.grade, piece.faces))
    after = read_piece(piece)
    before_cm2, after_cm2 = whole.coatable.value, after.coatable.value
    steps = (
        Step("Whole", whole.how, before_cm2, "cm²"),
        Step(f"As {piece.cut_into}", after.how, after_cm2, "cm²"),
        Step("Surface, dose and salt by surface", f"{after_cm2:.0f} / {before_cm2:.0f}", after_cm2 / before_cm2, "×"),
    )
    return CutUp(before_cm2, after_cm2, figure(steps, "±20 %: both surfaces are estimates", spread=0.2))
