//! Torque and power as they are computed: one JSON object a line, the points so far in each, until the last one.
//!
//! The request is the job. When its page goes away the stream is dropped, and with it the work.

use crate::jobs::{Jobs, Listener, key, stream, tell};
use crate::problem::Problem;
use actix_web::web::Bytes;
use actix_web::{HttpResponse, post, web};
use serde::{Deserialize, Serialize};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};
use upper_lobe_core::analysis::{BreathingReport, LimitReport, Stages, TraceReport, breathing_inputs, gas_limits};
use upper_lobe_core::candidate::Gap;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, Sample, report, samples, trace};
use upper_lobe_core::document::Build;
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
    Running {
        /// Points computed.
        done: usize,
        /// Points of the whole curve.
        of: usize,
        /// The curve so far.
        curve: Box<BreathingReport>,
    },
    /// All points are there.
    Done {
        /// The curve.
        curve: Box<BreathingReport>,
        /// The first cylinder's last cycle at every speed.
        traces: Vec<TraceReport>,
        /// Limits that ask for the gas, held against it instead of an estimate.
        limits: Vec<LimitReport>,
    },
    /// There is no curve.
    Failed {
        /// Why.
        reason: String,
        /// Fields that would close it.
        needs: Vec<String>,
    },
}

/// A curve that is kept; its limits depend on more than it was computed from.
#[derive(Debug)]
pub struct KeptCurve {
    curve: BreathingReport,
    traces: Vec<TraceReport>,
}

/// Computes a curve and answers with it point by point, as `application/x-ndjson`.
#[utoipa::path(request_body = CurveRequest, responses((status = 200, body = CurveLine, content_type = "application/x-ndjson"), (status = 422, body = Problem)), tag = "workbench")]
#[post("/curve")]
pub async fn compute_curve(
    stages: web::Data<Stages>,
    jobs: web::Data<Jobs<KeptCurve>>,
    body: web::Json<CurveRequest>,
) -> Result<HttpResponse, Problem> {
    let build = Build::read(&body.document)?;
    let part = breathing_inputs(&build, body.candidate.as_deref(), &stages)?;
    let (send, receive) = unbounded_channel();
    let listener = Listener::default();
    match part {
        Err(gap) => tell(&send, &failed(gap)),
        Ok(breathing) => {
            let level = body.level.as_ref().and_then(|name| breathing.air.levels.iter().position(|l| l.name == *name));
            let level = level.unwrap_or_else(|| breathing.strongest());
            let candidate = body.candidate.clone();
            let subject = Subject { build, candidate, stages: stages.into_inner() };
            let job = Job { subject, effort: body.effort, level, breathing, gone: listener.gone() };
            actix_web::rt::spawn(job.run(jobs.into_inner(), send));
        }
    }
    Ok(stream(receive, listener))
}

/// Whose curve it is.
struct Subject {
    build: Build,
    candidate: Option<String>,
    stages: Arc<Stages>,
}

impl Subject {
    fn done(&self, kept: &KeptCurve) -> CurveLine {
        CurveLine::Done {
            limits: gas_limits(&self.build, self.candidate.as_deref(), &kept.curve, &self.stages),
            curve: Box::new(kept.curve.clone()),
            traces: kept.traces.clone(),
        }
    }
}

struct Job {
    subject: Subject,
    breathing: Breathing,
    effort: Effort,
    level: usize,
    gone: Arc<AtomicBool>,
}

impl Job {
    async fn run(self, jobs: Arc<Jobs<KeptCurve>>, send: UnboundedSender<Bytes>) {
        let key = key(&(&self.breathing, self.effort, self.level));
        if let Some(kept) = jobs.kept(&key) {
            return tell(&send, &self.subject.done(&kept));
        }
        let permits = jobs.permits(matches!(self.effort, Effort::Preview | Effort::Screening));
        if permits.available_permits() == 0 {
            tell(&send, &CurveLine::Waiting);
        }
        let Ok(permit) = permits.acquire_owned().await else { return };
        let worked = web::block(move || {
            let worked = self.work(&send);
            let _held_until_here = permit;
            match worked {
                Ok(curve) => {
                    let curve = Arc::new(curve);
                    jobs.keep(key, Arc::clone(&curve));
                    tell(&send, &self.subject.done(&curve));
                }
                Err(gap) => tell(&send, &failed(gap)),
            }
        });
        if let Err(error) = worked.await {
            tracing::error!(%error, "a curve was interrupted");
        }
    }

    fn work(&self, send: &UnboundedSender<Bytes>) -> Result<KeptCurve, Gap> {
        let Self { breathing, effort, level, gone, .. } = self;
        let of = breathing.speeds(*effort).len();
        let so_far: Mutex<Vec<Sample>> = Mutex::default();
        let told = |sample: &Sample| {
            let mut found = so_far.lock().unwrap_or_else(PoisonError::into_inner);
            let at = found.partition_point(|other| other.point.rpm < sample.point.rpm);
            found.insert(at, sample.clone());
            if found.len() < of {
                let curve = Box::new(report(breathing, *effort, *level, &found, None));
                tell(send, &CurveLine::Running { done: found.len(), of, curve });
            }
        };
        let samples = samples(breathing, (*effort, *level), &|| gone.load(Ordering::Relaxed), told)?;
        // Idle and cranking belong to a result, not to what follows a drag.
        let last = matches!(effort, Effort::Full | Effort::Fast);
        let manners = last.then(|| breathing.manners(&|| gone.load(Ordering::Relaxed))).transpose()?;
        Ok(KeptCurve {
            curve: report(breathing, *effort, *level, &samples, manners.as_ref()),
            traces: samples.iter().map(|sample| trace(breathing, sample)).collect(),
        })
    }
}

fn failed(gap: Gap) -> CurveLine {
    CurveLine::Failed { reason: gap.reason, needs: gap.needs }
}
