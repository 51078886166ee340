//! Heat of a charge: what the fuel releases over the crank, and what the walls take.

use std::f64::consts::PI;

/// When a charge burns, in degrees after firing top dead centre.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Burning {
    /// Wiebe's function of a spark-lit charge from `start` over `duration` degrees.
    Spark {
        /// First burning.
        start: f64,
        /// To practically all.
        duration: f64,
    },
    /// A diesel's: a premixed part and a longer main part from `start`.
    Diesel {
        /// First burning.
        start: f64,
        /// Share of the fuel that burns premixed.
        premixed: f64,
        /// Length of the main part.
        duration: f64,
    },
}

/// Length of a diesel's premixed burning, degrees.
const PREMIXED: f64 = 8.0;

impl Burning {
    /// A spark-lit charge: half burned 8 degrees after top dead centre, 10 to 90 % in `24 + rpm/1000` degrees
    /// [Heywood, ch. 9 and 14; from memory], longer as [`slowed`] by its `residual`; `later` degrees moves it, as a
    /// retarded spark does; `longer` stretches it.
    pub fn spark(rpm: f64, later: f64, residual: f64, longer: f64) -> Self {
        let duration = longer * slowed(residual) * (24.0 + 1e-3 * rpm) / (quantile(0.9) - quantile(0.1));
        Self::Spark { start: 8.0 + later - quantile(0.5) * duration, duration }
    }

    /// A diesel's charge lit at `start`: its main part takes `40 + rpm/100` degrees at the full-load fuel-air ratio of
    /// 1/20 and less below it; the premixed part falls from .25 to .05 as the fuel grows [form: Heywood, ch. 10 and
    /// Watson and Janota, ch. 7, both from memory; constants common practice, no source]; `slower` stretches the main part.
    pub fn diesel(rpm: f64, start: f64, air_fuel: f64, slower: f64) -> Self {
        let load = (20.0 / air_fuel.max(14.5)).min(1.4);
        Self::Diesel {
            start,
            premixed: (0.25 - 0.18 * load).clamp(0.05, 0.25),
            duration: slower * (40.0 + 0.01 * rpm) * load.max(0.3).sqrt(),
        }
    }

    /// Burned share at an angle.
    pub fn burned(self, after_top: f64) -> f64 {
        match self {
            Self::Spark { start, duration } => wiebe((after_top - start) / duration),
            Self::Diesel { start, premixed, duration } => {
                let since = after_top - start;
                // The main part rises at once and tails off: m = 0.5 in Wiebe's function.
                let main = since / duration;
                let main = if main <= 0.0 { 0.0 } else { 1.0 - (-5.0 * main * main.sqrt()).exp() };
                premixed * wiebe(since / PREMIXED) + (1.0 - premixed) * main
            }
        }
    }
}

/// How much longer a charge with this burned share takes than one with a tenth: flame speed goes with `1 - 2.06 x^0.77`
/// [Rhodes and Keck 1985, as in Heywood, ch. 9; from memory]. At most 2.5 times, where charges begin to misfire.
fn slowed(residual: f64) -> f64 {
    let speed = |share: f64| 1.0 - 2.06 * share.max(0.0).powf(0.77);
    (speed(0.1) / speed(residual).max(1e-3)).clamp(1.0, 2.5)
}

/// Wiebe's function, a = 5, m = 2.
fn wiebe(x: f64) -> f64 {
    if x <= 0.0 { 0.0 } else { 1.0 - (-5.0 * x * x * x).exp() }
}

/// Share of the duration after which Wiebe's function has reached `burned`.
fn quantile(burned: f64) -> f64 {
    (-(1.0 - burned).ln() / 5.0).cbrt()
}

/// Walls of the combustion space.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Walls {
    /// Cylinder bore, m.
    pub bore: f64,
    /// Mean piston speed, m/s.
    pub piston_speed: f64,
    /// Volume swept by one piston, m3.
    pub swept: f64,
    /// Mean wall temperature, K.
    pub temperature: f64,
    /// Heat over the correlation's.
    pub over: f64,
}

/// Gas at intake closing, which Woschni's combustion term refers to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reference {
    /// Pa.
    pub pressure: f64,
    /// K.
    pub temperature: f64,
    /// m3.
    pub volume: f64,
}

impl Walls {
    /// Heat lost to the walls, W, with `reference` after intake closing and `None` while gas is exchanged.
    ///
    /// `h = 3.26 B^-0.2 p^0.8 T^-0.55 w^0.8` in kPa, m, K, m/s; `w = C1 Sp + C2 Vd Tr/(pr Vr) (p - pm)` with C1 =
    /// 6.18 during exchange and 2.28 else, C2 = 3.24e-3 once the fuel burns [Woschni 1967, as in Heywood, ch. 12;
    /// from memory].
    pub fn loss(&self, pressure: f64, temperature: f64, volume: f64, reference: Option<Reference>, fired: bool) -> f64 {
        let swirl = match reference {
            None => 6.18 * self.piston_speed,
            Some(at) => {
                let motored = at.pressure * (at.volume / volume).powf(1.3);
                let fire = if fired { 3.24e-3 } else { 0.0 };
                let excess = 1e-3 * (pressure - motored).max(0.0);
                2.28 * self.piston_speed
                    + fire * self.swept * at.temperature / (1e-3 * at.pressure * at.volume) * excess
            }
        };
        let h = self.over
            * 3.26
            * (0.8 * (1e-3 * pressure * swirl).max(1e-9).ln() - 0.55 * temperature.ln() - 0.2 * self.bore.ln()).exp();
        let disc = 0.25 * PI * self.bore * self.bore;
        // Crown and a chamber a tenth larger, and the liner the gas sees.
        h * (2.1 * disc + 4.0 * volume / self.bore) * (temperature - self.temperature)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn half_the_charge_is_burned_eight_degrees_after_top() {
        for rpm in [1500.0, 6000.0] {
            let spark_burned = |after_top: f64, rpm: f64| Burning::spark(rpm, 0.0, 0.05, 1.0).burned(after_top);
            assert!((spark_burned(8.0, rpm) - 0.5).abs() < 1e-12);
            let at = |burned: f64| {
                (-600..900).map(|i| f64::from(i) / 10.0).find(|t| spark_burned(*t, rpm) >= burned).unwrap()
            };
            assert!((at(0.9) - at(0.1) - (24.0 + 1e-3 * rpm)).abs() < 0.2);
            assert_eq!((spark_burned(-90.0, rpm), spark_burned(170.0, rpm) > 0.999), (0.0, true));
        }
    }

    #[test]
    fn residual_slows_the_flame() {
        // 1 - 2.06 x^.77: .650 at a tenth, .403 at a fifth, by hand.
        assert_eq!(slowed(0.05), 1.0);
        assert!((slowed(0.2) - 0.650 / 0.403).abs() < 0.01, "{}", slowed(0.2));
        assert_eq!((slowed(0.6), slowed(f64::NAN)), (2.5, 1.0));
    }

    #[test]
    fn walls_take_heat_of_the_size_the_text_book_has() {
        // Full load, 4 MPa and 2400 K soon after top dead centre of a 100 mm bore: some MW/m2 [Heywood, ch. 12; from memory].
        let walls = Walls { bore: 0.1, piston_speed: 12.0, swept: 7e-4, temperature: 450.0, over: 1.0 };
        let reference = Reference { pressure: 1.2e5, temperature: 370.0, volume: 7e-4 };
        let area = 2.1 * 0.25 * PI * 0.01 + 4.0 * 8e-5 / 0.1;
        let flux = walls.loss(6e6, 2400.0, 8e-5, Some(reference), true) / area;
        assert!((1e6..1e7).contains(&flux), "{flux}");
        assert!(walls.loss(1e5, 300.0, 5e-4, None, false) < 0.0);
    }

    #[test]
    fn a_diesel_burns_all_of_it_and_a_richer_charge_longer() {
        let half =
            |burning: Burning| (0..1200).map(|i| f64::from(i) / 10.0).find(|t| burning.burned(*t) >= 0.5).unwrap();
        let (lean, rich) = (Burning::diesel(2000.0, 2.0, 40.0, 1.0), Burning::diesel(2000.0, 2.0, 20.0, 1.0));
        assert_eq!((lean.burned(1.9), rich.burned(140.0) > 0.999), (0.0, true));
        // Half burned some 10 to 20 degrees after it began [Heywood, fig. 10-9 and following; from memory].
        assert!(half(lean) < half(rich) && (8.0..22.0).contains(&(half(rich) - 2.0)), "{} {}", half(lean), half(rich));
    }
}
