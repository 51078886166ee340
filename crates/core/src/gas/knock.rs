//! Knock: whether the end gas lights itself before the flame takes it.
//!
//! `int dt/tau` from intake closing to the end of burning reaches one [Livengood and Wu 1955], with the ignition delay of
//! petrol `tau = 17.68 (ON/100)^3.402 p^-1.7 exp(3800/T)` ms, p in atm [Douaud and Eyzat 1978, as in Heywood, ch. 9; from
//! memory]. The end gas is compressed without heat from its state at intake closing, cooled by the fuel that has evaporated
//! by then, and its heat is that of air with the fuel's vapour, which is compressed to some 40 K less than air would be.

/// Exponent of the octane number in the delay.
const OCTANE_POWER: f64 = 3.402;
/// Share of the fuel that evaporates in the charge and not on hot metal (assumed), and the charge's specific heat, J/(kg K).
const EVAPORATED: f64 = 0.6;
const CHARGE_HEAT: f64 = 1010.0;

/// How much colder the charge is for the fuel that evaporated in it, K, beyond what it was cooled before the valve.
pub fn cooled_by(evaporation: f64, air_fuel: f64, before: f64) -> f64 {
    (EVAPORATED * evaporation / ((1.0 + air_fuel) * CHARGE_HEAT) - before).max(0.0)
}

/// The integral so far; of unit octane, so that the fuel is put in at the end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Knock {
    closing: (f64, f64),
    unburned: f64,
    sum: f64,
}

impl Knock {
    /// From the pressure (Pa) and temperature (K) at intake closing, of a mixture with this `(gamma - 1)/gamma`.
    pub const fn from_closing(pressure: f64, temperature: f64, unburned: f64) -> Self {
        Self { closing: (pressure, temperature), unburned, sum: 0.0 }
    }

    /// Adds `time` (s) at a cylinder pressure (Pa), while some of the charge is unburned.
    pub fn add(&mut self, pressure: f64, time: f64) {
        let temperature = self.closing.1 * (self.unburned * (pressure / self.closing.0).ln()).exp();
        // Below 500 K nothing that counts.
        if temperature > 500.0 {
            let atmospheres = pressure / 101_325.0;
            self.sum += time / (17.68e-3 * (3800.0 / temperature - 1.7 * atmospheres.ln()).exp());
        }
    }

    /// The integral of a fuel whose octane number is 100; that of another is `integral * (100/ON)^3.402`.
    pub const fn integral(self) -> f64 {
        self.sum
    }
}

/// The integral of a fuel of `octane` for that of 100.
pub fn with_octane(integral: f64, octane: f64) -> f64 {
    integral * (100.0 / octane).powf(OCTANE_POWER)
}

/// Octane number at which the integral of 100 would just reach one.
pub fn octane_needed(integral: f64) -> f64 {
    100.0 * integral.powf(1.0 / OCTANE_POWER)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_delay_is_the_published_one() {
        // 40 atm, 800 K, 95: 17.68 x .8399 x .001889 x 115.6 = 3.24 ms, by hand.
        let mut knock = Knock::from_closing(40.0 * 101_325.0, 800.0, 0.23);
        knock.add(40.0 * 101_325.0, 1e-3);
        let delay = 1e-3 / with_octane(knock.integral(), 95.0);
        assert!((delay / 3.24e-3 - 1.0).abs() < 0.01, "{delay}");
    }

    #[test]
    fn the_octane_needed_brings_the_integral_to_one() {
        for integral in [0.3, 0.9, 1.4] {
            assert!((with_octane(integral, octane_needed(integral)) - 1.0).abs() < 1e-12);
        }
    }
}
