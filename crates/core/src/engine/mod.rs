//! The short block and the chamber: crank and rod kinematics, volumes, compression.

mod crank;
mod volumes;

pub use crank::{CrankSlider, Dead};
pub use volumes::{Cylinder, read_cylinder};
