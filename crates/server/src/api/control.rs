//! The valve train in motion as it is computed: one JSON object a line.

use super::parts::shelf;
use crate::jobs::{Client, Jobs, Line, Reported, aside};
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, ControlJob, ControlStep, DynamicsReport, FilmReport, Halted, Stages, film};
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
    /// Only where the usual train loses control, for what follows a drag.
    #[serde(default)]
    pub preview: bool,
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
        let job = ControlJob::new(&build, body.candidate.as_deref(), body.threshold_mm, (shelf.into(), stages))?;
        Ok(job.map(|job| if body.preview { job.preview() } else { job }))
    });
    Ok(jobs.into_inner().answer(job.await?, client))
}

/// Whose train to film, and at which speed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FilmRequest {
    /// The document's text.
    pub document: String,
    /// Identifier of the candidate; the first when absent.
    #[serde(default)]
    pub candidate: Option<String>,
    /// Of the crank.
    pub rpm: f64,
}

/// Both valve trains through a cycle at one speed, for a drawing that moves.
#[utoipa::path(request_body = FilmRequest, responses((status = 200, body = FilmReport), (status = 422, body = Problem)), tag = "workbench")]
#[post("/film")]
pub async fn film_trains(
    stages: web::Data<Stages>,
    body: web::Json<FilmRequest>,
) -> Result<web::Json<FilmReport>, Problem> {
    let stages = stages.into_inner();
    let filmed = aside(move || {
        let build = Build::read(&body.document)?;
        Ok(film(&build, body.candidate.as_deref(), body.rpm, &stages)?)
    });
    filmed.await?.map(web::Json).map_err(|halted| {
        let reason = match halted {
            Halted::Stopped => "stopped".to_owned(),
            Halted::Lacks { reason, .. } => reason,
        };
        Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "incomplete-build", reason)
    })
}
