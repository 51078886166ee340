//! Work that takes seconds: one scheduler for every job of the core, with one budget of threads, a turn for every page, and
//! an end to the work when nobody listens any more.

use crate::problem::Problem;
use actix_web::web::Bytes;
use actix_web::{FromRequest, HttpRequest, HttpResponse, web};
use serde::Serialize;
use std::collections::HashMap;
use std::future::{Ready, ready};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError, Weak};
use tokio::sync::mpsc::{Receiver, Sender, channel};
use tokio::sync::{OwnedSemaphorePermit, Semaphore};
use tokio_stream::StreamExt;
use tokio_stream::wrappers::ReceiverStream;
use upper_lobe_core::analysis::{Class, Halted, Job, Named, Watch};
use utoipa::ToSchema;

/// Results that may run at once; each uses every core, so that more would only make all of them slow.
const AT_ONCE: usize = 2;
/// Previews that may run at once beside them.
const PREVIEWS: usize = 2;
/// Lines on their way to a page that reads slowly; steps beyond them are left out, the last line never is.
const LINES: usize = 16;

/// One line of a job's answer.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum Line<S, D> {
    /// Other work runs; this begins when some of it ends.
    Waiting,
    /// Some of it is there.
    Running(S),
    /// All of it is there.
    Done(D),
    /// It ended without a result.
    Failed {
        /// Why.
        reason: String,
        /// Fields that would close it.
        needs: Vec<Named>,
    },
    /// Nobody wanted it any more.
    Stopped,
}

/// A job whose result can be told in a line.
pub trait Reported: Job<Step: Serialize> + 'static {
    /// The result as a line tells it.
    type Shown: Serialize;
    /// What of a result goes into its line.
    fn shown(done: &Self::Done) -> Self::Shown;
}

/// The line of such a job.
type LineOf<J> = Line<<J as Job>::Step, <J as Reported>::Shown>;

/// The page a request comes from: each has its own turn.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Client(String);

impl FromRequest for Client {
    type Error = actix_web::Error;
    type Future = Ready<Result<Self, Self::Error>>;

    fn from_request(request: &HttpRequest, _: &mut actix_web::dev::Payload) -> Self::Future {
        let named = request.headers().get("Upper-Lobe-Page").and_then(|name| name.to_str().ok());
        let peer = || request.peer_addr().map_or_else(String::new, |peer| peer.ip().to_string());
        ready(Ok(Self(named.filter(|name| name.len() <= 64).map_or_else(peer, str::to_owned))))
    }
}

/// The budget all jobs share.
#[derive(Debug)]
pub struct Jobs {
    results: Arc<Semaphore>,
    previews: Arc<Semaphore>,
    /// One turn of each class for every page.
    turns: Mutex<HashMap<(Client, bool), Weak<Semaphore>>>,
}

impl Default for Jobs {
    fn default() -> Self {
        let (results, previews) = (Arc::new(Semaphore::new(AT_ONCE)), Arc::new(Semaphore::new(PREVIEWS)));
        Self { results, previews, turns: Mutex::default() }
    }
}

/// What a job holds while it runs.
#[derive(Debug)]
struct Turn {
    _page: OwnedSemaphorePermit,
    _thread: OwnedSemaphorePermit,
}

impl Jobs {
    /// Whether a job of this page would have to wait.
    fn is_busy(&self, client: &Client, class: Class) -> bool {
        self.shared(class).available_permits() == 0 || self.own(client, class).available_permits() == 0
    }

    /// Waits for the page's own turn, then for a thread: a page that asks for thirty curves has one in the line of all.
    async fn turn(&self, client: &Client, class: Class) -> Option<Turn> {
        let page = self.own(client, class).acquire_owned().await.ok()?;
        let thread = Arc::clone(self.shared(class)).acquire_owned().await.ok()?;
        Some(Turn { _page: page, _thread: thread })
    }

    const fn shared(&self, class: Class) -> &Arc<Semaphore> {
        match class {
            Class::Preview => &self.previews,
            Class::Result => &self.results,
        }
    }

    fn own(&self, client: &Client, class: Class) -> Arc<Semaphore> {
        // A poisoned lock only means that another request panicked; the map itself is whole.
        let mut turns = self.turns.lock().unwrap_or_else(PoisonError::into_inner);
        let key = (client.clone(), class == Class::Preview);
        if let Some(known) = turns.get(&key).and_then(Weak::upgrade) {
            return known;
        }
        turns.retain(|_, turn| turn.strong_count() > 0);
        let made = Arc::new(Semaphore::new(1));
        turns.insert(key, Arc::downgrade(&made));
        made
    }

    /// Runs `job` and answers with its lines, as `application/x-ndjson`. The stream ends with a result, a failure or that
    /// it was stopped, whatever happens to the work.
    pub fn answer<J: Reported>(self: Arc<Self>, job: Result<J, Halted>, client: Client) -> HttpResponse {
        let (send, receive) = channel(LINES);
        let listener = Listener::default();
        let gone = listener.gone();
        actix_web::rt::spawn(async move {
            let last: LineOf<J> = match job {
                Err(halted) => halted.into(),
                Ok(job) => match job.kept() {
                    Some(done) => Line::Done(J::shown(&done)),
                    None => self.work(job, &client, &send, gone).await,
                },
            };
            tell(&send, &last).await;
        });
        stream(receive, listener)
    }

    /// The last line of a job that has to be run.
    async fn work<J: Reported>(
        &self,
        job: J,
        client: &Client,
        send: &Sender<Bytes>,
        gone: Arc<AtomicBool>,
    ) -> LineOf<J> {
        let class = job.class();
        if self.is_busy(client, class) {
            tell(send, &LineOf::<J>::Waiting).await;
        }
        let Some(turn) = self.turn(client, class).await else { return Line::Stopped };
        let steps = send.clone();
        let worked = web::block(move || {
            let _held_until_here = turn;
            let report = |step: J::Step| {
                // A page that reads slowly misses steps; the result has them all.
                let _ = steps.try_send(line_of(&LineOf::<J>::Running(step)));
            };
            let stop = || gone.load(Ordering::Relaxed);
            job.run(&Watch { report: &report, stop: &stop })
        });
        match worked.await {
            Ok(Ok(done)) => Line::Done(J::shown(&done)),
            Ok(Err(halted)) => halted.into(),
            Err(error) => {
                tracing::error!(%error, "a job was interrupted");
                let reason = "the computation broke off; the rest of the build is not touched".to_owned();
                Line::Failed { reason, needs: Vec::new() }
            }
        }
    }
}

impl<S, D> From<Halted> for Line<S, D> {
    fn from(halted: Halted) -> Self {
        match halted {
            Halted::Stopped => Self::Stopped,
            Halted::Lacks { reason, needs } => Self::Failed { reason, needs },
        }
    }
}

/// Does what only reads and checks away from the web's threads.
///
/// # Errors
/// The refusal, or that the work was interrupted.
pub async fn aside<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, Problem> + Send + 'static,
) -> Result<T, Problem> {
    web::block(work).await?
}

/// Says that a job should end; dropping it says so too.
#[derive(Debug, Default)]
struct Listener(Arc<AtomicBool>);

impl Listener {
    /// The flag the job looks at.
    fn gone(&self) -> Arc<AtomicBool> {
        Arc::clone(&self.0)
    }
}

impl Drop for Listener {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

/// The lines of a job as an answer. It owns the listener: when the page goes away the job ends.
fn stream(lines: Receiver<Bytes>, listener: Listener) -> HttpResponse {
    let lines = ReceiverStream::new(lines).map(move |line| {
        let _ = &listener;
        Ok::<_, actix_web::Error>(line)
    });
    HttpResponse::Ok().content_type("application/x-ndjson").streaming(lines)
}

/// A line of JSON.
pub fn line_of(line: &impl Serialize) -> Bytes {
    let mut text = serde_json::to_vec(line).unwrap_or_default();
    text.push(b'\n');
    Bytes::from(text)
}

/// Sends a line; nobody may be listening any more, which is no fault.
async fn tell(send: &Sender<Bytes>, line: &impl Serialize) {
    let _ = send.send(line_of(line)).await;
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_listener_that_goes_away_is_noticed() {
        let listener = Listener::default();
        let gone = listener.gone();
        assert!(!gone.load(Ordering::Relaxed));
        drop(listener);
        assert!(gone.load(Ordering::Relaxed));
    }

    #[actix_web::test]
    async fn a_page_with_many_requests_leaves_the_others_their_turn() {
        let jobs = Arc::new(Jobs::default());
        let (greedy, modest) = (Client("a".into()), Client("b".into()));
        let held = jobs.turn(&greedy, Class::Preview).await;
        assert!(held.is_some());
        // Thirty more of the same page wait for its own turn, not for the threads of all.
        let waiting: Vec<_> = (0..30)
            .map(|_| {
                let (jobs, greedy) = (Arc::clone(&jobs), greedy.clone());
                actix_web::rt::spawn(async move { jobs.turn(&greedy, Class::Preview).await.is_some() })
            })
            .collect();
        tokio::task::yield_now().await;
        assert!(jobs.is_busy(&greedy, Class::Preview) && !jobs.is_busy(&modest, Class::Preview));
        assert!(jobs.turn(&modest, Class::Preview).await.is_some());
        drop(held);
        for turn in waiting {
            assert!(turn.await.unwrap_or(false));
        }
    }
}
