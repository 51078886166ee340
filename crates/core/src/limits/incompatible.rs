//! What a rule without a figure is: what is there, what has to be, and why.

use super::figures::SOURCE;
use super::report::{inputs, titled};
use crate::document::Side;
use crate::given::{Place as At, Source};
use crate::quantity::Shown;
use crate::report::{LimitReport, LimitShown, NeedReport, Place, Sense, Verdict};

/// The school of what never goes together.
pub const NO_SCHOOL: &str = "never: no school allows it";

/// A rule without a figure: what is there, and what has to be.
#[derive(Debug, Clone)]
pub struct Incompatible {
    /// Stable identifier.
    pub id: &'static str,
    /// In words, without the side.
    pub title: &'static str,
    /// The step of the work it belongs to.
    pub place: Place,
    /// What is there.
    pub have: Shown,
    /// What has to be.
    pub need: Shown,
    /// Why.
    pub why: &'static str,
    /// Whose rule it is.
    pub school: &'static str,
    /// The side; none for what holds for the whole engine.
    pub side: Option<Side>,
    /// What it reads; the first is where one goes to change it.
    pub reads: Vec<At>,
}

impl Incompatible {
    /// Its line in the margins.
    pub fn line(&self, source: &Source<'_>) -> LimitReport {
        let used = inputs(self.reads.iter().copied(), source);
        let edit_field = used.first().map(|input| input.field.clone()).unwrap_or_default();
        LimitReport {
            id: self.id.to_owned(),
            side: self.side,
            title: titled(self.title, self.side),
            sense: Sense::AtLeast,
            need: NeedReport { min: Some(1.0), max: None },
            have: Some(0.0),
            margin: Some(-1.0),
            unit: String::new(),
            shown: Some(LimitShown {
                need: self.need.clone(),
                have: self.have.clone(),
                margin: Shown::plain("not allowed"),
                have_at: 0.0,
                need_at: vec![0.5],
            }),
            verdict: Verdict::Fails,
            school: self.school.to_owned(),
            source: SOURCE.to_owned(),
            place: self.place,
            formula: self.why.to_owned(),
            computed: false,
            estimate: None,
            chance: None,
            note: None,
            inputs: used,
            missing: Vec::new(),
            remedies: Vec::new(),
            edit_field,
        }
    }
}
