//! Measured valve motion: trains with planted constants are turned by the model, their lift is read with a probe's noise and any zero, and
//! what was planted is looked for.

use crate::support::{Chance, DEMOS};
use serde_json::{Value, json};
use std::sync::Arc;
use upper_lobe_core::analysis::{
    Build, Edit, Halted, Job, MotionFitJob, MotionFitReport, Side, Stages, UnitSystem, Watch, apply,
};
use upper_lobe_core::candidate::Resolved;
use upper_lobe_core::candidate::dynamics::{
    Sample, SideTrain, THRESHOLD, Unmeasured, looked_at, lost_at, side_train, sweep,
};

/// What a probe strays by, mm.
const NOISE: f64 = 0.015;
/// Firing top on the rig's scale, degrees.
const ZERO: f64 = 137.3;

/// A normal deviate, by the sum of twelve even ones.
fn normal(chance: &mut Chance) -> f64 {
    (0..12).map(|_| chance.share()).sum::<f64>() - 6.0
}

/// Traces of one valve on a rig, a point each crank degree.
fn traces(train: &SideTrain<'_>, side: Side, truth: &Unmeasured, speeds: &[f64], chance: &mut Chance) -> Vec<Value> {
    let turned = sweep(&train.without_gas(), truth, speeds, &|| false);
    let trace = |sample: &Sample| {
        let valve = &sample.turned.cycles[0].valve;
        // A record holds the lift at its end; the probe stands a tenth of a millimetre off its zero.
        let point = |(record, lift): (usize, &f64)| {
            let deg = (train.begins_at + record as f64 + 1.0 + ZERO).rem_euclid(720.0);
            let read = 1e3 * lift + 0.1 + NOISE * normal(chance);
            json!([format!("{deg:.2} deg"), format!("{read:.4} mm")])
        };
        let points: Vec<Value> = valve.iter().enumerate().map(point).collect();
        json!({ "id": format!("{} {:.0}", side.key(), sample.rpm), "side": side.key(), "speed": format!("{:.0} rpm", sample.rpm), "points": points })
    };
    turned.iter().map(trace).collect()
}

/// A demo with traces of a planted train at these speeds.
fn planted(demo: usize, sides: &[Side], truth: &Unmeasured, speeds: &[f64], seed: u64) -> Value {
    let build = Build::read(DEMOS[demo]).expect("a demo");
    let resolved = Resolved::of(&build.candidates()[0], &Stages::default());
    let mut chance = Chance(seed);
    let of = |side: &Side| {
        let train = side_train(&resolved, *side).expect("complete");
        traces(&train, *side, truth, speeds, &mut chance)
    };
    let all: Vec<Value> = sides.iter().flat_map(of).collect();
    let mut value = build.value().clone();
    value["valve_motion"] = Value::from(all);
    value
}

fn fitted(value: &Value) -> Arc<MotionFitReport> {
    let build = Build::from_value(value.clone()).unwrap_or_else(|faults| panic!("{faults}"));
    let job = MotionFitJob::new(&build, None, Arc::default()).expect("traces").expect("complete");
    job.run(&Watch::nobody()).expect("a fit")
}

/// Where a train loses control, rpm.
fn limit_of(value: &Value, candidate: usize, side: Side, set: &Unmeasured) -> f64 {
    let build = Build::from_value(value.clone()).expect("a build");
    let resolved = Resolved::of(&build.candidates()[candidate], &Stages::default());
    let train = side_train(&resolved, side).expect("complete");
    let speeds = looked_at(resolved.top_speed().expect("a plan").as_rpm());
    lost_at(&train, &train.models(std::slice::from_ref(set)), &speeds, THRESHOLD, &|| false)[0].expect("it is lost").0
}

/// The tow with two of its candidates: the one that is measured, and one of other lobes with the same parts.
fn two(mut value: Value) -> Value {
    value["candidates"].as_array_mut().expect("candidates").truncate(2);
    value
}

#[test]
fn what_was_planted_is_found_and_carries_to_another_candidate() {
    // Written down before it was run: 95 of 100 intervals hold what was planted, at the least 9 of 10 of these few; what the valve
    // loses control at is foretold within a third of what the usual train is off by, for the candidate that was measured and for
    // one that was not; bands are narrower.
    let truths: Vec<Unmeasured> = Unmeasured::draws().into_iter().skip(3).step_by(5).collect();
    let (mut held, mut all, mut usual, mut told, mut narrower) = (0, 0, 0.0, 0.0, Vec::new());
    for (n, truth) in truths.iter().enumerate() {
        let speeds = [1500.0, 3500.0, 5000.0, 5800.0, 6400.0];
        let value = two(planted(0, &[Side::Intake], truth, &speeds, n as u64));
        let report = fitted(&value);
        println!("{}", report.says.metric);
        for (own, place) in report.constants.iter().zip(truth.places()).filter(|(own, _)| own.learned) {
            let [at, low, high] = own.place;
            let holds = (low..=high).contains(&place);
            println!(
                "  {}: {at:.2} ({low:.2} to {high:.2}) for {place:.2} {}",
                own.label,
                if holds { "" } else { "OUT" }
            );
            (held, all) = (held + usize::from(holds), all + 1);
        }
        assert!(report.traces.iter().all(|own| own.after_mm < 1.3 * NOISE && own.after_mm < own.before_mm));
        for own in &report.limits {
            let candidate = usize::from(own.candidate != report.candidate);
            let real = limit_of(&value, candidate, own.side, truth);
            let (before, after) = (own.before_rpm.expect("a limit"), own.after_rpm.expect("a limit"));
            println!(
                "  {} {}: {real:.0}, usual {before:.0}, told {after:.0} {:?}",
                own.name,
                own.side.key(),
                own.after_band_rpm
            );
            usual += (before - real).powi(2);
            told += (after - real).powi(2);
            let width = |[low, high]: [f64; 2]| high - low;
            narrower.push(width(own.after_band_rpm) / width(own.before_band_rpm));
            assert!(own.apart.is_empty(), "{:?}", own.apart);
        }
    }
    narrower.sort_by(f64::total_cmp);
    println!(
        "{held} of {all}; limits off {:.0} and {:.0} rpm; bands {narrower:.2?}",
        f64::sqrt(usual),
        f64::sqrt(told)
    );
    assert!(10 * held >= 9 * all && all > 20, "{held} of {all}");
    assert!(told < usual / 9.0, "{told} for {usual}");
    assert!(narrower[narrower.len() / 2] < 0.5, "{narrower:?}");
}

#[test]
fn a_solid_train_says_nothing_of_oil_it_does_not_have() {
    let truth = Unmeasured::draws()[7];
    let value = planted(1, &[Side::Intake], &truth, &[3000.0, 4500.0, 6000.0, 7000.0, 7600.0], 3);
    let report = fitted(&value);
    for own in report.constants.iter().filter(|own| ["Air in the oil", "Leak of the plunger"].contains(&&*own.label)) {
        assert!(!own.learned && own.found == own.usual, "{}: {} for {}", own.label, own.found, own.usual);
    }
    let seen: Vec<_> = report.constants.iter().zip(truth.places()).filter(|(own, _)| own.learned).collect();
    let held = seen.iter().filter(|(own, place)| (own.place[1]..=own.place[2]).contains(place)).count();
    assert!(seen.len() >= 5 && held + 1 >= seen.len(), "{held} of {}", seen.len());
    // What was measured carries to itself, whatever it left open.
    assert!(report.limits.iter().filter(|own| own.candidate == report.candidate).all(|own| own.apart.is_empty()));
}

#[test]
fn slow_traces_say_little_and_are_not_made_more_of() {
    // What only moves when the train swings cannot be seen where it does not; its damping a little, by how it rings behind a landing.
    let truth = Unmeasured::draws().swap_remove(5);
    let report = fitted(&two(planted(0, &[Side::Intake, Side::Exhaust], &truth, &[600.0, 900.0], 3)));
    println!(
        "{} {:?}",
        report.says.metric,
        report.constants.iter().map(|own| (&own.label, own.learned)).collect::<Vec<_>>()
    );
    let own = |label: &str| report.constants.iter().find(|own| own.label.starts_with(label)).expect("there");
    for label in ["Damping of the coils", "Inertia", "Stiffness of the seat"] {
        assert!(!own(label).learned, "{label} {:?}", own(label).place);
    }
    // Oil is squeezed out slowly: that they show.
    assert!(own("Leak").learned);
    for own in &report.limits {
        let width = |[low, high]: [f64; 2]| high - low;
        assert!(width(own.after_band_rpm) > 0.3 * width(own.before_band_rpm), "{own:?}");
    }
}

#[test]
fn taken_it_is_in_the_document_and_parts_of_another_kind_keep_their_ranges() {
    let truth = Unmeasured::draws().swap_remove(2);
    let value = planted(0, &[Side::Intake], &truth, &[2500.0, 5600.0], 4);
    let report = fitted(&value);
    let build = Build::from_value(value).expect("a build");
    let (mut taken, stages) = (build, Stages::default());
    for own in &report.fields {
        let edit = Edit::Set { field: own.field.clone(), text: own.text.clone() };
        taken = apply(&taken, &edit, UnitSystem::Inch, &stages).unwrap_or_else(|faults| panic!("{faults}"));
    }
    let known = |build: &Build, place: usize| {
        let resolved = Resolved::of(&build.candidates()[place], &stages);
        side_train(&resolved, Side::Intake).expect("complete").learned
    };
    let own = known(&taken, 0);
    assert!(own.is_any() && known(&taken, 1) == own);
    for (found, reported) in own.place.iter().zip(&report.constants) {
        assert!((found - reported.place[0]).abs() < 2e-3, "{found} for {:?}", reported.place);
    }
    // Flat lifters and other springs: what was found of rollers and their oil says nothing of them.
    let flat = known(&taken, 2);
    let labels = &report.limits.iter().find(|own| own.name.contains("flat")).expect("the third").apart;
    assert!(!flat.known[8] && labels.iter().any(|own| own == "Air in the oil"), "{labels:?}");
    assert_eq!(flat.known[0], own.known[0]);
    // On a shaft, not on studs.
    let mut shaft = taken.value().clone();
    shaft["candidates"][1]["train"]["rocker"]["mount"] = json!("shaft");
    let shaft = known(&Build::from_value(shaft).expect("a build"), 1);
    assert!(!shaft.known[5] && !shaft.known[7] && shaft.known[8] == own.known[8]);
    // A second fit begins anew.
    let again = MotionFitJob::new(&taken, None, Arc::default()).expect("traces").expect("complete");
    assert_eq!(again.run(&Watch::nobody()).expect("a fit").constants, report.constants);
}

#[test]
fn what_is_not_of_this_train_is_said_and_nothing_is_fitted() {
    let truth = Unmeasured::usual();
    let mut value = two(planted(0, &[Side::Intake], &truth, &[3000.0], 5));
    let run = |value: &Value| {
        let build = Build::from_value(value.clone()).expect("a build");
        MotionFitJob::new(&build, Some("a"), Arc::default()).map(|job| job.and_then(|job| job.run(&Watch::nobody())))
    };
    for point in value["valve_motion"][0]["points"].as_array_mut().expect("points") {
        let lift: f64 = point[1].as_str().expect("a lift").trim_end_matches(" mm").parse().expect("a number");
        point[1] = json!(format!("{:.4} mm", 1.6 * lift));
    }
    let Ok(Err(Halted::Lacks { reason, .. })) = run(&value) else { panic!("it is another valve") };
    assert!(reason.contains("another lobe"), "{reason}");
    // Points of the base circle alone lift nothing.
    let points = value["valve_motion"][0]["points"].as_array_mut().expect("points");
    points.iter_mut().for_each(|point| point[1] = json!("0.01 mm"));
    assert!(matches!(run(&value), Ok(Err(Halted::Lacks { .. }))));
    value["valve_motion"][0]["left_out"] = json!("the probe slipped");
    assert_eq!(run(&value).expect_err("nothing counts").faults[0].field, "valve_motion");
    value["valve_motion"][0]["candidate"] = json!("b");
    value["valve_motion"][0].as_object_mut().expect("a trace").remove("left_out");
    assert!(run(&value).is_err(), "the trace is of another candidate");
}
