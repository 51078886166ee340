//! The trade: valve events, lobes, trains, clearances and limits of pushrod engines.
//!
//! The cast, in the order data flows:
//! - [`quantity`]: typed quantities and their text;
//! - [`document`]: the build document as people exchange it, checked against one table;
//! - [`build`]: a whole document whose fields agree with each other;
//! - [`words`]: the document's closed lists as enums;
//! - [`given`]: what the document gives of one candidate, in SI and as enums;
//! - [`engine`]: crank, rod, volumes, compression;
//! - [`cam`]: events and card numbers, the lobe each card describes;
//! - [`bench`]: what is read on the bench, as figures: a degree wheel, lobes, springs, leaks;
//! - [`pulls`]: pulls of a dyno, trimmed, compared, questioned;
//! - [`train`]: lift at the valve, springs, masses, the hand check of control;
//! - [`clearance`]: valve to piston, valve to valve, hardware;
//! - [`dynamics`]: the train in motion, masses, springs and contacts;
//! - [`gas`]: flow through restrictions and waves in ducts, the parts of a breathing engine;
//! - [`response`]: a curve of torque over decisions, as a polynomial through computed points;
//! - [`tolerance`]: spreads, engines drawn by lot, and what they make of limits;
//! - [`shop_twin`]: the model's constants over all builds of a shop, by family;
//! - [`candidate`]: one candidate resolved, and the blocks of its [`report`];
//! - [`limits`]: every rule as data, with need, have, margin and what buys it back;
//! - [`begin`]: a build to begin with: an invented family's engine, assumed, and a first cam by card rules;
//! - [`edit`]: edits as people make them, each giving a whole new document;
//! - [`parts`]: the shelf of parts: as a sheet, put into a candidate, checked for fit;
//! - [`glossary`]: the trade's words in a sentence each;
//! - [`analysis`]: the one entrance, from a build to its report.
//!
//! Pure functions of their inputs: no files, no network, no clock, no globals but constants.

#![warn(missing_docs)]
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used))]

pub mod analysis;
pub mod begin;
pub mod bench;
pub mod build;
pub mod cam;
pub mod candidate;
pub mod choose;
pub mod clearance;
pub mod document;
pub mod dynamics;
pub mod edit;
pub mod engine;
pub mod front;
pub mod gas;
pub mod given;
pub mod glossary;
mod lanes;
pub mod limits;
pub mod parts;
mod peaks;
mod programme;
pub mod pulls;
pub mod quantity;
pub mod report;
pub mod response;
mod root;
pub mod service;
pub mod shop_twin;
mod table;
pub mod tolerance;
pub mod train;
pub mod words;
pub mod work;
