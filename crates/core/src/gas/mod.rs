//! Gas in motion: what a restriction lets through, and unsteady flow in ducts.
//!
//! The parts a breathing engine is made of, each held against closed forms before anything is built on
//! them: [`nozzle`] for quasi-steady flow through a valve or throttle and the flow bench that measured it,
//! [`duct`] for quasi-one-dimensional waves, [`ends`] for what a duct opens into, [`thermo`] and
//! [`cylinder`] for the charge, [`cycle`] for one cylinder with its pipes until it repeats.

mod cells;
pub mod cycle;
pub mod cylinder;
pub mod duct;
pub mod ends;
pub mod nozzle;
mod state;
pub mod thermo;

pub use state::{Gas, State};
