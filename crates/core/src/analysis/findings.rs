//! What long work found of a candidate before, by what it was computed from.

use super::control::{control_finding, motion_key};
use super::curve::{curve_key, gas_finding};
use crate::candidate::breathing::{Effort, breathing_of};
use crate::candidate::{Resolved, Stages};
use crate::limits::{ControlFinding, Findings, GasFinding};

/// What is kept of this candidate.
pub(super) fn findings_of(resolved: &Resolved, stages: &Stages) -> Findings {
    Findings { gas: gas(resolved, stages), control: control(resolved, stages) }
}

/// Of a whole curve, or that of one cylinder.
fn gas(resolved: &Resolved, stages: &Stages) -> Option<GasFinding> {
    if stages.curves.is_empty() {
        return None;
    }
    let breathing = breathing_of(resolved).ok()?;
    let level = breathing.strongest();
    let kept = |effort| stages.curves.kept(curve_key(&breathing, effort, level));
    let curve = kept(Effort::Full).or_else(|| kept(Effort::Fast))?;
    Some(gas_finding(&curve.report))
}

/// Of its train in motion.
fn control(resolved: &Resolved, stages: &Stages) -> Option<ControlFinding> {
    if stages.motions.is_empty() {
        return None;
    }
    Some(control_finding(stages.motions.kept(motion_key(resolved))?.as_ref()))
}
