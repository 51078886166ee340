//! Known problems with their solutions, each a module.

pub mod shock_tube;
