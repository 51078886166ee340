//! From lifter to valve: lift at the valve, springs, moving masses, the hand check of control.

pub mod compliance;
mod control;
pub mod heights;
mod lift;
mod mass;
pub mod preload;
pub mod rocker;
pub mod room;
pub mod running;
mod spring;
mod wire;

pub use control::{ELASTIC_SHARE, HandCheck, hand_check};
pub use lift::{ValveLift, read_valve_lift};
pub use mass::{MovingMass, read_moving_mass};
pub use spring::{Spring, opening_force, read_spring};
pub use wire::Coil;
