//! What long work found of a candidate before, by what it was computed from.

use super::control::{control_finding, motion_key};
use super::curve::{gas_finding, kept_curve};
use crate::candidate::{Key, Resolved, Stages, motion_of_valves};
use crate::limits::{ControlFinding, Findings};

/// What is kept of this candidate.
pub(super) fn findings_of(resolved: &Resolved, stages: &Stages) -> Findings {
    let curve = kept_curve(resolved, stages);
    let gas = curve.as_ref().map(|(_, curve)| gas_finding(&curve.report));
    Findings { gas, control: control(resolved, curve.map(|(key, _)| key), stages), moved: None }
}

/// The same with what its trains do to gaps at speed, which are turned through every speed for it: some milliseconds.
pub(super) fn findings_in_motion(resolved: &Resolved, stages: &Stages) -> Findings {
    Findings { moved: motion_of_valves(resolved, stages), ..findings_of(resolved, stages) }
}

/// Of its train in motion: under the gas of the curve, else under the estimate, which does not lapse when a curve comes.
fn control(resolved: &Resolved, curve: Option<Key>, stages: &Stages) -> Option<ControlFinding> {
    if stages.motions.is_empty() {
        return None;
    }
    let kept = |curve| stages.motions.kept(motion_key(resolved, curve));
    let report = curve.and_then(|key| kept(Some(key))).or_else(|| kept(None))?;
    Some(control_finding(&report))
}
