//! From lobe to valve on the example: what readings and geometry change, and what never goes together.

use serde_json::{Value, json};
use upper_lobe_core::analysis::{CandidateReport, PartName, Request, Stages, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::Side;
use upper_lobe_core::edit::{Edit, apply};
use upper_lobe_core::quantity::UnitSystem;

const EXAMPLE: &str = include_str!("data/example_build.json");

fn report(change: impl FnOnce(&mut Value)) -> CandidateReport {
    let mut value = Build::read(EXAMPLE).unwrap().value().clone();
    change(&mut value["candidates"][0]);
    let build = Build::from_value(value).expect("in order");
    let request = Request::of(None, PartName::cheap());
    analyze(&build, &request, &Stages::default()).unwrap().candidates.remove(0)
}

fn with_readings(candidate: &mut Value) {
    // 4 % more ratio than the card says, by a light spring; .030 less under the real one.
    candidate["train"]["readings"] =
        json!({ "intake": { "light_spring_lift": "0.566 in", "running_lift": "0.536 in", "running_load": "350 lbf" } });
}

#[test]
fn readings_tell_ratio_and_flex_and_the_budget_ends_on_the_measured_lift() {
    let found = report(with_readings);
    let intake = &found.train.done().unwrap().intake;
    assert!((intake.true_ratio - 0.566 / 0.330).abs() < 1e-9, "{}", intake.true_ratio);
    // The reading was made with a solid lifter in place of the hydraulic one: .005 in of give come off on top.
    let expected = (0.536 - 0.005 * intake.true_ratio) * 25.4;
    let running = intake.budget.last().unwrap().lift_mm;
    assert!((running - expected).abs() < 0.02, "{running} {expected}");
    let parts: f64 = intake.shares.iter().map(|share| share.flex_mm).sum();
    assert!((parts - 0.030 * 25.4).abs() < 0.02, "{parts}");
}

#[test]
fn what_must_not_touch_stands_on_the_larger_ratio() {
    let (nominal, real) = (report(|_| ()), report(with_readings));
    let gap = |found: &CandidateReport| found.clearance.done().unwrap().intake.piston_minimum_mm;
    let bind = |found: &CandidateReport| found.spring.done().unwrap().intake.to_coil_bind_mm.unwrap();
    assert!(gap(&real) < gap(&nominal) - 0.03, "{} {}", gap(&real), gap(&nominal));
    assert!((bind(&nominal) - bind(&real) - (0.566 - 0.330 * 1.65) * 25.4).abs() < 1e-6);
    // The exhaust has no readings and stays what it was.
    let exhaust = |found: &CandidateReport| found.clearance.done().unwrap().exhaust.piston_minimum_mm;
    assert!((exhaust(&real) - exhaust(&nominal)).abs() < 1e-12);
}

#[test]
fn the_order_is_more_than_the_card_and_runs_as_the_card_says() {
    let found = report(|_| ());
    let order = found.train.done().unwrap().intake.order.clone().expect("a card");
    for check in &order.checks {
        // Makers add about two degrees for flex (common practice, no source).
        assert!((0.5..6.0).contains(&(check.order_deg - check.card_deg)), "{check:?}");
        if let Some(running) = check.running_deg {
            assert!((running - check.card_deg).abs() < 0.2, "{check:?}");
        }
    }
}

#[test]
fn what_never_goes_together_fails_with_its_reason() {
    let broken = |change: fn(&mut Value)| -> Vec<String> {
        let found = report(change);
        found.limits.iter().filter(|l| l.school.starts_with("never")).map(|l| l.id.clone()).collect()
    };
    assert_eq!(broken(|_| ()), Vec::<String>::new());
    assert_eq!(broken(|c| c["cam"]["ground_for"] = "flat".into()), ["lifter_on_cam"; 2]);
    assert_eq!(broken(|c| c["train"]["lifter"]["anti_rotation"] = "none".into()), ["roller_turns"; 2]);
    assert_eq!(broken(|c| c["train"]["lifter"]["most_lift"] = "0.332 in".into()), ["lifter_lift"]);
    // A cup .42 in from its pivot cannot follow .33 in of lobe from so low.
    let locked = |c: &mut Value| {
        c["train"]["rocker"]["ratio"] = 1.9.into();
        c["train"]["rocker"]["pivot_to_tip"] = "0.8 in".into();
        c["train"]["rocker"]["pivot_to_cup"] = "0.42 in".into();
        c["train"]["rocker"]["cup_drop"] = "-0.2 in".into();
    };
    assert_eq!(broken(locked), ["rocker_locks"; 2]);
}

fn edited(build: &Build, edit: &Edit) -> Build {
    apply(build, edit, UnitSystem::Inch, &Stages::default()).expect("taken")
}

fn first(build: &Build) -> CandidateReport {
    let request = Request::of(Some("a".into()), PartName::cheap());
    analyze(build, &request, &Stages::default()).unwrap().candidates.remove(0)
}

#[test]
fn an_opening_flank_is_taken_and_the_closing_one_stays() {
    let build = Build::read(EXAMPLE).unwrap();
    let copy = edited(&build, &Edit::Duplicate { candidate: "a".into(), to: "b".into(), name: "B".into() });
    let gentle = json!([["0.006 in", "284 deg"], ["0.050 in", "222 deg"], ["0.200 in", "134 deg"]]);
    let mut value = copy.value().clone();
    value["candidates"][1]["cam"]["intake"]["checks"] = gentle;
    let both = Build::from_value(value).unwrap();
    let take = Edit::TakeFlank { candidate: "a".into(), from: "b".into(), side: Side::Intake, opening: true };
    let found = first(&edited(&both, &take));
    let (timing, before) = (found.timing.done().unwrap().clone(), first(&both).timing.done().unwrap().clone());
    // Half of each duration: (268 + 284)/2 at .006, (216 + 222)/2 at .050.
    assert!((timing.intake.duration_006_deg - 276.0).abs() < 1e-6, "{}", timing.intake.duration_006_deg);
    assert!((timing.intake.duration_050_deg - 219.0).abs() < 1e-6);
    assert_eq!(timing.exhaust.duration_006_deg, before.exhaust.duration_006_deg);
    let measured = Edit::ImportLobe { candidate: "b".into(), side: Side::Intake, text: lobe_file() };
    let refused = apply(&edited(&both, &measured), &take, UnitSystem::Inch, &Stages::default());
    assert!(refused.unwrap_err().faults[0].needs.contains("not a measured one"));
}

fn lobe_file() -> String {
    let rows = (-40..=40).map(|i| {
        let u = f64::from(i) / 38.0;
        format!("{};{:.4}", 4 * i, 0.330 * (1.0 - u * u).max(0.0).powi(4))
    });
    std::iter::once("crank deg;lift (in)".to_owned()).chain(rows).collect::<Vec<_>>().join("\n")
}

#[test]
fn an_imported_lobe_runs_through_to_the_valve() {
    let build = Build::read(EXAMPLE).unwrap();
    let edit = Edit::ImportLobe { candidate: "a".into(), side: Side::Intake, text: lobe_file() };
    let found = first(&edited(&build, &edit));
    let lobe = &found.lobe.done().unwrap().intake;
    assert!(lobe.residual_mm.unwrap() < 0.01, "{:?}", lobe.residual_mm);
    let train = &found.train.done().unwrap().intake;
    assert!((train.budget[0].lift_mm - 0.330 * 25.4).abs() < 0.01);
    // There is no card to order by.
    assert!(train.order.is_none() && found.train.done().unwrap().exhaust.order.is_some());
    assert_eq!(lobe.cam_deg.len(), lobe.jerk.len());
}

#[test]
fn machining_moves_the_preload_by_its_own_rule() {
    // .020 off the head at 18 deg: .0190; stem .008 higher at 1.65: .0048; a .030 shim: -.0482; base circle .040 less: -.020.
    let found = report(|c| {
        c["train"]["preload_work"] = json!({ "head_milled": "0.020 in", "stem_higher": "0.008 in", "stand_shim": "0.030 in", "base_circle_smaller": "0.040 in" });
    });
    let preload = found.train.done().unwrap().intake.preload.clone().unwrap();
    let change = |key: &str| preload.work.iter().find(|w| w.key == key).unwrap().change.inch.clone();
    assert_eq!(change("head_milled"), ".019 in");
    assert_eq!(change("stem_higher"), ".005 in");
    assert_eq!(change("stand_shim"), "-.048 in");
    assert_eq!(change("base_circle_smaller"), "-.020 in");
    // .035 - .0444 is less than nothing.
    assert_eq!(preload.after.inch, "-.009 in");
    assert!(preload.word.contains("lash"), "{}", preload.word);
}

#[test]
fn measured_pushrods_find_their_places() {
    let found = report(|c| {
        c["train"]["matching"] = json!({
            "pushrods": ["7.600 in", "7.618 in", "7.609 in"], "places": ["7.583 in", "7.565 in", "7.574 in"]
        });
    });
    // The preload of the lifter, .035 in, is wanted: every pushrod .035 longer than its place.
    let map = &found.train.done().unwrap().intake.matching;
    assert_eq!(map.iter().map(|pair| (pair.place, pair.pushrod)).collect::<Vec<_>>(), [(1, 2), (2, 1), (3, 3)]);
    assert!(map.iter().all(|pair| pair.preload.inch == ".035 in" && pair.shims == 0), "{map:?}");
}

#[test]
fn two_places_for_each_cylinder_are_told_by_cylinder_and_valve() {
    let lengths: Vec<String> = (0..16).map(|i| format!("7.{} in", 600 + i)).collect();
    let found = report(|c| c["train"]["matching"] = json!({ "pushrods": lengths, "places": lengths }));
    let map = &found.train.done().unwrap().intake.matching;
    assert_eq!((map[0].cylinder, map[0].side), (Some(1), Some(Side::Intake)));
    assert_eq!((map[15].cylinder, map[15].side), (Some(8), Some(Side::Exhaust)));
    let three = report(|c| c["train"]["matching"] = json!({ "pushrods": ["7.6 in"], "places": ["7.6 in"] }));
    assert_eq!(three.train.done().unwrap().intake.matching[0].cylinder, None);
}

#[test]
fn a_checked_length_tells_what_to_order() {
    // .035 in of preload over 7.572 in asks for 7.607; the 7.600 at hand gives .028.
    let found = report(|c| c["train"]["pushrod"]["checked_length"] = "7.572 in".into());
    let rod = found.train.done().unwrap().intake.pushrod.clone().unwrap();
    assert_eq!(rod.wanted.map(|shown| shown.inch).as_deref(), Some("7.607 in"));
    assert_eq!(rod.gives.map(|shown| shown.inch).as_deref(), Some(".028 in"));
}

#[test]
fn a_pivot_that_stands_low_wants_a_longer_pushrod() {
    let longer = |height: &str| {
        let found = report(|c| {
            for (key, text) in [("pivot_to_tip", "1.4 in"), ("pivot_to_cup", "0.848 in"), ("pivot_height", height)] {
                c["train"]["rocker"][key] = text.into();
            }
        });
        found.train.done().unwrap().intake.pushrod.clone().unwrap().for_geometry.map(|shown| shown.inch)
    };
    // Square at half of .5445 in with a tip of .250 in: -.022; .050 lower asks for .050 (1 + 1/1.65) = .080, but for cosines.
    assert_eq!(longer("-0.022 in").as_deref(), Some(".000 in"));
    assert!([".079 in", ".080 in", ".081 in"].contains(&longer("-0.072 in").unwrap().as_str()));
    assert!(longer("0.028 in").unwrap().starts_with("-.0"));
}

#[test]
fn each_school_of_preload_says_what_it_can_do_to_the_valve() {
    let found = report(|_| ());
    let preload = found.train.done().unwrap().intake.preload.clone().unwrap();
    let told: Vec<_> = preload.schools.iter().map(|s| (s.name.as_str(), s.held_open.inch.as_str())).collect();
    // .035, .003, .0225 and .120 - .025 of plunger, each times 1.65, by hand.
    let wanted = [
        ("this one", ".058 in"),
        ("light school", ".005 in"),
        ("series school", ".037 in"),
        ("deep school", ".157 in"),
    ];
    assert_eq!(told, wanted);
    assert_eq!(preload.schools[3].lost.as_ref().map(|lost| lost.inch.as_str()), Some(".041 in"), ".025 x 1.65");
    assert!(preload.bleeds.is_empty(), "nobody put it in a tester");
}

#[test]
fn a_plunger_bleeds_more_the_slower_it_turns_and_the_looser_it_is() {
    let bleeds = |seconds: u32| {
        let found = report(|c| c["train"]["lifter"]["bleed_seconds"] = seconds.into());
        found.train.done().unwrap().intake.preload.clone().unwrap().bleeds
    };
    let number = |text: &str| text.trim_end_matches(" in").parse::<f64>().unwrap();
    let (tight, loose) = (bleeds(60), bleeds(10));
    assert_eq!(tight.iter().map(|b| b.at.as_str()).collect::<Vec<_>>(), ["cranking", "idle"]);
    let [cranking, idle] = [&loose[0], &loose[1]].map(|b| number(&b.plunger.inch));
    assert!(cranking > 3.0 * idle && cranking > 0.01, "{cranking} {idle}");
    assert!(number(&tight[0].plunger.inch) < 0.25 * cranking);
}

#[test]
fn durations_over_lift_lose_most_off_the_seat_and_near_the_peak_and_none_when_rigid() {
    let durations = |change: fn(&mut Value)| report(change).train.done().unwrap().intake.durations.clone();
    let lost = durations(|_| ());
    let by: Vec<f64> = lost.ideal_deg.iter().zip(&lost.running_deg).map(|(ideal, real)| ideal - real).collect();
    // Off the seat the lobe is slow and the seat load is taken up; near the peak it is slow again.
    let middle = by[by.len() / 2];
    assert!(by[0] > 1.5 * middle && by[by.len() - 1] > 3.0 * middle && middle > 2.0, "{by:?}");
    assert!(lost.ideal_deg.windows(2).all(|two| two[1] < two[0]));
    let rigid = durations(|c| {
        c["train"]["lifter"]["give"] = "0 in".into();
        c["train"].as_object_mut().unwrap().remove("pushrod");
    });
    let off = rigid.ideal_deg.iter().zip(&rigid.running_deg).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max);
    assert!(off < 1e-6 && rigid.valve_mm.len() == 24, "{off}");
}

#[test]
fn a_lash_cap_adds_its_height_over_the_ratio() {
    let found = report(|c| c["train"]["preload_work"] = json!({ "lash_cap": "0.066 in" }));
    let preload = found.train.done().unwrap().intake.preload.clone().unwrap();
    // .066/1.65 = .040 more at the plunger.
    assert_eq!((preload.work[0].change.inch.as_str(), preload.after.inch.as_str()), (".040 in", ".075 in"));
}

#[test]
fn the_strip_carries_what_the_valve_gets_beside_the_rigid_lift() {
    let found = report(|_| ());
    let (strip, lift) = (found.strip.done().unwrap(), found.lift.done().unwrap());
    let running = strip.intake_running_mm.as_ref().unwrap();
    let most = running.iter().copied().fold(0.0, f64::max);
    assert!((most - lift.intake.running_mm).abs() < 0.01, "{most} {}", lift.intake.running_mm);
    assert!(running.iter().zip(&strip.intake_lift_mm).all(|(real, rigid)| *real <= rigid + 1e-9));
    assert!(most < 0.97 * lift.intake.net_mm, "give and flex take something away");
}

#[test]
fn lash_is_set_smaller_cold_on_aluminium() {
    let solid = |c: &mut Value| {
        c["train"]["lifter"] =
            json!({ "kind": "solid_roller", "mass": "124 g", "lash": "0.016 in", "anti_rotation": "link_bar" });
    };
    let mut value = Build::read(EXAMPLE).unwrap().value().clone();
    solid(&mut value["candidates"][0]);
    value["candidates"][0]["train"]["valve"]["length"] = "5.0 in".into();
    value["engine"]["head_material"] = "aluminium".into();
    let lash = |value: Value| {
        let found = first(&Build::from_value(value).unwrap());
        found.train.done().unwrap().intake.lash.clone().unwrap()
    };
    let aluminium = lash(value.clone());
    value["engine"]["head_material"] = "iron".into();
    let iron = lash(value);
    assert_eq!((aluminium.hot.inch.as_str(), iron.hot.inch.as_str()), (".016 in", ".016 in"));
    assert!(aluminium.cold.inch < iron.cold.inch, "{} {}", aluminium.cold.inch, iron.cold.inch);
}

#[test]
fn a_flat_foot_is_told_its_contact_and_a_roller_its_angle() {
    let roller = report(|_| ());
    let flat = report(|c| {
        c["train"]["lifter"] = json!({ "kind": "hydraulic_flat", "mass": "100 g", "preload": "0.025 in" });
        c["cam"]["core_material"] = "cast_iron".into();
        c["cam"]["intake"] = json!({ "lobe_lift": "0.300 in", "checks": [["0.006 in", "262 deg"], ["0.050 in", "212 deg"], ["0.200 in", "120 deg"]] });
        c["cam"]["exhaust"] = c["cam"]["intake"].clone();
    });
    let (round, plain) = (&roller.lobe.done().unwrap().intake, &flat.lobe.done().unwrap().intake);
    assert!(round.pressure_angle_deg > 10.0 && round.foot_offset_mm.is_none());
    assert!(plain.pressure_angle_deg == 0.0 && plain.foot_offset_mm.unwrap() > 5.0);
    let ids: Vec<_> = flat.limits.iter().map(|l| l.id.as_str()).collect();
    assert!(ids.contains(&"foot_contact") && !ids.contains(&"pressure_angle"));
    // Offset is the greatest velocity per radian.
    let velocity = plain.peak_velocity_mm_per_cam_deg * 180.0 / std::f64::consts::PI;
    assert!((plain.foot_offset_mm.unwrap() / velocity - 1.0).abs() < 1e-3);
}
