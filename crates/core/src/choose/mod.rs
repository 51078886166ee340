//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod change;
mod remedies;
mod shelf_parts;

pub use remedies::{Advisor, remedies};
