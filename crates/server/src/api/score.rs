//! The score board, as it is computed: one JSON object a line.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, ScoreJob, ScoreReport, ScoreStep, Stages};
use utoipa::ToSchema;

/// What to score.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScoreRequest {
    /// The document's text.
    pub document: String,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ScoreDone {
    /// The report.
    report: Box<ScoreReport>,
}

impl Reported for ScoreJob {
    type Shown = ScoreDone;

    fn shown(report: &ScoreReport) -> ScoreDone {
        ScoreDone { report: Box::new(report.clone()) }
    }
}

/// Computes every candidate in full and answers with their ranks and points, as `application/x-ndjson`.
#[utoipa::path(request_body = ScoreRequest, responses((status = 200, body = Line<ScoreStep, ScoreDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/score")]
pub async fn score_candidates(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<ScoreRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(Ok(ScoreJob::new(&build, stages)?))
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
