//! The phasing window, gaps at once and torque as it is computed: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, PhasingJob, PhasingReport, PhasingStep, Stages};
use utoipa::ToSchema;

/// Whose cam to turn.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhasingRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct PhasingDone {
    /// The report.
    report: Box<PhasingReport>,
}

impl Reported for PhasingJob {
    type Shown = PhasingDone;

    fn shown(report: &PhasingReport) -> PhasingDone {
        PhasingDone { report: Box::new(report.clone()) }
    }
}

/// Turns a candidate's cam and tells what that does to gaps, limits, torque and idle, as `application/x-ndjson`.
#[utoipa::path(request_body = PhasingRequest, responses((status = 200, body = Line<PhasingStep, PhasingDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/phasing")]
pub async fn turn_cam(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<PhasingRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || Ok(PhasingJob::new(&Build::read(&body.document)?, Some(&body.candidate), stages)?));
    Ok(jobs.into_inner().answer(job.await?, client))
}
