//! What the plunger of a hydraulic lifter stands on: a column of oil with air in it, behind a check valve, that leaks
//! past the plunger.
//!
//! The column is known by the volume its oil and air would have at supply pressure. Squeezed, oil gives by its bulk
//! modulus and air by Boyle's law, so that the strain is `x = (1 - a)(p - p0)/B + a (1 - p0/p)`: a quadratic in the
//! pressure, which is above zero whatever the strain. Pulled apart the air expands and nothing is held back: oil cannot
//! pull.

/// Bulk modulus of engine oil without air, Pa, at working temperature (handbooks: 1.4 to 1.7 GPa; from memory).
pub const BULK: f64 = 1.5e9;
/// Density of hot oil, kg/m3 (common practice, no source).
pub const DENSITY: f64 = 830.0;
/// Viscosity at 100 C, Pa s, of a 10W-40 (common practice, no source).
pub const HOT_VISCOSITY: f64 = 0.011;
/// What outside air weighs on the plunger, Pa.
pub const OUTSIDE: f64 = 101_325.0;

/// The plunger's oil.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Oil {
    /// Area of the plunger, m2.
    pub area: f64,
    /// Height of the column at rest, m, all the room below the plunger as a column of its area.
    pub height: f64,
    /// How far the plunger may rise from rest to its ring, m: the preload.
    pub up: f64,
    /// How far it may go down from rest to the bottom, m.
    pub down: f64,
    /// Of the ring and the bottom, N/m.
    pub stop: f64,
    /// Of the light spring below the plunger, N.
    pub spring: f64,
    /// Volume of air in the oil at supply pressure, a share.
    pub air: f64,
    /// Supply pressure, Pa, absolute.
    pub supply: f64,
    /// What leaks past the plunger, m3/(s Pa).
    pub leak: f64,
    /// Flow area of the open check valve, m2, with its coefficient.
    pub check: f64,
}

impl Oil {
    /// Absolute pressure at a strain of the column, Pa.
    pub fn pressure(&self, strain: f64) -> f64 {
        let a = (1.0 - self.air) / BULK;
        let b = strain + a * self.supply - self.air;
        (b + (b * b + 4.0 * a * self.air * self.supply).sqrt()) / (2.0 * a)
    }

    /// Leak of a plunger in its bore, m3/(s Pa): `pi d c^3/(12 mu l)` for a clearance `c` on the radius [annular slit;
    /// Hagen and Poiseuille; from memory].
    pub fn slit(diameter: f64, clearance: f64, length: f64, viscosity: f64) -> f64 {
        std::f64::consts::PI * diameter * clearance.powi(3) / (12.0 * viscosity * length)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn oil() -> Oil {
        Oil {
            area: 1.6e-4,
            height: 5e-3,
            up: 0.5e-3,
            down: 3e-3,
            stop: 5e7,
            spring: 20.0,
            air: 0.02,
            supply: 5e5,
            leak: 1e-12,
            check: 4e-6,
        }
    }

    #[test]
    fn pressure_and_strain_fit_each_other_and_oil_never_pulls() {
        let oil = oil();
        for pressure in [1e3, 1e5, 5e5, 2e6, 1e7, 8e7_f64] {
            let strain = (1.0 - oil.air) * (pressure - oil.supply) / BULK + oil.air * (1.0 - oil.supply / pressure);
            assert!((oil.pressure(strain) / pressure - 1.0).abs() < 1e-6, "{pressure}");
        }
        assert!(oil.pressure(-0.5) > 0.0 && oil.pressure(-0.5) < 0.05 * oil.supply);
    }

    #[test]
    fn a_column_without_air_is_as_stiff_as_its_bulk_modulus() {
        // B A / h: 1.5e9 x 1.6e-4 / 5e-3 = 48 N/um, by hand.
        let oil = Oil { air: 1e-9, ..oil() };
        let force = |squeezed: f64| oil.area * oil.pressure(squeezed / oil.height);
        let stiffness = (force(20e-6) - force(10e-6)) / 10e-6;
        assert!((stiffness / 48e6 - 1.0).abs() < 1e-3, "{stiffness}");
    }
}
