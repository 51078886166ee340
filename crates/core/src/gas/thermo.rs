//! Real specific heats of air and of burned gas: energies over temperature for a fixed composition.
//!
//! `cp/R = a1 + a2 T + a3 T^2 + a4 T^3 + a5 T^4` with one set of coefficients below and one above 1000 K
//! [GRI-Mech 3.0 thermodynamic data, NASA form]. Energies are sensible, enthalpy zero at 298.15 K; chemical energy
//! is added where fuel burns. Composition is frozen: dissociation, which takes some hundred kelvin off the peak
//! temperature, is not in it.

/// Universal gas constant, J/(mol K) [CODATA 2018].
const UNIVERSAL: f64 = 8.314_462_618;
/// Temperature of zero sensible enthalpy, K.
const ZERO: f64 = 298.15;
/// Mean molecule of dry air, kg/mol.
const AIR_MOLECULE: f64 = 28.96e-3;
/// Between compression and flame, K.
const BETWEEN: f64 = 650.0;
/// Where the two fits meet, K.
const SEAM: f64 = 1000.0;

struct Species {
    /// kg/mol.
    molar_mass: f64,
    low: [f64; 5],
    high: [f64; 5],
}

const N2: Species = Species {
    molar_mass: 28.014e-3,
    low: [3.298_677, 1.408_240_4e-3, -3.963_222e-6, 5.641_515e-9, -2.444_854e-12],
    high: [2.926_64, 1.487_976_8e-3, -5.684_76e-7, 1.009_703_8e-10, -6.753_351e-15],
};
const O2: Species = Species {
    molar_mass: 31.998e-3,
    low: [3.782_456_36, -2.996_734_16e-3, 9.847_302_01e-6, -9.681_295_09e-9, 3.243_728_37e-12],
    high: [3.282_537_84, 1.483_087_54e-3, -7.579_666_69e-7, 2.094_705_55e-10, -2.167_177_94e-14],
};
const CO2: Species = Species {
    molar_mass: 44.009e-3,
    low: [2.356_773_52, 8.984_596_77e-3, -7.123_562_69e-6, 2.459_190_22e-9, -1.436_995_48e-13],
    high: [3.857_460_29, 4.414_370_26e-3, -2.214_814_04e-6, 5.234_901_88e-10, -4.720_841_64e-14],
};
const H2O: Species = Species {
    molar_mass: 18.015e-3,
    low: [4.198_640_56, -2.036_434_1e-3, 6.520_402_11e-6, -5.487_970_62e-9, 1.771_978_17e-12],
    high: [3.033_992_49, 2.176_918_04e-3, -1.640_725_18e-7, -9.704_198_7e-11, 1.682_009_92e-14],
};
const CO: Species = Species {
    molar_mass: 28.010e-3,
    low: [3.579_533_47, -6.103_536_8e-4, 1.016_814_33e-6, 9.070_058_84e-10, -9.044_244_99e-13],
    high: [2.715_185_61, 2.062_527_43e-3, -9.988_257_71e-7, 2.300_530_08e-10, -2.036_477_16e-14],
};
const H2: Species = Species {
    molar_mass: 2.016e-3,
    low: [2.344_331_12, 7.980_520_75e-3, -1.947_815_1e-5, 2.015_720_94e-8, -7.376_117_61e-12],
    high: [3.337_279_2, -4.940_247_31e-5, 4.994_567_78e-7, -1.795_663_94e-10, 2.002_553_76e-14],
};

/// A gas of fixed composition.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mixture {
    /// Specific gas constant, J/(kg K).
    pub r: f64,
    /// Coefficients times the gas constant, J/(kg K), below the seam ...
    low: [f64; 5],
    /// ... and above it.
    high: [f64; 5],
    /// Enthalpy of the low fit at [`ZERO`], and of the high fit where it meets the low one.
    offsets: [f64; 2],
}

impl Mixture {
    fn of(moles: &[(&Species, f64)]) -> Self {
        let mass: f64 = moles.iter().map(|(s, n)| s.molar_mass * n).sum();
        let total: f64 = moles.iter().map(|(_, n)| n).sum();
        let blend = |fit: fn(&Species) -> &[f64; 5]| -> [f64; 5] {
            std::array::from_fn(|k| UNIVERSAL / mass * moles.iter().map(|(s, n)| n * fit(s)[k]).sum::<f64>())
        };
        let (low, high) = (blend(|s| &s.low), blend(|s| &s.high));
        let zero = integral(&low, ZERO);
        // The fits meet only to some digits; enthalpy must not jump.
        let seam = integral(&high, SEAM) - (integral(&low, SEAM) - zero);
        Self { r: UNIVERSAL * total / mass, low, high, offsets: [zero, seam] }
    }

    /// The gas of `share` of `other` by mass, the rest this one.
    #[inline]
    pub fn blended(&self, other: &Self, share: f64) -> Self {
        let mix = |a: f64, b: f64| a + share * (b - a);
        Self {
            r: mix(self.r, other.r),
            low: std::array::from_fn(|k| mix(self.low[k], other.low[k])),
            high: std::array::from_fn(|k| mix(self.high[k], other.high[k])),
            offsets: std::array::from_fn(|k| mix(self.offsets[k], other.offsets[k])),
        }
    }

    /// Dry air as 79 % nitrogen and 21 % oxygen by volume.
    pub fn air() -> Self {
        Self::of(&[(&N2, 0.79), (&O2, 0.21)])
    }

    fn fit(&self, temperature: f64) -> (&[f64; 5], f64) {
        if temperature < SEAM { (&self.low, self.offsets[0]) } else { (&self.high, self.offsets[1]) }
    }

    /// Specific heat at constant volume, J/(kg K).
    #[inline]
    pub fn cv(&self, temperature: f64) -> f64 {
        let (a, _) = self.fit(temperature);
        let t = temperature;
        a[0] + t * (a[1] + t * (a[2] + t * (a[3] + t * a[4]))) - self.r
    }

    /// Sensible internal energy, J/kg: `u = h - R T`, `h(298.15 K) = 0`.
    #[inline]
    pub fn energy(&self, temperature: f64) -> f64 {
        let (a, offset) = self.fit(temperature);
        integral(a, temperature) - offset - self.r * temperature
    }

    /// Sensible enthalpy, J/kg.
    pub fn enthalpy(&self, temperature: f64) -> f64 {
        self.energy(temperature) + self.r * temperature
    }
}

/// `int cp dT` from zero.
fn integral(a: &[f64; 5], t: f64) -> f64 {
    t * (a[0] + t * (a[1] / 2.0 + t * (a[2] / 3.0 + t * (a[3] / 4.0 + t * a[4] / 5.0))))
}

/// A fuel by its elements and its heat of combustion.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fuel {
    /// Hydrogen atoms for each carbon atom.
    pub hydrogen: f64,
    /// Oxygen atoms for each carbon atom.
    pub oxygen: f64,
    /// Lower heating value, J/kg.
    pub heating_value: f64,
    /// Heat of evaporation, J/kg.
    pub evaporation: f64,
    /// Mean molecule of its vapour, kg/mol.
    pub molecule: f64,
    /// Specific heat of its vapour at constant pressure near 650 K, J/(kg K).
    pub vapour_heat: f64,
}

impl Fuel {
    /// Petrol, CH1.87, 44.0 MJ/kg, .305 to evaporate, 110 g/mol [Heywood, appendix D, its vapour's heat table 4.11; from
    /// memory].
    pub const PETROL: Self = Self {
        hydrogen: 1.87,
        oxygen: 0.0,
        heating_value: 44.0e6,
        evaporation: 305e3,
        molecule: 110e-3,
        vapour_heat: 2795.0,
    };
    /// Diesel, CH1.8, 42.8 MJ/kg, .270 to evaporate, 170 g/mol [Heywood, appendix D; from memory].
    pub const DIESEL: Self = Self {
        hydrogen: 1.8,
        oxygen: 0.0,
        heating_value: 42.8e6,
        evaporation: 270e3,
        molecule: 170e-3,
        vapour_heat: 2800.0,
    };
    /// Methanol, CH4O, 20.0 MJ/kg, 1.10 to evaporate [Heywood, appendix D; from memory].
    pub const METHANOL: Self = Self {
        hydrogen: 4.0,
        oxygen: 1.0,
        heating_value: 20.0e6,
        evaporation: 1103e3,
        molecule: 32.04e-3,
        vapour_heat: 2200.0,
    };

    /// Ethanol, C2H6O for each carbon atom, 26.9 MJ/kg, .840 to evaporate [Heywood, appendix D; from memory].
    pub const ETHANOL: Self = Self {
        hydrogen: 3.0,
        oxygen: 0.5,
        heating_value: 26.9e6,
        evaporation: 840e3,
        molecule: 46.07e-3,
        vapour_heat: 2440.0,
    };

    /// 85 % ethanol in petrol by volume: 86.8 % by mass with densities of .789 and .745 kg/l.
    pub fn e85() -> Self {
        Self::PETROL.mixed(&Self::ETHANOL, 0.868)
    }

    /// A blend with `share` of `other` by mass, as one molecule of the same elements.
    pub fn mixed(&self, other: &Self, share: f64) -> Self {
        let carbon = |fuel: &Self| 1.0 / fuel.molar_mass();
        let (own, others) = ((1.0 - share) * carbon(self), share * carbon(other));
        let mean = |a: f64, b: f64| (own * a + others * b) / (own + others);
        Self {
            hydrogen: mean(self.hydrogen, other.hydrogen),
            oxygen: mean(self.oxygen, other.oxygen),
            heating_value: (1.0 - share) * self.heating_value + share * other.heating_value,
            evaporation: (1.0 - share) * self.evaporation + share * other.evaporation,
            molecule: 1.0 / ((1.0 - share) / self.molecule + share / other.molecule),
            vapour_heat: (1.0 - share) * self.vapour_heat + share * other.vapour_heat,
        }
    }

    /// Volume of its vapour for a unit volume of the air it is mixed with, when all of it has evaporated.
    pub fn vapour_of_air(&self, air_fuel: f64) -> f64 {
        AIR_MOLECULE / self.molecule / air_fuel
    }

    /// `(gamma - 1)/gamma` of its unburned mixture with air between compression and flame, near 650 K.
    pub fn unburned(&self, air_fuel: f64) -> f64 {
        let air = Mixture::air();
        let r = air_fuel * air.r + UNIVERSAL / self.molecule;
        let heat = air_fuel * (air.cv(BETWEEN) + air.r) + self.vapour_heat;
        r / heat
    }

    /// Mass for one mole of carbon atoms, kg.
    fn molar_mass(&self) -> f64 {
        12.011e-3 + 1.008e-3 * self.hydrogen + 15.999e-3 * self.oxygen
    }

    /// Oxygen molecules for each carbon atom, burned completely: `1 + y/4 - z/2`.
    fn oxygen_needed(&self) -> f64 {
        1.0 + self.hydrogen / 4.0 - self.oxygen / 2.0
    }

    /// Mass of air that burns a unit mass of fuel completely.
    pub fn stoichiometric(&self) -> f64 {
        self.oxygen_needed() * (O2.molar_mass + 0.79 / 0.21 * N2.molar_mass) / self.molar_mass()
    }

    /// Burned gas of air and fuel in the mass ratio `air_fuel`, and the share of the heating value it releases.
    ///
    /// Lean: carbon dioxide, water, oxygen and nitrogen. Rich: carbon monoxide and hydrogen too, by the water-gas
    /// reaction frozen at K = 3.5 [Heywood, ch. 4; from memory]; what they would still give is not released.
    pub fn burned(&self, air_fuel: f64) -> (Mixture, f64) {
        let lambda = air_fuel / self.stoichiometric();
        let oxygen = lambda * self.oxygen_needed();
        let nitrogen = oxygen * 0.79 / 0.21;
        let water = self.hydrogen / 2.0;
        if lambda >= 1.0 {
            let left = oxygen - self.oxygen_needed();
            return (Mixture::of(&[(&CO2, 1.0), (&H2O, water), (&O2, left), (&N2, nitrogen)]), 1.0);
        }
        // Oxygen atoms short of complete burning become CO (c) and H2 (short - c).
        let short = 2.0 * (self.oxygen_needed() - oxygen);
        let monoxide = water_gas(short, water);
        let hydrogen = short - monoxide;
        let burned = Mixture::of(&[
            (&CO2, 1.0 - monoxide),
            (&CO, monoxide),
            (&H2O, water - hydrogen),
            (&H2, hydrogen),
            (&N2, nitrogen),
        ]);
        // Heats of combustion of carbon monoxide and hydrogen, J/mol [Heywood, appendix D; from memory].
        let kept = 283.0e3 * monoxide + 241.8e3 * hydrogen;
        (burned, (1.0 - kept / (self.molar_mass() * self.heating_value)).clamp(0.0, 1.0))
    }
}

/// Moles of carbon monoxide of `short` missing oxygen atoms: `K = [H2O][CO]/([CO2][H2]) = 3.5`, by bisection.
fn water_gas(short: f64, water: f64) -> f64 {
    const K: f64 = 3.5;
    let (mut low, mut high) = ((short - water).max(0.0), short.min(1.0));
    for _ in 0..60 {
        let c = 0.5 * (low + high);
        let surplus = (water - (short - c)) * c - K * (1.0 - c) * (short - c);
        if surplus > 0.0 { high = c } else { low = c }
    }
    0.5 * (low + high)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_unburned_mixture_has_the_gamma_of_the_text_book() {
        // Stoichiometric iso-octane and air: 1.345 at 400 K, 1.28 to 1.30 near 700 K, 1.27 at 900 K [Heywood, fig. 4-13; from
        // memory]; air alone 1.37 near 650 K.
        let gamma = 1.0 / (1.0 - Fuel::PETROL.unburned(14.6));
        assert!((1.28..1.32).contains(&gamma), "{gamma}");
        assert!((1.0 / (1.0 - Fuel::PETROL.unburned(1e6)) - 1.37).abs() < 0.01);
        assert!(Fuel::METHANOL.unburned(5.0) < Fuel::PETROL.unburned(12.8));
    }

    #[test]
    fn stoichiometric_ratios_are_those_of_the_handbook() {
        // 14.6 petrol, 14.5 diesel, 6.47 methanol, 9.00 ethanol [Heywood, appendix D; from memory].
        // E85 by mixing them: .868 x 9.00 + .132 x 14.6 = 9.74.
        let known = [
            (Fuel::PETROL, 14.6),
            (Fuel::DIESEL, 14.5),
            (Fuel::METHANOL, 6.47),
            (Fuel::ETHANOL, 9.0),
            (Fuel::e85(), 9.74),
        ];
        for (fuel, ratio) in known {
            assert!((fuel.stoichiometric() / ratio - 1.0).abs() < 0.01, "{fuel:?} {}", fuel.stoichiometric());
        }
    }

    #[test]
    fn rich_mixtures_release_less_and_hold_more_gas() {
        let (lean, all) = Fuel::PETROL.burned(16.0);
        let (rich, some) = Fuel::PETROL.burned(12.5);
        assert_eq!(all, 1.0);
        // By hand: .144 x 2 x 1.4675 = .423 oxygen atoms short, 271 kJ each between CO and H2, of 612 kJ: .81.
        assert!((some - 0.815).abs() < 0.01, "{some}");
        assert!(rich.r > lean.r);
    }

    #[test]
    fn energy_is_the_integral_of_the_specific_heat_across_the_seam() {
        let (burned, _) = Fuel::PETROL.burned(14.6);
        for gas in [Mixture::air(), burned] {
            for t in [350.0, 999.0, 1000.0, 1001.0, 2500.0] {
                let slope = (gas.energy(t + 0.5) - gas.energy(t - 0.5)) / 1.0;
                assert!((slope / gas.cv(t) - 1.0).abs() < 1e-3, "{t}");
            }
        }
    }
}
