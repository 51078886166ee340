//! A choice of decisions is the same candidate in numbers and in the document, and what is predicted of it is what is computed.

use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::choose::{Called, Frame, Standing, written};
use upper_lobe_core::limits::{Findings, limits};
use upper_lobe_core::response::{Choice, Decision};

const EXAMPLE: &str = include_str!("data/example_build.json");
const STRIP: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const DIESEL: &str = include_str!("../../../demo/harbour-six-7-2-diesel.json");

/// Another choice in made steps: each event a little otherwise, lifts and the rest by some steps.
fn other(now: &Choice) -> Choice {
    let mut choice = *now;
    for (place, (decision, value)) in now.values().enumerate() {
        let steps = [3.0, -4.0, 2.0, -3.0, 4.0, -5.0, 2.0, 1.0, 2.0, -2.0, 1.0][place % 11];
        choice.set(decision, decision.made(value + steps * decision.counting().step));
    }
    choice
}

#[test]
fn a_choice_written_into_the_document_is_the_candidate_it_was_in_numbers() {
    for (name, text) in [("example", EXAMPLE), ("strip", STRIP), ("tow", TOW), ("diesel", DIESEL)] {
        let (build, stages) = (Build::read(text).unwrap(), Stages::default());
        let views = build.candidates();
        let frame = Frame::of(&Resolved::of(&views[0], &stages)).unwrap();
        let choice = other(frame.now());
        let own = written((&build, 0), &frame, &choice, Called { id: "x", name: "X" }, &stages).unwrap();
        let views = own.candidates();
        let there = Resolved::of(views.last().unwrap(), &stages);
        let (here, again) = (frame.at(&choice, &stages), Frame::of(&there).unwrap());
        for (decision, wanted) in choice.values().filter(|(decision, _)| *decision != Decision::Quickness) {
            let found = again.now().get(decision).unwrap();
            // Texts keep as many decimals as they had: a tenth of a millimetre of a runner, a cubic centimetre of a chamber.
            let near = match decision {
                Decision::Compression => 0.1,
                Decision::Runner | Decision::Primary => 7e-4,
                Decision::IntakeLift | Decision::ExhaustLift => 6e-6,
                // A card that checks at 1 mm holds its durations there: with more lift .050 in lies elsewhere on the flank.
                _ if name == "diesel" => 0.2,
                _ => 1e-3,
            };
            assert!((found - wanted).abs() < near, "{name} {decision:?}: {found} for {wanted}");
        }
        let stand = |resolved: &Resolved| Standing::of(&limits(resolved, &Findings::default(), &stages));
        let (here, there) = (stand(&here), stand(&there));
        for margin in &here.margins {
            let other = there.margin(margin.bound).unwrap_or_else(|| panic!("{name} {:?}", margin.bound));
            // What a choice leaves out of the document is the old cam's part number and price.
            if margin.bound.rule.id == "cost" {
                continue;
            }
            let off = (margin.left - other.left).abs() / margin.scale;
            assert!(off < 0.05, "{name} {:?}: {} for {}, {off:.3} scales", margin.bound, other.left, margin.left);
        }
    }
}
