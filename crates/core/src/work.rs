//! Work that takes seconds, as whoever runs it sees it: a job with steps on the way and a result, kept by its key, that can
//! be stopped. The screen, the command line and the search run the same jobs.

use crate::candidate::Key;
use crate::report::Named;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

/// Why a job ended without a result.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Halted {
    /// Whoever asked does not want it any more: no fault of the build.
    Stopped,
    /// Something is missing, or the numbers lead nowhere.
    Lacks {
        /// As a sentence.
        reason: String,
        /// Fields that would close it.
        needs: Vec<Named>,
    },
}

/// How urgent a job is, and how long it may take.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Class {
    /// Follows a drag: short, and only the newest counts.
    Preview,
    /// A result: takes what it takes.
    Result,
}

/// Who watches a job.
pub struct Watch<'a, S> {
    /// Hears of every step.
    pub report: &'a (dyn Fn(S) + Sync),
    /// Says whether to stop.
    pub stop: &'a (dyn Fn() -> bool + Sync),
}

impl<S> Watch<'_, S> {
    /// Nobody: runs to its end in silence.
    pub fn nobody() -> Self {
        Watch { report: &|_| (), stop: &|| false }
    }
}

/// What a lock holds; work that panicked under it left it whole.
pub(crate) fn held<T>(lock: &Mutex<T>) -> MutexGuard<'_, T> {
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}

/// Work that takes seconds.
pub trait Job: Send + Sync {
    /// What is told on the way.
    type Step: Send;
    /// What it comes to.
    type Done: Send + Sync;

    /// Stands for everything the result depends on.
    fn key(&self) -> Key;
    /// How urgent it is.
    fn class(&self) -> Class;
    /// The result, where it was computed before and is still kept.
    fn kept(&self) -> Option<Arc<Self::Done>>;
    /// Does the work and keeps the result.
    ///
    /// # Errors
    /// That it was stopped, or what is missing.
    fn run(&self, watch: &Watch<'_, Self::Step>) -> Result<Arc<Self::Done>, Halted>;
}
