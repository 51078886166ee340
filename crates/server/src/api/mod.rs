//! The API under `/api`: builds as stored documents, the parts shelf, and the workbench that edits and analyses a build.

pub mod about;
pub mod begin;
pub mod bench;
pub mod builds;
pub mod calibrate;
pub mod choose;
pub mod control;
pub mod curve;
pub mod diagnosis;
pub mod documents;
pub mod dyno;
pub mod everything;
pub mod history;
pub mod instruments;
pub mod order;
pub mod pairing;
pub mod parts;
pub mod phasing;
mod preview;
pub mod readings;
pub mod score;
pub mod search;
pub mod sensitivity;
pub mod service;
pub mod shop;
pub mod tolerance;
pub mod workbench;
