//! Gas in motion: what a restriction lets through, unsteady flow in ducts, and engines made of them.
//!
//! The parts a breathing engine is made of, each held against closed forms before anything is built on
//! them: [`nozzle`] for quasi-steady flow through a valve or throttle and the flow bench that measured it,
//! [`duct`] for quasi-one-dimensional waves, [`ends`] for what a duct opens into, [`junction`] for ducts that meet, [`port`] for a valve's port with its pipe,
//! [`plenum`] for the volume runners breathe from, [`friction`] for what rubs, [`thermo`], [`heat`], [`knock`] and [`cylinder`] for the charge,
//! [`cycle`] for an engine of them until it repeats.

mod breather;
mod cells;
pub mod cycle;
pub mod cylinder;
pub mod duct;
pub mod ends;
pub mod friction;
pub mod heat;
pub mod junction;
pub mod knock;
mod meeting;
pub mod nozzle;
pub mod over_cycle;
pub mod plenum;
pub mod port;
pub mod setup;
mod state;
pub mod thermo;
pub mod trace;
mod upstream;

pub use state::{Gas, State};
