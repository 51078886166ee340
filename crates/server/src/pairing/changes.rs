//! What a save of a device changes: whether its role may, and what the log says of it.

use super::{Changed, Device};
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpMessage, HttpRequest};
use upper_lobe_core::analysis::Build;
use upper_lobe_store::Store;

/// Top-level parts of a document that differ.
pub fn changed_parts(before: &Build, after: &Build) -> Vec<String> {
    let keys = |build: &Build| build.value().as_object().map(|own| own.keys().cloned().collect::<Vec<_>>());
    let mut all: Vec<String> = [keys(before), keys(after)].into_iter().flatten().flatten().collect();
    all.sort();
    all.dedup();
    all.retain(|key| before.value().get(key) != after.value().get(key));
    all
}

/// Refuses a save that changes what a device's role may not, and says what it changed. `base`: build and revision it began from.
///
/// # Errors
/// The refusal, or a store that cannot be read.
pub async fn check_changes(
    request: &HttpRequest,
    store: &Store,
    (id, base): (i64, i64),
    after: &Build,
) -> Result<(), Problem> {
    let device = request.extensions().get::<Device>().cloned();
    let Some(device) = device else { return Ok(()) };
    let before = Build::read(&store.revision(id, base).await?.document)?;
    let changed = changed_parts(&before, after);
    if !device.role.may_change(changed.iter().map(String::as_str)) {
        let what = changed.join(", ");
        let detail =
            format!("{} takes readings only: what it changed ({what}) is changed at the main screen", device.name);
        return Err(Problem::new(StatusCode::FORBIDDEN, "not-this-role", detail));
    }
    request.extensions_mut().insert(Changed(changed.join(", ")));
    Ok(())
}
