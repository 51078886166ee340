//! The published worked example of the format: its answers to the digits they are printed with.

use upper_lobe_core::analysis::{Analysis, Request, Stages, analyze};
use upper_lobe_core::build::Build;

/// The example of the published format.
pub const EXAMPLE: &str = include_str!("data/example_build.json");

fn answer() -> Analysis {
    let build = Build::read(EXAMPLE).expect("the example is a build document");
    analyze(&build, &Request::default(), &Stages::default()).expect("its candidate exists")
}

fn close(have: f64, printed: f64, half_digit: f64, what: &str) {
    assert!((have - printed).abs() <= half_digit, "{what}: {have} against {printed}");
}

#[test]
fn displacement_compression_and_quench_are_those_printed() {
    let answer = answer();
    let engine = answer.engine.done().expect("the engine is complete");
    close(engine.displacement_cc, 5944.0, 0.05, "displacement");
    close(engine.compression_ratio.unwrap(), 9.894, 0.0005, "compression");
    close(engine.quench_mm, 1.295, 0.0005, "quench");
}

#[test]
fn events_overlap_and_trapped_compression_are_those_printed() {
    let answer = answer();
    let timing = answer.candidates[0].timing.done().expect("the cam is complete");
    let (intake, exhaust) = (&timing.intake, &timing.exhaust);
    let events = [
        (intake.opens_006_deg, 26.0),
        (intake.closes_006_deg, 62.0),
        (exhaust.opens_006_deg, 74.0),
        (exhaust.closes_006_deg, 22.0),
        (intake.opens_050_deg, 0.0),
        (intake.closes_050_deg, 36.0),
        (exhaust.opens_050_deg, 48.0),
        (exhaust.closes_050_deg, -4.0),
        (timing.overlap_006_deg, 48.0),
        (timing.overlap_050_deg, -4.0),
    ];
    for (have, printed) in events {
        close(have, printed, 0.05, "event");
    }
    close(timing.trapped_compression_ratio.unwrap(), 8.075, 0.0005, "trapped, seat");
    close(timing.trapped_compression_050_ratio.unwrap(), 9.282, 0.0005, "trapped, .050");
}

#[test]
fn lift_and_spring_are_those_printed() {
    let answer = answer();
    let lift = answer.candidates[0].lift.done().expect("lift");
    close(lift.intake.gross_mm / 25.4, 0.5445, 0.00005, "intake gross lift");
    close(lift.exhaust.gross_mm / 25.4, 0.5528, 0.00006, "exhaust gross lift");
    let spring = answer.candidates[0].spring.done().expect("spring");
    const N_PER_LBF: f64 = 4.448_221_615;
    close(spring.intake.rate_n_per_mm * 25.4 / N_PER_LBF, 389.1, 0.05, "rate");
    close(spring.intake.open_load_n / N_PER_LBF, 349.9, 0.05, "open load");
    close(spring.intake.to_coil_bind_mm.unwrap() / 25.4, 0.1355, 0.00005, "to bind");
}
