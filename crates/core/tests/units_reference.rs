//! Every unit against Pint, a general-purpose units library, which keeps the exact definitions of NIST SP 811
//! (`reference/units.py`), and that publication where Pint counts otherwise.

use serde::Deserialize;
use upper_lobe_core::quantity::{Dimension, parse};

#[derive(Deserialize)]
struct Reference {
    rows: Vec<Row>,
}

#[derive(Deserialize)]
struct Row {
    text: String,
    dimension: String,
    si: f64,
}

fn agrees(text: &str, dimension: Dimension, expected: f64) {
    let have = parse(text, dimension).expect("a quantity");
    assert!((have / expected - 1.0).abs() < 1e-12, "{text}: {have} against {expected}");
}

#[test]
fn units_are_those_of_a_units_library() {
    let reference: Reference = serde_json::from_str(include_str!("reference/units.json")).expect("JSON");
    assert_eq!(reference.rows.len(), 24);
    for Row { text, dimension, si } in reference.rows {
        let dimension = match dimension.as_str() {
            "length" => Dimension::Length,
            "mass" => Dimension::Mass,
            "volume" => Dimension::Volume,
            "torque" => Dimension::Torque,
            "power" => Dimension::Power,
            "force" => Dimension::Force,
            "pressure" => Dimension::Pressure,
            "flow" => Dimension::Flow,
            "speed" => Dimension::Speed,
            "spring rate" => Dimension::SpringRate,
            other => panic!("{other} is no dimension here"),
        };
        agrees(&text, dimension, si);
    }
}

#[test]
fn columns_of_mercury_and_water_are_those_of_nist_sp_811() {
    // NIST Special Publication 811 (2008), appendix B.8: inch of mercury, conventional 3.386389 E+03 Pa;
    // inch of water, conventional 2.490889 E+02 Pa.
    agrees("1.5 inHg", Dimension::Pressure, 1.5 * 3386.389);
    agrees("28 inH2O", Dimension::Pressure, 28.0 * 249.0889);
}
