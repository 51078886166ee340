//! A candidate's train in motion: its model from what the document gives, what nobody measures drawn from named ranges,
//! the speeds, and where control is lost.

mod buys;
mod changes;
mod film;
mod gas;
mod learned;
mod measured;
mod ranges;
mod report;
mod springs;
mod train;
mod work;

pub use buys::{Bought, Moved, Near, Variant};
pub use film::film_of;
pub use measured::{FittedTrain, ROUNDS, Trace, TraceFit, Unfit, fit_to_motion};
pub use ranges::{COUNT, DRAWS, Learned, OPEN, Unmeasured};
pub use report::{Around, Limit, side_report};
pub use train::{SideTrain, Turnable, side_train};
pub use work::{LOOKED_TO, Sample, THRESHOLD, TurnedLift, lifts_over, looked_at, lost_at, sweep};
