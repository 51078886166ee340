//! A block with its state, and one value for each side.

use crate::document::Side;
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
        /// Paths of fields that would make it computable.
        needs: Vec<String>,
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
