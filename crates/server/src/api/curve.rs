//! Torque and power as they are computed: one JSON object a line, the points so far in each, until the last one.
//!
//! The request is the job. When its page goes away the stream is dropped, and with it the work.

use crate::jobs::{Client, Jobs, Told, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{
    BreathingReport, Build, Curve, CurveJob, CurveStep, Effort, Named, Stages, TraceReport,
};
use utoipa::ToSchema;

/// What to compute a curve of.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CurveRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// How much to compute.
    pub effort: Effort,
    /// Name of the boost level; the strongest when absent.
    #[serde(default)]
    pub level: Option<String>,
}

/// One line of the answer.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum CurveLine {
    /// Other curves run; this one begins when one of them ends.
    Waiting,
    /// Some points are there.
    Running(CurveStep),
    /// All points are there.
    Done {
        /// The curve.
        curve: Box<BreathingReport>,
        /// The first cylinder's last cycle at every speed.
        traces: Vec<TraceReport>,
    },
    /// There is no curve.
    Failed {
        /// Why.
        reason: String,
        /// Fields that would close it.
        needs: Vec<Named>,
    },
    /// Nobody wanted it any more.
    Stopped,
}

impl Told for CurveJob {
    type Line = CurveLine;

    fn waiting() -> CurveLine {
        CurveLine::Waiting
    }

    fn running(step: CurveStep) -> CurveLine {
        CurveLine::Running(step)
    }

    fn done(curve: &Curve) -> CurveLine {
        CurveLine::Done { curve: Box::new(curve.report.clone()), traces: curve.traces.clone() }
    }

    fn failed(reason: String, needs: Vec<Named>) -> CurveLine {
        CurveLine::Failed { reason, needs }
    }

    fn stopped() -> CurveLine {
        CurveLine::Stopped
    }
}

/// Computes a curve and answers with it point by point, as `application/x-ndjson`.
#[utoipa::path(request_body = CurveRequest, responses((status = 200, body = CurveLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/curve")]
pub async fn compute_curve(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<CurveRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        let how = (body.effort, body.level.as_deref());
        Ok(CurveJob::new(&build, body.candidate.as_deref(), how, stages)?)
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
