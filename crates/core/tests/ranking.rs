//! Screening and drafts rank cams as the full mode does; all forty of them run in `benches/ranking.rs`.

#[test]
fn screening_ranks_cams_as_the_full_mode_does() {
    crate::ranking_cases::hold(&crate::ranking_cases::ranked(12));
}
