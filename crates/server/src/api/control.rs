//! The valve train in motion as it is computed: one JSON object a line.

use super::parts::shelf;
use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, ControlJob, ControlStep, DynamicsReport, Stages};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Whose train to turn.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ControlRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Gap, bounce or hang-open that counts as lost control, mm; .508 (.020 in) when absent.
    #[serde(default)]
    pub threshold_mm: Option<f64>,
}

/// The whole of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ControlDone {
    /// The report.
    report: Box<DynamicsReport>,
}

impl Reported for ControlJob {
    type Shown = ControlDone;

    fn shown(report: &DynamicsReport) -> ControlDone {
        ControlDone { report: Box::new(report.clone()) }
    }
}

/// Turns both valve trains over speed and tells what comes of it, as `application/x-ndjson`.
#[utoipa::path(request_body = ControlRequest, responses((status = 200, body = Line<ControlStep, ControlDone>, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/control")]
pub async fn compute_control(
    store: web::Data<Store>,
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs>,
    client: Client,
    body: web::Json<ControlRequest>,
) -> Result<HttpResponse, Problem> {
    let stages = stages.into_inner();
    // Without a shelf what buys speed is what can be done to the parts at hand.
    let shelf = shelf(&store).await.unwrap_or_default();
    let job = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(ControlJob::new(&build, body.candidate.as_deref(), body.threshold_mm, (shelf.into(), stages))?)
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}
