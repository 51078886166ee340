//! Idle and cranking: that they move as builders know they do, on the demo builds.

use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{IdleAndCranking, breathing_of};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::edit::{CardNumber, Edit, apply};
use upper_lobe_core::quantity::UnitSystem;
use upper_lobe_core::report::{IdleQuality, IdleReport};

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const STRIP: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
const DIESEL: &str = include_str!("../../../demo/harbour-six-7-2-diesel.json");

fn idle_and_cranking(build: &Build) -> IdleAndCranking {
    let views = build.candidates();
    let breathing = breathing_of(&Resolved::of(&views[0], &Stages::default())).expect("complete");
    let found = breathing.idle_and_cranking(&|| false).expect("runs");
    println!("{:?}, cranking {:.0} kPa", found.idle, found.cranking * 1e-3);
    found
}

fn edited(text: &str, edit: &Edit) -> Build {
    apply(&Build::read(text).unwrap(), edit, UnitSystem::Inch, &Stages::default()).expect("taken")
}

fn idle(text: &str, edit: &Edit) -> IdleReport {
    idle_and_cranking(&edited(text, edit)).idle.expect("a spark engine with an idle speed")
}

fn set(field: &str, text: &str) -> Edit {
    Edit::Set { field: field.into(), text: text.into() }
}

#[test]
fn a_wider_separation_idles_smoother_with_more_vacuum() {
    let separated = |deg: &str| {
        idle(TOW, &Edit::TypeCard { candidate: "a".into(), number: CardNumber::LobeSeparation, text: deg.into() })
    };
    let (tight, wide) = (separated("106 deg"), separated("116 deg"));
    assert!(wide.vacuum_kpa.unwrap() > tight.vacuum_kpa.unwrap() + 5.0);
    assert!(wide.residual_fraction < tight.residual_fraction - 0.05);
}

#[test]
fn a_faster_idle_leaves_less_residual() {
    let (slow, fast) = (idle(TOW, &set("target.idle_at", "600 rpm")), idle(TOW, &set("target.idle_at", "1000 rpm")));
    assert!(fast.residual_fraction < slow.residual_fraction, "{fast:?} {slow:?}");
}

#[test]
fn a_strip_cam_has_little_vacuum_and_a_rough_idle() {
    let strip = idle(STRIP, &set("target.idle_at", "1200 rpm"));
    assert_eq!(strip.quality, IdleQuality::Rough);
    assert!(strip.vacuum_kpa.is_none_or(|kpa| kpa < 25.0), "{strip:?}");
    let slow = idle(STRIP, &set("target.idle_at", "500 rpm"));
    assert!(slow.vacuum_kpa.unwrap_or(0.0) <= strip.vacuum_kpa.unwrap_or(0.0));
}

#[test]
fn cranking_pressure_lies_between_slow_and_adiabatic_compression_of_what_is_trapped() {
    // p V^n with n from 1.2 (walls and leakage) to 1.4 (none) at 95 and 99 kPa: at least what is trapped at .006, at most
    // what is trapped at .050, as the timing block has them; the running valve shuts in between.
    for (text, trapped, outside) in [(TOW, (8.0_f64, 9.2_f64), 95.0), (DIESEL, (15.8, 17.5), 99.0)] {
        let kpa = idle_and_cranking(&Build::read(text).unwrap()).cranking * 1e-3;
        let between = [trapped.0.powf(1.2), trapped.1.powf(1.4)].map(|ratio| outside * (ratio - 1.0));
        assert!((between[0]..between[1]).contains(&kpa), "{kpa}, {between:?}");
    }
    assert_eq!(idle_and_cranking(&Build::read(DIESEL).unwrap()).idle, None);
}
