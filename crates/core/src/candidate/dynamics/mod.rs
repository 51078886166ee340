//! A candidate's train in motion: its model from what the document gives, what nobody measures drawn from named ranges,
//! the speeds, and where control is lost.

mod gas;
mod ranges;
mod springs;
mod train;
mod work;

pub use ranges::{DRAWS, Unmeasured};
pub use train::{SideTrain, side_train};
pub use work::{Sample, lost_at, sweep};
