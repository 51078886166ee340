//! What changes torque most, decision by decision as they are computed: one JSON object a line.

use crate::jobs::{Client, Jobs, Told, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, Effect, Named, SensitivityJob, SensitivityStep, Stages};
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

/// One line of the answer.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum SensitivityLine {
    /// Other work runs; this begins when some of it ends.
    Waiting,
    /// Some decisions are computed.
    Running(SensitivityStep),
    /// All are.
    Done {
        /// Every decision.
        effects: Vec<Effect>,
    },
    /// There is nothing to compare with.
    Failed {
        /// Why.
        reason: String,
        /// Fields that would close it.
        needs: Vec<Named>,
    },
    /// Nobody wanted it any more.
    Stopped,
}

impl Told for SensitivityJob {
    type Line = SensitivityLine;

    fn waiting() -> SensitivityLine {
        SensitivityLine::Waiting
    }

    fn running(step: SensitivityStep) -> SensitivityLine {
        SensitivityLine::Running(step)
    }

    fn done(effects: &Vec<Effect>) -> SensitivityLine {
        SensitivityLine::Done { effects: effects.clone() }
    }

    fn failed(reason: String, needs: Vec<Named>) -> SensitivityLine {
        SensitivityLine::Failed { reason, needs }
    }

    fn stopped() -> SensitivityLine {
        SensitivityLine::Stopped
    }
}

/// Changes each decision of a candidate a little and tells what its curve does, as `application/x-ndjson`.
#[utoipa::path(request_body = SensitivityRequest, responses((status = 200, body = SensitivityLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
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
