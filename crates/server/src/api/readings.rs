//! Readings that arrive from beside the engine: onto the newest revision, in the order they were taken, each once.

use crate::api::builds::{BuildSummary, OpenedBuild};
use crate::jobs::aside;
use crate::pairing::{Changed, Role, changed_parts};
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpMessage, HttpRequest, post, web};
use serde::Deserialize;
use std::sync::Arc;
use upper_lobe_core::analysis::{Build, Edit, Stages, UnitSystem, apply_all};
use upper_lobe_store::{Store, StoreError};
use utoipa::ToSchema;

/// Somebody else may save in between so often.
const TRIES: usize = 8;
/// Longest key.
const LONGEST_KEY: usize = 64;

/// Readings under a key of their own.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Readings {
    /// Which they are: sent again under the same key, they are there already.
    pub key: String,
    /// Edits of sessions and of the assembly, in order; all are made or none.
    pub edits: Vec<Edit>,
    /// Units that bare numbers are taken in.
    #[serde(default)]
    pub system: UnitSystem,
}

/// Takes readings into the newest revision, whoever saved it; what arrived before is not taken again.
#[utoipa::path(request_body = Readings, responses((status = 200, body = OpenedBuild), (status = 403, body = Problem), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)), tag = "builds")]
#[post("/builds/{id}/readings")]
pub async fn take_readings(
    request: HttpRequest,
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    id: web::Path<i64>,
    body: web::Json<Readings>,
) -> Result<web::Json<OpenedBuild>, Problem> {
    let (id, readings, stages) = (id.into_inner(), Arc::new(body.into_inner()), stages.into_inner());
    if readings.key.is_empty() || readings.key.len() > LONGEST_KEY {
        return Err(Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "refused-key", "a key has up to 64 letters"));
    }
    for _ in 0..TRIES {
        let newest = store.newest(id).await?;
        if store.arrived(&readings.key).await?.is_some() {
            return Ok(web::Json(OpenedBuild { summary: newest.entry.into(), document: newest.document }));
        }
        let (own, before, stages) = (Arc::clone(&readings), newest.document.clone(), Arc::clone(&stages));
        let made = aside(move || made(&before, &own, &stages)).await?;
        let document = made.text();
        match store.save_arrival(&readings.key, (id, newest.entry.revision), made.name(), &document).await {
            Ok(entry) => {
                request.extensions_mut().insert(Changed(said(&readings.edits)));
                return Ok(web::Json(OpenedBuild { summary: BuildSummary::from(entry), document }));
            }
            Err(StoreError::Stale { .. }) => {}
            Err(error) => return Err(error.into()),
        }
    }
    Err(Problem::new(StatusCode::CONFLICT, "busy", "others save this build all the time: try again"))
}

/// What edits do, for the log.
fn said(edits: &[Edit]) -> String {
    let words = |edit: &Edit| match edit {
        Edit::BeginSession { session, kind, .. } => format!("began {session}, {}", kind.replace('_', " ")),
        Edit::TakeReading { session, cells, .. } => format!("{session} read {}", cells.join(", ")),
        Edit::TakeBack { session, .. } => format!("{session}, the last reading taken back"),
        Edit::LeaveSuggestion { session, label, .. } => format!("{session}, {label} left as it is"),
        Edit::RemoveSession { session } => format!("{session} taken out"),
        Edit::SignLine { line, .. } => format!("signed {line}"),
        Edit::UndoLine { line, .. } => format!("undid {line}"),
        _ => "a field of a session".to_owned(),
    };
    edits.iter().map(words).collect::<Vec<_>>().join("; ")
}

/// A document with readings taken; refused where they change something else.
fn made(before: &str, readings: &Readings, stages: &Stages) -> Result<Build, Problem> {
    let before = Build::read(before)?;
    let made = apply_all(before.clone(), &readings.edits, readings.system, stages)?;
    if Role::Readings.may_change(changed_parts(&before, &made).iter().map(String::as_str)) {
        return Ok(made);
    }
    Err(Problem::new(StatusCode::FORBIDDEN, "not-readings", "readings change sessions and signatures only"))
}
