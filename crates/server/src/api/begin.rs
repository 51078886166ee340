//! Beginnings: what a build may begin from, the build it would be, and a first cam by the card.

use crate::jobs::aside;
use crate::problem::Problem;
use crate::shop::Lessons;
use actix_web::{get, post, web};
use serde::Deserialize;
use upper_lobe_core::analysis::{
    Beginning, BeginningReport, Build, CardCamReport, FamilyReport, Stages, UnitSystem, beginning, card_cam_report,
    families,
};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Families of engines a build may begin from.
#[utoipa::path(responses((status = 200, body = [FamilyReport])), tag = "begin")]
#[get("/families")]
pub async fn list_families() -> web::Json<Vec<FamilyReport>> {
    web::Json(families())
}

/// What to begin, and the units bare numbers are taken in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BeginRequest {
    /// Family, heads, use, and what is known.
    pub beginning: Beginning,
    /// Units.
    #[serde(default)]
    pub system: UnitSystem,
}

/// The build it would be; nothing is kept.
#[utoipa::path(request_body = BeginRequest, responses((status = 200, body = BeginningReport), (status = 422, body = Problem)), tag = "begin")]
#[post("/begin")]
pub async fn begin_build(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    lessons: web::Data<Lessons>,
    body: web::Json<BeginRequest>,
) -> Result<web::Json<BeginningReport>, Problem> {
    let stages = stages.into_inner();
    let taught = lessons.taught(&store, None, &stages).await?;
    aside(move || Ok(beginning(&body.beginning, &taught, body.system, &stages)?)).await.map(web::Json)
}

/// Whose first cam.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CardCamRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
}

/// The cam that the card rules of the trade give for a candidate's plan and engine, with reasons.
#[utoipa::path(request_body = CardCamRequest, responses((status = 200, body = CardCamReport), (status = 422, body = Problem)), tag = "begin")]
#[post("/card-cam")]
pub async fn explain_card_cam(
    stages: web::Data<Stages>,
    body: web::Json<CardCamRequest>,
) -> Result<web::Json<CardCamReport>, Problem> {
    let stages = stages.into_inner();
    let report = aside(move || Ok(card_cam_report(&Build::read(&body.document)?, &body.candidate, &stages)?));
    report.await.map(web::Json)
}
