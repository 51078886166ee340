//! The rocker's loop and the matching of pushrods against SciPy: `reference/linkage.py` and `assignment.py` wrote the
//! files beside them.

use serde_json::Value;
use upper_lobe_core::train::preload::matched;
use upper_lobe_core::train::rocker::Rocker;

#[test]
fn lifts_ratios_and_contacts_are_those_of_scipy() {
    let reference: Value = serde_json::from_str(include_str!("reference/linkage.json")).expect("JSON");
    let rows = reference["rows"].as_array().expect("rows");
    assert_eq!(rows.len(), 32);
    for row in rows {
        let number = |key: &str| row[key].as_f64().expect("a number");
        let case: Vec<f64> = row["case"].as_array().unwrap().iter().map(|x| x.as_f64().unwrap()).collect();
        let rocker = Rocker {
            cup: [case[0], case[1]],
            tip: [case[2], case[3]],
            tip_radius: 0.006,
            stem: 0.0,
            pushrod: case[4],
            towards_cup: [case[5].sin(), case[5].cos()],
        };
        // Forty-eight poses to full lift: six to each of the reference's eight steps.
        let pose = rocker.sweep(case[6]).expect("closes")[6 * row["step"].as_u64().unwrap() as usize];
        assert!((pose.turn - number("turn")).abs() < 1e-10, "{row}: {pose:?}");
        assert!((pose.valve - number("valve")).abs() < 1e-11, "{row}: {pose:?}");
        assert!((pose.ratio - number("ratio")).abs() < 1e-6, "{row}: {pose:?}");
        assert!((pose.contact - number("reach")).abs() < 1e-10, "{row}: {pose:?}");
    }
}

#[test]
fn pushrods_are_matched_as_well_as_scipy_matches_them() {
    let reference: Value = serde_json::from_str(include_str!("reference/assignment.json")).expect("JSON");
    let cases = reference["cases"].as_array().expect("cases");
    assert_eq!(cases.len(), 4);
    for case in cases {
        let lengths = |key: &str| -> Vec<f64> {
            case[key].as_array().unwrap().iter().map(|length| length.as_f64().unwrap()).collect()
        };
        let wanted = case["wanted"].as_f64().unwrap();
        let found = matched(&lengths("pushrods"), &lengths("places"), wanted, None, 1.6).expect("enough pushrods");
        let sum: f64 = found.iter().map(|pair| (pair.preload - wanted).powi(2)).sum();
        // Several assignments may be best; their sums are one.
        assert!((sum / case["sum"].as_f64().unwrap() - 1.0).abs() < 1e-3, "{sum} {case}");
        let mut used: Vec<usize> = found.iter().map(|pair| pair.pushrod).collect();
        used.sort_unstable();
        used.dedup();
        assert_eq!(used.len(), found.len());
    }
}
