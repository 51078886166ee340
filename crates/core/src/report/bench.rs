//! What readings of the bench say of the fields they stand for.

use super::block::Named;
use crate::quantity::Shown;
use serde::Serialize;

/// What a reading says beside what the document holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BenchVerdict {
    /// The field is empty or assumed.
    New,
    /// The field lies within the doubt.
    Agrees,
    /// It does not.
    Differs,
    /// The reading cannot be turned into the field.
    Unclear,
}

/// One reading, or several of a kind, made into the field it stands for.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BenchFinding {
    /// Path of the field.
    pub field: String,
    /// What it is called.
    pub label: String,
    /// The readings, in words.
    pub from: String,
    /// What they say; a text that the field takes as it is.
    pub says: Option<Shown>,
    /// Doubt that is left, plus or minus.
    pub doubt: Option<Shown>,
    /// What the document holds.
    pub now: Option<Shown>,
    /// The two against each other.
    pub verdict: BenchVerdict,
    /// Whether it is the surest of what speaks of this field.
    pub surest: bool,
    /// How it was found, or why not.
    pub how: Shown,
    /// Fields that it lacks.
    pub needs: Vec<Named>,
}
