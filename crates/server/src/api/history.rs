//! What became of a build, over its saved revisions and what is not saved yet.

use crate::jobs::aside;
use crate::problem::Problem;
use actix_web::{post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{Build, HistoryReport, Revision, Stages, history_of};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Most revisions that are read: of more, the first and the latest.
const MOST: usize = 400;

/// Whose history.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HistoryRequest {
    /// The document's text.
    pub document: String,
    /// The stored build it is of.
    pub build: i64,
}

/// Every event of a build by its day, with the revision it came with.
#[utoipa::path(request_body = HistoryRequest, responses((status = 200, body = HistoryReport), (status = 404, body = Problem), (status = 422, body = Problem)), tag = "workbench")]
#[post("/history")]
pub async fn tell_history(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    body: web::Json<HistoryRequest>,
) -> Result<web::Json<HistoryReport>, Problem> {
    let HistoryRequest { document, build } = body.into_inner();
    let revisions = stored_revisions(&store, build).await?;
    let stages = stages.into_inner();
    aside(move || Ok(history_of(&Build::read(&document)?, &revisions, &stages)?)).await.map(web::Json)
}

/// Saved revisions of a build, the earliest first; of very many the first and the latest. One that is damaged is left out.
///
/// # Errors
/// There is no such build.
pub async fn stored_revisions(store: &Store, build: i64) -> Result<Vec<Revision>, Problem> {
    let mut entries = store.history(build).await?;
    entries.reverse();
    let latest = entries.len().saturating_sub(MOST).max(1);
    let mut revisions = Vec::new();
    for (place, entry) in entries.iter().enumerate() {
        if place == 0 || place >= latest {
            let own = store.revision(build, entry.revision).await?;
            let read = serde_json::from_str(&own.document).ok();
            revisions.extend(read.map(|document| Revision {
                number: own.entry.revision,
                saved_at: own.entry.saved_at,
                document,
            }));
        }
    }
    Ok(revisions)
}
