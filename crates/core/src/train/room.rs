//! Room around a rocker through its sweep: retainer below it, stud in its slot, cover above, pushrod in its hole; and
//! what it presses the stem against its guide with.
//!
//! The plane of [`super::rocker`]: origin in the pivot, y along the stem, x towards the valve. Lengths in m; a negative
//! gap is an overlap. Bodies are straight edges and corners: a planning aid, a feeler gauge stands above it.

use super::rocker::{Pose, Rocker};

/// What the underside of a rocker may meet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Retainer {
    /// Largest diameter of retainer or spring top, m.
    pub diameter: f64,
    /// Its highest edge below the tip of the stem, m.
    pub below_tip: f64,
}

/// The slot a stud passes, its pivot in the middle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Slot {
    /// Along the body, m.
    pub length: f64,
    /// Thickness of the body there, m.
    pub depth: f64,
    /// Diameter of the stud, m.
    pub stud: f64,
}

/// What stands up from the rocker, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Above {
    /// Highest part over the pivot.
    pub pivot: f64,
    /// Highest part over the pushrod's end.
    pub cup: f64,
}

/// Least distance from the edge of the retainer nearest the pivot to the underside of the body, which runs `underside`
/// below the line from pivot to tip's centre. The retainer goes down with the valve.
pub fn to_retainer(rocker: &Rocker, sweep: &[Pose], retainer: Retainer, underside: f64) -> Option<f64> {
    let gap = |pose: &Pose| {
        let tip = rocker.tip_at(pose);
        let corner = [rocker.stem - 0.5 * retainer.diameter, stem_tip(rocker) - pose.valve - retainer.below_tip];
        // Distance of a point below the line through the pivot: (x u_y - y u_x) with the unit vector u to the tip.
        (corner[0] * tip[1] - corner[1] * tip[0]) / rocker.arm() - underside
    };
    sweep.iter().map(gap).reduce(f64::min)
}

/// Least distance from the stud to the ends of its slot, the rocker square to the stud where tip's centre and pivot stand
/// level: `(L/2) cos phi - (t/2) |sin phi| - d/2`.
pub fn to_stud(rocker: &Rocker, sweep: &[Pose], slot: Slot) -> Option<f64> {
    let gap = |pose: &Pose| {
        let tip = rocker.tip_at(pose);
        let (sin, cos) = (tip[1] / rocker.arm(), tip[0] / rocker.arm());
        0.5 * (slot.length * cos - slot.depth * sin.abs() - slot.stud)
    };
    sweep.iter().map(gap).reduce(f64::min)
}

/// Least room left under a cover `room` above the tip of the closed valve's stem.
pub fn to_cover(rocker: &Rocker, sweep: &[Pose], above: Above, room: f64) -> Option<f64> {
    let highest = |pose: &Pose| {
        let tip = rocker.tip_at(pose)[1] + rocker.tip_radius;
        tip.max(above.pivot).max(pose.cup[1] + above.cup)
    };
    let highest = sweep.iter().map(highest).reduce(f64::max)?;
    Some(stem_tip(rocker) + room - highest)
}

/// What is left on each side of a pushrod of diameter `outside` in a hole of width `hole` that stands `below` the cup of
/// the closed valve along the pushrod, the hole in the middle of its way.
pub fn to_hole(rocker: &Rocker, sweep: &[Pose], (outside, hole, below): (f64, f64, f64)) -> Option<f64> {
    let along = rocker.towards_cup;
    let across = [along[1], -along[0]];
    let dot = |a: [f64; 2], b: [f64; 2]| a[0] * b[0] + a[1] * b[1];
    let place = |pose: &Pose| {
        let foot = rocker.foot(pose.lifter);
        let from_cup = [pose.cup[0] - rocker.cup[0], pose.cup[1] - rocker.cup[1]];
        let rod = [foot[0] - pose.cup[0], foot[1] - pose.cup[1]];
        let share = (-below - dot(from_cup, along)) / dot(rod, along);
        dot(from_cup, across) + share * dot(rod, across)
    };
    let places: Vec<f64> = sweep.iter().map(place).collect();
    let (least, most) = (places.iter().copied().reduce(f64::min)?, places.iter().copied().reduce(f64::max)?);
    Some(0.5 * (hole - outside - (most - least)))
}

/// A stem in its guide.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Guide {
    /// Of the guide, m.
    pub length: f64,
    /// Tip of the closed valve's stem to the top of the guide, m.
    pub tip_to_guide: f64,
    /// Of the stem, m.
    pub stem: f64,
}

/// Share of a guide's length that carries the push at its top (assumed).
const CARRYING: f64 = 1.0 / 3.0;

impl Guide {
    /// Greatest pressure at the top of the guide over places of (valve lift, contact from the stem's axis), m, in Pa;
    /// `load` (N) gives the valve's at a lift and the tip rubs with `friction`: the stem as a beam on both ends of its guide, pushed by `mu F` at its tip and turned by
    /// the load's lever `F e`, over the upper third of the guide. Statics; the share is assumed.
    pub fn pressure(&self, places: &[(f64, f64)], friction: f64, load: impl Fn(f64) -> f64) -> f64 {
        let at = |(valve, contact): &(f64, f64)| {
            let load = load(*valve);
            let overhang = (self.tip_to_guide - valve).max(0.0);
            let turning = friction * load * (overhang + self.length) + load * contact.abs();
            turning / self.length / (self.stem * CARRYING * self.length)
        };
        places.iter().map(at).fold(0.0, f64::max)
    }
}

/// Height of the closed valve's stem tip over the pivot.
fn stem_tip(rocker: &Rocker) -> f64 {
    rocker.tip[1] - rocker.tip_radius
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Level at rest, an endless pushrod square to it: everything in closed form.
    fn level() -> Rocker {
        Rocker {
            cup: [-0.020, 0.0],
            tip: [0.032, 0.0],
            tip_radius: 0.006,
            stem: 0.032,
            pushrod: 50.0,
            towards_cup: [0.0, 1.0],
        }
    }

    fn sweep() -> Vec<Pose> {
        level().sweep(0.008).unwrap()
    }

    /// Turn at full lift, rad.
    fn full() -> f64 {
        (0.008_f64 / 0.020).asin()
    }

    #[test]
    fn the_slot_is_shortest_where_the_rocker_leans_most() {
        let slot = Slot { length: 0.024, depth: 0.008, stud: 0.010 };
        let by_hand = 0.012 * full().cos() - 0.004 * full().sin() - 0.005;
        let found = to_stud(&level(), &sweep(), slot).unwrap();
        assert!((found - by_hand).abs() < 1e-7, "{found} {by_hand}");
    }

    #[test]
    fn the_adjuster_goes_up_by_the_lift_of_the_lifter() {
        // Stem tip .006 below the pivot: room 40 less (8 + 12 + 6) of cup, adjuster and tip radius leaves 14 mm.
        let found = to_cover(&level(), &sweep(), Above { pivot: 0.015, cup: 0.012 }, 0.040).unwrap();
        assert!((found - 0.014).abs() < 1e-6, "{found}");
        let nut = to_cover(&level(), &sweep(), Above { pivot: 0.030, cup: 0.0 }, 0.040).unwrap();
        assert!((nut - 0.004).abs() < 1e-9, "{nut}");
    }

    #[test]
    fn the_retainer_comes_nearest_at_rest_or_at_full_lift() {
        // At rest the corner stands 6 + 5 mm below a level rocker; at full lift by hand from its turn.
        let retainer = Retainer { diameter: 0.036, below_tip: 0.005 };
        let (sin, cos) = full().sin_cos();
        let at_full = (0.014 * -sin + (0.011 + 0.032 * sin) * cos) - 0.004;
        let found = to_retainer(&level(), &sweep(), retainer, 0.004).unwrap();
        assert!((found - at_full.min(0.007)).abs() < 1e-6, "{found} {at_full}");
        let wider = to_retainer(&level(), &sweep(), Retainer { diameter: 0.050, ..retainer }, 0.004).unwrap();
        assert!(wider >= found, "nearer to the pivot a falling rocker has gone down less");
    }

    #[test]
    fn a_pushrod_swings_with_its_cup_and_less_further_down() {
        // The cup of an arc goes out by c (1 - cos): with an endless pushrod the whole rod moves so.
        let out = 0.020 * (1.0 - full().cos());
        let found = to_hole(&level(), &sweep(), (0.008, 0.014, 0.030)).unwrap();
        assert!((found - 0.5 * (0.006 - out)).abs() < 2e-6, "{found}");
        let short = Rocker { pushrod: 0.200, ..level() };
        let low = to_hole(&short, &short.sweep(0.008).unwrap(), (0.008, 0.014, 0.150)).unwrap();
        assert!(low > found, "{low} {found}");
    }

    #[test]
    fn a_stem_is_a_beam_on_both_ends_of_its_guide() {
        // 1,000 N with mu .1 at 30 mm over a guide of 50: 100 N x 80/50 = 160 N on 8 mm x 16.7 mm: 1.2 MPa, by hand.
        let guide = Guide { length: 0.050, tip_to_guide: 0.030, stem: 0.008 };
        assert!((guide.pressure(&[(0.0, 0.0)], 0.1, |_| 1e3) / 1.2e6 - 1.0).abs() < 1e-9);
        assert!((guide.pressure(&[(0.0, -0.004)], 0.0, |_| 1e3) / 0.6e6 - 1.0).abs() < 1e-9);
    }
}
