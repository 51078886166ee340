//! How long pulls take: two hundred of three hundred points each, read and compared; and the shop twin over its builds, each left out
//! once. Run: `cargo bench --bench pulls`.

#![allow(clippy::unwrap_used, missing_docs)]

use divan::Bencher;
use rand_distr::{Distribution, Normal};
use rand_pcg::rand_core::SeedableRng;
use serde_json::{Value, json};
use std::hint::black_box;
use upper_lobe_core::analysis::{Build, Taught, pulls_of, shop_of, taught_by};

fn main() {
    divan::main();
}

/// A demo build with so many pulls of its three candidates over ten days.
fn text(pulls: usize) -> String {
    let mut lot = rand_pcg::Pcg64::seed_from_u64(1);
    let noise = Normal::new(0.0, 1.0).unwrap();
    let mut document: Value = serde_json::from_str(include_str!("../../../demo/tollgate-388-hauler.json")).unwrap();
    let pull = |place: usize| {
        let whole = 1.0 + 0.003 * noise.sample(&mut lot);
        let point = |i: usize| {
            let rpm = 1900.0 + 13.0 * i as f64;
            let torque = (400.0 - ((rpm - 3900.0) / 210.0_f64).powi(2)) * whole + 0.6 * noise.sample(&mut lot);
            json!([format!("{rpm:.0} rpm"), format!("{torque:.1} lbf ft")])
        };
        let points: Vec<Value> = (0..300).map(point).collect();
        let (candidate, day) = (["a", "b", "c"][place / 3 % 3], 10 + place * 10 / pulls);
        json!({ "id": format!("p{place}"), "candidate": candidate, "day": format!("2026-03-{day}"), "points": points })
    };
    document["pulls"] = (0..pulls).map(pull).collect();
    document.to_string()
}

#[divan::bench(args = [9, 40, 200])]
fn compared(bencher: Bencher<'_, '_>, pulls: usize) {
    let build = Build::read(&text(pulls)).unwrap();
    bencher.bench_local(|| black_box(pulls_of(&build, None).unwrap()));
}

#[divan::bench(args = [9, 200])]
fn read(bencher: Bencher<'_, '_>, pulls: usize) {
    let text = text(pulls);
    bencher.bench_local(|| black_box(Build::read(&text).unwrap()));
}

/// Builds of three families, each with nine pulls and what a fit to them left behind.
fn shop(builds: usize) -> Vec<String> {
    let mut lot = rand_pcg::Pcg64::seed_from_u64(2);
    let normal = Normal::new(0.0, 1.0).unwrap();
    let pulled = text(9);
    let build = |place: usize| {
        let mut document: Value = serde_json::from_str(&pulled).unwrap();
        let mut information = vec![json!(9.0), json!(200.0)];
        information.extend((0..4).map(|_| json!(10.0 * normal.sample(&mut lot))));
        for i in 0..4 {
            information.extend((i..4).map(|j| json!(if i == j { 60.0 + 10.0 * i as f64 } else { 15.0 })));
        }
        document["begun_from"] = json!(["small_v8", "middle_v8", "large_v8"][place % 3]);
        document["calibration"] = json!({ "remaining": 0.01, "from": "2000 rpm", "to": "5600 rpm", "by": "pull", "information": information });
        document.to_string()
    };
    (0..builds).map(build).collect()
}

#[divan::bench(args = [10, 50])]
fn shop_twin(bencher: Bencher<'_, '_>, builds: usize) {
    let documents = shop(builds);
    bencher.bench_local(|| {
        let taught: Vec<Taught> = documents.iter().filter_map(|own| taught_by(&Build::read(own).unwrap())).collect();
        assert_eq!(taught.len(), builds);
        black_box(shop_of(&Build::read(&documents[0]).unwrap(), &taught))
    });
}
