//! Limits under tolerances, as engines are drawn: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, Stages, ToleranceJob, ToleranceReport, ToleranceStep};
use utoipa::ToSchema;

/// Whose limits to draw.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToleranceRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ToleranceDone {
    /// The report.
    report: Box<ToleranceReport>,
}

impl Reported for ToleranceJob {
    type Shown = ToleranceDone;

    fn shown(report: &ToleranceReport) -> ToleranceDone {
        ToleranceDone { report: Box::new(report.clone()) }
    }
}

/// Draws engines by lot and tells how likely every limit fails, as `application/x-ndjson`.
#[utoipa::path(request_body = ToleranceRequest, responses((status = 200, body = Line<ToleranceStep, ToleranceDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/tolerance")]
pub async fn draw_tolerances(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<ToleranceRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || Ok(Ok(ToleranceJob::new(&Build::read(&body.document)?, Some(&body.candidate), stages)?)));
    Ok(jobs.into_inner().answer(job.await?, client))
}
