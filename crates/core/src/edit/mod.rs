//! Edits of a build as people make them: a field typed, a source marked, an event dragged, a card
//! number changed. Every edit gives a whole new checked document or refuses and changes nothing.

mod apply;
mod assembly;
pub(crate) mod cam_edit;
mod candidates;
mod edits;
mod entries;
mod lobe_import;
pub(crate) mod marks;
mod pulls;
mod rocker_edit;
mod service;
mod sessions;
mod tolerances;
mod valve_motion;

pub use apply::{apply, apply_all};
pub use edits::{CardNumber, Edit, Event};
pub use pulls::SharedOfPulls;
pub use valve_motion::SharedOfMotion;
