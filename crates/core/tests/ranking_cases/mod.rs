//! Whether screening ranks cams as the full mode does: cams around the hand-made one of the strip demo, forty written
//! down before they were run (a Halton sequence over 12 degrees of duration, 4 of separation and of centreline). The
//! first of them spread as evenly as all.

use rayon::prelude::*;
use serde::Deserialize;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, breathing_of, curve};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::edit::{CardNumber, Edit, apply};
use upper_lobe_core::quantity::UnitSystem;

const STRIP: &str = include_str!("../../../../demo/quarry-lane-427-strip.json");
const CAMS: &str = include_str!("../data/forty_cams.json");
/// Durations, separation and centreline of the hand-made candidate.
const HAND_MADE: [f64; 4] = [264.0, 272.0, 110.0, 106.0];

#[derive(Deserialize)]
struct Cam {
    intake_duration: f64,
    exhaust_duration: f64,
    separation: f64,
    centreline: f64,
}

fn breathing(cam: &Cam, stages: &Stages) -> Breathing {
    let numbers = [
        (CardNumber::IntakeDuration, HAND_MADE[0] + cam.intake_duration),
        (CardNumber::ExhaustDuration, HAND_MADE[1] + cam.exhaust_duration),
        (CardNumber::LobeSeparation, HAND_MADE[2] + cam.separation),
        (CardNumber::IntakeCentreline, HAND_MADE[3] + cam.centreline),
    ];
    let build = Build::read(STRIP).expect("in order");
    let build = numbers.into_iter().fold(build, |build, (number, deg)| {
        let edit = Edit::TypeCard { candidate: "a".into(), number, text: deg.to_string() };
        apply(&build, &edit, UnitSystem::Inch, stages).expect("a cam that can be")
    });
    let views = build.candidates();
    breathing_of(&Resolved::of(&views[0], stages)).expect("complete")
}

/// Spearman's rank correlation.
fn rank_correlation(a: &[f64], b: &[f64]) -> f64 {
    let ranks = |values: &[f64]| -> Vec<f64> {
        values.iter().map(|v| values.iter().filter(|other| *other < v).count() as f64).collect()
    };
    let n = a.len() as f64;
    let square: f64 = ranks(a).iter().zip(ranks(b)).map(|(x, y)| (x - y) * (x - y)).sum();
    1.0 - 6.0 * square / (n * (n * n - 1.0))
}

/// What screening's best gives in the full mode, short of the true best.
fn missed(screened: &[f64], full: &[f64]) -> f64 {
    let best = |values: &[f64]| (0..values.len()).max_by(|a, b| values[*a].total_cmp(&values[*b])).unwrap();
    1.0 - full[best(screened)] / full[best(full)]
}

/// How one effort ranks against the full mode.
pub struct Ranked {
    /// Rank correlation of average torque, and what screening's best gives short of the true best, as a share.
    pub torque: (f64, f64),
    /// The same of peak power.
    pub power: (f64, f64),
}

/// How screening and drafts rank the first `count` of the forty cams, told on the way.
pub fn ranked(count: usize) -> [Ranked; 2] {
    let cams: Vec<Cam> = serde_json::from_str(CAMS).expect("forty cams");
    assert!(cams.len() == 40 && count <= 40);
    let stages = Stages::default();
    let built: Vec<Breathing> = cams.iter().take(count).map(|cam| breathing(cam, &stages)).collect();
    let run = |effort: Effort| -> (Vec<f64>, Vec<f64>) {
        let reports = built.par_iter().map(|b| curve(b, effort).expect("a curve"));
        reports.map(|r| (r.average_torque_nm.expect("points in the band"), r.peak_power_kw)).unzip()
    };
    let full = run(Effort::Full);
    [("screening", Effort::Screening), ("draft", Effort::Draft)].map(|(name, effort)| {
        let (torque, power) = run(effort);
        let held = |values: &[f64], full: &[f64]| (rank_correlation(values, full), missed(values, full));
        let ranked = Ranked { torque: held(&torque, &full.0), power: held(&power, &full.1) };
        println!(
            "{name} of {count}: average torque {:.3}, its best {:.2} % short; peak power {:.3}, its best {:.2} % short",
            ranked.torque.0,
            100.0 * ranked.torque.1,
            ranked.power.0,
            100.0 * ranked.power.1
        );
        ranked
    })
}

/// Holds both to what ranking is trusted with.
pub fn hold([screening, draft]: &[Ranked; 2]) {
    // Of twelve, two neighbours that change places cost .007 already; all forty rank average torque at .97, peak power at .94.
    assert!(screening.torque.0 > 0.94 && screening.torque.1 <= 0.005);
    assert!(screening.power.0 > 0.9 && screening.power.1 <= 0.005);
    assert!(draft.torque.0 > 0.97 && draft.torque.1 <= 0.005);
    assert!(draft.power.0 > 0.9 && draft.power.1 <= 0.01);
}
