//! How well responses follow drafts, margins their computed selves and limiting speeds theirs, and what they take. Times
//! count as ratios within one run.

#![allow(clippy::expect_used)]

use std::time::Instant;
use upper_lobe_core::analysis::Side;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::choose::{Frame, Margins, Motion, Region, axes};
use upper_lobe_core::response::{Decision, Depth, Response};

const DEMOS: [(&str, &str); 3] = [
    ("strip", include_str!("../../../demo/quarry-lane-427-strip.json")),
    ("tow", include_str!("../../../demo/tollgate-388-hauler.json")),
    ("diesel", include_str!("../../../demo/harbour-six-7-2-diesel.json")),
];

fn main() {
    for (name, text) in DEMOS {
        let (build, stages) = (Build::read(text).expect("in order"), Stages::default());
        let views = build.candidates();
        let frame = Frame::of(&Resolved::of(&views[0], &stages)).expect("a cam");
        responses(name, &frame, &stages);
        let response = respond(&frame, (Depth::Screened, false), &stages);
        let begun = Instant::now();
        let motion = Motion::of(&frame, &response.axes, &stages, &|| false);
        let limits = Side::BOTH.map(|side| motion.at(side, frame.now()));
        println!(
            "{name} limiting speeds {limits:.0?} rpm with what they are off; {:.1} s",
            begun.elapsed().as_secs_f64()
        );
        let begun = Instant::now();
        let margins = Margins::of(&frame, &response, &stages).expect("margins");
        println!(
            "{name} margins in {:.2} s; off by more than a tenth of what makes them tight:",
            begun.elapsed().as_secs_f64()
        );
        for predicted in margins.at(&response, frame.now()) {
            let off = predicted.off / predicted.margin.scale;
            if off > 0.1 {
                println!("  {:?} {off:.2}", predicted.margin.bound);
            }
        }
    }
}

fn respond(frame: &Frame, (depth, far): (Depth, bool), stages: &Stages) -> Response {
    let region = Region { frame, axes: axes(frame.now(), &Decision::CAM, far), depth, seed: 1, stages };
    region.respond(&|| false, &|_| ()).expect("a response")
}

/// Each with what the ones before it computed still kept.
fn responses(name: &str, frame: &Frame, stages: &Stages) {
    let wanted = [(Depth::Screened, true), (Depth::Screened, false), (Depth::Sampled, false), (Depth::Whole, false)];
    for (depth, far) in wanted {
        let begun = Instant::now();
        let found = respond(frame, (depth, far), stages);
        println!(
            "{name} {depth:?} {}: average torque {:.3} %, peak power {:.2} %, every speed {:.2} %, worst {:.2} %; {:.1} s",
            if far { "far" } else { "near" },
            100.0 * found.left_out.average_torque,
            100.0 * found.left_out.peak_power,
            100.0 * found.left_out.torque,
            100.0 * found.left_out.worst_speed,
            begun.elapsed().as_secs_f64()
        );
    }
}
