//! Devices of the shop's network: paired by a code that is good once, with a role, listed and shut out. The main screen, which is
//! this machine's own, needs none of it.

mod allowed;
mod certificate;
mod changes;
mod code;
mod gate;
mod network;
mod role;
mod shop;
mod token;

pub use allowed::{OF_THE_MAIN_SCREEN, allowed, is_of};
pub use certificate::{Certificate, Files};
pub use changes::{changed_parts, check_changes};
pub use code::{Code, GOOD, Refused};
pub use gate::{Changed, Device, paired_only};
pub use network::{Networked, private_addresses};
pub use role::Role;
pub use shop::{Door, Shop};
pub use token::{COOKIE, Token};
