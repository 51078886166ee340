//! Valve head and piston crown in the frame of the build document.
//!
//! Head gasket face z = 0, positive from the head towards the piston; x across the engine, positive
//! towards the exhaust side; y along the crank; origin on the bore axis. The head's edge is a circle
//! on its lower face; the crown is flat with one round pocket that has a flat floor.

use crate::given::{Missing, Needs, PocketPart, Port, need};
use crate::quantity::{Angle, Length};
use std::sync::OnceLock;

/// A place or direction in the frame, metres.
pub type Vector = [f64; 3];

/// Directions of the edge that are looked at; the lowest of the edge is one of them.
const AROUND: usize = 48;

pub(super) fn dot(a: Vector, b: Vector) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

pub(super) fn along(from: Vector, direction: Vector, distance: f64) -> Vector {
    [from[0] + distance * direction[0], from[1] + distance * direction[1], from[2] + distance * direction[2]]
}

pub(super) fn minus(a: Vector, b: Vector) -> Vector {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

pub(super) fn norm(a: Vector) -> f64 {
    dot(a, a).sqrt()
}

/// Unit vector down a stem that is tilted across the engine and canted along the crank, each angle
/// as seen square to its plane. A stem that leans to the intake side (negative x) points its head to
/// positive x.
fn axis(tilt: Angle, cant: Angle) -> Vector {
    let raw = [tilt.si().tan(), cant.si().tan(), 1.0];
    let length = norm(raw);
    [raw[0] / length, raw[1] / length, raw[2] / length]
}

/// Two unit vectors across `axis`, the first towards positive z as far as it goes.
fn basis(axis: Vector) -> (Vector, Vector) {
    let flat = (axis[0] * axis[0] + axis[1] * axis[1]).sqrt();
    // Steepest descent within the disc: z less its part along the axis.
    let down = if flat < 1e-12 {
        [1.0, 0.0, 0.0]
    } else {
        let z_part = axis[2] / flat;
        [-axis[0] * z_part, -axis[1] * z_part, flat]
    };
    let side = [
        axis[1] * down[2] - axis[2] * down[1],
        axis[2] * down[0] - axis[0] * down[2],
        axis[0] * down[1] - axis[1] * down[0],
    ];
    (down, side)
}

/// Edge of a disc across `axis`: `AROUND` unit vectors, the first towards positive z as far as it goes.
fn around(axis: Vector) -> [Vector; AROUND] {
    let (down, side) = basis(axis);
    circle()
        .map(|(sin, cos)| [cos * down[0] + sin * side[0], cos * down[1] + sin * side[1], cos * down[2] + sin * side[2]])
}

/// Directions of the edge where the gap to a wall is looked for.
const AROUND_FINELY: usize = 192;

/// The same edge, finely.
fn around_finely(axis: Vector) -> impl Iterator<Item = Vector> {
    let (down, side) = basis(axis);
    (0..AROUND_FINELY).map(move |i| {
        let (sin, cos) = (i as f64 * 2.0 * std::f64::consts::PI / AROUND_FINELY as f64).sin_cos();
        [cos * down[0] + sin * side[0], cos * down[1] + sin * side[1], cos * down[2] + sin * side[2]]
    })
}

/// Sine and cosine of `AROUND` equal steps of a turn.
fn circle() -> &'static [(f64, f64); AROUND] {
    static CIRCLE: OnceLock<[(f64, f64); AROUND]> = OnceLock::new();
    CIRCLE.get_or_init(|| std::array::from_fn(|i| (i as f64 * 2.0 * std::f64::consts::PI / AROUND as f64).sin_cos()))
}

/// A closed valve's lower face.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ValveFrame {
    /// Centre of the face, valve closed.
    pub centre: Vector,
    /// Down the stem, unit length.
    pub axis: Vector,
    /// Radius of the face.
    pub radius: f64,
}

/// The pocket of a crown.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Pocket {
    /// Centre of the floor when the crown is at z = 0.
    centre: Vector,
    /// Into the piston, unit length.
    normal: Vector,
    radius: f64,
}

/// A flat crown, with or without a pocket under this valve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CrownFrame {
    pocket: Option<Pocket>,
}

/// Distances between a valve and the crown.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gap {
    /// Along the stem: what a dial on the retainer reads. Negative when they overlap.
    pub along_stem: Length,
    /// Cosine between the stem and the normal of the surface that is met.
    pub facing: f64,
    /// Cosine between the bore and that normal.
    pub level: f64,
}

impl Gap {
    /// Square to the surface that is met.
    pub fn normal(&self) -> Length {
        Length::from_si(self.along_stem.si() * self.facing)
    }

    /// Straight down the bore, as long as the same surface is met; along the stem where that is an upright wall, which
    /// nothing straight down meets.
    pub fn vertical(&self) -> Length {
        let share = if self.level > 1e-6 { self.facing / self.level } else { 1.0 };
        Length::from_si(self.along_stem.si() * share)
    }
}

/// Reads the closed valve of a port.
///
/// # Errors
/// Sizes that are missing; over a pocket also where the valve stands.
pub fn read_valve(port: &Port, over_pocket: bool) -> Result<ValveFrame, Missing> {
    let mut needs = Needs::default();
    let (diameter, recess) = (need!(needs, port.valve_diameter), need!(needs, port.face_recess));
    let (tilt, cant) = (need!(needs, port.valve_angle), need!(needs, port.valve_cant));
    let (x, y) = if over_pocket {
        (need!(needs, port.valve_offset_x), need!(needs, port.valve_offset_y))
    } else {
        // Over a flat crown the place of the valve does not matter.
        (port.valve_offset_x.unwrap_or_default(), port.valve_offset_y.unwrap_or_default())
    };
    let axis = axis(tilt, cant);
    let radius = 0.5 * diameter.si();
    let lowest_below_centre = radius * (1.0 - axis[2] * axis[2]).max(0.0).sqrt();
    needs.met(ValveFrame { centre: [x.si(), y.si(), -recess.si() - lowest_below_centre], axis, radius })
}

/// The port's other valve: like `first`, elsewhere; `None` while its place is unknown.
pub fn read_second_valve(port: &Port, first: &ValveFrame) -> Option<ValveFrame> {
    let (x, y) = (port.second_offset_x?, port.second_offset_y?);
    Some(ValveFrame { centre: [x.si(), y.si(), first.centre[2]], ..*first })
}

/// Reads the crown under a port's valve; without a pocket it is flat.
///
/// # Errors
/// Sizes of the pocket that are missing.
pub fn read_crown(port: &Port, pocket: &PocketPart) -> Result<CrownFrame, Missing> {
    if !pocket.is_given {
        return Ok(CrownFrame { pocket: None });
    }
    let mut needs = Needs::default();
    let (depth, diameter) = (need!(needs, pocket.depth), need!(needs, pocket.diameter));
    let (x, y) = (need!(needs, pocket.offset_x), need!(needs, pocket.offset_y));
    // A floor cut at its own angle across the engine is still canted with the valve along the crank.
    let tilt = pocket.floor_angle.or(port.valve_angle).unwrap_or_default();
    let cant = port.valve_cant.unwrap_or_default();
    let normal = axis(tilt, cant);
    let radius = 0.5 * diameter.si();
    let deepest_below_centre = radius * (1.0 - normal[2] * normal[2]).max(0.0).sqrt();
    needs.met(CrownFrame {
        pocket: Some(Pocket { centre: [x.si(), y.si(), depth.si() - deepest_below_centre], normal, radius }),
    })
}

impl ValveFrame {
    /// The face with the valve `lift` open.
    pub fn opened(&self, lift: Length) -> Self {
        Self { centre: along(self.centre, self.axis, lift.si()), ..*self }
    }

    /// Height of the edge's lowest place.
    fn lowest(&self) -> f64 {
        self.centre[2] + self.radius * (1.0 - self.axis[2] * self.axis[2]).max(0.0).sqrt()
    }

    /// Smallest distance from the edge to the wall of a bore about the origin's axis, over all lifts up to `lift`, wherever
    /// the edge is below the gasket face: `gasket` (diameter) down to `deck` below it, `bore` beneath. `None` while the edge
    /// stays in the chamber.
    ///
    /// The edge moves along straight lines, so that its distance from the axis is greatest at the ends of each stretch.
    pub fn to_bore(&self, lift: Length, (gasket, deck): (Length, Length), bore: Length) -> Option<Length> {
        let stretch = |place: Vector, from: f64, to: f64, diameter: Length| {
            let off = |lift: f64| {
                let at = along(place, self.axis, lift);
                at[0].hypot(at[1])
            };
            (from < to || (from - to).abs() < 1e-12).then(|| 0.5 * diameter.si() - off(from).max(off(to)))
        };
        let edge = around_finely(self.axis).map(|direction| along(self.centre, direction, self.radius));
        let gaps = edge.flat_map(|place| {
            let reaches = |height: f64| ((height - place[2]) / self.axis[2]).max(0.0);
            let (face, top, full) = (reaches(0.0), reaches(deck.si()), lift.si());
            [
                (face <= full).then(|| stretch(place, face, top.min(full), gasket)).flatten(),
                (top <= full).then(|| stretch(place, top, full, bore)).flatten(),
            ]
        });
        gaps.flatten().reduce(f64::min).map(Length::from_si)
    }

    /// Points on the edge of the face, the lowest first.
    pub(super) fn edge(&self) -> [Vector; AROUND] {
        around(self.axis).map(|direction| along(self.centre, direction, self.radius))
    }

    /// Distance from a place to the face, a thin disc.
    pub(super) fn distance(&self, place: Vector) -> f64 {
        let from = minus(place, self.centre);
        let height = dot(from, self.axis);
        let radial = norm(along(from, self.axis, -height));
        let outside = (radial - self.radius).max(0.0);
        (height * height + outside * outside).sqrt()
    }
}

impl CrownFrame {
    /// Whether there is a pocket under this valve.
    pub const fn has_pocket(&self) -> bool {
        self.pocket.is_some()
    }

    /// The pocket's floor centre when the crown is at z = 0, its diameter, and the floor's tilt across
    /// the engine.
    pub fn pocket_shape(&self) -> Option<(Vector, Length, Angle)> {
        let pocket = self.pocket?;
        let tilt = Angle::from_si((pocket.normal[0] / pocket.normal[2]).atan());
        Some((pocket.centre, Length::from_si(2.0 * pocket.radius), tilt))
    }

    /// Smallest distance along the stem from the face to the crown at height `crown`, over the
    /// edge of the face and the rim of the pocket.
    pub fn gap(&self, valve: &ValveFrame, crown: Length) -> Gap {
        self.gap_along(valve, valve.axis, crown.si())
    }

    /// The same straight down the bore.
    pub fn vertical_gap(&self, valve: &ValveFrame, crown: Length) -> Length {
        self.gap_along(valve, [0.0, 0.0, 1.0], crown.si()).along_stem
    }

    fn gap_along(&self, valve: &ValveFrame, direction: Vector, crown: f64) -> Gap {
        let mut least = Gap { along_stem: Length::from_si(f64::INFINITY), facing: 1.0, level: 1.0 };
        let mut consider = |distance: f64, normal: Vector| {
            if distance < least.along_stem.si() {
                let (facing, level) = (dot(direction, normal).abs(), normal[2].abs());
                least = Gap { along_stem: Length::from_si(distance), facing, level };
            }
        };
        for point in valve.edge() {
            let (distance, normal) = self.ray(point, direction, crown);
            consider(distance, normal);
        }
        for rim in self.rim(crown) {
            // Back along the direction from the rim to the plane of the face.
            let distance = dot(minus(rim, valve.centre), valve.axis) / dot(direction, valve.axis);
            let on_face = along(rim, direction, -distance);
            if norm(minus(on_face, valve.centre)) < valve.radius {
                consider(distance, [0.0, 0.0, 1.0]);
            }
        }
        least
    }

    /// Distance from `point` along `direction` to the crown, the floor or the wall of the pocket,
    /// with the normal of what is met.
    fn ray(&self, point: Vector, direction: Vector, crown: f64) -> (f64, Vector) {
        const DOWN: Vector = [0.0, 0.0, 1.0];
        let to_crown = (crown - point[2]) / direction[2];
        let Some(pocket) = self.pocket.map(|p| p.at(crown)) else { return (to_crown, DOWN) };
        // Above the crown the ray has to pass the mouth; below it the point itself must lie inside.
        let entry = along(point, direction, to_crown.max(0.0));
        if pocket.off_axis(entry) > pocket.radius || pocket.above_floor(entry) < 0.0 {
            return (to_crown, DOWN);
        }
        let to_floor = pocket.above_floor(point) / dot(direction, pocket.normal);
        if pocket.off_axis(along(point, direction, to_floor)) <= pocket.radius {
            return (to_floor, pocket.normal);
        }
        pocket.wall_along(point, direction).map_or((to_floor, pocket.normal), |(distance, normal)| (distance, normal))
    }

    /// Places on the mouth of the pocket where it opens in the crown.
    fn rim(&self, crown: f64) -> impl Iterator<Item = Vector> {
        let pocket = self.pocket.map(|p| p.at(crown));
        pocket.into_iter().flat_map(move |pocket| {
            around(pocket.normal).into_iter().filter_map(move |direction| {
                let floor = along(pocket.centre, direction, pocket.radius);
                // A floor that rises above the crown has no rim there.
                (floor[2] > crown).then(|| along(floor, pocket.normal, (crown - floor[2]) / pocket.normal[2]))
            })
        })
    }

    /// Smallest distance from that part of the face's edge which is inside the pocket to its wall, with the crown at
    /// `crown`; negative where the edge is in the wall. `None` without a pocket, and while no part of the edge is in it.
    /// Guide play is not in it.
    pub fn radial_gap(&self, valve: &ValveFrame, crown: Length) -> Option<Length> {
        let crown = crown.si();
        let pocket = self.pocket?.at(crown);
        if valve.lowest() <= crown {
            return None;
        }
        let inside = around_finely(valve.axis).map(|direction| along(valve.centre, direction, valve.radius));
        inside
            .filter(|place| place[2] > crown)
            .map(|place| pocket.to_wall(place, crown))
            .reduce(f64::min)
            .map(Length::from_si)
    }
}

impl Pocket {
    fn at(self, crown: f64) -> Self {
        Self { centre: [self.centre[0], self.centre[1], self.centre[2] + crown], ..self }
    }

    /// Height of a place above the floor, square to it.
    fn above_floor(&self, place: Vector) -> f64 {
        dot(minus(self.centre, place), self.normal)
    }

    /// Distance from a place below the crown to the wall: square to the axis, or to the wall's edge in the crown where the
    /// wall ends below that.
    fn to_wall(self, place: Vector, crown: f64) -> f64 {
        let from = minus(place, self.centre);
        let square = along(from, self.normal, -dot(from, self.normal));
        let off_axis = norm(square);
        let gap = self.radius - off_axis;
        // Height of the nearest place of the wall over the crown, along the axis.
        let outward = if off_axis > 0.0 { square[2] / off_axis } else { 0.0 };
        let above = (crown - (place[2] + gap * outward)) / self.normal[2];
        if above > 0.0 && gap > 0.0 { gap.hypot(above) } else { gap }
    }

    fn off_axis(&self, place: Vector) -> f64 {
        let from = minus(place, self.centre);
        norm(along(from, self.normal, -dot(from, self.normal)))
    }

    /// Distance to the wall from inside, with the wall's normal.
    fn wall_along(&self, point: Vector, direction: Vector) -> Option<(f64, Vector)> {
        let square = |v: Vector| along(v, self.normal, -dot(v, self.normal));
        let (from, step) = (square(minus(point, self.centre)), square(direction));
        let (a, b, c) = (dot(step, step), dot(from, step), dot(from, from) - self.radius * self.radius);
        let root = b * b - a * c;
        if a < 1e-18 || root < 0.0 {
            return None;
        }
        let distance = (-b + root.sqrt()) / a;
        let outward = along(from, step, distance);
        let length = norm(outward);
        Some((distance, [outward[0] / length, outward[1] / length, outward[2] / length]))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{ENGINE, Ledger, Node, Side};
    use serde_json::json;

    fn frames(port: serde_json::Value) -> (ValveFrame, CrownFrame) {
        let engine = json!({ "intake": port });
        let ledger = Ledger::default();
        let node = Node::new(Some(&engine), &ENGINE, "engine", &ledger).child("intake");
        let (port, pocket) = (Port::read(&node, Side::Intake), PocketPart::read(&node.child("pocket"), Side::Intake));
        (read_valve(&port, pocket.is_given).unwrap(), read_crown(&port, &pocket).unwrap())
    }

    #[test]
    fn a_square_valve_over_a_flat_crown_is_as_far_as_the_crown_is_low() {
        let (valve, crown) = frames(json!({
            "valve_diameter": "40 mm", "face_recess": "3 mm", "valve_angle": "0 deg"
        }));
        let gap = crown.gap(&valve.opened(Length::mm(1.0)), Length::mm(5.0));
        assert!((gap.along_stem.as_mm() - 7.0).abs() < 1e-9);
        assert!((gap.normal().as_mm() - 7.0).abs() < 1e-9);
    }

    #[test]
    fn a_tilted_valve_meets_a_flat_crown_with_its_lowest_edge() {
        let (valve, crown) = frames(json!({
            "valve_diameter": "40 mm", "face_recess": "3 mm", "valve_angle": "20 deg"
        }));
        let gap = crown.gap(&valve.opened(Length::mm(2.0)), Length::mm(5.0));
        // By hand: the edge is 3 mm above the gasket face; 8 mm of height is 8 / cos 20 along the stem.
        let stem = 8.0 / 20_f64.to_radians().cos() - 2.0;
        assert!((gap.along_stem.as_mm() - stem).abs() < 1e-9);
        assert!(
            (crown.vertical_gap(&valve.opened(Length::mm(2.0)), Length::mm(5.0)).as_mm()
                - (8.0 - 2.0 * 20_f64.to_radians().cos()))
            .abs()
                < 1e-9
        );
    }

    #[test]
    fn in_a_parallel_pocket_the_whole_face_meets_the_floor_at_once() {
        let (valve, crown) = frames(json!({
            "valve_diameter": "40 mm", "face_recess": "3 mm", "valve_angle": "15 deg",
            "valve_offset_x": "0 mm", "valve_offset_y": "0 mm",
            "pocket": { "depth": "6 mm", "diameter": "44 mm", "offset_x": "1.9 mm", "offset_y": "0 mm" }
        }));
        let (sin, cos) = 15_f64.to_radians().sin_cos();
        // By hand: square to both planes, from the face's centre to the floor's.
        let face = [0.0, -3.0 - 20.0 * sin];
        let floor = [1.9, 5.0 + 6.0 - 22.0 * sin];
        let expected = (floor[0] - face[0]) * sin + (floor[1] - face[1]) * cos;
        let gap = crown.gap(&valve, Length::mm(5.0));
        assert!((gap.along_stem.as_mm() - expected).abs() < 1e-9, "{gap:?} {expected}");
        assert!((gap.normal().as_mm() - expected).abs() < 1e-9);
        // Square to the stem: 22 - 20 less the sideways offset of the two centres.
        let sideways = (floor[0] - face[0]) * cos - (floor[1] - face[1]) * sin;
        assert_eq!(crown.radial_gap(&valve, Length::mm(5.0)), None, "the closed valve is not in the pocket");
        // Opened along the common axis, the whole edge in the pocket.
        let radial = crown.radial_gap(&valve.opened(Length::mm(20.0)), Length::mm(5.0)).unwrap().as_mm();
        assert!((radial - (2.0 - sideways.abs())).abs() < 1e-9);
    }

    #[test]
    fn a_pocket_smaller_than_the_valve_is_met_at_the_crown() {
        let port = |diameter: &str| {
            json!({
                "valve_diameter": "40 mm", "face_recess": "3 mm", "valve_angle": "0 deg",
                "valve_offset_x": "0 mm", "valve_offset_y": "0 mm",
                "pocket": { "depth": "6 mm", "diameter": diameter, "offset_x": "0 mm", "offset_y": "0 mm" }
            })
        };
        let (valve, small) = frames(port("30 mm"));
        assert!((small.gap(&valve, Length::mm(5.0)).along_stem.as_mm() - 8.0).abs() < 1e-9);
        let (valve, large) = frames(port("44 mm"));
        assert!((large.gap(&valve, Length::mm(5.0)).along_stem.as_mm() - 14.0).abs() < 1e-9);
    }

    #[test]
    fn opening_the_valve_takes_exactly_its_lift_from_the_gap() {
        let (valve, crown) = frames(json!({
            "valve_diameter": "50.8 mm", "face_recess": "2.8 mm", "valve_angle": "18 deg", "valve_cant": "5 deg",
            "valve_offset_x": "-3.8 mm", "valve_offset_y": "-23.4 mm",
            "pocket": { "depth": "4.3 mm", "diameter": "54.1 mm", "offset_x": "-3.3 mm", "offset_y": "-23.4 mm", "floor_angle": "16 deg" }
        }));
        let closed = crown.gap(&valve, Length::mm(9.0)).along_stem.as_mm();
        for lift in [0.5, 3.0, 8.0] {
            let open = crown.gap(&valve.opened(Length::mm(lift)), Length::mm(9.0)).along_stem.as_mm();
            assert!((closed - lift - open).abs() < 1e-9, "{lift}");
        }
    }
}
