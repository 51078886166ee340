//! What checks by hand share: units as people write them, and how near is near. Nothing of the core computes here.

pub const INCH: f64 = 25.4;
const POUND: f64 = 4.448_222;

/// A text of a demo build in mm, N, deg, rpm, g, cc, kPa or money: the few spellings they use.
pub fn number(text: &str) -> f64 {
    let (figure, unit) = text.split_once(' ').unwrap();
    let figure: f64 = match figure.split_once('/') {
        Some((above, below)) => above.parse::<f64>().unwrap() / below.parse::<f64>().unwrap(),
        None => figure.parse().unwrap(),
    };
    figure
        * match unit {
            "in" => INCH,
            "lbf" => POUND,
            "psi" => 6.894_757,
            "mm" | "N" | "deg" | "rpm" | "g" | "cc" | "kPa" | "USD" => 1.0,
            other => panic!("{other} is not used"),
        }
}

/// `have` within a share of what was worked out by hand.
pub fn near(have: f64, by_hand: f64, share: f64, what: &str) {
    assert!((have - by_hand).abs() <= share * by_hand.abs().max(1e-6), "{what}: {have}, by hand {by_hand}");
}
