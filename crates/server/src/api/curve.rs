//! Torque and power as they are computed: one JSON object a line, the points so far in each, until the last one.
//!
//! The request is the job. When its page goes away the stream is dropped, and with it the work.

use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{BreathingReport, Build, Curve, CurveJob, CurveStep, Effort, Stages, TraceReport};
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

/// A whole curve.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct CurveDone {
    /// The curve.
    curve: Box<BreathingReport>,
    /// The first cylinder's last cycle at every speed.
    traces: Vec<TraceReport>,
}

impl Reported for CurveJob {
    type Shown = CurveDone;

    fn shown(curve: &Curve) -> CurveDone {
        CurveDone { curve: Box::new(curve.report.clone()), traces: curve.traces.clone() }
    }
}

/// Computes a curve and answers with it point by point, as `application/x-ndjson`.
#[utoipa::path(request_body = CurveRequest, responses((status = 200, body = Line<CurveStep, CurveDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
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
