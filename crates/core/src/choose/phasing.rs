//! A cam turned as a whole: what every limit that depends on it says at each place, and the window in which none fails.

use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::given::{Of, Place};
use crate::limits::{Findings, Judged, PISTON_AT_SPEED, PISTON_CLEARANCE, Rule, limits};
use crate::report::Verdict;
use rayon::prelude::*;

/// Crank degrees between two places.
pub const STEP: f64 = 0.5;

/// How the candidate stands with its cam turned.
#[derive(Debug, Clone, PartialEq)]
pub struct Stand {
    /// Crank degrees forward from how it is given.
    pub advance: f64,
    /// Gap between each valve and the piston at rest, m.
    pub at_rest: [Option<f64>; 2],
    /// The same at speed.
    pub at_speed: [Option<f64>; 2],
    /// Limits that fail there and depend on how the cam stands.
    pub fails: Vec<(&'static str, Option<Side>)>,
}

/// What moves when a cam is turned.
const TURNED: Place = Place::new(Of::Cam, "intake_centreline", Side::Intake);

/// How the candidate stands from so many degrees back to so many forward, with what long work would find at an advance.
pub fn stands(
    resolved: &Resolved,
    found: &(dyn Fn(f64) -> Findings + Sync),
    (back, forward): (f64, f64),
    stages: &Stages,
) -> Vec<Stand> {
    let middle = limits(resolved, &found(0.0), stages);
    let is_turned = |judged: &&Judged| judged.rule.places(judged.side).any(|place| place == TURNED);
    let stand = |advance: f64| {
        let turned = resolved.turned(advance);
        let judgement = middle.after(&[TURNED], &turned, &found(advance), stages);
        let have =
            |rule: &'static Rule, side: Side| judgement.of(rule, Some(side))?.found.as_ref().ok().map(|own| own.have);
        let failing = judgement.figures.iter().filter(|judged| judged.verdict() == Verdict::Fails);
        Stand {
            advance,
            at_rest: Side::BOTH.map(|side| have(&PISTON_CLEARANCE, side)),
            at_speed: Side::BOTH.map(|side| have(&PISTON_AT_SPEED, side)),
            fails: failing.filter(is_turned).map(|judged| (judged.rule.id, judged.side)).collect(),
        }
    };
    let (first, last) = ((-back / STEP).floor() as i32, (forward / STEP).ceil() as i32);
    (first..=last).into_par_iter().map(|place| stand(f64::from(place) * STEP)).collect()
}

/// Where a cam may stand, and where it may be set.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Window {
    /// From and to, crank degrees forward from how it is given, in which nothing fails.
    pub clear: (f64, f64),
    /// Where it may be set so that it stays in that, whatever its drive stretches and a phaser turns; `None` where that is more
    /// than there is.
    pub set: Option<(f64, f64)>,
}

/// The window around how the cam is given, or the nearest to it; `None` where something fails everywhere. `stretch`: crank
/// degrees it will run later; `phaser`: back and forward.
pub fn window(stands: &[Stand], stretch: f64, phaser: (f64, f64)) -> Option<Window> {
    let clear = nearest_run(stands, |stand| stand.fails.is_empty())?;
    let set = (clear.0 + stretch + phaser.0, clear.1 - phaser.1);
    Some(Window { clear, set: (set.0 <= set.1).then_some(set) })
}

/// Where nothing touches: both valves keep what they need at speed, whatever is left at rest.
pub fn free(stands: &[Stand]) -> Option<(f64, f64)> {
    nearest_run(stands, |stand| stand.fails.iter().all(|(id, _)| *id != PISTON_AT_SPEED.id))
}

/// From and to of the places that are clear, around how the cam is given or nearest to it.
fn nearest_run(stands: &[Stand], is_clear: impl Fn(&Stand) -> bool) -> Option<(f64, f64)> {
    let is_clear = |place: &usize| is_clear(&stands[*place]);
    let nearest = (0..stands.len())
        .filter(is_clear)
        .min_by(|a, b| stands[*a].advance.abs().total_cmp(&stands[*b].advance.abs()))?;
    let low = (0..=nearest).rev().take_while(is_clear).last()?;
    let high = (nearest..stands.len()).take_while(is_clear).last()?;
    Some((stands[low].advance, stands[high].advance))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn stand(advance: f64, is_clear: bool) -> Stand {
        let fails = if is_clear { Vec::new() } else { vec![("piston_clearance", Some(Side::Intake))] };
        Stand { advance, at_rest: [None; 2], at_speed: [None; 2], fails }
    }

    #[test]
    fn a_window_is_around_where_the_cam_stands_or_nearest_to_it() {
        let stands: Vec<Stand> =
            (-10..=10).map(|deg| stand(f64::from(deg), (-6..=4).contains(&deg) || deg >= 8)).collect();
        let found = window(&stands, 2.0, (0.0, 0.0)).unwrap();
        assert_eq!((found.clear, found.set), ((-6.0, 4.0), Some((-4.0, 4.0))));
        let beyond: Vec<Stand> =
            stands.iter().cloned().map(|own| Stand { advance: own.advance + 20.0, ..own }).collect();
        assert_eq!(window(&beyond, 0.0, (0.0, 0.0)).unwrap().clear, (14.0, 24.0));
    }

    #[test]
    fn nothing_touches_over_more_than_what_rules_at_rest_allow() {
        let at = |deg: f64, fails: &[&'static str]| Stand {
            fails: fails.iter().map(|id| (*id, Some(Side::Exhaust))).collect(),
            ..stand(deg, true)
        };
        let stands =
            [at(-2.0, &["piston_at_speed", "piston_clearance"]), at(-1.0, &["piston_clearance"]), at(0.0, &["radial"])];
        assert_eq!(window(&stands, 0.0, (0.0, 0.0)), None);
        assert_eq!(free(&stands), Some((-1.0, 0.0)));
    }

    #[test]
    fn a_phaser_takes_its_whole_range_from_the_window() {
        let stands: Vec<Stand> = (-30..=10).map(|deg| stand(f64::from(deg), deg > -28 && deg < 6)).collect();
        assert_eq!(window(&stands, 1.0, (20.0, 0.0)).unwrap().set, Some((-6.0, 5.0)));
        assert_eq!(window(&stands, 1.0, (40.0, 0.0)).unwrap().set, None);
        let none: Vec<Stand> = (-3..=3).map(|deg| stand(f64::from(deg), false)).collect();
        assert_eq!(window(&none, 0.0, (0.0, 0.0)), None);
    }
}
