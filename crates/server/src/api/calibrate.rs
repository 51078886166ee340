//! Fitting the model to the pull a document holds, as it goes: one JSON object a line.

use crate::api::curve::KeptCurve;
use crate::jobs::{Jobs, Listener, stream, tell};
use crate::problem::Problem;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use std::sync::atomic::Ordering;
use tokio::sync::mpsc::unbounded_channel;
use upper_lobe_core::analysis::{CalibrationReport, Stages, calibration_inputs};
use upper_lobe_core::document::Build;
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
    /// Some curves are computed.
    Running {
        /// Curves computed.
        done: usize,
        /// Curves at most.
        of: usize,
    },
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
        needs: Vec<String>,
    },
}

/// Fits the named constants to the pull and answers with what they do, as `application/x-ndjson`.
#[utoipa::path(request_body = CalibrateRequest, responses((status = 200, body = CalibrateLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/calibrate")]
pub async fn calibrate(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs<KeptCurve>>,
    body: web::Json<CalibrateRequest>,
) -> Result<HttpResponse, Problem> {
    let build = Build::read(&body.document)?;
    let part = calibration_inputs(&build, &stages)?;
    let (send, receive) = unbounded_channel();
    let listener = Listener::default();
    let gone = listener.gone();
    let permits = jobs.permits(false);
    actix_web::rt::spawn(async move {
        let Ok(permit) = permits.acquire_owned().await else { return };
        let worked = web::block(move || {
            let _held_until_here = permit;
            let running = |done, of| tell(&send, &CalibrateLine::Running { done, of });
            let found = part.and_then(|inputs| inputs.fit(&|| gone.load(Ordering::Relaxed), running));
            let line = match found {
                Ok(report) => CalibrateLine::Done { report },
                Err(gap) => CalibrateLine::Failed { reason: gap.reason, needs: gap.needs },
            };
            tell(&send, &line);
        });
        if let Err(error) = worked.await {
            tracing::error!(%error, "a fit was interrupted");
        }
    });
    Ok(stream(receive, listener))
}
