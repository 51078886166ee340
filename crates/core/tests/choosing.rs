//! A choice of decisions is the same candidate in numbers and in the document, and what is predicted of it is what is computed.

use std::sync::{Arc, Mutex};
use upper_lobe_core::analysis::{ChooseJob, ChooseReport, ChooseStep, Halted, Job, Watch};
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Effort, breathing_of, curve};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::choose::{
    Aim, Called, Frame, Guide, Margins, Region, Standing, axes, figures_of, gas_of, standing, written,
};
use upper_lobe_core::edit::{CardNumber, Edit, apply};
use upper_lobe_core::limits::{Findings, limits};
use upper_lobe_core::quantity::UnitSystem;
use upper_lobe_core::response::{
    Axis, Choice, Decision, Depth, LeftOut, PlanOf, Response, Terms, fit, towards_the_sides,
};

const EXAMPLE: &str = include_str!("data/example_build.json");
const STRIP: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const DIESEL: &str = include_str!("../../../demo/harbour-six-7-2-diesel.json");

/// Another choice in made steps: each event a little otherwise, lifts and the rest by some steps.
fn other(now: &Choice) -> Choice {
    let mut choice = *now;
    // Moving the whole cam moves every event: what is read back is told by them.
    let own = now.values().filter(|(decision, _)| *decision != Decision::Advance);
    for (place, (decision, value)) in own.enumerate() {
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

/// A ground whose best place is known: torque falls off from 52 deg of closing and a lift of 9.5 mm, by their product too.
fn planted(power: impl Fn(f64, f64) -> f64) -> Response {
    let axes = vec![
        Axis { decision: Decision::IntakeCloses, middle: 50.0, reach: 8.0 },
        Axis { decision: Decision::IntakeLift, middle: 9e-3, reach: 1e-3 },
    ];
    let places: Vec<Vec<f64>> = (0..20).map(|i| towards_the_sides(i, 2, 3)).collect();
    let speeds = vec![3000.0, 4000.0, 5000.0];
    let torque = |place: &Vec<f64>| power(place[0].mul_add(8.0, 50.0), place[1].mul_add(1.0, 9.0));
    // Torque at three speeds, then pressure, pressure, temperature, air-fuel ratio.
    let values: Vec<Vec<f64>> = places.iter().map(|place| [vec![torque(place); 3], vec![1.0; 12]].concat()).collect();
    let screened = fit(Terms::Products, &places, &values).unwrap().polynomial;
    let plan = PlanOf {
        band: (3000.0, 5000.0),
        wanted: None,
        shift: None,
        missed: None,
        used_to: 6000.0,
        spark: false,
        charged: false,
    };
    Response {
        axes,
        depth: Depth::Screened,
        speeds,
        plan,
        screened,
        added: None,
        points: Vec::new(),
        left_out: LeftOut::default(),
    }
}

#[test]
fn a_planted_optimum_is_found_to_the_step_and_lift_that_gives_nothing_is_left_off() {
    let guided = |response: &Response| {
        let now = Choice::nothing().with(Decision::IntakeCloses, 46.0).with(Decision::IntakeLift, 8.5e-3);
        let margins = Margins::none();
        let aim = Aim { power: 0.0, from: response.figures(&now) };
        Guide { response, margins: &margins, aim }.decided(&now)
    };
    let hill = planted(|deg, mm| {
        let (d, l) = ((deg - 52.0) / 8.0, mm - 9.5);
        500.0 * (1.0 - 0.2 * d * d - 0.6 * l * l - 0.1 * d * l)
    });
    let found = guided(&hill);
    assert_eq!(found.get(Decision::IntakeCloses), Some(52.0));
    let lift = found.get(Decision::IntakeLift).unwrap();
    // A lift that gives away a thousandth: sqrt(.001 / .6) = .041 mm less, to the thousandth of an inch.
    assert!((9.5e-3 - 0.041e-3 - 0.026e-3..=9.5e-3 + 1e-9).contains(&lift), "{lift}");
    let flat = planted(|deg, _| 500.0 * (1.0 - 0.2 * ((deg - 52.0) / 8.0).powi(2)));
    let mild = guided(&flat).get(Decision::IntakeLift).unwrap();
    assert!((mild - 8e-3).abs() < 0.03e-3, "the mildest there is: {mild}");
}

#[test]
fn what_a_response_says_of_a_cam_is_what_is_computed_of_it() {
    let (build, stages) = (Build::read(STRIP).unwrap(), Stages::default());
    let views = build.candidates();
    let frame = Frame::of(&Resolved::of(&views[0], &stages)).unwrap();
    let axes = axes(frame.now(), &Decision::CAM, false);
    let region = Region { frame: &frame, axes, depth: Depth::Screened, seed: 1, stages: &stages };
    let response = region.respond(&|| false, &|_| ()).unwrap();
    let margins = Margins::of(&frame, &response, &stages).unwrap();
    assert!(response.left_out.average_torque < 1e-3, "{:?}", response.left_out);
    // Neither in the middle nor among the points it was made of.
    let choice = cam(frame.now());
    let breathing = breathing_of(&frame.at(&choice, &stages)).unwrap();
    let computed = figures_of(&breathing, &curve(&breathing, Effort::Screening).unwrap());
    let found = response.figures(&choice);
    // Four times what is missed of points left out, and at least a thousandth.
    let near = |a: f64, b: f64, off: f64| (a / b - 1.0).abs() < (4.0 * off).max(1e-3);
    assert!(near(found.average_torque, computed.average_torque, response.left_out.average_torque));
    assert!(near(found.peak_power, computed.peak_power, response.left_out.peak_power));
    let standing =
        standing(&frame, &choice, &Findings { gas: Some(gas_of(&computed)), ..Findings::default() }, &stages);
    for predicted in margins.at(&response, &choice) {
        let Some(own) = standing.margin(predicted.margin.bound) else { continue };
        // Radii of a flank are followed by their curvature.
        let is_radius = predicted.margin.bound.rule.id == "hollow_flank";
        let left = if is_radius { own.need * (1.0 - own.need / (own.need + own.left)) } else { own.left };
        let off = (predicted.margin.left - left).abs();
        let within = 5.0 * predicted.off + 0.05 * own.scale;
        assert!(off < within, "{:?}: {off} beyond {within}", predicted.margin.bound);
    }
    // The same region again is the same to the bit, whoever computes it.
    let again = Region {
        frame: &frame,
        axes: region.axes.clone(),
        depth: Depth::Screened,
        seed: 1,
        stages: &Stages::default(),
    };
    let one_thread = rayon::ThreadPoolBuilder::new().num_threads(1).build().unwrap();
    let again = one_thread.install(|| again.respond(&|| false, &|_| ()).unwrap());
    assert_eq!(again.columns(&choice), response.columns(&choice));
}

#[test]
fn the_key_of_a_frame_stays_while_its_cam_moves_and_changes_with_the_engine() {
    for text in [EXAMPLE, STRIP, TOW, DIESEL] {
        let (build, stages) = (Build::read(text).unwrap(), Stages::default());
        let views = build.candidates();
        let frame = Frame::of(&Resolved::of(&views[0], &stages)).unwrap();
        let moved = written((&build, 0), &frame, &cam(frame.now()), Called { id: "x", name: "X" }, &stages).unwrap();
        let views = moved.candidates();
        let there = Frame::of(&Resolved::of(views.last().unwrap(), &stages)).unwrap();
        assert_eq!(there.key(&Decision::CAM), frame.key(&Decision::CAM));
        assert_ne!(there.key(&[]), frame.key(&[]));
        // Nobody measured another cam, nor has a card of it.
        let [was, own] = [&build, &moved].map(|build| &build.value()["candidates"].as_array().unwrap()[..]);
        let [was, own] = [&was[0]["cam"], &own.last().unwrap()["cam"]];
        assert_ne!(was["intake"]["lobe_lift"], own["intake"]["lobe_lift"]);
        for [was, own] in [[was, own], [&was["intake"], &own["intake"]], [&was["exhaust"], &own["exhaust"]]] {
            for (key, value) in own.as_object().unwrap().iter().filter(|(key, value)| was[*key] != **value) {
                assert!(own["sources"][key].is_null(), "{key} {value}: {}", own["sources"]);
            }
        }
        let edit = Edit::Set { field: "engine.gasket_thickness".into(), text: "1.31 mm".into() };
        let other = apply(&build, &edit, UnitSystem::Inch, &stages).unwrap();
        let other = Frame::of(&Resolved::of(&other.candidates()[0], &stages)).unwrap();
        assert_ne!(other.key(&Decision::CAM), frame.key(&Decision::CAM));
    }
}

/// Another cam: the events and lifts of [`other`].
fn cam(now: &Choice) -> Choice {
    let other = other(now);
    Decision::CAM.into_iter().fold(*now, |cam, decision| cam.with(decision, other.get(decision).unwrap()))
}

#[test]
fn both_schools_come_to_whole_candidates_and_the_events_break_nothing() {
    let (build, stages) = (Build::read(STRIP).unwrap(), Arc::new(Stages::default()));
    let job = ChooseJob::new(&build, Some("a"), stages).unwrap().unwrap();
    let last: Mutex<Option<ChooseReport>> = Mutex::default();
    let drafting = || last.lock().unwrap().as_ref().is_some_and(|report| report.proposals.len() == 3);
    let seen = std::sync::atomic::AtomicUsize::new(0);
    let tell = |step: ChooseStep| {
        if let Some(report) = step.report {
            *last.lock().unwrap() = Some(*report);
        }
        if step.doing.starts_with("drafting") {
            seen.fetch_add(1, std::sync::atomic::Ordering::Relaxed);
        }
    };
    // What follows are drafts: they make torque sharper and move no proposal.
    let stop = || seen.load(std::sync::atomic::Ordering::Relaxed) > 0;
    assert_eq!(job.run(&Watch { report: &tell, stop: &stop }).unwrap_err(), Halted::Stopped);
    assert!(drafting());
    let report = last.lock().unwrap().take().unwrap();
    let proposal = |school: &str| report.proposals.iter().find(|proposal| proposal.school == school).unwrap();
    let (now, events, card) = (proposal("as_it_stands"), proposal("events_first"), proposal("card_first"));
    assert!(events.broken.is_empty() && now.broken.is_empty(), "{:?}", events.broken);
    assert!(events.gain.unwrap() > 0.002, "{:?}", events.gain);
    assert!(card.gain.unwrap().abs() < 0.03, "two schools near each other: {:?}", card.gain);
    assert_eq!(events.because.len(), 6);
    assert!(card.because.iter().all(|because| !because.why.inch.is_empty()));
    assert!(!report.differ.is_empty());
    // Practice (no source): a race engine beyond 7,000 rpm closes in the low to middle fifties, a larger one a little later,
    // and opens its exhaust in the middle sixties.
    let quoted = |at: usize| events.because[at].value.inch.split(' ').next().unwrap().parse::<f64>().unwrap();
    assert!((50.0..60.0).contains(&quoted(0)) && (60.0..70.0).contains(&quoted(1)), "{} {}", quoted(0), quoted(1));
    // A later closing gives low speed away for high speed.
    let closing = &report.decisions[0];
    let (first, last) = (0, closing.value.len() - 1);
    assert!(closing.low[first] > closing.low[last] && closing.high[first] < closing.high[last]);
    // Kept, it is a candidate like any other.
    let keep = Edit::KeepCandidate {
        to: "d".into(),
        name: "By the events".into(),
        candidate: events.candidate.clone().unwrap(),
    };
    let kept = apply(&build, &keep, UnitSystem::Inch, &Stages::default()).unwrap();
    assert_eq!(kept.candidates().last().unwrap().id, "d");
    let refused = Edit::KeepCandidate {
        to: "d".into(),
        name: "x".into(),
        candidate: serde_json::json!({ "cam": { "nonsense": 1 } }),
    };
    assert!(apply(&build, &refused, UnitSystem::Inch, &Stages::default()).is_err());
}

#[test]
fn every_other_way_to_decide_does_what_its_picture_says_once_it_is_written() {
    // One cylinder by itself, so that its screened curve is all there is.
    let mut value = Build::read(TOW).unwrap().value().clone();
    value["engine"].as_object_mut().unwrap().shift_remove("firing_order");
    let build = Build::from_value(value).unwrap();
    let stages = Arc::new(Stages::default());
    let job = ChooseJob::new(&build, Some("a"), Arc::clone(&stages)).unwrap().unwrap().with_hardware(true);
    let report = job.run(&Watch::nobody()).unwrap();
    let average = |build: &Build| {
        let breathing = breathing_of(&Resolved::of(&build.candidates()[0], &stages)).unwrap();
        figures_of(&breathing, &curve(&breathing, Effort::Screening).unwrap()).average_torque
    };
    let before = average(&build);
    let decisions: Vec<Decision> = report.hardware.iter().map(|own| own.decision.decision).collect();
    assert_eq!(decisions, Decision::HARDWARE);
    for own in &report.hardware {
        for place in [0, own.decision.value.len() - 1] {
            let set = |build: Build, field: &str, text: &str| {
                let edit = Edit::Set { field: field.into(), text: text.into() };
                apply(&build, &edit, UnitSystem::Inch, &stages).unwrap()
            };
            let after = own.fields.iter().fold(build.clone(), |build, own| set(build, &own.field, &own.text[place]));
            let gain = average(&after) / before - 1.0;
            let said = own.decision.average_torque[place];
            assert!((gain - said).abs() < 0.003, "{:?} {place}: {gain} for {said}", own.decision.decision);
        }
    }
    // The cam as its card says it: what is typed into the card does what the picture of its number says.
    let numbers = [
        CardNumber::IntakeDuration,
        CardNumber::ExhaustDuration,
        CardNumber::LobeSeparation,
        CardNumber::IntakeCentreline,
    ];
    let decisions: Vec<Decision> = report.card.iter().map(|own| own.decision).collect();
    assert_eq!(decisions, Decision::CARD);
    for (own, number) in report.card.iter().zip(numbers) {
        for place in [0, own.value.len() - 1] {
            let text = format!("{} deg", own.value[place]);
            let after =
                apply(&build, &Edit::TypeCard { candidate: "a".into(), number, text }, UnitSystem::Inch, &stages);
            let gain = average(&after.unwrap()) / before - 1.0;
            let said = own.average_torque[place];
            assert!((gain - said).abs() < 0.003, "{number:?} {place}: {gain} for {said}");
        }
    }
    // An advanced cam pulls low down, a retarded one high up (common practice, no source).
    let (first, last) = (0, report.card[3].value.len() - 1);
    assert!(report.card[3].low[first] > report.card[3].low[last]);
    assert!(report.card[3].high[first] < report.card[3].high[last]);
    // More compression, and more lift for the upper speeds.
    let rises = |shares: &[f64]| shares.windows(2).all(|pair| pair[0] < pair[1]);
    assert!(rises(&report.hardware[1].decision.average_torque) && rises(&report.hardware[0].decision.high));
    // Asked for without, nothing of it is computed.
    let job = ChooseJob::new(&build, Some("a"), stages).unwrap().unwrap();
    assert!(job.run(&Watch::nobody()).unwrap().hardware.is_empty());
}
