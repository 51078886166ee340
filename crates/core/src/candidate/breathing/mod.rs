//! Torque and power of a candidate: its document resolved to an engine that breathes ([`engine`], [`port`]) and the
//! air around it ([`air`]); speeds computed point by point ([`work`]); the curve made of them ([`curve`], [`peaks`],
//! [`standard_air`]).

mod air;
mod curve;
mod engine;
mod peaks;
mod port;
mod standard_air;
mod work;

pub use air::{Air, Charger, Level};
pub use curve::report;
pub use work::{Breathing, Effort, Sample, breathing_of};

use super::inputs::{Gap, Inputs, Part};
use crate::gas::cycle::Halt;
use crate::report::BreathingReport;
use rayon::prelude::*;

/// The whole curve of a candidate on its strongest boost level, speeds in parallel.
pub fn breathing(inputs: &Inputs<'_>, effort: Effort) -> Part<BreathingReport> {
    curve(&breathing_of(inputs)?, effort)
}

/// The whole curve of what a candidate was resolved to.
pub fn curve(breathing: &Breathing, effort: Effort) -> Part<BreathingReport> {
    breathing.can(effort)?;
    let (setup, level) = (breathing.meshed(effort), breathing.strongest());
    let samples: Result<Vec<Sample>, Halt> = breathing
        .speeds(effort)
        .par_iter()
        .map(|rpm| breathing.sample(&setup, (effort, level), *rpm, &|| false))
        .collect();
    Ok(report(breathing, effort, level, &samples.map_err(gap_of)?))
}

/// Why a run ended without a curve.
pub fn gap_of(halt: Halt) -> Gap {
    let reason = match halt {
        Halt::NoPipe => "runner or primary has no length or no area",
        Halt::Stopped => "stopped",
    };
    Gap { reason: reason.to_owned(), needs: Vec::new() }
}
