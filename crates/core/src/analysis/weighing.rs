//! What edits would move, before they are made: every margin, and torque by quick curves of both.

use super::analyze::{PartName, Request, analyze};
use super::curve::breathing_inputs;
use crate::build::Build;
use crate::candidate::Stages;
use crate::candidate::breathing::{Effort, curve};
use crate::document::{Faults, Side};
use crate::edit::{Edit, apply};
use crate::quantity::{Shown, UnitSystem};
use crate::report::{BreathingReport, LimitReport, Verdict};
use serde::Serialize;

/// What edits would move.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Weighed {
    /// Margins that read otherwise, the worst first.
    pub margins: Vec<MarginMoved>,
    /// Margins that stay as they are.
    pub still: usize,
    /// Average and peak; absent where no curve can be computed.
    pub torque: Option<TorqueMoved>,
}

/// One margin, before and after.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MarginMoved {
    /// Stable identifier of the rule.
    pub id: String,
    /// The side it is about.
    pub side: Option<Side>,
    /// In words.
    pub title: String,
    /// What there is now; absent while unknown.
    pub from: Option<Shown>,
    /// What there would be.
    pub to: Option<Shown>,
    /// In one word, now.
    pub before: Verdict,
    /// In one word, then.
    pub after: Verdict,
}

/// Torque and power, as shares of what they are.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TorqueMoved {
    /// Average over the band.
    pub average_torque: f64,
    /// Highest power.
    pub peak_power: f64,
}

/// Weighs `edits` of the candidate `id`, all of them together.
///
/// # Errors
/// The faults of an edit that is refused.
pub fn weigh(
    build: &Build,
    edits: &[Edit],
    id: Option<&str>,
    system: UnitSystem,
    stages: &Stages,
) -> Result<Weighed, Faults> {
    let after = edits.iter().try_fold(build.clone(), |build, edit| apply(&build, edit, system, stages))?;
    let lines = |build: &Build| -> Result<Vec<LimitReport>, Faults> {
        let request = Request::of(id.map(str::to_owned), vec![PartName::Limits, PartName::AtSpeed]);
        let mut found = analyze(build, &request, stages)?;
        Ok(if found.candidates.is_empty() { Vec::new() } else { found.candidates.swap_remove(0).limits })
    };
    let (now, then) = (lines(build)?, lines(&after)?);
    let mut margins: Vec<MarginMoved> = then.iter().filter_map(|line| moved(&now, line)).collect();
    margins.sort_by_key(|own| rank(own.after));
    Ok(Weighed { still: then.len() - margins.len(), margins, torque: torque(build, &after, id, stages) })
}

/// A limit that reads otherwise than it does now.
fn moved(now: &[LimitReport], then: &LimitReport) -> Option<MarginMoved> {
    let before = now.iter().find(|own| own.id == then.id && own.side == then.side);
    let have = |line: &LimitReport| line.shown.as_ref().map(|shown| shown.have.clone());
    let (from, to) = (before.and_then(have), have(then));
    let verdict = before.map_or(Verdict::Unknown, |own| own.verdict);
    let read = |shown: &Option<Shown>| shown.as_ref().map(|shown| shown.inch.clone());
    (read(&from) != read(&to) || verdict != then.verdict).then(|| MarginMoved {
        id: then.id.clone(),
        side: then.side,
        title: then.title.clone(),
        from,
        to,
        before: verdict,
        after: then.verdict,
    })
}

const fn rank(verdict: Verdict) -> u8 {
    match verdict {
        Verdict::Fails => 0,
        Verdict::Tight => 1,
        Verdict::Unknown => 2,
        Verdict::Advice => 3,
        Verdict::Ok => 4,
    }
}

/// Both curves as quickly as the document allows; of the same gas nothing is run.
fn torque(now: &Build, then: &Build, id: Option<&str>, stages: &Stages) -> Option<TorqueMoved> {
    let inputs = |build: &Build| breathing_inputs(build, id, None, stages).ok()?.ok();
    let (now, then) = (inputs(now)?, inputs(then)?);
    if now == then {
        return Some(TorqueMoved { average_torque: 0.0, peak_power: 0.0 });
    }
    let both = [&now, &then].iter().all(|own| own.can(Effort::Draft).is_ok());
    let effort = if both { Effort::Draft } else { Effort::Fast };
    let (before, after) = (curve(&now, effort).ok()?, curve(&then, effort).ok()?);
    let share = |of: fn(&BreathingReport) -> Option<f64>| Some(of(&after)? / of(&before)? - 1.0);
    Some(TorqueMoved {
        average_torque: share(|own| own.average_torque_nm)?,
        peak_power: share(|own| Some(own.peak_power_kw))?,
    })
}
