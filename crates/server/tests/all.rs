//! Every test of the server from outside, in one program. A module is run when it is named here; the core's test
//! `architecture` fails when one is not.

#![allow(clippy::expect_used, clippy::unwrap_used)]

#[macro_use]
mod application;

mod api;
mod backup;
mod begin_and_order;
mod command_line;
mod dyno;
mod kills;
mod motion;
mod order_sheets;
mod owner;
mod pairing;
mod search_killed;
mod served;
mod service;
mod shelf;
mod shop;
mod shop_door;
mod statuses;
mod stood_in;
