//! Times of one breathing point. Ratios within one run count; single times are noise.

#![allow(clippy::expect_used)]

use divan::Bencher;
use upper_lobe_core::candidate::{Inputs, Stages, breathing_setup};
use upper_lobe_core::document::{Build, Ledger};
use upper_lobe_core::gas::Gas;
use upper_lobe_core::gas::cycle::{Setup, point};
use upper_lobe_core::gas::duct::Duct;
use upper_lobe_core::gas::ends::End;

fn main() {
    divan::main();
}

fn setup() -> Setup {
    let build = Build::read(include_str!("../tests/data/example_build.json")).expect("in order");
    let views = build.candidates();
    let (ledger, stages) = (Ledger::default(), Stages::default());
    breathing_setup(&Inputs::resolve(&views[0], &ledger, &stages)).expect("complete")
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

#[divan::bench(args = [2000.0, 5000.0])]
fn fast_mode_point(bencher: Bencher<'_, '_>, rpm: f64) {
    let setup = setup();
    bencher.bench(|| point(&setup, rpm));
}

#[divan::bench]
fn fast_mode_point_36_54_mm(bencher: Bencher<'_, '_>) {
    let setup = Setup { cells: (0.036, 0.054), ..setup() };
    bencher.bench(|| point(&setup, 5000.0));
}
