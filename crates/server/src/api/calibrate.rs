//! Fitting the model to the pull a document holds, as it goes: one JSON object a line.

use crate::jobs::{Client, Jobs, Told, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, CalibrationJob, CalibrationReport, CalibrationStep, Named, Stages};
use utoipa::ToSchema;

/// Whose pull to fit to.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CalibrateRequest {
    /// The document's text.
    pub document: String,
}

/// One line of the answer.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum CalibrateLine {
    /// Other work runs; this begins when some of it ends.
    Waiting,
    /// Some curves are computed.
    Running(CalibrationStep),
    /// The constants are found.
    Done {
        /// What it came to.
        report: CalibrationReport,
    },
    /// There is nothing to fit.
    Failed {
        /// Why.
        reason: String,
        /// Fields that would close it.
        needs: Vec<Named>,
    },
    /// Nobody wanted it any more.
    Stopped,
}

impl Told for CalibrationJob {
    type Line = CalibrateLine;

    fn waiting() -> CalibrateLine {
        CalibrateLine::Waiting
    }

    fn running(step: CalibrationStep) -> CalibrateLine {
        CalibrateLine::Running(step)
    }

    fn done(report: &CalibrationReport) -> CalibrateLine {
        CalibrateLine::Done { report: report.clone() }
    }

    fn failed(reason: String, needs: Vec<Named>) -> CalibrateLine {
        CalibrateLine::Failed { reason, needs }
    }

    fn stopped() -> CalibrateLine {
        CalibrateLine::Stopped
    }
}

/// Fits the named constants to the pull and answers with what they do, as `application/x-ndjson`.
#[utoipa::path(request_body = CalibrateRequest, responses((status = 200, body = CalibrateLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
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
