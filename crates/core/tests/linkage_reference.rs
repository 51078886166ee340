//! The rocker's loop against SciPy: `reference/linkage.py` wrote `reference/linkage.json`.

#![allow(clippy::expect_used, clippy::unwrap_used)]

use serde_json::Value;
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
