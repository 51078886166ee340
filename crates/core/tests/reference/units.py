"""Quantities in SI by Pint, a general-purpose units library. Run: python units.py > units.json"""

import json

import pint

units = pint.UnitRegistry()
# The text as the core reads it, its dimension there, the amount and its unit in Pint's words, and the SI unit.
rows = [
    ("3.7 in", "length", 3.7, "inch", "m"),
    ("3.7 ft", "length", 3.7, "foot", "m"),
    ("370 thou", "length", 370, "thou", "m"),
    ("11/32 in", "length", 11 / 32, "inch", "m"),
    ("2.5 lb", "mass", 2.5, "pound", "kg"),
    ("2.5 oz", "mass", 2.5, "ounce", "kg"),
    ("96 mg", "mass", 96, "milligram", "kg"),
    ("64 cc", "volume", 64, "cm**3", "m**3"),
    ("2.5 l", "volume", 2.5, "liter", "m**3"),
    ("4 in3", "volume", 4, "inch**3", "m**3"),
    ("400 lbf ft", "torque", 400, "force_pound * foot", "N*m"),
    ("540 N m", "torque", 540, "N*m", "N*m"),
    ("500 hp", "power", 500, "horsepower", "W"),
    ("300 PS", "power", 300, "metric_horsepower", "W"),
    ("210 kW", "power", 210, "kW", "W"),
    ("150 lbf", "force", 150, "force_pound", "N"),
    ("15 kgf", "force", 15, "force_kilogram", "N"),
    ("14 psi", "pressure", 14, "psi", "Pa"),
    ("1.2 bar", "pressure", 1.2, "bar", "Pa"),
    ("255 cfm", "flow", 255, "foot**3/minute", "m**3/s"),
    ("120 l/s", "flow", 120, "liter/second", "m**3/s"),
    ("6500 rpm", "speed", 6500, "revolutions_per_minute", "rad/s"),
    ("382 lbf/in", "spring rate", 382, "force_pound/inch", "N/m"),
    ("66.9 N/mm", "spring rate", 66.9, "N/mm", "N/m"),
]
print(json.dumps({
    "pint": pint.__version__,
    "rows": [
        {"text": text, "dimension": dimension, "si": units.Quantity(amount, unit).to(si).magnitude}
        for text, dimension, amount, unit, si in rows
    ],
}, indent=1))
