//! What a rule without a figure is: what is there, what has to be, and why.

use super::figures::SOURCE;
use crate::document::{InputUsed, Side};
use crate::quantity::Shown;
use crate::report::{LimitReport, LimitShown, NeedReport, Place, Sense, Verdict};

/// The school of what never goes together.
pub const NEVER: &str = "never: no school allows it";

/// A rule without a figure: what is there, and what has to be.
pub(super) struct Never {
    pub id: &'static str,
    pub title: &'static str,
    pub place: Place,
    pub have: String,
    pub need: String,
    pub why: &'static str,
    /// What holds for the whole engine has no side.
    pub whole: bool,
    pub inputs: Vec<InputUsed>,
}

impl Never {
    /// Its line in the margins.
    pub fn told(self, side: Side) -> LimitReport {
        let both = |text: &str| Shown { inch: text.to_owned(), metric: text.to_owned() };
        let edit_field = self.inputs.first().map(|input| input.field.clone()).unwrap_or_default();
        LimitReport {
            id: self.id.to_owned(),
            side: (!self.whole).then_some(side),
            title: match side {
                _ if self.whole => self.title.to_owned(),
                Side::Intake => format!("Intake {}", self.title),
                Side::Exhaust => format!("Exhaust {}", self.title),
            },
            sense: Sense::AtLeast,
            need: NeedReport { min: Some(1.0), max: None },
            have: Some(0.0),
            margin: Some(-1.0),
            unit: String::new(),
            shown: Some(LimitShown {
                need: both(&self.need),
                have: both(&self.have),
                margin: both("never"),
                have_at: 0.0,
                need_at: vec![0.5],
            }),
            verdict: Verdict::Fails,
            school: NEVER.to_owned(),
            source: SOURCE.to_owned(),
            place: self.place,
            formula: self.why.to_owned(),
            inputs: self.inputs,
            missing: Vec::new(),
            remedies: Vec::new(),
            edit_field,
        }
    }
}
