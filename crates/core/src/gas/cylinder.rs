//! The gas in one cylinder as one zone: mass, energy and burned share, with real specific heats.
//!
//! Energy: `dU = sum(h dm) + dQ - p dV` [Heywood, ch. 14; from memory], by the trapezoid in `p dV`. Heat to the
//! walls by Woschni. Fresh charge counts as air: fuel vapour and the cold of its evaporation, which work against
//! each other, are left out; fuel joins the mass as it burns.

use super::thermo::Mixture;

/// The two gases a cylinder mixes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Gases {
    /// Fresh charge.
    pub fresh: Mixture,
    /// Burned gas.
    pub burned: Mixture,
}

/// What passes a valve in a step; positive into the cylinder.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Passed {
    /// kg.
    pub mass: f64,
    /// Stagnation temperature of what comes in, K; what leaves has the cylinder's own.
    pub temperature: f64,
    /// Burned share of what comes in.
    pub burned: f64,
}

/// The contents of the cylinder.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Charge {
    /// kg.
    pub mass: f64,
    /// K.
    pub temperature: f64,
    /// Mass share of burned gas.
    pub burned: f64,
}

impl Charge {
    /// Gas constant of the mixture, J/(kg K).
    pub fn r(&self, gases: &Gases) -> f64 {
        blend(self.burned, gases.fresh.r, gases.burned.r)
    }

    /// Pressure in `volume`, Pa.
    pub fn pressure(&self, gases: &Gases, volume: f64) -> f64 {
        self.mass * self.r(gases) * self.temperature / volume
    }

    /// Sensible internal energy, J.
    pub fn energy(&self, gases: &Gases) -> f64 {
        self.mass * specific(gases, self.burned, self.temperature)
    }

    /// Sensible enthalpy for a unit mass, J/kg.
    pub fn enthalpy(&self, gases: &Gases) -> f64 {
        specific(gases, self.burned, self.temperature) + self.r(gases) * self.temperature
    }

    /// One step: the volume goes from `from` to `to`, `passed` comes through the valves, `heat` (J) is added,
    /// `burnt` kilograms of fresh charge and `fuel` kilograms of fuel become burned gas.
    pub fn step(
        &mut self,
        gases: &Gases,
        (from, to): (f64, f64),
        passed: &[Passed],
        heat: f64,
        (burnt, fuel): (f64, f64),
    ) {
        let before = self.pressure(gases, from);
        let (mut mass, mut burned) = (self.mass + fuel, self.mass * self.burned + burnt + fuel);
        let mut energy = self.energy(gases) + heat;
        for gas in passed {
            mass += gas.mass;
            if gas.mass >= 0.0 {
                burned += gas.mass * gas.burned;
                energy += gas.mass * enthalpy_at(gases, gas.burned, gas.temperature);
            } else {
                burned += gas.mass * self.burned;
                energy += gas.mass * self.enthalpy(gases);
            }
        }
        let share = (burned / mass).clamp(0.0, 1.0);
        let mut next = Self { mass, temperature: self.temperature, burned: share };
        let mut after = before;
        // The trapezoid needs the pressure it ends at: three rounds settle it to a millionth.
        for _ in 0..3 {
            let wanted = (energy - 0.5 * (before + after) * (to - from)) / mass;
            next.temperature = temperature_of(gases, share, wanted, next.temperature);
            after = next.pressure(gases, to);
        }
        *self = next;
    }
}

fn blend(burned: f64, fresh_part: f64, burned_part: f64) -> f64 {
    (1.0 - burned) * fresh_part + burned * burned_part
}

fn specific(gases: &Gases, burned: f64, temperature: f64) -> f64 {
    blend(burned, gases.fresh.energy(temperature), gases.burned.energy(temperature))
}

fn enthalpy_at(gases: &Gases, burned: f64, temperature: f64) -> f64 {
    blend(burned, gases.fresh.enthalpy(temperature), gases.burned.enthalpy(temperature))
}

/// Temperature of a specific energy by Newton's iteration; held between 150 and 4500 K.
fn temperature_of(gases: &Gases, burned: f64, wanted: f64, start: f64) -> f64 {
    let mut t = start;
    for _ in 0..4 {
        let cv = blend(burned, gases.fresh.cv(t), gases.burned.cv(t));
        t = (t - (specific(gases, burned, t) - wanted) / cv).clamp(150.0, 4500.0);
    }
    t
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
        let h = 3.26 * self.bore.powf(-0.2) * (1e-3 * pressure).powf(0.8) * temperature.powf(-0.55) * swirl.powf(0.8);
        let disc = 0.25 * std::f64::consts::PI * self.bore * self.bore;
        // Crown and a chamber a tenth larger, and the liner the gas sees.
        h * (2.1 * disc + 4.0 * volume / self.bore) * (temperature - self.temperature)
    }
}

/// Burned fraction of a spark-lit charge: Wiebe's function, a = 5, m = 2, half burned 8 degrees after top dead
/// centre, 10 to 90 % in `24 + rpm/1000` degrees [Heywood, ch. 9 and 14; from memory].
pub fn spark_burned(after_top: f64, rpm: f64) -> f64 {
    let duration = (24.0 + 1e-3 * rpm) / (quantile(0.9) - quantile(0.1));
    let start = 8.0 - quantile(0.5) * duration;
    let x = (after_top - start) / duration;
    if x <= 0.0 { 0.0 } else { 1.0 - (-5.0 * x.powi(3)).exp() }
}

/// Share of the duration after which Wiebe's function has reached `burned`.
fn quantile(burned: f64) -> f64 {
    (-(1.0 - burned).ln() / 5.0).cbrt()
}

#[cfg(test)]
mod tests {
    use super::super::thermo::Fuel;
    use super::*;

    fn gases() -> Gases {
        Gases { fresh: Mixture::air(), burned: Fuel::PETROL.burned(13.0).0 }
    }

    #[test]
    fn adiabatic_compression_keeps_the_entropy() {
        // int cv/T dT = R ln(V1/V2), integrated here by Simpson in a thousand steps.
        let gases = gases();
        let mut charge = Charge { mass: 6e-4, temperature: 330.0, burned: 0.0 };
        let (v1, ratio, steps) = (6e-4, 10.0, 600);
        let volume = |i: i32| v1 * (1.0 - (1.0 - 1.0 / ratio) * f64::from(i) / f64::from(steps));
        for i in 0..steps {
            charge.step(&gases, (volume(i), volume(i + 1)), &[], 0.0, (0.0, 0.0));
        }
        let (low, high) = (330.0, charge.temperature);
        let at = |k: i32| {
            let t = low + (high - low) * f64::from(k) / 1000.0;
            gases.fresh.cv(t) / t
        };
        let simpson: f64 = (0..=1000)
            .map(|k| {
                at(k)
                    * if k == 0 || k == 1000 {
                        1.0
                    } else if k % 2 == 1 {
                        4.0
                    } else {
                        2.0
                    }
            })
            .sum();
        let entropy = simpson * (high - low) / 3000.0;
        assert!((entropy / (gases.fresh.r * 10.0_f64.ln()) - 1.0).abs() < 2e-4, "{high}");
        // Air from 330 K at ten to one: about 790 K with real specific heats, 829 with gamma 1.4.
        assert!((770.0..805.0).contains(&high), "{high}");
    }

    #[test]
    fn what_comes_in_brings_its_enthalpy_and_nothing_else_is_lost() {
        let gases = gases();
        let mut charge = Charge { mass: 5e-4, temperature: 400.0, burned: 0.3 };
        let before = charge.energy(&gases);
        let passed =
            [Passed { mass: 2e-5, temperature: 900.0, burned: 1.0 }, Passed { mass: -1e-5, ..Passed::default() }];
        let out = charge.enthalpy(&gases) * 1e-5;
        charge.step(&gases, (5e-4, 5e-4), &passed, 3.0, (0.0, 0.0));
        let expected = before + 2e-5 * gases.burned.enthalpy(900.0) - out + 3.0;
        assert!((charge.energy(&gases) / expected - 1.0).abs() < 1e-9);
        assert!((charge.mass - 5.1e-4).abs() < 1e-15);
        assert!((charge.burned - (5e-4 * 0.3 + 2e-5 - 1e-5 * 0.3) / 5.1e-4).abs() < 1e-12);
    }

    #[test]
    fn half_the_charge_is_burned_eight_degrees_after_top() {
        for rpm in [1500.0, 6000.0] {
            assert!((spark_burned(8.0, rpm) - 0.5).abs() < 1e-12);
            let at = |burned: f64| {
                (-600..900).map(|i| f64::from(i) / 10.0).find(|t| spark_burned(*t, rpm) >= burned).unwrap()
            };
            assert!((at(0.9) - at(0.1) - (24.0 + 1e-3 * rpm)).abs() < 0.2);
            assert_eq!((spark_burned(-90.0, rpm), spark_burned(170.0, rpm) > 0.999), (0.0, true));
        }
    }

    #[test]
    fn walls_take_heat_of_the_size_the_text_book_has() {
        // Full load, 4 MPa and 2400 K soon after top dead centre of a 100 mm bore: some MW/m2 [Heywood, ch. 12; from memory].
        let walls = Walls { bore: 0.1, piston_speed: 12.0, swept: 7e-4, temperature: 450.0 };
        let reference = Reference { pressure: 1.2e5, temperature: 370.0, volume: 7e-4 };
        let area = 2.1 * 0.25 * std::f64::consts::PI * 0.01 + 4.0 * 8e-5 / 0.1;
        let flux = walls.loss(6e6, 2400.0, 8e-5, Some(reference), true) / area;
        assert!((1e6..1e7).contains(&flux), "{flux}");
        assert!(walls.loss(1e5, 300.0, 5e-4, None, false) < 0.0);
    }
}
