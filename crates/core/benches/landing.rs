//! What each loss and each constant of breathing does by itself: peaks without it against peaks with all, on the measured
//! engine of the tests and the spark demos. It prints the table of `docs/method.md`.

#![allow(clippy::expect_used, clippy::unwrap_used, missing_docs)]

use rayon::prelude::*;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, breathing_of, curve};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::gas::friction::Friction;
use upper_lobe_core::gas::setup::{Mixture, Restriction};

const BUILDS: [(&str, &str); 3] = [
    ("measured engine", include_str!("../tests/data/open_v8.json")),
    ("tow", include_str!("../../../demo/tollgate-388-hauler.json")),
    ("strip", include_str!("../../../demo/quarry-lane-427-strip.json")),
];

/// What is taken away, and how.
type Without = (&'static str, fn(&mut Breathing));

const WITHOUT: [Without; 11] = [
    ("all as it is", |_| ()),
    ("friction by parts (one of pressure and speed)", |of| of.setup.rubbing = Friction::ByPressure),
    ("the manifold's loss", |of| of.setup.intake.loss = 0.0),
    ("two planes (one)", |of| of.setup.planes = 1),
    ("bends of the primaries", |of| of.setup.exhaust.loss = 0.0),
    ("inlet depression and back pressure", |of| of.setup.restriction = Restriction::default()),
    ("the fuel's cold and vapour", |of| of.setup.mixture = Mixture::default()),
    ("six tenths of the pipes' heat", |of| {
        of.setup.unmeasured.pipe_heat = 0.6;
        of.setup.unmeasured.runner_wall = 330.0;
    }),
    ("hot cylinder walls (450 K)", |of| of.setup.unmeasured.cylinder_wall = 450.0),
    ("dissociation", |of| of.setup.burning = 1.0 / 0.988),
    ("the trains in motion (valves moved slowly, with inertia on the give)", |of| of.trains = None),
];

fn main() {
    for (name, text) in BUILDS {
        let build = Build::read(text).expect("in order");
        let base = breathing_of(&Resolved::of(&build.candidates()[0], &Stages::default())).expect("complete");
        let rows: Vec<_> = WITHOUT.par_iter().map(|(what, change)| (what, changed(&base, change))).collect();
        let all = rows[0].1;
        println!("{name}: {:.1} N m at {:.0}, {:.1} kW at {:.0} rpm", all[0], all[1], all[2], all[3]);
        for (what, found) in &rows[1..] {
            println!(
                "  without {what}: torque {:+.1} %, {:+.0} rpm; power {:+.1} %, {:+.0} rpm",
                100.0 * (found[0] / all[0] - 1.0),
                found[1] - all[1],
                100.0 * (found[2] / all[2] - 1.0),
                found[3] - all[3]
            );
        }
    }
}

fn changed(base: &Breathing, change: &fn(&mut Breathing)) -> [f64; 4] {
    let mut other = base.clone();
    change(&mut other);
    let found = curve(&other, Effort::Full).expect("a curve");
    [found.peak_torque_nm, found.peak_torque_rpm, found.peak_power_kw, found.peak_power_rpm]
}
