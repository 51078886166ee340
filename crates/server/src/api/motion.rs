//! Fitting a train to measured valve motion, as it goes: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, MotionFitJob, MotionFitReport, MotionFitStep, Stages};
use utoipa::ToSchema;

/// Whose traces to fit to.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MotionRequest {
    /// The document's text.
    pub document: String,
    /// The candidate; the first that has traces when absent.
    pub candidate: Option<String>,
}

/// What the traces say.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct MotionDone {
    /// What it came to.
    report: MotionFitReport,
}

impl Reported for MotionFitJob {
    type Shown = MotionDone;

    fn shown(report: &MotionFitReport) -> MotionDone {
        MotionDone { report: report.clone() }
    }
}

/// Fits what nobody measures on a train to its measured valve motion and answers with what that does, as `application/x-ndjson`.
#[utoipa::path(request_body = MotionRequest, responses((status = 200, body = Line<MotionFitStep, MotionDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/motion")]
pub async fn fit_motion(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<MotionRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || Ok(MotionFitJob::new(&Build::read(&body.document)?, body.candidate.as_deref(), stages)?));
    Ok(jobs.into_inner().answer(job.await?, client))
}
