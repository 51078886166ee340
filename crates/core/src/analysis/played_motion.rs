//! What a rig would write of a valve it turns: the stand-in for one, on which the way from a file to a fit is tried.

use super::turning::trains;
use crate::build::Build;
use crate::candidate::dynamics::{DRAWS, Unmeasured, sweep};
use crate::candidate::{Resolved, Stages};
use crate::document::{Fault, Ledger, Side, candidate_or_first};
use crate::given::{Given, Source};
use crate::response::evenly;
use std::fmt::Write;

/// What its probe strays by at most, mm, and what its zeros are: the crank's, degrees, and the probe's, mm.
const STRAYS: f64 = 0.02;
const ZEROS: (f64, f64) = (137.3, 0.08);
/// Speeds it turns at, rpm.
const TURNS: std::ops::RangeInclusive<f64> = 300.0..=10_000.0;

/// Lift of the valve of `side` of the candidate `id`, or of the first, over the crank at every speed (rpm), as a file of columns: a
/// train as nobody measures it, drawn by `lot`, read by a probe with its own zero.
///
/// # Errors
/// Which candidate or speed there is not, or that the train is not known whole.
pub fn played_motion(
    build: &Build,
    id: Option<&str>,
    side: Side,
    (speeds, lot): (&[f64], u32),
) -> Result<String, Fault> {
    if let Some(other) = speeds.iter().find(|rpm| !TURNS.contains(rpm)) {
        return Err(Fault::new("speeds", &other.to_string(), "speeds of 300 to 10,000 rpm"));
    }
    let (stages, views, ledger) = (Stages::default(), build.candidates(), Ledger::default());
    let source = Source::new(candidate_or_first(&views, id)?, &ledger);
    let resolved = Resolved::new(Given::read(&source), &stages);
    let pair = trains(&resolved, None).map_err(|gap| Fault::new("candidate", "its train", gap.reason))?;
    let train = &pair[side.index()];
    let truth = Unmeasured::draws().swap_remove(lot as usize % DRAWS);
    let turned = sweep(&train.without_gas(), &truth, speeds, &|| false);
    let mut text = String::from("crank deg");
    for rpm in speeds {
        // Writing to a text never fails.
        let _ = write!(text, ",{rpm:.0} rpm (mm)");
    }
    for record in 0..turned.first().map_or(0, |own| own.turned.cycles[0].valve.len()) {
        let deg = (train.begins_at + record as f64 + 1.0 + ZEROS.0).rem_euclid(720.0);
        let _ = write!(text, "\n{deg:.2}");
        let stray = evenly(record, turned.len(), lot);
        for (own, even) in turned.iter().zip(stray) {
            let read = 1e3 * own.turned.cycles[0].valve[record] + ZEROS.1 + STRAYS * (2.0 * even - 1.0);
            let _ = write!(text, ",{read:.4}");
        }
    }
    text.push('\n');
    Ok(text)
}
