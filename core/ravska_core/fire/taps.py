"""What is noted at the fire by one tap: its words, what it is of, and what may be said with it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from types import MappingProxyType

from ravska_core.fire.embers import EMBERS
from ravska_core.heat import COLOURS
from ravska_core.working import BadInput, in_range


@dataclass(frozen=True)
class Kind:
    """A kind of tap: how its button says it, what it is called in the log, what it is `of`, and the words it takes.

    `of` is ``piece``, ``fire``, ``both`` or ``cook``.
    """

    button: str
    says: str
    of: str
    words: tuple[str, ...] = ()


FEELS = ("tough", "giving", "like butter")

SPOTS = ("iron", "grate", "near side", "far side", "water", "meat's surface")

KINDS: Mapping[str, Kind] = MappingProxyType(
    {
        "began": Kind("Begin", "fire begun", "cook"),
        "ended": Kind("All off", "all off", "cook"),
        "on": Kind("On", "on", "piece"),
        "spritz": Kind("Spritz", "spritzed", "piece"),
        "baste": Kind("Baste", "basted", "piece"),
        "turn": Kind("Turn", "turned", "piece"),
        "rotate": Kind("Rotate", "rotated", "piece"),
        "move": Kind("Move", "moved", "piece"),
        "wrap": Kind("Wrap", "wrapped", "piece"),
        "unwrap": Kind("Unwrap", "unwrapped", "piece"),
        "drain": Kind("Drain", "drippings drained", "piece"),
        "sauce": Kind("Sauce", "sauced", "piece"),
        "inject": Kind("Inject", "injected again", "piece"),
        "lid": Kind("Lid", "lid opened", "fire"),
        "fuel": Kind("Fuel", "fuel on", "fire"),
        "embers": Kind("Embers", "embers", "fire", tuple(EMBERS)),
        "vents": Kind("Vents", "vents", "fire", ("opened", "closed", "a little more", "a little less")),
        "flare": Kind("Flare-up", "flare-up", "both"),
        "feel": Kind("Feel", "feels", "piece", FEELS),
        "colour": Kind("Colour", "colour", "piece", ("pale", *COLOURS, "black in places")),
        "jiggle": Kind("Jiggle", "jiggles", "piece", ("stiff", "a little", "all of it")),
        "off": Kind("Take off", "off", "piece"),
        "rest": Kind("Rest", "resting", "piece", ("open", "tented", "wrapped", "in the cool box")),
        "slice": Kind("Slice", "sliced", "piece"),
        "plate": Kind("Plate", "on the plates", "piece"),
        "weight": Kind("Weight", "weighs", "piece"),
        "note": Kind("Note", "", "both"),
        "photo": Kind("Photo", "photo", "both"),
        "read": Kind("Read", "read", "both", ("centre", "surface", "pit", *SPOTS)),
        "set": Kind("Aim", "pit aimed at", "fire"),
        "weather": Kind("Weather", "weather", "cook", ("still", "windy", "gusts", "rain", "snow", "sun", "cold")),
        "came back": Kind("Came back", "came back", "piece"),
        "fed": Kind("Fed", "fed", "cook"),
        "left over": Kind("Left over", "left over", "piece", ("fridge", "freezer", "thrown away")),
        "next time": Kind("Next time", "next time", "both"),
        "silence": Kind("Silence", "silenced", "cook"),
        "tick": Kind("Done", "done", "both"),
    }
)  # fmt: skip
"""What can be noted, in the order it is offered."""

MEASURES = ("centre", "surface", "pit")

_LOWEST_C, _HIGHEST_C = -40.0, 600.0


@dataclass(frozen=True)
class Tap:
    """Something noted at the fire: by its own key, what, when, of which piece, and what was said with it.

    `word` is one of its kind's words; `celsius` [°C]; `grams` [g]; `count` eaters or portions; `x`, `y` where a piece
    lies, shares of the grate's width from its left and its back; `near` the fire's hot side; `side` the face that is
    down; `phase` the planned phase it goes into; `step` the key of the day's step that it ticks.
    """

    key: str
    what: str
    at: datetime
    letter: str = ""
    note: str = ""
    word: str = ""
    celsius: float | None = None
    grams: float | None = None
    count: int | None = None
    x: float | None = None
    y: float | None = None
    near: bool | None = None
    side: str = ""
    phase: int | None = None
    step: str = ""


def check_tap(tap: Tap, letters: Sequence[str]) -> None:
    """Refuse what cannot be noted, at its field.

    Raises
    ------
    BadInput
        At ``what``, ``letter``, ``word``, ``note``, ``celsius``, ``grams``, ``x`` or ``y``.
    """
    kind = KINDS.get(tap.what)
    if kind is None:
        raise BadInput("what", f"At the fire one notes {', '.join(KINDS)}: choose one.")
    # a step of the plan may be of a side's lane
    if tap.letter and tap.letter not in letters and tap.what != "tick":
        raise BadInput("letter", f"There is no piece {tap.letter} in this cook; choose one of {', '.join(letters)}.")
    if kind.of == "piece" and not tap.letter:
        raise BadInput("letter", "Say of which piece.")
    if tap.word and kind.words and tap.word not in kind.words:
        raise BadInput("word", f"{kind.button} is one of {', '.join(kind.words)}.")
    if kind.words and not tap.word and tap.what not in ("rest", "weather", "left over", "vents", "jiggle"):
        raise BadInput("word", f"Say which: {', '.join(kind.words)}.")
    if tap.what in _WRITTEN and not tap.note:
        raise BadInput("note", _WRITTEN[tap.what])
    if tap.celsius is not None:
        sentence = f"A temperature is between {_LOWEST_C:.0f} and {_HIGHEST_C:.0f} °C (-40 and 1112 °F)."
        in_range("celsius", tap.celsius, _LOWEST_C, _HIGHEST_C, sentence)
    if tap.what in ("read", "set") and tap.celsius is None:
        raise BadInput("celsius", "Write what it shows, for example 72 °C or 160 °F.")
    if tap.what == "read" and tap.word in ("centre", "surface") and not tap.letter:
        raise BadInput("letter", "Say of which piece.")
    _check_amounts(tap)
    for name in ("x", "y"):
        place = getattr(tap, name)
        if place is not None:
            in_range(name, place, 0, 1, "A place on the grate lies between its edges.")


_WRITTEN = MappingProxyType(
    {
        "note": "Write what is to be noted.", "next time": "Write what to do otherwise next time.",
        "silence": "Say which alarm is silenced.",
    }
)  # fmt: skip


def _check_amounts(tap: Tap) -> None:
    if tap.what in ("left over", "came back") and tap.grams is None:
        raise BadInput("grams", "Write what it weighs, for example 300 g or 10 oz.")
    if tap.what == "weight" and not tap.grams:
        raise BadInput("grams", "Write what it weighs, for example 1.2 kg or 2 lb 10 oz.")
    if tap.what == "fed" and not tap.count:
        raise BadInput("count", "Write how many ate: a whole number.")
    if tap.grams is not None:
        in_range("grams", tap.grams, 0, 100_000, "A weight is between 0 and 100 kg.")
    if tap.count is not None:
        in_range("count", tap.count, 0, 500, "Between 0 and 500 people.")


def in_order(taps: Sequence[Tap]) -> tuple[Tap, ...]:
    """Return taps in the order they happened."""
    return tuple(sorted(taps, key=lambda tap: (tap.at, tap.key)))
