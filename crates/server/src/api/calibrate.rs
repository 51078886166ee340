//! Fitting the model to the pull a document holds, as it goes: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, CalibrationJob, CalibrationReport, CalibrationStep, Stages};
use utoipa::ToSchema;

/// Whose pull to fit to.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CalibrateRequest {
    /// The document's text.
    pub document: String,
}

/// The constants found.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct CalibrateDone {
    /// What it came to.
    report: CalibrationReport,
}

impl Reported for CalibrationJob {
    type Shown = CalibrateDone;

    fn shown(report: &CalibrationReport) -> CalibrateDone {
        CalibrateDone { report: report.clone() }
    }
}

/// Fits the named constants to the pull and answers with what they do, as `application/x-ndjson`.
#[utoipa::path(request_body = CalibrateRequest, responses((status = 200, body = Line<CalibrationStep, CalibrateDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/calibrate")]
pub async fn calibrate(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<CalibrateRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || Ok(CalibrationJob::new(&Build::read(&body.document)?, stages)?));
    Ok(jobs.into_inner().answer(job.await?, client))
}
