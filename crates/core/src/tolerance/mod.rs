//! Spreads of what things are made with and measured by, and what they make of limits: pure figures, no document.
//!
//! Engines are drawn with all their cylinders: a cause that cylinders share is drawn once for them. What a draw does to a limit
//! is foreseen by a response of first and second order in every variable, fitted around the values as they are given.

mod draw;
mod held;
mod outcome;
mod respond;
mod simulate;
mod spread;

pub use draw::{Cast, Variable};
pub use held::{Hold, hold};
pub use outcome::{Outcome, Spreading, quantile};
pub use respond::{AWAY, Effect, Response};
pub use simulate::{Model, Simulated, simulate};
pub use spread::{HOLDS_95, Spread};
