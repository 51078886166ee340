//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod advisor;
mod change;
mod decision;
mod design;
mod figures;
mod frame;
mod ground;
mod polynomial;
mod remedies;
mod response;
mod shelf_parts;
mod standing;

pub use advisor::Advisor;
pub use change::titanium_valve;
pub use decision::{Choice, Counting, Decision, Reach};
pub use figures::{Figures, PlanOf};
pub use frame::Frame;
pub use ground::{Margins, Predicted, standing};
pub use remedies::remedies;
pub use response::{Axis, Computed, Depth, LeftOut, Region, Response, Told, axes};
pub use shelf_parts::parts_that_fit;
pub use standing::{Bound, Margin, Standing};
