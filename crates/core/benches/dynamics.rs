//! Times of a valve train in motion. Ratios within one run count; single times are noise.

#![allow(clippy::expect_used)]

use divan::Bencher;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::dynamics::{SideTrain, Unmeasured, lost_at, side_train, sweep};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::document::Side;
use upper_lobe_core::dynamics::run::{Case, turn};
use upper_lobe_core::gas::Gas;
use upper_lobe_core::gas::duct::Duct;
use upper_lobe_core::gas::ends::End;

fn main() {
    divan::main();
}

/// The yardstick of breathing: a thousand steps of a closed pipe of a hundred cells.
#[divan::bench]
fn a_thousand_steps_of_a_hundred_cells(bencher: Bencher<'_, '_>) {
    bencher.bench(|| {
        let mut duct = Duct::new(Gas::AIR, 1.0, 100, |_| 1e-3, None, Gas::AIR.state(1e5, 300.0, 0.0)).expect("a duct");
        for _ in 0..1000 {
            let step = duct.stable_step();
            duct.step(step, &End::Closed, &End::Closed);
        }
        duct
    });
}

/// The tow demo with a single coil, or with two nested ones of half the mass and rate each.
fn with_train(nested: bool, then: impl FnOnce(&SideTrain<'_>, &SideTrain<'_>)) {
    let mut text = include_str!("../../../demo/tollgate-388-hauler.json").to_owned();
    if nested {
        let mut build: serde_json::Value = serde_json::from_str(&text).expect("JSON");
        let coil = |wire: &str, mean: &str, free: &str| serde_json::json!({ "wire_diameter": wire, "mean_diameter": mean, "active_coils": 4.5, "total_coils": 6.5, "free_length": free });
        let spring = &mut build["candidates"][0]["train"]["spring"];
        spring["points"] = serde_json::Value::Null;
        spring["coils"] =
            serde_json::json!([coil("0.177 in", "1.20 in", "2.20 in"), coil("0.120 in", "0.80 in", "2.10 in")]);
        spring.as_object_mut().expect("an object").remove("points");
        text = build.to_string();
    }
    let build = Build::read(&text).expect("in order");
    let (views, stages) = (build.candidates(), Stages::default());
    let resolved = Resolved::of(&views[0], &stages);
    let side = |side| side_train(&resolved, side).expect("complete");
    then(&side(Side::Intake), &side(Side::Exhaust));
}

/// Four points at 6000 rpm on one core, as they run: one coil, and two.
#[divan::bench(args = [false, true])]
fn four_points(bencher: Bencher<'_, '_>, nested: bool) {
    with_train(nested, |train, _| {
        let model = train.model(&Unmeasured::usual()).expect("a model");
        let cases = [6000.0; 4].map(|rpm| Case { model: &model, rpm, gas: train.gas.at(6000.0) });
        bencher.bench_local(|| turn(train.lobe, &cases));
    });
}

/// Thirty speeds of both valves on all cores.
#[divan::bench(args = [false, true], sample_count = 20)]
fn map_of_30_speeds(bencher: Bencher<'_, '_>, nested: bool) {
    let speeds: Vec<f64> = (0..30).map(|i| 1000.0 + 230.0 * f64::from(i)).collect();
    with_train(nested, |intake, exhaust| {
        bencher.bench_local(|| {
            [intake, exhaust].map(|train| sweep(train, &Unmeasured::usual(), &speeds, &|| false).len())
        });
    });
}

/// The limit of one valve by its usual train alone, and by sixteen draws.
#[divan::bench(args = [false, true], sample_count = 10)]
fn limit_of_one_valve(bencher: Bencher<'_, '_>, with_band: bool) {
    let speeds: Vec<f64> = (0..39).map(|i| 2200.0 + 200.0 * f64::from(i)).collect();
    with_train(false, |train, _| {
        let sets = if with_band { Unmeasured::draws() } else { vec![Unmeasured::usual()] };
        let models = train.models(&sets);
        bencher.bench_local(|| lost_at(train, &models, &speeds, 0.5e-3, &|| false));
    });
}
