//! The valve train in motion: whether the valve follows the lobe, how it lands, what its springs do meanwhile.
//!
//! [`model`] is one side's train as masses, springs and contacts; [`oil`] what a hydraulic lifter's plunger stands on;
//! [`run`] turns the cam until its cycles repeat, several trains at once in the lanes of a vector register; [`measure`]
//! says of a cycle what a builder asks: loft, bounce, hang-open, landing, loads; [`limit`] at which speed control is lost.
//!
//! Knows lobes and numbers; nothing of documents, gas or limits.

pub mod limit;
pub mod measure;
pub mod model;
pub mod oil;
mod packed;
pub mod run;
