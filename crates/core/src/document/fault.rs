//! Why a document, a field or an edit is refused: field, given, needs, cure.

use super::field::Kind;
use super::rows::spoken_label;
use crate::quantity::{Shown, UnitSystem};
use serde::Serialize;
use std::fmt;

/// One refused value.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Fault {
    /// Path of the field, such as `candidates[0].cam.intake.lobe_lift`.
    pub field: String,
    /// What the field is called.
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub label: Box<str>,
    /// What was given, shortened when long.
    pub given: String,
    /// What the field needs.
    pub needs: String,
    /// The same as read in both systems, where it holds units or words of the format.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub shown: Option<Box<Shown>>,
    /// What to write instead, when it is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cure: Option<String>,
}

/// Longest piece of a refused value that is repeated to its author.
const GIVEN_LENGTH: usize = 60;

impl Fault {
    /// A fault without a cure.
    pub fn new(field: impl Into<String>, given: &str, needs: impl Into<String>) -> Self {
        let field = short_path(field.into());
        Self {
            label: spoken_label(&field).into(),
            field,
            given: shorten(given),
            needs: needs.into(),
            shown: None,
            cure: None,
        }
    }

    /// A value that is not what `kind` needs.
    pub fn of_kind(field: impl Into<String>, given: &str, kind: &Kind) -> Self {
        let shown = Shown { inch: kind.needs_in(UnitSystem::Inch), metric: kind.needs_in(UnitSystem::Metric) };
        Self { shown: Some(Box::new(shown)), ..Self::new(field, given, kind.needs()) }
    }

    /// The same fault with a cure.
    #[must_use]
    pub fn cure(mut self, cure: impl Into<String>) -> Self {
        self.cure = Some(cure.into());
        self
    }
}

impl fmt::Display for Fault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: given {}, needs {}", self.field, self.given, self.needs)?;
        match &self.cure {
            Some(cure) => write!(f, "; {cure}"),
            None => Ok(()),
        }
    }
}

/// Every fault of a document at once.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, thiserror::Error)]
#[error("{} faults in the document", faults.len())]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Faults {
    /// In the order of the document.
    pub faults: Vec<Fault>,
}

impl From<Fault> for Faults {
    fn from(fault: Fault) -> Self {
        Self { faults: vec![fault] }
    }
}

/// Longest path that is repeated: a key may be as long as its author likes.
const PATH_LENGTH: usize = 160;

fn short_path(path: String) -> String {
    if path.chars().count() <= PATH_LENGTH {
        return path;
    }
    let head: String = path.chars().take(PATH_LENGTH).collect();
    format!("{head}...")
}

fn shorten(given: &str) -> String {
    let clean: String = given.chars().map(|c| if c.is_control() { ' ' } else { c }).collect();
    if clean.chars().count() <= GIVEN_LENGTH {
        clean
    } else {
        let head: String = clean.chars().take(GIVEN_LENGTH).collect();
        format!("{head}...")
    }
}
