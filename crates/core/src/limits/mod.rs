//! Every rule as data and one function: need, have, margin, verdict, school, source, formula, and
//! the single changes that buy margin back.
//!
//! Verdicts are planning aids: a maker's instructions and a competent machinist's measurement stand
//! above any computed number.

mod at_speed;
mod cam_core;
mod class;
mod clearances;
mod combinations;
mod exhaust_opening;
pub(crate) mod figures;
mod findings;
mod fits;
mod gas;
mod head;
mod in_motion;
mod incompatible;
mod levers;
mod measure;
mod motion;
mod reads;
mod report;
mod room;
mod rule;
mod springs;
mod wire;

pub use at_speed::PISTON_AT_SPEED;
pub use clearances::PISTON_CLEARANCE;
pub use gas::IDLE_VACUUM;
pub use in_motion::LIMITING_SPEED;
pub use motion::HOLLOW_FLANK;
pub use springs::HAND_CHECK;

pub use findings::{ControlFinding, Findings, GasFinding, InMotion, Strayed};
pub use incompatible::{Incompatible, NO_SCHOOL};
pub use measure::Measure;

pub use report::{limit_shown, line, titled};
pub use rule::{Case, Finding, How, Judged, Lever, Rule};

use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::given::{Place, Source};
use crate::report::LimitReport;
pub use combinations::incompatibilities;

/// Every rule, in the builder's order of place.
pub static RULES: &[&Rule] = &[
    &clearances::PISTON_CLEARANCE,
    &clearances::RADIAL,
    &clearances::BORE_WALL,
    &clearances::VALVE_TO_VALVE,
    &clearances::PISTON_TO_HEAD,
    &clearances::RETAINER_TO_SEAL,
    &at_speed::PISTON_AT_SPEED,
    &at_speed::HEAD_AT_SPEED,
    &at_speed::VALVES_AT_SPEED,
    &at_speed::RADIAL_AT_SPEED,
    &at_speed::RETAINER_AT_SPEED,
    &at_speed::BIND_AT_SPEED,
    &at_speed::ROCKER_AT_SPEED,
    &at_speed::ROD_ROOM,
    &at_speed::ROD_AT_SPEED,
    &springs::COIL_BIND,
    &springs::SEAT_LOAD,
    &springs::OPEN_LOAD,
    &springs::SEAT_RESERVE,
    &exhaust_opening::EXHAUST_OPENING,
    &in_motion::LIMITING_SPEED,
    &in_motion::PISTON_MOTION,
    &in_motion::PUSHROD_MOTION,
    &in_motion::LOBE_MOTION,
    &in_motion::WIRE_MOTION,
    &springs::HAND_CHECK,
    &wire::WIRE_STRESS,
    &wire::WIRE_LIFE,
    &wire::WIRE_FATIGUE,
    &wire::SURGE,
    &springs::LIFTER_SPEED,
    &motion::LIFTER_LOAD,
    &springs::ROCKER_LIFT,
    &class::CLASS_LIFT,
    &class::CLASS_RATIO,
    &motion::CONTACT_STRESS,
    &motion::ROLLER_ANGLE,
    &motion::HOLLOW_FLANK,
    &motion::NOSE_RADIUS,
    &motion::NOSE_ACCELERATION,
    &motion::FOOT_CONTACT,
    &motion::PRELOAD,
    &motion::PRELOAD_BY_SCHOOL,
    &cam_core::COLD_LASH,
    &room::TIP_PATTERN,
    &motion::PUSHROD_BUCKLING,
    &cam_core::LIFTER_CLEARANCE,
    &cam_core::LASH_RAMP,
    &cam_core::LOBE_THROUGH_BEARING,
    &cam_core::REGRIND_DEPTH,
    &head::GUIDE_PRESSURE,
    &room::ROCKER_TO_RETAINER,
    &room::STUD_SLOT,
    &room::COVER_ROOM,
    &room::PUSHROD_HOLE,
    &head::SPRING_POCKET,
    &head::COST,
    &gas::TRAPPED_COMPRESSION,
    &gas::IDLE_OVERLAP,
    &gas::WATER_REVERSION,
    &gas::LIFT_AGAINST_HEAD,
    &gas::OCTANE,
    &gas::PEAK_PRESSURE,
    &gas::IDLE_VACUUM,
];

/// Every rule that applies to a candidate.
#[derive(Clone, Default)]
pub struct Judgement {
    /// Rules with a figure, in order of place.
    pub figures: Vec<Judged>,
    /// What never goes together and is there all the same.
    pub incompatible: Vec<Incompatible>,
}

/// Holds every rule against a candidate and what was found of it: the only way to a verdict.
pub fn limits(resolved: &Resolved, findings: &Findings, stages: &Stages) -> Judgement {
    let case = Case { resolved, findings, stages, side: Side::Intake };
    let figures = RULES.iter().flat_map(|rule| rule.sides().iter().filter_map(move |side| rule.judge(*side, case)));
    Judgement { figures: figures.collect(), incompatible: incompatibilities(resolved) }
}

impl Judgement {
    /// The judgement of a candidate of which only `changed` differs from the one judged here: rules that read none of it
    /// stand as they are.
    #[must_use]
    pub fn after(&self, changed: &[Place], resolved: &Resolved, findings: &Findings, stages: &Stages) -> Self {
        let case = Case { resolved, findings, stages, side: Side::Intake };
        let mut figures = Vec::with_capacity(self.figures.len());
        let mut before = self.figures.iter().peekable();
        for (rule, side) in RULES.iter().flat_map(|rule| rule.sides().iter().map(move |side| (*rule, *side))) {
            let known = before.next_if(|judged| std::ptr::eq(judged.rule, rule) && judged.side == side);
            if rule.places(side).any(|place| changed.contains(&place)) {
                figures.extend(rule.judge(side, case));
            } else {
                figures.extend(known.cloned());
            }
        }
        Self { figures, incompatible: incompatibilities(resolved) }
    }

    /// One rule on one side.
    pub fn of(&self, rule: &Rule, side: Option<Side>) -> Option<&Judged> {
        self.figures.iter().find(|judged| std::ptr::eq(judged.rule, rule) && judged.side == side)
    }

    /// Its lines, what never goes together first, without remedies.
    pub fn lines(
        &self,
        resolved: &Resolved,
        findings: &Findings,
        stages: &Stages,
        source: &Source<'_>,
    ) -> Vec<LimitReport> {
        let case = Case { resolved, findings, stages, side: Side::Intake };
        let incompatible = self.incompatible.iter().map(|pair| pair.line(source));
        incompatible.chain(self.figures.iter().map(|judged| line(judged, case, source))).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{LIMIT_IDS, limit_dimension};

    #[test]
    fn a_shop_can_set_every_rule_in_its_own_measure() {
        let mut ids: Vec<_> = RULES.iter().map(|rule| rule.id).collect();
        let mut known = LIMIT_IDS.to_vec();
        ids.sort_unstable();
        known.sort_unstable();
        assert_eq!(ids, known);
        for rule in RULES {
            assert_eq!(limit_dimension(rule.id), rule.measure.dimension(), "{}", rule.id);
        }
    }
}
