//! What changes torque most, decision by decision as they are computed: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, Effect, SensitivityJob, SensitivityStep, Stages};
use utoipa::ToSchema;

/// Whose decisions to change.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SensitivityRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate.
    pub candidate: String,
}

/// What every decision does.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SensitivityDone {
    /// Every decision.
    effects: Vec<Effect>,
}

impl Reported for SensitivityJob {
    type Shown = SensitivityDone;

    fn shown(effects: &Vec<Effect>) -> SensitivityDone {
        SensitivityDone { effects: effects.clone() }
    }
}

/// Changes each decision of a candidate a little and tells what its curve does, as `application/x-ndjson`.
#[utoipa::path(request_body = SensitivityRequest, responses((status = 200, body = Line<SensitivityStep, SensitivityDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/sensitivity")]
pub async fn compute_sensitivity(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<SensitivityRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || Ok(SensitivityJob::new(&Build::read(&body.document)?, &body.candidate, stages)?));
    Ok(jobs.into_inner().answer(job.await?, client))
}
