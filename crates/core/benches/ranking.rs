//! The whole of `tests/ranking.rs`: forty cams through the full mode, drafts and screening. Some minutes; it prints how
//! well each ranks and stops where the test would.

#![allow(clippy::expect_used, clippy::unwrap_used, missing_docs)]

#[path = "../tests/ranking_cases/mod.rs"]
mod ranking_cases;

fn main() {
    ranking_cases::hold(&ranking_cases::ranked(40));
}
