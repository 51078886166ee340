//! What running engines showed: from a mark or a touch back to the growth that must have been there.

use super::growing::Growing;
use super::way::Way;
use crate::candidate::resolve::Resolved;
use crate::document::Side;
use crate::given::{Of, Source, WitnessMark};
use crate::quantity::{Dimension, INCH, Length, UnitSystem, format_si, shown};
use crate::report::MarkReport;
use crate::words::WitnessKind;

/// Less than this between mark and computed gap is agreement, in.
const AGREES: f64 = 0.002;

/// Every mark of this candidate and side.
pub(super) fn marks(
    inputs: &Resolved,
    side: Side,
    way: &Way<'_>,
    growing: &Growing,
    source: &Source<'_>,
) -> Vec<MarkReport> {
    let own = |mark: &&WitnessMark| mark.side == side && *mark.candidate == *source.candidate_id();
    let marks = inputs.given.witness.iter().filter(own);
    marks.map(|mark| told(mark, way, growing, inputs, source)).collect()
}

/// What one mark says of the growth.
fn told(mark: &WitnessMark, way: &Way<'_>, growing: &Growing, inputs: &Resolved, source: &Source<'_>) -> MarkReport {
    let rpm = mark.at.as_rpm();
    let computed = way.least(growing.up(rpm), growing.late(rpm), None).1;
    let left = mark.gap.map_or(0.0, Length::si);
    // A higher piston takes nearly as much from the gap as it is higher.
    let further = computed - left;
    let bound = match mark.kind {
        // A touch says that at least so much was there; no touch, that no more was.
        WitnessKind::Touch => further.max(0.0),
        WitnessKind::NoTouch => further.min(0.0),
        WitnessKind::Mark => further,
    };
    let own = inputs.given.growth.beyond.map_or(0.0, Length::si);
    let beyond = own + bound / (rpm / growing.top).powi(2);
    let agrees = bound.abs() < AGREES * INCH;
    let text = |si: f64| format_si(si, Dimension::Length, UnitSystem::Inch);
    let took = shown(bound.abs(), Dimension::Length);
    let says = |sense: &str| match (agrees, bound > 0.0) {
        (true, _) => "agrees with the terms".to_owned(),
        (false, true) => format!("{sense} more than the terms came towards the valve"),
        (false, false) => format!("{sense} less than the terms came towards the valve"),
    };
    MarkReport {
        id: mark.id.to_string(),
        rpm,
        left_mm: 1e3 * left,
        computed_mm: 1e3 * computed,
        says: crate::quantity::Shown { inch: says(&took.inch), metric: says(&took.metric) },
        field: (!agrees).then(|| source.node(Of::Growth, Side::Intake).path_of("beyond")),
        to: (!agrees).then(|| text(beyond)),
    }
}
