//! Quasi-steady compressible flow through a restriction, and the flow bench that measured it.
//!
//! `m = A p0 / sqrt(R T0) psi(p/p0)`, `psi = sqrt(2 g/(g-1) (x^(2/g) - x^((g+1)/g)))` with `x = p/p0` held
//! at its critical value when choked [Heywood, appendix C; from memory].

use super::state::Gas;

/// Pressure ratio at and below which a restriction is choked: `(2/(g+1))^(g/(g-1))`.
pub fn critical_ratio(gas: Gas) -> f64 {
    (2.0 / (gas.gamma + 1.0)).powf(gas.gamma / (gas.gamma - 1.0))
}

/// Mass flow, kg/s, through `area` (effective, m2) from stagnation pressure and temperature upstream to the
/// pressure downstream; zero when that is not lower. Never negative, never NaN for positive inputs.
pub fn mass_flow(gas: Gas, area: f64, upstream: f64, temperature: f64, downstream: f64) -> f64 {
    let g = gas.gamma;
    let x = (downstream / upstream).clamp(critical_ratio(gas), 1.0);
    let psi = (2.0 * g / (g - 1.0) * (x.powf(2.0 / g) - x.powf((g + 1.0) / g))).max(0.0).sqrt();
    area * upstream / (gas.r * temperature).sqrt() * psi
}

/// Air on the bench: 20 C and one standard atmosphere (assumed; a bench's own air moves the area by half
/// the relative change of density).
pub const BENCH_TEMPERATURE: f64 = 293.15;
/// Pressure of the bench's air, Pa.
pub const BENCH_PRESSURE: f64 = 101_325.0;

/// Effective area, m2, that passes `volume_flow` (m3/s of bench air) at `depression` (Pa).
///
/// `A = rho0 Q / flux(p0 - dp)`: by the compressible relation; the incompressible one is 3 % off at 28 inH2O.
/// `None` unless both are positive and the depression below the bench's pressure.
pub fn effective_area(volume_flow: f64, depression: f64) -> Option<f64> {
    let sane = volume_flow >= 0.0 && depression > 0.0 && depression < BENCH_PRESSURE;
    let density = BENCH_PRESSURE / (Gas::AIR.r * BENCH_TEMPERATURE);
    let for_unit_area = mass_flow(Gas::AIR, 1.0, BENCH_PRESSURE, BENCH_TEMPERATURE, BENCH_PRESSURE - depression);
    sane.then(|| density * volume_flow / for_unit_area)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::{Dimension, parse};

    #[test]
    fn choked_air_has_the_critical_ratio_and_flow_of_the_text_books() {
        // p*/p0 = 0.5283, m sqrt(T0)/(A p0) = 0.04042 for air of R = 287 [Anderson, Modern Compressible Flow; from memory].
        assert!((critical_ratio(Gas::AIR) - 0.528_28).abs() < 1e-5);
        let choked = mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 0.0);
        assert!((choked * 300.0_f64.sqrt() / 1e5 - 0.040_418).abs() < 5e-6);
        assert_eq!(choked, mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 0.5e5));
        assert!(mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 0.6e5) < choked);
    }

    #[test]
    fn unchoked_flow_is_that_of_the_isentropic_table() {
        // M = 0.5: p/p0 = .8430, A/A* = 1.3398 [NACA report 1135, table I; from memory].
        let choked = mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 0.0);
        let flow = mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 0.843_02e5);
        assert!((choked / flow - 1.3398).abs() < 2e-4);
    }

    #[test]
    fn no_flow_without_a_difference_or_against_it() {
        assert_eq!(mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 1e5), 0.0);
        assert_eq!(mass_flow(Gas::AIR, 1.0, 1e5, 300.0, 2e5), 0.0);
    }

    #[test]
    fn a_flow_bench_reading_is_an_area() {
        let si = |text: &str, dimension| parse(text, dimension).unwrap();
        let area = effective_area(si("340 cfm", Dimension::Flow), si("28 inH2O", Dimension::Pressure)).unwrap();
        // 15.5 cm2, worked independently by the same relation.
        assert!((area * 1e4 - 15.5).abs() < 0.1, "{}", area * 1e4);
        // At a tenth of the depression the same area flows about 1/sqrt(10); compressibility adds its part.
        let low = mass_flow(Gas::AIR, area, BENCH_PRESSURE, BENCH_TEMPERATURE, BENCH_PRESSURE - 697.4);
        let high = mass_flow(Gas::AIR, area, BENCH_PRESSURE, BENCH_TEMPERATURE, BENCH_PRESSURE - 6974.0);
        assert!((high / low / 10_f64.sqrt() - 1.0).abs() < 0.04);
        for (flow, depression) in [(-1.0, 7e3), (1.0, 0.0), (1.0, 2e5), (f64::NAN, 7e3)] {
            assert_eq!(effective_area(flow, depression), None);
        }
    }
}
