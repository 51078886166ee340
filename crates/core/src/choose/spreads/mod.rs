//! How far every field may be off, and what that does to every limit: from a candidate to the figures of [`crate::tolerance`].

mod fields;
mod in_full;
mod overlap;
mod reserves;
mod responses;
mod strays;
mod usual;

pub use fields::{Field, cast_of, fields};
pub use in_full::{Agreement, InFull, Run, run_in_full};
pub use overlap::{Band, angles};
pub use reserves::reserves;
pub use responses::{Responded, Responses, model_of, respond};
pub use strays::{Strays, found_quickly};
