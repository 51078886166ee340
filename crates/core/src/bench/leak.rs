//! Compression and leak-down of cylinders.

/// Ratio of specific heats of air.
const GAMMA: f64 = 1.4;

/// Least over greatest of gauges on all cylinders; `None` of fewer than two.
pub fn compression_spread(pressures: &[f64]) -> Option<f64> {
    let (least, most) = pressures.iter().fold((f64::MAX, f64::MIN), |(a, b), own| (a.min(*own), b.max(*own)));
    (pressures.len() > 1 && most > 0.0).then(|| least / most)
}

/// Leak-down as the two gauges have it: what is lost of the supply, as a share. Both are gauge pressures.
pub fn leak_share(supply: f64, cylinder: f64) -> f64 {
    (supply - cylinder) / supply
}

/// Area of the leak over that of the tester's orifice, absolute pressures in one unit: as much flows out of the cylinder as into
/// it, `p1 psi(p2/p1) A1 = p2 psi(p0/p2) A2`, frictionless and without heat [any book on gas dynamics: isentropic nozzle].
pub fn leak_area(supply: f64, cylinder: f64, outside: f64) -> f64 {
    supply * psi(cylinder / supply) / (cylinder * psi(outside / cylinder))
}

/// Flow of a nozzle over its pressure ratio; choked below .528.
fn psi(ratio: f64) -> f64 {
    let critical = (2.0 / (GAMMA + 1.0)).powf(GAMMA / (GAMMA - 1.0));
    let ratio = ratio.clamp(critical, 1.0);
    let bracket = ratio.powf(2.0 / GAMMA) - ratio.powf((GAMMA + 1.0) / GAMMA);
    (2.0 * GAMMA / (GAMMA - 1.0) * bracket).max(0.0).sqrt()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_leak_is_the_orifice_where_pressure_halves_over_each() {
        // Both choked: the flow goes with the pressure before each, so that areas stand as pressures.
        assert!((leak_area(8.0, 4.0, 1.0) - 2.0).abs() < 1e-12);
        // The choked value [handbooks: .6847 sqrt(1/(R T)) for air].
        assert!((psi(0.3) - 0.684_7).abs() < 1e-4);
        // A tight cylinder holds the supply's pressure.
        assert!(leak_area(7.9, 7.9, 1.0).abs() < 1e-12);
        assert!(leak_area(7.9, 7.7, 1.0) < leak_area(7.9, 7.0, 1.0));
    }

    #[test]
    fn gauges_say_shares() {
        assert!((leak_share(100.0, 92.0) - 0.08).abs() < 1e-12);
        assert_eq!(compression_spread(&[180.0, 150.0, 200.0]), Some(0.75));
        assert_eq!(compression_spread(&[180.0]), None);
    }
}
