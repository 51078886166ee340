//! Screening and drafts rank cams as the full mode does; all forty of them run in `benches/ranking.rs`.

#![allow(clippy::expect_used, clippy::unwrap_used)]

mod ranking_cases;

#[test]
fn screening_ranks_cams_as_the_full_mode_does() {
    ranking_cases::hold(&ranking_cases::ranked(12));
}
