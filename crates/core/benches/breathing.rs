//! Times of one breathing point. Ratios within one run count; single times are noise.

#![allow(clippy::expect_used)]

use divan::Bencher;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, breathing_of};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::gas::Gas;
use upper_lobe_core::gas::duct::Duct;
use upper_lobe_core::gas::ends::End;

fn main() {
    divan::main();
}

/// The strip demo.
fn strip() -> Breathing {
    let build = Build::read(include_str!("../../../demo/quarry-lane-427-strip.json")).expect("in order");
    let views = build.candidates();
    let stages = Stages::default();
    breathing_of(&Resolved::of(&views[0], &stages)).expect("complete")
}

/// The yardstick: a thousand steps of a closed pipe of a hundred cells.
#[divan::bench]
fn a_thousand_steps_of_a_hundred_cells(bencher: Bencher<'_, '_>) {
    bencher.bench(|| {
        let mut duct = Duct::new(Gas::AIR, 1.0, 100, |_| 1e-3, None, Gas::AIR.state(1e5, 300.0, 0.0)).expect("a duct");
        duct.set(3, Gas::AIR.state(2e5, 400.0, 0.0));
        for _ in 0..1000 {
            let step = duct.stable_step();
            duct.step(step, &End::Closed, &End::Closed);
        }
        duct
    });
}

fn point(bencher: Bencher<'_, '_>, effort: Effort, rpm: f64) {
    let breathing = strip();
    let setup = breathing.meshed(effort);
    bencher.bench(|| breathing.sample(&setup, (effort, 0), rpm, &|| false).expect("a point"));
}

#[divan::bench(args = [2000.0, 5000.0, 7500.0])]
fn fast_mode_point(bencher: Bencher<'_, '_>, rpm: f64) {
    point(bencher, Effort::Fast, rpm);
}

#[divan::bench(args = [5000.0])]
fn screening_point(bencher: Bencher<'_, '_>, rpm: f64) {
    point(bencher, Effort::Screening, rpm);
}

#[divan::bench(sample_count = 10)]
fn preview_curve_of_5_speeds(bencher: Bencher<'_, '_>) {
    let breathing = strip();
    bencher.bench(|| upper_lobe_core::candidate::breathing::curve(&breathing, Effort::Preview).expect("a curve"));
}

#[divan::bench(sample_count = 10)]
fn draft_curve_of_13_speeds(bencher: Bencher<'_, '_>) {
    let breathing = strip();
    bencher.bench(|| upper_lobe_core::candidate::breathing::curve(&breathing, Effort::Draft).expect("a curve"));
}

#[divan::bench(args = [5000.0], sample_count = 10)]
fn full_mode_point(bencher: Bencher<'_, '_>, rpm: f64) {
    point(bencher, Effort::Full, rpm);
}

/// Five speeds of screening on one core.
#[divan::bench]
fn screening_candidate_on_one_core(bencher: Bencher<'_, '_>) {
    let breathing = strip();
    let setup = breathing.meshed(Effort::Screening);
    bencher.bench(|| {
        let run = |rpm: f64| breathing.sample(&setup, (Effort::Screening, 0), rpm, &|| false).expect("a point").torque;
        breathing.speeds(Effort::Screening).into_iter().map(run).sum::<f64>()
    });
}

#[divan::bench(sample_count = 10)]
fn fast_mode_curve_of_13_speeds(bencher: Bencher<'_, '_>) {
    let breathing = strip();
    bencher.bench(|| upper_lobe_core::candidate::breathing::curve(&breathing, Effort::Fast).expect("a curve"));
}

#[divan::bench(sample_count = 4)]
fn full_mode_curve_of_13_speeds(bencher: Bencher<'_, '_>) {
    let breathing = strip();
    bencher.bench(|| upper_lobe_core::candidate::breathing::curve(&breathing, Effort::Full).expect("a curve"));
}
