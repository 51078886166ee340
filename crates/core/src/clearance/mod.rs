//! What must not touch: valve and piston, valve and pocket wall, valve and valve, piston and head,
//! retainer and seal, at rest; and what brings them together at speed.

mod frame;
pub mod growth;
mod hardware;
mod piston;
mod valves;

pub use frame::{CrownFrame, Gap, ValveFrame, Vector, read_crown, read_second_valve, read_valve};
pub use hardware::retainer_to_seal;
pub use piston::{ClosedGap, PistonClearance, ValveTravel, closest, least_gap};
pub use valves::valve_to_valve;
