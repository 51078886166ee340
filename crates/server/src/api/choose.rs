//! What there is to choose, as it is computed: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, ChooseJob, ChooseReport, ChooseStep, Stages};
use utoipa::ToSchema;

/// For whom to choose.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChooseRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Whether decisions beside the cam are looked at too: rockers, compression, runners, primaries.
    #[serde(default)]
    pub hardware: bool,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ChooseDone {
    /// The report.
    report: Box<ChooseReport>,
}

impl Reported for ChooseJob {
    type Shown = ChooseDone;

    fn shown(report: &ChooseReport) -> ChooseDone {
        ChooseDone { report: Box::new(report.clone()) }
    }
}

/// Computes cams around a candidate and answers with what both schools propose and what every decision gives and takes, as
/// `application/x-ndjson`.
#[utoipa::path(request_body = ChooseRequest, responses((status = 200, body = Line<ChooseStep, ChooseDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/choose")]
pub async fn compute_choices(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<ChooseRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        let job = ChooseJob::new(&build, body.candidate.as_deref(), stages)?;
        Ok(job.map(|job| job.with_hardware(body.hardware)))
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
