//! Where every term between rest and speed is from, in words.

use super::growing::Otherwise;
use crate::document::{Origin, Side};
use crate::given::{Of, Source};
use crate::report::GrowthTerm;

/// Where a term comes from.
pub struct TermSource {
    field: Option<String>,
    how: String,
    is_assumed: bool,
}

impl TermSource {
    /// Of the field `key` of the growth; where the document does not give it, `otherwise` in words, and whether that is assumed.
    pub fn of(source: &Source<'_>, key: &str, otherwise: Otherwise) -> Self {
        let node = source.node(Of::Growth, Side::Intake);
        let input = node.input(key);
        let (how, is_assumed) = match (node.has(key), input.origin) {
            (false, _) => otherwise,
            (true, Origin::Measured) => ("measured", false),
            (true, Origin::Card) => ("from its card", false),
            (true, Origin::Assumed) => ("assumed", true),
            (true, Origin::Unmarked | Origin::Computed) => ("given", false),
        };
        Self { field: Some(input.field), how: how.to_owned(), is_assumed }
    }

    /// What the train in motion computes.
    pub fn motion() -> Self {
        let how = "computed: flex, loft and bounce of the train in motion".to_owned();
        Self { field: None, how, is_assumed: false }
    }

    /// The term it is of, its figures to come.
    pub fn term(&self, id: &str, name: &str) -> GrowthTerm {
        GrowthTerm {
            id: id.to_owned(),
            name: name.to_owned(),
            mm: Vec::new(),
            field: self.field.clone(),
            how: self.how.clone(),
            is_assumed: self.is_assumed,
        }
    }
}
