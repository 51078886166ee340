//! What a search is asked, and what it tells on the way.

use crate::choose::{Goal, Start};
use crate::document::Fault;
use crate::report::{Decided, SearchPoint};
use serde::{Deserialize, Serialize};

/// How a search is set up.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct SearchSetup {
    /// What may be changed.
    pub start: Start,
    /// What is wanted.
    pub goals: Vec<Goal>,
    /// Candidates computed in full, beside the one that stands: 2 to 60.
    pub evaluations: usize,
    /// Of everything that is spread.
    pub seed: u32,
    /// Choices to begin at, of an earlier search.
    pub from: Vec<Vec<Decided>>,
    /// Share of engines, built with the tolerances, that may fail a limit which cam or parts move: so much is kept of every limit,
    /// and finalists that fail more often, and more often than what stands, come behind. Nobody asks where it is absent.
    pub most_fails: Option<f64>,
    /// Candidates to hold what is found against, and to begin at: of a school, or made by hand.
    pub beside: Vec<BesideSetup>,
}

/// A candidate to hold what is found against.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BesideSetup {
    /// What it is called.
    pub title: String,
    /// The candidate as the document holds it; its own identifier does not count.
    pub candidate: serde_json::Value,
}

impl Default for SearchSetup {
    fn default() -> Self {
        Self {
            start: Start::default(),
            goals: Goal::USUAL.to_vec(),
            evaluations: 20,
            seed: 1,
            from: Vec::new(),
            most_fails: None,
            beside: Vec::new(),
        }
    }
}

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SearchStep {
    /// Candidates computed of this piece of work.
    pub done: usize,
    /// In all of it.
    pub of: usize,
    /// In words.
    pub doing: String,
    /// Candidates so far.
    pub points: Vec<SearchPoint>,
}

impl SearchSetup {
    /// The same as it can be run.
    ///
    /// # Errors
    /// What is asked for that cannot be.
    pub(super) fn checked(mut self) -> Result<Self, Fault> {
        if !(2..=60).contains(&self.evaluations) {
            return Err(Fault::new("evaluations", &self.evaluations.to_string(), "a number of candidates, 2 to 60"));
        }
        if self.from.len() > 60 {
            return Err(Fault::new("from", &self.from.len().to_string(), "at most 60 choices"));
        }
        if let Some(share) = self.most_fails.filter(|share| !(0.0..=1.0).contains(share)) {
            return Err(Fault::new("most_fails", &share.to_string(), "a share of engines, 0 to 1"));
        }
        let broken = self.from.iter().flatten().find(|own| !own.value.is_finite());
        if let Some(own) = broken {
            return Err(Fault::new("from", &own.value.to_string(), "finite numbers"));
        }
        self.goals.dedup();
        if self.goals.is_empty() {
            self.goals = Goal::USUAL.to_vec();
        }
        Ok(self)
    }
}
