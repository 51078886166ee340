//! Results of stages by their own resolved inputs, so that an edit recomputes what it touches.
//!
//! A key is the `Debug` text of the inputs: floats print so that they read back to the same bits,
//! so two keys are equal only for equal inputs. The core's version is the life of the process.

use crate::cam::Lobe;
use crate::clearance::PistonClearance;
use crate::quantity::Length;
use crate::report::OrderReport;
use std::collections::HashMap;
use std::fmt::Debug;
use std::sync::{Arc, Mutex, PoisonError};

/// The key of `inputs`.
pub fn key(inputs: &impl Debug) -> String {
    format!("{inputs:?}")
}

/// Entries a stage keeps before it starts afresh; a session of dragging fills a few hundred.
const CAPACITY: usize = 512;

/// Cached results of one stage.
#[derive(Debug)]
pub struct Stage<T> {
    entries: Mutex<HashMap<String, Arc<T>>>,
}

impl<T> Default for Stage<T> {
    fn default() -> Self {
        Self { entries: Mutex::new(HashMap::new()) }
    }
}

impl<T> Stage<T> {
    /// The result for `key`, computed at most once while it is kept.
    pub fn get(&self, key: String, compute: impl FnOnce() -> T) -> Arc<T> {
        // A poisoned lock only means that another computation panicked; the map itself is whole.
        if let Some(found) = self.entries.lock().unwrap_or_else(PoisonError::into_inner).get(&key) {
            return Arc::clone(found);
        }
        let result = Arc::new(compute());
        let mut entries = self.entries.lock().unwrap_or_else(PoisonError::into_inner);
        if entries.len() >= CAPACITY {
            entries.clear();
        }
        entries.insert(key, Arc::clone(&result));
        result
    }
}

/// A lobe, or why there is none.
pub type LobeResult = Result<Lobe, String>;

/// Every cached stage. One of these may serve many analyses, also at once.
#[derive(Debug, Default)]
pub struct Stages {
    /// Lobes by card or points.
    pub lobes: Stage<LobeResult>,
    /// Closest approaches.
    pub clearances: Stage<PistonClearance>,
    /// What to grind.
    pub orders: Stage<Option<OrderReport>>,
    /// Gaps of a closed valve over the crank.
    pub closed_gaps: Stage<Vec<Length>>,
}
