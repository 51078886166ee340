//! What advice about one candidate is found from.

use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::given::Source;
use crate::limits::{Findings, Judgement};
use crate::parts::Part;

/// Everything remedies of one candidate are found from.
#[derive(Clone, Copy)]
pub struct Advisor<'a> {
    /// The document.
    pub build: &'a Build,
    /// Place of the candidate in it.
    pub index: usize,
    /// The candidate.
    pub resolved: &'a Resolved,
    /// Its document, to word places by.
    pub source: &'a Source<'a>,
    /// How it stands.
    pub judgement: &'a Judgement,
    /// What was computed of it.
    pub findings: &'a Findings,
    /// Parts that could go in.
    pub shelf: &'a [Part],
    /// Cached stages.
    pub stages: &'a Stages,
}
