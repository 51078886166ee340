//! At the bench: what edits would move, before they are made; a session on paper.

use crate::jobs::aside;
use crate::problem::Problem;
use actix_web::{post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{
    Build, Edit, ExpectedReport, SessionSheet, Stages, UnitSystem, Weighed, expected_of, sheet_of, weigh,
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

/// Every margin that edits would move, and torque by quick curves; nothing is kept.
#[utoipa::path(request_body = WeighRequest, responses((status = 200, body = Weighed), (status = 422, body = Problem)), tag = "workbench")]
#[post("/weigh")]
pub async fn weigh_edits(
    stages: web::Data<Stages>,
    body: web::Json<WeighRequest>,
) -> Result<web::Json<Weighed>, Problem> {
    let stages = stages.into_inner();
    let weighed = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(weigh(&build, &body.edits, body.candidate.as_deref(), body.system, &stages)?)
    });
    weighed.await.map(web::Json)
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
