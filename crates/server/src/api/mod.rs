//! The API under `/api`: builds as stored documents, and the workbench that edits and analyses one.

pub mod about;
pub mod builds;
pub mod calibrate;
pub mod curve;
pub mod documents;
pub mod sensitivity;
pub mod workbench;
