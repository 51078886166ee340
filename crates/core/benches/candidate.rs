//! Times of a candidate's cheap answers. Ratios within one run count; single times are noise.

#![allow(clippy::expect_used)]

use divan::Bencher;
use upper_lobe_core::analysis::{PartName, Request, Stages, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::cam::{Check, FlatFoot, LobeCard, lobe_of_card};
use upper_lobe_core::parts::{fit, read_sheet};
use upper_lobe_core::quantity::{Length, UnitSystem};
use upper_lobe_core::words::LifterKind;

fn main() {
    divan::main();
}

const EXAMPLE: &str = include_str!("../tests/data/example_build.json");

fn card(lift: f64, durations: [f64; 3], kind: LifterKind) -> LobeCard {
    let heights = [0.006, 0.050, 0.200].map(Length::inches);
    let rows: Vec<_> = heights.into_iter().zip(durations).collect();
    let foot =
        FlatFoot { face: Length::inches(0.842), margin: Length::inches(0.020), base_circle: Length::inches(1.45) };
    LobeCard::symmetric(Length::inches(lift), &rows, kind, kind.is_flat().then_some(foot))
}

/// The yardstick every other row is a ratio to: one symmetric hydraulic roller lobe.
#[divan::bench]
fn lobe_hydraulic_roller(bencher: Bencher<'_, '_>) {
    let card = card(0.360, [282.0, 230.0, 149.0], LifterKind::HydraulicRoller);
    bencher.bench(|| lobe_of_card(&card));
}

#[divan::bench]
fn lobe_hydraulic_flat_at_its_face_limit(bencher: Bencher<'_, '_>) {
    let card = card(0.317, [270.0, 224.0, 134.0], LifterKind::HydraulicFlat);
    bencher.bench(|| lobe_of_card(&card));
}

#[divan::bench]
fn lobe_asymmetric(bencher: Bencher<'_, '_>) {
    let mut card = card(0.360, [282.0, 230.0, 149.0], LifterKind::HydraulicRoller);
    card.closing = [(0.006, 147.0), (0.050, 117.0), (0.200, 75.5)]
        .map(|(h, crank_deg)| Check { height: Length::inches(h), crank_deg })
        .to_vec();
    bencher.bench(|| lobe_of_card(&card));
}

/// What is read beside a drag, and the lobes.
const READ: [PartName; 8] = [
    PartName::Timing,
    PartName::Strip,
    PartName::Lift,
    PartName::Lobe,
    PartName::Spring,
    PartName::Control,
    PartName::Clearance,
    PartName::Limits,
];

fn request(parts: &[PartName]) -> Request {
    Request::of(None, parts.to_vec())
}

/// Both lobes and every cheap answer, nothing cached.
#[divan::bench]
fn candidate_cold(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let request = request(&READ);
    bencher.with_inputs(Stages::default).bench_values(|stages| analyze(&build, &request, &stages));
}

/// The same after an edit that leaves both lobes alone.
#[divan::bench]
fn candidate_with_known_lobes(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let request = request(&READ);
    let stages = Stages::default();
    bencher.bench(|| analyze(&build, &request, &stages));
}

/// Remedies of every limit that is not met with room.
#[divan::bench]
fn remedies(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let request = request(&PartName::cheap());
    let stages = Stages::default();
    bencher.bench(|| analyze(&build, &request, &stages));
}

/// From card to running valve with what to order, nothing kept: two lobes, and four for the order.
#[divan::bench]
fn lobe_to_valve(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let request = request(&[PartName::Lobe, PartName::Train]);
    bencher.with_inputs(Stages::default).bench_values(|stages| analyze(&build, &request, &stages));
}

/// A part of the shelf tried: the candidate before and after, every margin of both, from kept lobes.
#[divan::bench]
fn part_tried(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let sheet = "part_kind,name,ratio,mount,tip\nrocker,R,1.70,stud,roller\n";
    let part = read_sheet(sheet, UnitSystem::Inch).expect("a sheet").remove(0);
    let stages = Stages::default();
    bencher.bench(|| fit(&build, "a", &part, None, UnitSystem::Inch, &stages));
}

/// Every curve of lobe, train and strip of a candidate, from kept lobes.
#[divan::bench]
fn curves_of_a_candidate(bencher: Bencher<'_, '_>) {
    let build = Build::read(EXAMPLE).expect("the example reads");
    let request = request(&[PartName::Lobe, PartName::Train, PartName::Strip]);
    let stages = Stages::default();
    bencher.bench(|| analyze(&build, &request, &stages));
}

#[divan::bench]
fn reading_the_document(bencher: Bencher<'_, '_>) {
    bencher.bench(|| Build::read(EXAMPLE));
}
