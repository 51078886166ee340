//! What moves the target, decision by decision as they are computed: one JSON object a line.

use crate::api::curve::KeptCurve;
use crate::jobs::{Jobs, Listener, stream, tell};
use crate::problem::Problem;
use actix_web::web::Bytes;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};
use upper_lobe_core::analysis::{BreathingReport, Effect, Stages, breathing_inputs, decisions, effect};
use upper_lobe_core::candidate::Gap;
use upper_lobe_core::candidate::breathing::{Effort, report, samples};
use upper_lobe_core::document::Build;
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
    /// Some decisions are computed.
    Running {
        /// Decisions in all.
        of: usize,
        /// Those computed.
        effects: Vec<Effect>,
    },
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
        needs: Vec<String>,
    },
}

/// Changes each decision of a candidate a little and tells what its curve does, as `application/x-ndjson`.
#[utoipa::path(request_body = SensitivityRequest, responses((status = 200, body = SensitivityLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/sensitivity")]
pub async fn compute_sensitivity(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs<KeptCurve>>,
    body: web::Json<SensitivityRequest>,
) -> Result<HttpResponse, Problem> {
    let build = Build::read(&body.document)?;
    // An unknown candidate is refused before the work begins.
    let _ = breathing_inputs(&build, Some(&body.candidate), &stages)?;
    let (send, receive) = unbounded_channel();
    let listener = Listener::default();
    let gone = listener.gone();
    let (stages, permits) = (stages.into_inner(), jobs.permits(false));
    let candidate = body.into_inner().candidate;
    actix_web::rt::spawn(async move {
        let Ok(permit) = permits.acquire_owned().await else { return };
        let worked = web::block(move || {
            let _held_until_here = permit;
            work(&build, &candidate, &stages, &gone, &send);
        });
        if let Err(error) = worked.await {
            tracing::error!(%error, "a sensitivity was interrupted");
        }
    });
    Ok(stream(receive, listener))
}

fn work(build: &Build, id: &str, stages: &Stages, gone: &Arc<AtomicBool>, send: &UnboundedSender<Bytes>) {
    let before = match drafted(build, id, stages, gone) {
        Ok(before) => before,
        Err(Gap { reason, needs }) => return tell(send, &SensitivityLine::Failed { reason, needs }),
    };
    let all = decisions(build, id, stages);
    let mut effects = Vec::with_capacity(all.len());
    for decision in &all {
        let after =
            decision.build.clone().and_then(|build| drafted(&build, id, stages, gone).map_err(|gap| gap.reason));
        if gone.load(Ordering::Relaxed) {
            return;
        }
        effects.push(effect(decision, &before, after.as_ref().map_err(Clone::clone)));
        if effects.len() < all.len() {
            tell(send, &SensitivityLine::Running { of: all.len(), effects: effects.clone() });
        }
    }
    tell(send, &SensitivityLine::Done { effects });
}

/// A draft of a candidate's curve, or that of one cylinder where the document does not say how they are joined.
fn drafted(build: &Build, id: &str, stages: &Stages, gone: &Arc<AtomicBool>) -> Result<BreathingReport, Gap> {
    let none = |reason: String| Gap { reason, needs: Vec::new() };
    let breathing = breathing_inputs(build, Some(id), stages).map_err(|fault| none(fault.to_string()))??;
    let effort = if breathing.can(Effort::Draft).is_ok() { Effort::Draft } else { Effort::Fast };
    let level = breathing.strongest();
    let found = samples(&breathing, (effort, level), &|| gone.load(Ordering::Relaxed), |_| ())?;
    Ok(report(&breathing, effort, level, &found, None))
}
