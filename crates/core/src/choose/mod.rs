//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod advisor;
mod change;
mod remedies;
mod shelf_parts;

pub use advisor::Advisor;
pub use remedies::remedies;
