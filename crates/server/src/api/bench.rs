//! At the bench: what edits would move, before they are made; a session on paper.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{
    Build, Edit, ExpectedReport, SessionSheet, Stages, UnitSystem, WeighJob, WeighStep, Weighed, expected_of, sheet_of,
};
use utoipa::ToSchema;

/// What to weigh.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WeighRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Edits in order, weighed together.
    pub edits: Vec<Edit>,
    /// Units that bare numbers are taken in.
    #[serde(default)]
    pub system: UnitSystem,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct WeighDone {
    /// What edits would move.
    weighed: Weighed,
}

impl Reported for WeighJob {
    type Shown = WeighDone;

    fn shown(weighed: &Weighed) -> WeighDone {
        WeighDone { weighed: weighed.clone() }
    }
}

/// Every margin that edits would move, then torque by quick curves, as `application/x-ndjson`; nothing is kept.
#[utoipa::path(request_body = WeighRequest, responses((status = 200, body = Line<WeighStep, WeighDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/weigh")]
pub async fn weigh_edits(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<WeighRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(WeighJob::new(&build, &body.edits, body.candidate.as_deref(), body.system, stages)?)
    });
    Ok(jobs.into_inner().answer(Ok(job.await?), client))
}

/// Which session.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    /// The document's text.
    pub document: String,
    /// Its identifier.
    pub session: String,
}

/// A session on paper: everything it asks for, with what was read of it.
#[utoipa::path(request_body = SheetRequest, responses((status = 200, body = SessionSheet), (status = 422, body = Problem)), tag = "workbench")]
#[post("/bench-sheet")]
pub async fn lay_out_session(
    stages: web::Data<Stages>,
    body: web::Json<SheetRequest>,
) -> Result<web::Json<SessionSheet>, Problem> {
    let stages = stages.into_inner();
    let sheet = aside(move || Ok(sheet_of(&Build::read(&body.document)?, &body.session, &stages)?));
    sheet.await.map(web::Json)
}

/// A session against what the document expects of it, with what both may be off by, and which field it contradicts.
#[utoipa::path(request_body = SheetRequest, responses((status = 200, body = ExpectedReport), (status = 422, body = Problem)), tag = "workbench")]
#[post("/bench-expected")]
pub async fn hold_session_against_document(
    stages: web::Data<Stages>,
    body: web::Json<SheetRequest>,
) -> Result<web::Json<ExpectedReport>, Problem> {
    let stages = stages.into_inner();
    let held = aside(move || Ok(expected_of(&Build::read(&body.document)?, &body.session, &stages)?));
    held.await.map(web::Json)
}
