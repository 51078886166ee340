//! Curves over the crank, a degree apart: what hangs on the strip.

use super::blocks::{closed_gap, closed_gaps};
use super::resolve::{Part, Resolved, ResolvedSide, lack, together};
use super::stages::Stages;
use crate::clearance::ValveTravel;
use crate::document::Side;
use crate::quantity::Angle;
use crate::report::StripReport;

/// Curves carry a tenth of a micrometre: they are drawn and read, never computed with.
fn rounded(value: f64) -> f64 {
    (value * 1e4).round() / 1e4
}

/// Curves over the crank, a degree apart.
pub fn strip(inputs: &Resolved, stages: &Stages) -> Part<StripReport> {
    let (intake, exhaust) = (inputs.travel(Side::Intake), inputs.travel(Side::Exhaust));
    together([lack(&inputs.cylinder), lack(&intake), lack(&exhaust)])?;
    let (cylinder, intake, exhaust) = (inputs.cylinder.clone()?, intake?, exhaust?);
    let crank_deg: Vec<f64> = (0..=720).map(f64::from).collect();
    let lift = |travel: &ValveTravel<'_>| {
        crank_deg.iter().map(|deg| rounded(travel.lift_at(*deg).as_mm())).collect::<Vec<_>>()
    };
    let velocity =
        |travel: &ValveTravel<'_>| crank_deg.iter().map(|deg| rounded(travel.velocity_at(*deg) * 1e3)).collect();
    let (intake_lift_mm, exhaust_lift_mm) = (lift(&intake), lift(&exhaust));
    let running = |travel: &ValveTravel<'_>, own: &ResolvedSide| -> Option<Vec<f64>> {
        let spring = own.spring.as_ref().ok();
        crank_deg.iter().map(|deg| Some(rounded(travel.running_at(*deg, spring)?.as_mm()))).collect()
    };
    let gap = |side: Side, lift: &[f64]| -> Option<Vec<f64>> {
        let closed = closed_gaps(&closed_gap(inputs, side).ok()?, stages);
        Some(lift.iter().enumerate().map(|(deg, lift)| rounded(closed[deg % 360].as_mm() - lift)).collect())
    };
    let face = |own: &ResolvedSide, side: Side| {
        own.valve.as_ref().ok()?;
        inputs.port(side).face_recess.map(|recess| -recess.as_mm())
    };
    Ok(StripReport {
        piston_mm: crank_deg.iter().map(|deg| rounded(cylinder.crown(Angle::deg(*deg)).as_mm())).collect(),
        intake_running_mm: running(&intake, inputs.side(Side::Intake)),
        exhaust_running_mm: running(&exhaust, inputs.side(Side::Exhaust)),
        intake_velocity_mm_per_deg: velocity(&intake),
        exhaust_velocity_mm_per_deg: velocity(&exhaust),
        intake_clearance_mm: gap(Side::Intake, &intake_lift_mm),
        exhaust_clearance_mm: gap(Side::Exhaust, &exhaust_lift_mm),
        intake_face_mm: face(inputs.side(Side::Intake), Side::Intake),
        exhaust_face_mm: face(inputs.side(Side::Exhaust), Side::Exhaust),
        intake_lift_mm,
        exhaust_lift_mm,
        crank_deg,
    })
}
