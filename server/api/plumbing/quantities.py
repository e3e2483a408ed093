"""Amounts as people type them: one type a quantity, with the text and the value the core reads it as.

A quantity is a string to JSON and to the book's columns of typed text; its `value` is in canonical units. What cannot
be read is refused when the value is asked for, so that a document says all that is wrong with it at once (`Gather`).
"""

from dataclasses import dataclass
from fractions import Fraction
from typing import Any, ClassVar, Generic, TypeVar

from pydantic import GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema
from ravska_core.blend import HIGHEST_BATCH_G, HIGHEST_ERROR, LOWEST_BATCH_G
from ravska_core.coat import Portion, parse_dose
from ravska_core.measure import (
    Amount,
    SpoonSet,
    parse_amount,
    parse_duration_s,
    parse_fire_c,
    parse_grate_cm2,
    parse_height_m,
    parse_held_c,
    parse_hold_s,
    parse_hotter_k,
    parse_keeping_days,
    parse_length_cm,
    parse_mass_g,
    parse_masses_g,
    parse_number,
    parse_parts,
    parse_phase_s,
    parse_read_c,
    parse_sears_s,
    parse_spots_c,
    parse_temperature_c,
)
from ravska_core.meat import LEAST_SERVING_G, MOST_SERVING_G

from api.plumbing.typed import Typed, TypedList

Value = TypeVar("Value")


class Quantity(str, Generic[Value]):
    """An amount as typed."""

    as_text: ClassVar[object] = Typed

    def read(self, field: str) -> Value:
        """Return the amount as the core reads it.

        Raises
        ------
        BadInput
            At `field`, with a sentence that says what to write.
        """
        raise NotImplementedError

    @property
    def text(self) -> str:
        """The amount as it was typed."""
        return str(self)

    @property
    def value(self) -> Value:
        """The amount as the core reads it; `BadInput` at no field where it cannot be."""
        return self.read("")

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_after_validator_function(cls, handler.generate_schema(cls.as_text))


class Mass(Quantity[float]):
    """The weight of a piece of meat [g]; its unit is written out."""

    def read(self, field: str) -> float:
        return parse_mass_g(self, field)


class Masses(Quantity[tuple[float, ...]]):
    """What one or several pieces of meat weigh [g]: all together, or each."""

    as_text = TypedList

    def read(self, field: str) -> tuple[float, ...]:
        return parse_masses_g(self, 1, field)

    def of(self, count: int, field: str) -> "MassOfPieces":
        """Return what so many pieces weigh; as many as weights are written, where that is several.

        Raises
        ------
        BadInput
            At `field`.
        """
        masses = parse_masses_g(self, count, field)
        if len(masses) < 2:
            return MassOfPieces(masses[0], count, ())
        # alike ones need no weights of their own
        return MassOfPieces(sum(masses), len(masses), masses if min(masses) < max(masses) else ())


@dataclass(frozen=True, slots=True)
class MassOfPieces:
    """What pieces weigh together [g], how many they are, and what each weighs where they are unlike [g]."""

    mass_g: float
    count: int
    masses_g: tuple[float, ...]


class Grams(Quantity[float]):
    """A weight in the bowl [g]; a bare number is grams."""

    low, high = 0.01, 60_000.0

    def read(self, field: str) -> float:
        return parse_mass_g(self, field, self.low, self.high, bare="g")


class BatchMass(Grams):
    """What a blend's batch weighs [g]."""

    low, high = LOWEST_BATCH_G, HIGHEST_BATCH_G


class UseMass(Grams):
    """What some of a batch is planned for [g]."""

    low, high = 0.1, 50_000.0


class ServingMass(Grams):
    """What a serving of a piece weighs [g]."""

    low, high = LEAST_SERVING_G, MOST_SERVING_G


class WantedMass(Grams):
    """What is to be weighed out, or the end of a range of batches [g]."""

    low, high = 0.5, 50_000.0


class TakenMass(Grams):
    """What was taken to a piece [g]."""

    low, high = 0.1, 20_000.0


class LeftMass(Grams):
    """What is left of that, or fell off [g]; it may be nothing."""

    low, high = 0.0, 20_000.0


class JarMass(Grams):
    """What is in a jar [g]; it may be empty."""

    low = 0.0


class InTheHouse(Quantity[float | None]):
    """What of an ingredient is in the house [g]; None where there is plenty of it."""

    def read(self, field: str) -> float | None:
        if self.strip().casefold() in ("plenty", "enough"):
            return None
        return parse_mass_g(self, field, 0.0, 60_000.0, bare="g")


class Length(Quantity[float]):
    """A length [cm]."""

    def read(self, field: str) -> float:
        return parse_length_cm(self, field)


class Duration(Quantity[float]):
    """How long something lasts [s]."""

    def read(self, field: str) -> float:
        return parse_duration_s(self, field)


class Keeping(Quantity[float]):
    """How long something keeps [days]."""

    def read(self, field: str) -> float:
        return parse_keeping_days(self, field)


class Hold(Quantity[float]):
    """How long a layer is held [s]; none where it goes straight on."""

    def read(self, field: str) -> float:
        return parse_hold_s(self, field)


class CentreTemperature(Quantity[float]):
    """How warm a centre is to be [C]."""

    def read(self, field: str) -> float:
        return parse_temperature_c(self, field)


class HeldTemperature(Quantity[float]):
    """How warm raw meat is held [C]."""

    def read(self, field: str) -> float:
        return parse_held_c(self, field)


class FireTemperature(Quantity[tuple[float, float]]):
    """How hot a fire is to be [C], its lower and its upper end."""

    def read(self, field: str) -> tuple[float, float]:
        return parse_fire_c(self, field)


class ReadTemperature(Quantity[float]):
    """What a thermometer shows [C]."""

    def read(self, field: str) -> float:
        return parse_read_c(self, field)


class PhaseTime(Quantity[float]):
    """How long something is at the heat [s]; seconds count."""

    def read(self, field: str) -> float:
        return parse_phase_s(self, field)


class Sears(Quantity[tuple[float, ...]]):
    """How long each face is at the heat, one after another [s]."""

    as_text = TypedList

    def read(self, field: str) -> tuple[float, ...]:
        return parse_sears_s(self, field)


class Hotter(Quantity[float]):
    """How much hotter one side is than another [K]."""

    def read(self, field: str) -> float:
        return parse_hotter_k(self, field)


class Spots(Quantity[tuple[float, ...]]):
    """What was measured over a grate, a temperature a place [C]."""

    as_text = TypedList

    def read(self, field: str) -> tuple[float, ...]:
        return parse_spots_c(self, field)


class Grate(Quantity[float]):
    """How large a grate is [cm2]."""

    def read(self, field: str) -> float:
        return parse_grate_cm2(self, field)


class Height(Quantity[float]):
    """How high above the sea a kitchen is [m]."""

    def read(self, field: str) -> float:
        return parse_height_m(self, field)


class Liquid(Quantity[Amount]):
    """An amount of a liquid, by volume or by weight."""

    def read(self, field: str) -> Amount:
        return parse_amount(self, field)


class Dose(Quantity[float]):
    """How much goes on, on the dial of a layer or as people have it; `on` says what the dial counts in."""

    def on(self, unit: str, owned: SpoonSet) -> float | Portion:
        """Return the dose as the core reads it, at ``dose``."""
        return parse_dose(str(self), unit, owned)


class Parts(Quantity[Fraction]):
    """Parts of a blend, exactly."""

    def read(self, field: str) -> Fraction:
        return parse_parts(self, field)


class Numeral(Quantity[float]):
    """A number whose limits lie with what it is of; a % after it is passed over."""

    def read(self, field: str) -> float:
        return self.between(field, -1e9, 1e9, "a number")

    def between(self, field: str, low: float, high: float, noun: str) -> float:
        """Return the number, or refuse it at `field` outside its limits."""
        return parse_number(self.strip().removesuffix("%").strip(), field, low, high, noun)


class Share(Numeral):
    """A share [%]."""

    most: ClassVar[float] = 100.0
    noun: ClassVar[str] = "a share in %"

    def read(self, field: str) -> float:
        return self.between(field, 0, self.most, self.noun)


class ByEye(Share):
    """How far an amount by eye may be off [%]."""

    most, noun = HIGHEST_ERROR * 100, "how far it may be off, in %"
