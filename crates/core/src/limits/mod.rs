//! Every rule as data and one function: need, have, margin, verdict, school, source, formula, and
//! the single changes that buy margin back.
//!
//! Verdicts are planning aids: a maker's instructions and a competent machinist's measurement stand
//! above any computed number.

mod cam_core;
mod class;
mod clearances;
mod computed;
mod exhaust_opening;
pub(crate) mod figures;
mod fits;
mod gas;
mod head;
mod motion;
mod never;
mod nevers;
mod remedies;
mod room;
mod rule;
mod springs;

pub use computed::computed_limits;
pub use never::NEVER;
pub use remedies::remedies_for;
pub use rule::{Finding, Lever, Measure, Rule, evaluate};

use crate::candidate::{Inputs, Stages};
use crate::report::LimitReport;

/// Every rule, in the builder's order of place.
pub static RULES: &[&Rule] = &[
    &clearances::PISTON_CLEARANCE,
    &clearances::RADIAL,
    &clearances::VALVE_TO_VALVE,
    &clearances::PISTON_TO_HEAD,
    &clearances::RETAINER_TO_SEAL,
    &springs::COIL_BIND,
    &springs::SEAT_LOAD,
    &springs::OPEN_LOAD,
    &springs::SEAT_RESERVE,
    &exhaust_opening::EXHAUST_OPENING,
    &springs::HAND_CHECK,
    &springs::LIFTER_SPEED,
    &motion::LIFTER_LOAD,
    &springs::ROCKER_LIFT,
    &class::CLASS_LIFT,
    &motion::CONTACT_STRESS,
    &motion::ROLLER_ANGLE,
    &motion::HOLLOW_FLANK,
    &motion::NOSE_RADIUS,
    &motion::FOOT_CONTACT,
    &motion::PRELOAD,
    &motion::TIP_PATTERN,
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
    &gas::LIFT_AGAINST_HEAD,
    &computed::OCTANE,
    &computed::PEAK_PRESSURE,
    &computed::IDLE_VACUUM,
];

/// Every rule that applies to a candidate, in order of place, without remedies.
pub fn all_limits(inputs: &Inputs<'_>, stages: &Stages) -> Vec<LimitReport> {
    let figures =
        RULES.iter().flat_map(|rule| rule.sides().iter().filter_map(|side| evaluate(rule, *side, inputs, stages)));
    nevers::nevers(inputs).into_iter().chain(figures).collect()
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
