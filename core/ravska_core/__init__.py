"""The rules of seasoning meat by ratio, as pure functions over frozen dataclasses.

Canonical units throughout: grams, millilitres, centimetres, cm2, seconds, degrees
Celsius and mass fractions from 0 to 1. Names carry the unit.
"""
