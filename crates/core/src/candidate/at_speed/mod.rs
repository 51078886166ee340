//! What is left between parts at speed: gaps measured cold and by hand, less every term that a running engine takes off or
//! gives back, one after another.

mod gaps;
mod growing;
mod marks;
mod terms;
mod way;

pub use gaps::{Moved, motion_of_valves, quiet_gap, radial_at_speed};
pub use growing::Growing;

use super::resolve::{Part, Resolved, lack, together};
use super::stages::Stages;
use crate::document::Side;
use crate::given::Source;
use crate::report::{AtSpeedReport, AtSpeedSide};
use marks::marks;
use terms::TermSource;
use way::Way;

/// Gaps at speed with their terms.
///
/// # Errors
/// What the gaps at rest lack, the highest speed, and of what is computed of rod and block.
pub fn at_speed(inputs: &Resolved, source: &Source<'_>, stages: &Stages) -> Part<AtSpeedReport> {
    let growing = Growing::of(inputs);
    let [intake, exhaust] = Side::BOTH.map(|side| Way::of(inputs, side, stages));
    together([lack(&growing), lack(&intake), lack(&exhaust), lack(&inputs.cylinder)])?;
    let (growing, intake, exhaust) = (growing?, intake?, exhaust?);
    let speeds = growing.speeds();
    let moved = Side::BOTH.map(|side| gaps::turned(inputs, side, &speeds, stages));
    let quench = inputs.cylinder.clone()?.piston_to_head().si();
    let mm = |of: &dyn Fn(f64) -> f64| speeds.iter().map(|rpm| 1e3 * of(*rpm)).collect::<Vec<f64>>();
    let report = |side: Side, way: &Way<'_>| {
        let moved = moved[side.index()].as_deref().map(Vec::as_slice);
        let found = way.report(&growing, &speeds, moved, |key, otherwise| TermSource::of(source, key, otherwise));
        AtSpeedSide {
            marks: marks(inputs, side, way, &growing, source),
            retainer_to_seal_mm: gaps::retainer(inputs, side, moved),
            coil_bind_mm: gaps::coil_bind(inputs, side, moved),
            radial_mm: radial_at_speed(inputs, side, stages).ok().flatten().map(|gap| 1e3 * gap),
            ..found
        }
    };
    Ok(AtSpeedReport {
        lag_deg: speeds.iter().map(|rpm| growing.late(*rpm)).collect(),
        piston_to_head_mm: mm(&|rpm| quench - growing.of_piston(rpm)),
        valve_to_valve_mm: gaps::heads(inputs, [moved[0].as_deref(), moved[1].as_deref()]),
        has_budget: inputs.given.has_growth_budget,
        intake: report(Side::Intake, &intake),
        exhaust: report(Side::Exhaust, &exhaust),
        speed_rpm: speeds,
    })
}
