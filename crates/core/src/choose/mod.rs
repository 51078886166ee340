//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod advisor;
mod change;
mod remedies;
mod shelf_parts;

pub use advisor::Advisor;
pub use change::titanium_valve;
pub use remedies::remedies;
pub use shelf_parts::parts_that_fit;
