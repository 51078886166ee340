//! Pulls on a dyno as figures: what of them counts, in which air, at which speeds; what differs between combinations once the day and
//! its drift are taken out, and how sure that is. Knows no document and no engine.

pub mod air;
pub mod file;
mod grid;
pub mod level;
pub mod live;
mod mixed;
pub mod needed;
pub mod odd;
mod over_speed;
pub mod symptoms;
pub mod trim;
mod welch;

pub use grid::Target;
pub use level::median;
pub use mixed::{Contrast, Design, Fitted, fit};
pub use over_speed::{OverSpeed, over_speed};
pub use welch::{scatters_otherwise, welch};
