//! What is wrong with measured curves, as it is found: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, DiagnosisJob, DiagnosisReport, DiagnosisStep, Stages};
use utoipa::ToSchema;

/// Whose pulls, and what they are held against.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiagnosisRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Day of its earlier pulls; what the model predicts when absent.
    #[serde(default)]
    pub day: Option<String>,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DiagnosisDone {
    /// What is wrong, and what may be behind it.
    report: Box<DiagnosisReport>,
}

impl Reported for DiagnosisJob {
    type Shown = DiagnosisDone;

    fn shown(report: &DiagnosisReport) -> DiagnosisDone {
        DiagnosisDone { report: Box::new(report.clone()) }
    }
}

/// Symptoms at once, then every cause run in the model, as `application/x-ndjson`.
#[utoipa::path(request_body = DiagnosisRequest, responses((status = 200, body = Line<DiagnosisStep, DiagnosisDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/diagnosis")]
pub async fn look_into_pulls(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<DiagnosisRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(Ok(DiagnosisJob::new(&build, body.candidate.as_deref(), body.day.as_deref(), stages)?))
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
