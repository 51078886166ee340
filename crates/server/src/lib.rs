//! Upper Lobe: the local web application and its command line. Thin: parse, hand to the core or the
//! store, answer.
//!
//! - [`command`]: the command line, from `serve` to `backup`;
//! - [`archive`]: everything in one ZIP file;
//! - [`app`]: the routes as one service factory, the same for the binary and the tests;
//! - [`api`]: builds and the workbench;
//! - [`guard`]: who may talk to it and what every answer carries;
//! - [`pairing`]: devices of the shop's network, their roles and what they changed;
//! - [`page`]: the embedded front end;
//! - [`points`]: what searches computed, kept over a restart;
//! - [`problem`]: refusals as RFC 9457 problem details;
//! - [`random`]: random bytes;
//! - [`service_calendar`]: what is due as an iCalendar;
//! - [`shop`]: what the shop's other builds may teach one.

#![warn(missing_docs)]
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used))]

pub mod api;
pub mod app;
pub mod archive;
pub mod command;
pub mod guard;
pub mod instruments;
pub mod jobs;
pub mod order_sheet;
pub mod owner_charts;
pub mod owner_page;
pub mod page;
pub mod pairing;
pub mod points;
pub mod problem;
pub mod random;
pub mod service_calendar;
pub mod shop;
