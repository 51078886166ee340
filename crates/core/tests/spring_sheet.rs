//! The spring step as it is asked for: stress and waves of a package known by wire, the sheet of installed heights, and what
//! the answer to "can these springs stay" becomes once the train has been turned.

use crate::support::DEMOS;
use serde_json::{Value, json};
use upper_lobe_core::analysis::{Build, CandidateReport, PartName, Request, SpringReport, Stages, Verdict, analyze};

fn candidate(change: impl FnOnce(&mut Value), parts: Vec<PartName>) -> CandidateReport {
    let mut build: Value = serde_json::from_str(DEMOS[0]).expect("JSON");
    change(&mut build["candidates"][0]["train"]);
    let build = Build::read(&build.to_string()).expect("in order");
    let analysis = analyze(&build, &Request::of(Some("a".to_owned()), parts), &Stages::default()).expect("a candidate");
    analysis.candidates.into_iter().next().expect("one")
}

fn intake(change: impl FnOnce(&mut Value)) -> SpringReport {
    candidate(change, vec![PartName::Spring]).spring.done().expect("done").intake.clone()
}

/// Two nested coils by their wire.
fn nested(train: &mut Value) {
    let coil = |wire: &str, mean: &str, free: &str| json!({ "wire_diameter": wire, "mean_diameter": mean, "active_coils": 4.5, "total_coils": 6.0, "free_length": free });
    train["spring"]["coils"] = json!([coil("0.177 in", "1.20 in", "2.20 in"), coil("0.120 in", "0.80 in", "2.10 in")]);
    let spring = train["spring"].as_object_mut().expect("a spring");
    for key in ["points", "mass", "coil_bind_height"] {
        spring.remove(key);
    }
}

#[test]
fn coils_of_a_package_are_told_apart() {
    let spring = intake(nested);
    assert_eq!(spring.coils.len(), 2);
    // By hand, G d^4/(8 D^3 N) with G = 79.3 GPa: 31.78 and 22.66 N/mm; closed at 45.72 mm from 55.88 and 53.34 mm.
    assert!((spring.rate_n_per_mm - 54.44).abs() < 0.2, "{}", spring.rate_n_per_mm);
    assert!((spring.seat_load_n - (31.78 * 10.16 + 22.66 * 7.62)).abs() < 3.0, "{}", spring.seat_load_n);
    // Three modes of each, whole multiples of the first: 3:2:1 among them, the lowest the one that surges first.
    assert_eq!(spring.surge_modes_hz.len(), 6);
    assert!(spring.surge_modes_hz.is_sorted());
    assert!((spring.surge_modes_hz[0] - spring.surge_frequency_hz.unwrap()).abs() < 1e-9);
    for coil in &spring.coils {
        let third = 3.0 * coil.surge_hz;
        assert!(spring.surge_modes_hz.iter().any(|mode| (mode - third).abs() < 1e-9));
    }
    // Stress rises with load; at full lift it is that of the worse coil.
    let shares = spring.stress_share.expect("known by wire");
    assert!(shares.is_sorted() && shares.len() == spring.height_mm.len());
    let worst = spring.coils.iter().map(|coil| coil.stress_share).fold(0.0, f64::max);
    let open = spring.height_mm.iter().position(|mm| *mm <= spring.open_height_mm).expect("down to bind");
    assert!((shares[open] - worst).abs() < 0.02, "{} and {worst}", shares[open]);
    assert!(spring.stress_seat_mpa.unwrap() < spring.stress_open_mpa.unwrap() && spring.fatigue_reserve.unwrap() > 0.0);
    assert_eq!(intake(|_| ()).stress_share, None, "loads alone tell no stress");
}

#[test]
fn waves_meet_harmonics_where_the_cam_turns_as_often() {
    let spring = intake(|_| ());
    let first = spring.surge_frequency_hz.expect("weighed");
    assert!(!spring.surge_meets.is_empty());
    for meets in &spring.surge_meets {
        // The cam turns once for two turns of the crank.
        assert!((meets.order as f64 * meets.rpm / 120.0 - first).abs() < 1e-6 * first);
    }
    // Low harmonics are strong: a lobe of 270 degrees has little beyond its twentieth.
    let strength = |from: usize, to: usize| {
        let own = spring.surge_meets.iter().filter(|meets| (from..to).contains(&meets.order));
        own.map(|meets| meets.lift_um).fold(0.0, f64::max)
    };
    assert!(strength(1, 10) > 5.0 * strength(16, 41), "{:?}", spring.surge_meets);
}

#[test]
fn a_sheet_of_heights_says_what_goes_under_each_spring() {
    let measured =
        json!(["1.812 in", "1.831 in", "1.845 in", "1.800 in", "1.790 in", "1.818 in", "1.826 in", "1.860 in"]);
    let sheet = intake(|train| train["heights"] = json!({ "measured": measured })).heights.expect("a sheet");
    let plan = &sheet.to_wanted;
    let shims: Vec<usize> = plan.valves.iter().map(|valve| valve.shims.len()).collect();
    // By hand to 1.800 within .005 of .015, .030, .060: 1.812 takes .015; 1.831 .030; 1.845 .045; 1.800 none; 1.790 cannot;
    // 1.818 .015; 1.826 .030; 1.860 .060.
    assert_eq!(shims, [1, 1, 2, 0, 0, 1, 1, 1], "{plan:?}");
    assert!(!plan.is_even && plan.valves[4].is_short && plan.shims == 7);
    assert_eq!(plan.valves[2].height.inch, "1.800 in");
    assert!(plan.says.inch.contains("one is too short"), "{}", plan.says.inch);
    // A spring that stands .015 taller than another of 356 lbf/in carries 5 lbf less.
    assert_eq!(
        (plan.valves[3].seat_load.inch.as_str(), plan.valves[7].seat_load.inch.as_str()),
        ("136 lbf", "136 lbf")
    );
    let fewest = sheet.fewest.expect("evened elsewhere");
    assert!(fewest.is_even && fewest.valves.iter().all(|valve| !valve.is_off));
    // Seats cut by ten thousandths lift every height; then the short one comes in too.
    let cut = intake(|train| train["heights"] = json!({ "measured": measured, "seats_cut": "0.010 in" }));
    assert!(cut.heights.expect("a sheet").to_wanted.valves.iter().all(|valve| !valve.is_short));
    assert_eq!(intake(|_| ()).heights, None);
}

#[test]
fn springs_that_were_turned_stay_by_what_was_computed() {
    let parts = || vec![PartName::Spring, PartName::Limits, PartName::Dynamics];
    let own = candidate(|_| (), parts()).springs_stay.expect("said");
    assert!(own.says.inch.contains("rpm in motion") && !own.says.inch.contains("rigid"), "{}", own.says.inch);
    assert_eq!(own.verdict, Verdict::Ok, "{}", own.says.inch);
    let weak = |train: &mut Value| {
        train["spring"]["points"] = json!([["1.800 in", "80 lbf"], ["1.300 in", "170 lbf"]]);
    };
    let weak = candidate(weak, parts()).springs_stay.expect("said");
    assert_eq!(weak.verdict, Verdict::Fails);
    assert!(weak.says.inch.contains("limiting speed (in motion)"), "{}", weak.says.inch);
}
