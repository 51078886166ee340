//! Why a document, a field or an edit is refused: field, given, needs, cure.

use serde::Serialize;
use std::fmt;

/// One refused value.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Fault {
    /// Path of the field, such as `candidates[0].cam.intake.lobe_lift`.
    pub field: String,
    /// What was given, shortened when long.
    pub given: String,
    /// What the field needs.
    pub needs: String,
    /// What to write instead, when it is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cure: Option<String>,
}

/// Longest piece of a refused value that is repeated to its author.
const GIVEN_LENGTH: usize = 60;

impl Fault {
    /// A fault without a cure.
    pub fn new(field: impl Into<String>, given: &str, needs: impl Into<String>) -> Self {
        Self { field: field.into(), given: shorten(given), needs: needs.into(), cure: None }
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

fn shorten(given: &str) -> String {
    let clean: String = given.chars().map(|c| if c.is_control() { ' ' } else { c }).collect();
    if clean.chars().count() <= GIVEN_LENGTH {
        clean
    } else {
        let head: String = clean.chars().take(GIVEN_LENGTH).collect();
        format!("{head}...")
    }
}
