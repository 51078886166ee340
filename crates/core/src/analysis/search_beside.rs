//! Candidates that a search is held against: what a school or a hand made. It begins at them too, and they are computed as its
//! finalists are.

use super::search_setup::BesideSetup;
use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::choose::Frame;
use crate::document::Fault;

/// Most of them.
const MOST: usize = 8;

/// A candidate beside those that are found.
pub(super) struct BesideCandidate {
    /// What it is called.
    pub title: String,
    /// As the document holds it.
    pub candidate: serde_json::Value,
    /// The same with its decisions open.
    pub frame: Frame,
}

impl BesideCandidate {
    /// Those of a setup, of the engine that `build` has at `index`.
    ///
    /// # Errors
    /// One that is not whole, or too many of them.
    pub fn all(setup: &[BesideSetup], (build, index): (&Build, usize), stages: &Stages) -> Result<Vec<Self>, Fault> {
        if setup.len() > MOST {
            return Err(Fault::new("beside", &setup.len().to_string(), "at most 8 candidates"));
        }
        let one = |(place, own): (usize, &BesideSetup)| {
            let refused = |what: String| Fault::new(format!("beside[{place}]"), &own.title, what);
            let build = build.with_candidate(index, &own.candidate);
            let build = build.map_err(|faults| refused(format!("a whole candidate: {faults}")))?;
            let views = build.candidates();
            let view = views.get(index).ok_or_else(|| refused("a candidate".to_owned()))?;
            let frame = Frame::of(&Resolved::of(view, stages));
            let frame = frame.map_err(|_| refused("a candidate with both lobes and their phasing".to_owned()))?;
            Ok(Self { title: own.title.clone(), candidate: own.candidate.clone(), frame })
        };
        setup.iter().enumerate().map(one).collect()
    }
}
