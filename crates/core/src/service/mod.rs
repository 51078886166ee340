//! The service log as numbers: what wears how quickly, and when it reaches what it must not.

mod in_order;
mod shrink;
mod trend;
mod used;
mod wear;

pub use in_order::in_order;
pub use shrink::{Estimate, Shrunk, shrink};
pub use trend::{Line, Reached, Trend, trend};
pub(crate) use used::KILOMETRE;
pub use used::{CountedIn, NEEDS, Used, day, used};
pub use wear::{Due, LASH_MOVES, LIFT_LOST, LOAD_LOST, Wear};
