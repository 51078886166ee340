//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod advisor;
mod aim;
mod change;
mod frame;
mod ground;
mod guide;
mod motion;
mod region;
mod remedies;
mod schools;
mod shelf_parts;
mod standing;
mod write;

pub use advisor::Advisor;
pub use aim::Aim;
pub use change::titanium_valve;
pub use frame::Frame;
pub use ground::{Margins, Predicted, standing};
pub use guide::{Guide, Proposal, Stood, Sweep, score};
pub use motion::{Motion, limiting_speed};
pub use region::{Region, Told, axes, figures_of, gas_of};
pub use remedies::remedies;
pub use schools::{apart, by_card, differ, shown_value, why};
pub use shelf_parts::parts_that_fit;
pub use standing::{Bound, Margin, Standing};
pub use write::{Called, written};
