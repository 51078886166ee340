//! Work that takes seconds: how much of it runs at once, what was computed before, and an end to it when nobody
//! listens any more.

use actix_web::HttpResponse;
use actix_web::web::Bytes;
use serde::Serialize;
use sha2::{Digest, Sha256};
use std::collections::HashMap;
use std::fmt::Debug;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use tokio::sync::Semaphore;
use tokio::sync::mpsc::{UnboundedReceiver, UnboundedSender};
use tokio_stream::StreamExt;
use tokio_stream::wrappers::UnboundedReceiverStream;

/// Curves that may run at once; each uses every core, so that more would only make all of them slow.
const AT_ONCE: usize = 2;
/// Previews that may run at once beside them: every open page has one on its way while something is dragged.
const PREVIEWS: usize = 4;
/// Results kept; the oldest make room.
const KEPT: usize = 64;

/// Limits and results that all jobs of the server share.
#[derive(Debug)]
pub struct Jobs<T> {
    permits: Arc<Semaphore>,
    previews: Arc<Semaphore>,
    kept: Mutex<Kept<T>>,
}

#[derive(Debug)]
struct Kept<T> {
    results: HashMap<String, Arc<T>>,
    order: Vec<String>,
}

impl<T> Default for Jobs<T> {
    fn default() -> Self {
        Self {
            permits: Arc::new(Semaphore::new(AT_ONCE)),
            previews: Arc::new(Semaphore::new(PREVIEWS)),
            kept: Mutex::new(Kept { results: HashMap::new(), order: Vec::new() }),
        }
    }
}

impl<T> Jobs<T> {
    /// What a job has to hold while it runs.
    pub fn permits(&self, preview: bool) -> Arc<Semaphore> {
        Arc::clone(if preview { &self.previews } else { &self.permits })
    }

    /// The result kept under `key`.
    pub fn kept(&self, key: &str) -> Option<Arc<T>> {
        self.lock().results.get(key).cloned()
    }

    /// Keeps a result.
    pub fn keep(&self, key: String, result: Arc<T>) {
        let mut kept = self.lock();
        if kept.results.insert(key.clone(), result).is_none() {
            kept.order.push(key);
        }
        while kept.order.len() > KEPT {
            let oldest = kept.order.remove(0);
            kept.results.remove(&oldest);
        }
    }

    fn lock(&self) -> std::sync::MutexGuard<'_, Kept<T>> {
        // A poisoned lock only means that another request panicked; the map itself is whole.
        self.kept.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// The key of resolved inputs: floats print so that they read back to the same bits, so equal keys mean equal inputs.
pub fn key(inputs: &impl Debug) -> String {
    let digest = Sha256::digest(format!("{inputs:?}").as_bytes());
    digest.iter().map(|byte| format!("{byte:02x}")).collect()
}

/// Says that a job should end; dropping it says so too.
#[derive(Debug, Default)]
pub struct Listener(Arc<AtomicBool>);

impl Listener {
    /// The flag the job looks at.
    pub fn gone(&self) -> Arc<AtomicBool> {
        Arc::clone(&self.0)
    }
}

impl Drop for Listener {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

/// The lines of a job as an answer. It owns the listener: when the page goes away the job ends.
pub fn stream(lines: UnboundedReceiver<Bytes>, listener: Listener) -> HttpResponse {
    let lines = UnboundedReceiverStream::new(lines).map(move |line| {
        let _ = &listener;
        Ok::<_, actix_web::Error>(line)
    });
    HttpResponse::Ok().content_type("application/x-ndjson").streaming(lines)
}

/// Sends a line; nobody may be listening any more, which is no fault.
pub fn tell(send: &UnboundedSender<Bytes>, line: &impl Serialize) {
    if let Ok(mut text) = serde_json::to_vec(line) {
        text.push(b'\n');
        let _ = send.send(Bytes::from(text));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_oldest_results_make_room() {
        let jobs: Jobs<usize> = Jobs::default();
        for i in 0..KEPT + 3 {
            jobs.keep(format!("k{i}"), Arc::new(i));
        }
        assert_eq!((jobs.kept("k2"), jobs.kept("k3").as_deref()), (None, Some(&3)));
        jobs.keep("k3".to_owned(), Arc::new(7));
        assert_eq!(jobs.kept("k3").as_deref(), Some(&7));
        assert_eq!(jobs.lock().order.len(), KEPT);
    }

    #[test]
    fn a_listener_that_goes_away_is_noticed() {
        let listener = Listener::default();
        let gone = listener.gone();
        assert!(!gone.load(Ordering::Relaxed));
        drop(listener);
        assert!(gone.load(Ordering::Relaxed));
    }

    #[test]
    fn equal_inputs_have_equal_keys_to_the_last_bit() {
        assert_eq!(key(&(0.1 + 0.2)), key(&0.300_000_000_000_000_04));
        assert_ne!(key(&(0.1 + 0.2)), key(&0.3));
    }
}
