//! How well responses follow drafts, and what they take. Times count as ratios within one run.

#![allow(clippy::expect_used)]

use std::time::Instant;
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::choose::{Decision, Depth, Frame, Region, axes};

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
        for (depth, far) in [(Depth::Screened, false)] {
            let open = Decision::CAM;
            let region = Region { frame: &frame, axes: axes(frame.now(), &open, far), depth, seed: 1, stages: &stages };
            let begun = Instant::now();
            let response = region.respond(&|| false, &|_| ()).expect("a response");
            println!(
                "{name} {depth:?} {}: {} points, average torque {:.3} %, peak power {:.2} %, every speed {:.2} %, worst {:.2} %; {:.1} s",
                if far { "far" } else { "near" },
                region.count() + region.drafts(),
                100.0 * response.left_out.average_torque,
                100.0 * response.left_out.peak_power,
                100.0 * response.left_out.torque,
                100.0 * response.left_out.worst_speed,
                begun.elapsed().as_secs_f64()
            );
        }
        let region = Region {
            frame: &frame,
            axes: axes(frame.now(), &Decision::CAM, false),
            depth: Depth::Screened,
            seed: 1,
            stages: &stages,
        };
        let response = region.respond(&|| false, &|_| ()).expect("a response");
        let begun = Instant::now();
        let margins = upper_lobe_core::choose::Margins::of(&frame, &response, &stages).expect("margins");
        println!("margins in {:.2} s", begun.elapsed().as_secs_f64());
        for predicted in margins.at(&response, frame.now()) {
            println!(
                "  {:?} {:.3} scales, off {:.3}{}",
                predicted.margin.bound,
                predicted.margin.left / predicted.margin.scale,
                predicted.off / predicted.margin.scale,
                if predicted.margin.is_advice { " advice" } else { "" }
            );
        }
    }
}
