//! The phasing window in words.

use super::phasing_curves::Curves;
use crate::candidate::Resolved;
use crate::choose::{Stand, Window, free, window};
use crate::document::Side;
use crate::limits::{RULES, titled};
use crate::quantity::{Angle, Dimension, Shown, shown, shown_vacuum};
use crate::report::{PhasingReport, PhasingTorque, TimingStep};

/// Crank degrees that keyways and bushings of timing sets usually reach, where nobody says (common practice, no source).
const USUAL_STEPS: [f64; 9] = [-8.0, -6.0, -4.0, -2.0, 0.0, 2.0, 4.0, 6.0, 8.0];

/// A gain of average torque below this share is none.
const LEAST_GAIN: f64 = 5e-4;

/// A cam that was turned.
pub(super) struct Phased<'a> {
    pub resolved: &'a Resolved,
    pub stands: &'a [Stand],
    pub curves: Option<&'a Curves>,
    /// Back and forward.
    pub phaser: (f64, f64),
}

pub(super) fn worded(phased: &Phased<'_>) -> PhasingReport {
    let engine = &phased.resolved.given.engine;
    let stretch = engine.drive_stretch.map_or(0.0, Angle::as_deg);
    let window = window(phased.stands, stretch, phased.phaser);
    let torque = phased.curves.map(|curves| phased.torque(curves));
    let best = window.and_then(|window| phased.best(&window, torque.as_ref()?));
    let given = engine.timing_steps.as_ref().filter(|steps| !steps.is_empty());
    let steps: Vec<f64> =
        given.map_or_else(|| USUAL_STEPS.to_vec(), |own| own.iter().map(|own| own.as_deg()).collect());
    let gaps = |of: &dyn Fn(&Stand) -> Option<f64>| {
        phased.stands.iter().map(|stand| of(stand).map(|gap| 1e3 * gap)).collect::<Option<Vec<f64>>>()
    };
    PhasingReport {
        advance_deg: phased.stands.iter().map(|stand| stand.advance).collect(),
        intake_centreline_deg: phased.stands.iter().map(|stand| phased.centreline(stand.advance)).collect(),
        intake_clearance_mm: gaps(&|stand| stand.at_rest[0]),
        exhaust_clearance_mm: gaps(&|stand| stand.at_rest[1]),
        intake_at_speed_mm: gaps(&|stand| stand.at_speed[0]),
        exhaust_at_speed_mm: gaps(&|stand| stand.at_speed[1]),
        fails: phased.stands.iter().map(titles).collect(),
        window_deg: window.map(|window| [window.clear.0, window.clear.1]),
        free_deg: free(phased.stands).map(|free| [free.0, free.1]),
        set_deg: window.and_then(|window| window.set).map(|set| [set.0, set.1]),
        stretch_deg: stretch,
        phaser_deg: [phased.phaser.0, phased.phaser.1],
        steps: steps.iter().map(|step| phased.step(*step, window.as_ref(), torque.as_ref())).collect(),
        steps_assumed: given.is_none(),
        says: Shown::plain(phased.says(window.as_ref(), best, torque.as_ref(), stretch)),
        best_deg: best,
        torque,
    }
}

/// Limits that fail at a place, by their titles.
fn titles(stand: &Stand) -> Vec<String> {
    let title = |(id, side): &(&str, Option<Side>)| {
        let rule = RULES.iter().find(|rule| rule.id == *id);
        rule.map_or_else(String::new, |rule| titled(rule.title, *side))
    };
    stand.fails.iter().map(title).collect()
}

impl Phased<'_> {
    fn centreline(&self, advance: f64) -> f64 {
        self.resolved.phasing.as_ref().map_or(f64::NAN, |phasing| phasing.advanced(advance).intake_centreline)
    }

    fn nearest(&self, advance: f64) -> Option<&Stand> {
        self.stands.iter().min_by(|a, b| (a.advance - advance).abs().total_cmp(&(b.advance - advance).abs()))
    }

    fn torque(&self, curves: &Curves) -> PhasingTorque {
        let advances = || self.stands.iter().map(|stand| stand.advance);
        let at: Vec<_> = advances().map(|advance| curves.torque.at(advance)).collect();
        let column = |place: usize, scale: f64| at.iter().map(|own| own[place] * scale).collect();
        let vacuum = |advance| curves.gas.as_ref().and_then(|gas| gas.at(advance).idle_vacuum);
        let idle: Vec<Option<f64>> = advances().map(vacuum).collect();
        let mean = curves.values.iter().map(|own| own[0]).sum::<f64>() / curves.values.len().max(1) as f64;
        PhasingTorque {
            drafted_deg: curves.drafted.clone(),
            average_torque_nm: column(0, 1.0),
            low_torque_nm: column(1, 1.0),
            peak_power_kw: column(2, 1e-3),
            idle_vacuum_shown: idle.iter().map(|own| own.map(shown_vacuum)).collect(),
            idle_vacuum_kpa: idle.iter().map(|own| own.map(|pa| pa * 1e-3)).collect(),
            off_share: curves.torque.missed(&curves.values, 0) / mean,
        }
    }

    /// Where it may be set with the most average torque; where it stands, when nothing there is better by more than the parabolas
    /// miss.
    fn best(&self, window: &Window, torque: &PhasingTorque) -> Option<f64> {
        let (from, to) = window.set?;
        let inside = self.stands.iter().map(|stand| stand.advance).filter(|deg| (from..=to).contains(deg));
        let best = inside.max_by(|a, b| self.gain(*a, torque).total_cmp(&self.gain(*b, torque)))?;
        let is_none = self.gain(best, torque) < torque.off_share.max(LEAST_GAIN);
        Some(if is_none && (from..=to).contains(&0.0) { 0.0 } else { best })
    }

    /// By how much average torque is more with the cam turned, as a share.
    fn gain(&self, advance: f64, torque: &PhasingTorque) -> f64 {
        let at = |deg: f64| {
            let place = self.stands.iter().position(|stand| stand.advance == deg);
            place.map_or(f64::NAN, |place| torque.average_torque_nm[place])
        };
        at(advance) / at(0.0) - 1.0
    }

    fn step(&self, advance: f64, window: Option<&Window>, torque: Option<&PhasingTorque>) -> TimingStep {
        let at = |deg: f64| {
            let place = self.stands.iter().position(|stand| (stand.advance - deg).abs() < 0.26)?;
            torque.map(|torque| torque.average_torque_nm[place])
        };
        let set = window.and_then(|window| window.set);
        TimingStep {
            advance_deg: advance,
            in_window: set.is_some_and(|(from, to)| (from..=to).contains(&advance)),
            fails: self.nearest(advance).map(titles).unwrap_or_default(),
            average_torque_nm: at(advance).zip(at(0.0)).map(|(there, here)| there - here),
            intake_centreline: format!("{:.1} deg", self.centreline(advance)),
        }
    }

    fn says(&self, window: Option<&Window>, best: Option<f64>, torque: Option<&PhasingTorque>, stretch: f64) -> String {
        let Some(window) = window else {
            return self.nowhere();
        };
        let (from, to) = window.clear;
        let clear = format!("Nothing that depends on phasing fails from {} to {}.", self.end(from), self.end(to));
        let here = if from > 0.0 || to < 0.0 { " As it is given, it stands outside." } else { "" };
        let set = match window.set {
            Some((from, to)) if stretch > 0.0 || self.phaser != (0.0, 0.0) => {
                let why = if self.phaser == (0.0, 0.0) { "" } else { " and the phaser" };
                format!(
                    " With {stretch:.1} deg of drive stretch to come{why}, set it from {} to {}.",
                    turned(from),
                    turned(to)
                )
            }
            Some(_) => String::new(),
            None => {
                " What drive stretch and phaser take is more than there is: it cannot be set so that it stays clear."
                    .to_owned()
            }
        };
        let best = best.zip(torque).map_or(String::new(), |(best, torque)| self.best_says(best, torque));
        format!("{clear}{here}{set}{best}")
    }

    /// What there is to say where something fails wherever it is set.
    fn nowhere(&self) -> String {
        let touches = free(self.stands).map_or_else(
            || "valve and piston are too near at speed too".to_owned(),
            |(from, to)| format!("nothing touches at speed from {} to {}", self.end(from), self.end(to)),
        );
        let least = self.stands.iter().min_by_key(|stand| stand.fails.len());
        let by = least.map_or_else(String::new, |stand| {
            format!("; least where it is {}: {}", turned(stand.advance), titles(stand).join(", "))
        });
        format!("Wherever this cam is set within this range, a limit fails; {touches}{by}.")
    }

    /// An end of the window; one at the end of what was looked at may lie further.
    fn end(&self, advance: f64) -> String {
        let is_last = |stand: Option<&Stand>| stand.is_some_and(|stand| stand.advance == advance);
        let beyond = is_last(self.stands.first()) || is_last(self.stands.last());
        format!("{}{}", if beyond { "at least " } else { "" }, turned(advance))
    }

    fn best_says(&self, best: f64, torque: &PhasingTorque) -> String {
        if best == 0.0 {
            return " Where it stands is as good as any place of the window.".to_owned();
        }
        format!(" Best average torque {}: {:+.2} %.", turned(best), self.gain(best, torque) * 1e2)
    }
}

/// An advance in words.
fn turned(deg: f64) -> String {
    let angle = |deg: f64| shown(deg.to_radians(), Dimension::Angle).inch;
    match deg {
        deg if deg > 0.0 => format!("{} advanced", angle(deg)),
        deg if deg < 0.0 => format!("{} retarded", angle(-deg)),
        _ => "as it is".to_owned(),
    }
}
