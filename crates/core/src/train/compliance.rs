//! How far the train gives under load: from its parts, or from two readings of lift.

use crate::given::{LiftReadings, Missing, Needs, PushrodPart, Train, need};
use crate::quantity::{Force, Length};
use crate::words::{LightMetal, Mount};
use std::f64::consts::PI;

/// Young's modulus of steel, Pa.
pub const STEEL: f64 = 2.07e11;
/// An inch in metres over a pound-force in newtons: compliances of the trade in m/N.
const INCH_PER_POUND: f64 = 0.0254 / 4.448_221_6;
/// Of lifter, cam bearings and every contact, at the pushrod, in/lbf (common practice, no source).
const LIFTER_AND_CAM: f64 = 3.0e-6;
/// Of what the rocker pivots on, at the pivot, in/lbf (common practice, no source): a stud of 3/8 in, a pedestal, single
/// shafts, one shaft for a pair.
const STUD: f64 = 3.6e-6;
const PEDESTAL: f64 = 2.4e-6;
const SHAFT: f64 = 1.5e-6;
const PAIRED_SHAFT: f64 = 1.2e-6;
/// The stud the figure above is for, in.
const USUAL_STUD: f64 = 0.375;
/// Of the rocker's body, at the tip, in/lbf (common practice, no source).
const ALUMINIUM_BODY: f64 = 2.6e-5;
const STEEL_BODY: f64 = 1.4e-5;

/// A part of the train and what a newton at the valve costs there, seen at the valve, m/N.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Share {
    /// Which part.
    pub part: &'static str,
    /// m/N.
    pub compliance: f64,
}

/// What a pushrod is made of [Shigley, table A-5, and handbooks for density and expansion; from memory].
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Metal {
    /// Young's modulus, Pa.
    pub modulus: f64,
    /// kg/m3.
    pub density: f64,
    /// Expansion for a kelvin.
    pub expansion: f64,
}

impl Metal {
    /// Steel tube.
    pub const STEEL: Self = Self { modulus: STEEL, density: 7850.0, expansion: 12e-6 };
    /// Aluminium tube.
    pub const ALUMINIUM: Self = Self { modulus: 7.1e10, density: 2770.0, expansion: 23e-6 };

    /// That of the document; steel when absent.
    pub fn of(metal: Option<LightMetal>) -> Self {
        if metal == Some(LightMetal::Aluminium) { Self::ALUMINIUM } else { Self::STEEL }
    }
}

/// A pushrod as a column.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pushrod {
    /// Of the tube.
    pub metal: Metal,
    /// m.
    pub length: f64,
    /// m.
    pub outside: f64,
    /// m.
    pub wall: f64,
}

impl Pushrod {
    /// Reads the pushrod of one side.
    ///
    /// # Errors
    /// Its missing sizes.
    pub fn read(pushrod: &PushrodPart) -> Result<Self, Missing> {
        let mut needs = Needs::default();
        let (length, outside) = (need!(needs, pushrod.length), need!(needs, pushrod.outside_diameter));
        let wall = need!(needs, pushrod.wall);
        let metal = Metal::of(pushrod.material);
        needs.met(Self { metal, length: length.si(), outside: outside.si(), wall: wall.si() })
    }

    fn bore(&self) -> f64 {
        (self.outside - 2.0 * self.wall).max(0.0)
    }

    /// `E A / L`, N/m.
    pub fn stiffness(&self) -> f64 {
        self.metal.modulus * 0.25 * PI * (self.outside.powi(2) - self.bore().powi(2)) / self.length
    }

    /// Load under which a slender column with free ends bends out: `pi^2 E I / L^2`, N [Euler; Shigley, ch. 4; from
    /// memory].
    pub fn buckling_load(&self) -> f64 {
        let area_moment = PI / 64.0 * (self.outside.powi(4) - self.bore().powi(4));
        PI * PI * self.metal.modulus * area_moment / self.length.powi(2)
    }

    /// Of the bare tube, kg.
    pub fn mass(&self) -> f64 {
        self.metal.density * 0.25 * PI * (self.outside.powi(2) - self.bore().powi(2)) * self.length
    }
}

/// What each part gives where its load is, m/N.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Parts {
    /// At the pushrod.
    pub pushrod: f64,
    /// Of lifter, cam bearings and every contact, at the pushrod.
    pub lifter_and_cam: f64,
    /// At the pivot.
    pub pivot: f64,
    /// At the tip.
    pub body: f64,
}

/// What each part of a train gives.
///
/// # Errors
/// What is missing of the pushrod.
pub fn parts(train: &Train) -> Result<Parts, Missing> {
    let pushrod = Pushrod::read(&train.pushrod)?;
    let rocker = &train.rocker;
    let body = if rocker.material == Some(LightMetal::Steel) { STEEL_BODY } else { ALUMINIUM_BODY };
    let pivot = match rocker.mount {
        Some(Mount::Pedestal) => PEDESTAL,
        Some(Mount::Shaft) => SHAFT,
        Some(Mount::PairedShaft) => PAIRED_SHAFT,
        // A stud bends as the fourth power of its diameter says and stretches as the square; in between.
        Some(Mount::Stud) | None => {
            let diameter = rocker.stud_diameter.map_or(USUAL_STUD, Length::as_inches);
            STUD * (USUAL_STUD / diameter).powi(3)
        }
    };
    Ok(Parts {
        pushrod: 1.0 / pushrod.stiffness(),
        lifter_and_cam: LIFTER_AND_CAM * INCH_PER_POUND,
        pivot: pivot * INCH_PER_POUND,
        body: body * INCH_PER_POUND,
    })
}

/// What every part gives under a newton at the valve, at rocker ratio `ratio`.
///
/// A load F at the valve is R F in the pushrod and (1 + R) F on the pivot; what gives on the pushrod's side counts R times
/// at the valve, what the pivot rises (1 + R) times.
///
/// # Errors
/// What is missing of pushrod and rocker.
pub fn of_parts(train: &Train, ratio: f64) -> Result<Vec<Share>, Missing> {
    let parts = parts(train)?;
    let squared = ratio * ratio;
    Ok(vec![
        Share { part: "pushrod", compliance: squared * parts.pushrod },
        Share { part: "lifter and cam", compliance: squared * parts.lifter_and_cam },
        Share { part: "rocker pivot", compliance: (1.0 + ratio).powi(2) * parts.pivot },
        Share { part: "rocker body", compliance: parts.body },
    ])
}

/// Ratio and compliance that two readings of full lift imply.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FromReadings {
    /// True ratio.
    pub ratio: f64,
    /// At the valve, m/N.
    pub compliance: f64,
}

/// Solves `v = R s - K F` for true ratio R and compliance K from (lift, load) with a light spring and with a real one, at
/// a lobe lift `s` with a solid lifter. `None` when the readings do not tell them apart or say that it gives upwards.
pub fn from_readings(lobe: f64, light: (f64, f64), real: (f64, f64)) -> Option<FromReadings> {
    let compliance = (light.0 - real.0) / (real.1 - light.1);
    let found = FromReadings { ratio: (light.0 + compliance * light.1) / lobe, compliance };
    (real.1 > light.1 && compliance >= 0.0 && lobe > 0.0).then_some(found)
}

/// The readings of one side, lift and load with the light spring and with the real one, where both are there.
pub fn read_readings(readings: &LiftReadings, open_load: Option<f64>) -> Option<((f64, f64), (f64, f64))> {
    let (light, real) = (readings.light_spring_lift?.si(), readings.running_lift?.si());
    let light_load = readings.light_spring_load.map_or(0.0, Force::si);
    let load = readings.running_load.map(Force::si).or(open_load)?;
    Some(((light, light_load), (real, load)))
}

#[cfg(test)]
mod tests {
    use super::*;

    const INCH: f64 = 0.0254;
    const POUND: f64 = 4.448_221_6;

    #[test]
    fn a_pushrod_is_as_stiff_as_the_reference_has_it() {
        // 5/16 x .080 x 7.8 in of steel: 224.7 klbf/in, with E = 30 Mpsi; E here is 207 GPa, 30.02 Mpsi.
        let metal = Metal::STEEL;
        let pushrod = Pushrod { metal, length: 7.8 * INCH, outside: 0.3125 * INCH, wall: 0.080 * INCH };
        let klbf_per_in = pushrod.stiffness() * INCH / POUND / 1e3;
        assert!((klbf_per_in / 224.7 - 1.0).abs() < 0.005, "{klbf_per_in}");
    }

    #[test]
    fn a_solid_column_buckles_at_eulers_load() {
        // Steel rod of 10 mm by 500 mm: I = 490.9 mm4, pi^2 x 207000 x 490.9 / 250000 = 4012 N, by hand.
        let metal = Metal::STEEL;
        let rod = Pushrod { metal, length: 0.5, outside: 0.010, wall: 0.005 };
        assert!((rod.buckling_load() / 4012.0 - 1.0).abs() < 1e-3, "{}", rod.buckling_load());
    }

    #[test]
    fn the_measured_pair_gives_ratio_and_flex() {
        // .587 with a light spring, .558 with 408 lbf on a .360 lobe: 1.631, 2.7e-5 in/lbf on the pushrod's side [common
        // practice, no source].
        let found = from_readings(0.360 * INCH, (0.587 * INCH, 0.0), (0.558 * INCH, 408.0 * POUND)).unwrap();
        let pushrod_side = found.compliance / found.ratio.powi(2) * POUND / INCH;
        assert!(
            (found.ratio - 1.631).abs() < 1e-3 && (pushrod_side / 2.67e-5 - 1.0).abs() < 0.01,
            "{found:?} {pushrod_side}"
        );
        assert_eq!(from_readings(0.009, (0.0140, 0.0), (0.0145, 1800.0)), None);
    }

    #[test]
    fn an_aluminium_tube_gives_three_times_as_much_and_weighs_a_third() {
        let steel = Pushrod { metal: Metal::STEEL, length: 0.2, outside: 0.0095, wall: 0.002 };
        let aluminium = Pushrod { metal: Metal::ALUMINIUM, ..steel };
        assert!((steel.stiffness() / aluminium.stiffness() - 207.0 / 71.0).abs() < 1e-9);
        assert!((aluminium.mass() / steel.mass() - 2770.0 / 7850.0).abs() < 1e-9);
        assert!((steel.buckling_load() / aluminium.buckling_load() - 207.0 / 71.0).abs() < 1e-9);
    }
}
