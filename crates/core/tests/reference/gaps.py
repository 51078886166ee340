"""Gaps of a valve's edge by brute force in three dimensions: a thousand places on the edge, the wall of the pocket as a
thousand straight lines, the bore as what it is; crank and lift walked in small steps.

Lifts come from the analysis, a degree apart; all geometry is done here, from the document's own texts. Run as
    python3 gaps.py path/to/upper-lobe > gaps.json
with numpy; `gaps_reference.rs` holds the core against what it wrote.
"""

import json
import subprocess
import sys
from pathlib import Path

import numpy as np

INCH = 25.4
ROOT = Path(__file__).resolve().parents[4]
DEMOS = ["tollgate-388-hauler", "quarry-lane-427-strip", "harbour-six-7-2-diesel"]
STRIP, HAULER, DIESEL = 1, 0, 2
# Build, candidate, side, and fields changed first: own floors, canted valves, shifted and shallow pockets.
CASES = [
    (STRIP, "a", "intake", {}),
    (STRIP, "a", "exhaust", {}),
    (STRIP, "b", "intake", {}),
    (STRIP, "b", "exhaust", {}),
    (STRIP, "c", "intake", {}),
    (HAULER, "b", "intake", {}),
    (HAULER, "a", "exhaust", {}),
    (DIESEL, "c", "intake", {}),
    (STRIP, "a", "intake", {"engine.intake.pocket.floor_angle": "9 deg"}),
    (STRIP, "a", "intake", {"engine.intake.pocket.floor_angle": "17 deg"}),
    (STRIP, "a", "intake", {"engine.intake.valve_cant": "4 deg"}),
    (STRIP, "a", "intake", {"engine.intake.valve_cant": "4 deg", "engine.intake.pocket.floor_angle": "10 deg"}),
    (STRIP, "a", "intake", {"engine.intake.valve_cant": "-3 deg", "engine.intake.pocket.offset_y": "-0.960 in"}),
    (STRIP, "a", "exhaust", {"engine.exhaust.pocket.floor_angle": "8 deg", "engine.exhaust.valve_cant": "2 deg"}),
    (STRIP, "a", "intake", {"engine.intake.pocket.offset_x": "-0.130 in", "engine.intake.pocket.diameter": "2.260 in"}),
    (STRIP, "b", "exhaust", {"engine.exhaust.pocket.depth": "0.150 in", "engine.exhaust.valve_angle": "16 deg"}),
]


def mm(text):
    figure, unit = text.split()
    return float(figure) * (INCH if unit == "in" else 1.0)


def rad(text):
    return np.radians(float(text.split()[0]))


def axis(tilt, cant):
    raw = np.array([np.tan(tilt), np.tan(cant), 1.0])
    return raw / np.linalg.norm(raw)


def circle(normal, count):
    """Unit vectors across `normal`."""
    one = np.cross(normal, [0.3, 0.9, 0.1])
    one /= np.linalg.norm(one)
    two = np.cross(normal, one)
    turn = np.linspace(0.0, 2.0 * np.pi, count, endpoint=False)
    return np.cos(turn)[:, None] * one + np.sin(turn)[:, None] * two


def lowest(radius, normal):
    return radius * np.sqrt(max(0.0, 1.0 - normal[2] ** 2))


def changed(document, fields):
    document = json.loads(json.dumps(document))
    for path, text in fields.items():
        node = document
        *steps, last = path.split(".")
        for step in steps:
            node = node[step]
        node[last] = text
    return document


def to_wall(points, centre, normal, radius, crown):
    """Least distance from each point below the crown to the wall, a straight line for each direction; minus outside it."""
    least = np.full(len(points), np.inf)
    for direction in circle(normal, 1440):
        foot = centre + radius * direction
        height = (crown - foot[2]) / normal[2]
        if height >= 0.0:
            continue  # The floor stands above the crown there: no wall.
        along = np.clip((points - foot) @ normal, height, 0.0)
        least = np.minimum(least, np.linalg.norm(points - foot - along[:, None] * normal, axis=1))
    off = points - centre
    radial = np.linalg.norm(off - np.outer(off @ normal, normal), axis=1)
    return np.where(radial <= radius, least, -least)


def case(binary, demo, candidate, side, fields):
    document = changed(json.loads((ROOT / "demo" / f"{DEMOS[demo]}.json").read_text()), fields)
    command = [binary, "analyze", "-", "--candidate", candidate, "--parts", "strip"]
    done = subprocess.run(command, input=json.dumps(document).encode(), capture_output=True, check=True)
    strip = json.loads(done.stdout)["candidates"][0]["strip"]
    lifts, crowns = np.array(strip[f"{side}_lift_mm"]), np.array(strip["piston_mm"])
    engine = document["engine"]
    port = engine[side]
    tilt, cant = rad(port["valve_angle"]), rad(port.get("valve_cant", "0 deg"))
    down = axis(tilt, cant)
    radius = 0.5 * mm(port["valve_diameter"])
    centre = np.array([mm(port["valve_offset_x"]), mm(port["valve_offset_y"]), -mm(port["face_recess"]) - lowest(radius, down)])
    edge = centre + radius * circle(down, 1080)
    found = {"demo": demo, "candidate": candidate, "side": side, "set": fields}

    gasket, deck, bore = 0.5 * mm(engine["gasket_bore"]), mm(engine["gasket_thickness"]), 0.5 * mm(engine["bore"])
    places = edge[None, :, :] + np.linspace(0.0, lifts.max(), 800)[:, None, None] * down
    wall = np.where(places[:, :, 2] < deck, gasket, bore) - np.hypot(places[:, :, 0], places[:, :, 1])
    below = places[:, :, 2] >= 0.0
    found["bore_wall_mm"] = float(wall[below].min()) if below.any() else None

    pocket = port.get("pocket")
    if pocket:
        floor = axis(rad(pocket["floor_angle"]) if "floor_angle" in pocket else tilt, cant)
        wide = 0.5 * mm(pocket["diameter"])
        sunk = np.array([mm(pocket["offset_x"]), mm(pocket["offset_y"]), mm(pocket["depth"]) - lowest(wide, floor)])

        def gap(deg):
            crown = np.interp(deg, np.arange(721), crowns)
            points = edge + np.interp(deg, np.arange(721), lifts) * down
            inside = points[points[:, 2] > crown]
            if len(inside) == 0:
                return np.inf
            return float(to_wall(inside, sunk + [0.0, 0.0, crown], floor, wide, crown).min())

        degrees = np.arange(300.0, 421.0, 1.0)
        gaps = np.array([gap(deg) for deg in degrees])
        least = np.inf
        if np.isfinite(gaps).any():
            near = degrees[int(np.argmin(gaps))]
            least = min(gap(deg) for deg in np.arange(near - 1.5, near + 1.51, 0.1))
        found["radial_mm"] = least if np.isfinite(least) else None
    return found


if __name__ == "__main__":
    print(json.dumps([case(sys.argv[1], *each) for each in CASES], indent=1))
