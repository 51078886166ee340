//! A block with its state, and one value for each side.

use crate::document::{Side, spoken_label};
use serde::Serialize;

/// One block of a candidate with its state.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "state", rename_all = "snake_case")]
pub enum Block<T> {
    /// Computed.
    Done(T),
    /// Being computed; only long parts ever are.
    Running,
    /// Left out of `parts`.
    NotAsked,
    /// It could not be computed.
    Failed {
        /// Why, as a sentence.
        reason: String,
        /// Fields that would make it computable.
        needs: Vec<Named>,
    },
}

impl<T> Block<T> {
    /// The block's content when it is done.
    pub const fn done(&self) -> Option<&T> {
        match self {
            Self::Done(value) => Some(value),
            _ => None,
        }
    }
}

/// A field with what it is called.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Named {
    /// Path of the field.
    pub field: String,
    /// What it is called.
    pub label: String,
}

impl Named {
    /// The field at `path`.
    pub fn at(path: String) -> Self {
        Self { label: spoken_label(&path), field: path }
    }
}

/// One value for each side.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sides<T> {
    /// Intake.
    pub intake: T,
    /// Exhaust.
    pub exhaust: T,
}

impl<T> Sides<T> {
    /// The value of one side.
    pub const fn of(&self, side: Side) -> &T {
        match side {
            Side::Intake => &self.intake,
            Side::Exhaust => &self.exhaust,
        }
    }
}
