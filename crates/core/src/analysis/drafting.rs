//! A curve as quickly as its engine allows, kept for whoever asks for it again.

use crate::candidate::breathing::{Breathing, Effort, Ended};
use crate::candidate::{Stages, key};
use crate::choose::{By, columns};
use crate::response::Columns;
use std::sync::Arc;

/// How quickly an engine can be drafted.
pub(super) fn effort_of(breathing: &Breathing) -> Effort {
    if breathing.can(Effort::Draft).is_ok() { Effort::Draft } else { Effort::Fast }
}

/// What is kept of its curve; `None` inside where the gas does not settle.
///
/// # Errors
/// What the engine lacks, or that it was stopped.
pub(super) fn drafted(
    breathing: &Breathing,
    effort: Effort,
    stages: &Stages,
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<Arc<Option<Columns>>, Ended> {
    let key = key(&("drafted", breathing, effort));
    if let Some(kept) = stages.points.kept(key) {
        return Ok(kept);
    }
    let found = Arc::new(columns(breathing, By::at(effort, effort), stop)?);
    stages.keep_point(key, &found);
    Ok(found)
}
