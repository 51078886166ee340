//! Standard airs: what torque would be in another air than the one it was made in. Torque follows power.

/// Air that an engine breathes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OutsideAir {
    /// Pa.
    pub pressure: f64,
    /// K.
    pub temperature: f64,
    /// Relative humidity, 0 to 1.
    pub humidity: f64,
}

/// A correction and what it is called.
#[derive(Debug, Clone, PartialEq)]
pub struct StandardAir {
    /// The standard, with its air.
    pub name: &'static str,
    /// Power in standard air over power in this air.
    pub factor: f64,
}

/// How an engine burns, as far as a correction depends on it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Burns {
    /// Spark ignition.
    Spark,
    /// Compression ignition.
    Compression {
        /// Fuel, mg for a cycle and a litre of displacement.
        fuel: f64,
        /// Pressure behind the compressor over that before it; one without.
        boost: f64,
    },
}

/// A standard by its rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standard {
    /// 99 kPa dry, 25 C.
    J1349,
    /// 29.92 inHg dry, 60 F.
    J607,
    /// 99 kPa dry, 25 C.
    Iso1585,
}

impl Standard {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::J1349, Self::J607, Self::Iso1585];

    /// With its air.
    pub const fn name(self) -> &'static str {
        match self {
            Self::J1349 => "SAE J1349 (99 kPa dry, 25 C)",
            Self::J607 => "SAE J607 (29.92 inHg dry, 60 F)",
            Self::Iso1585 => "ISO 1585 (99 kPa dry, 25 C)",
        }
    }

    /// Power in its air over power in `air`.
    ///
    /// SAE J1349: `1.18 (99 kPa/p) sqrt(T/298 K) - 0.18`. SAE J607: `(101.3 kPa/p) sqrt(T/288.7 K)`. ISO 1585, spark ignition:
    /// `(99 kPa/p)^1.2 (T/298 K)^0.6`, within .93 to 1.07. Compression ignition by any of the newer ones: `fa^fm`,
    /// `fa = (99/p)(T/298)^0.7` without and `(99/p)^0.7 (T/298)^1.5` with a turbocharger, `fm = 0.036 q/r - 1.14` between 0.3 and
    /// 1.2, q fuel in mg for a cycle and litre, r boost ratio. p is the pressure of dry air [all from memory].
    pub fn factor(self, air: &OutsideAir, burns: Burns) -> f64 {
        let (p, t) = (99e3 / air.dry(), air.temperature / 298.15);
        match (self, burns) {
            (Self::J607, _) => (101_325.0 / air.dry()) * (air.temperature / 288.71).sqrt(),
            (_, Burns::Compression { fuel, boost }) => {
                let charge = if boost > 1.01 { p.powf(0.7) * t.powf(1.5) } else { p * t.powf(0.7) };
                charge.powf((0.036 * fuel / boost - 1.14).clamp(0.3, 1.2))
            }
            (Self::J1349, Burns::Spark) => 1.18 * p * t.sqrt() - 0.18,
            (Self::Iso1585, Burns::Spark) => p.powf(1.2) * t.powf(0.6),
        }
    }
}

impl OutsideAir {
    /// Pressure of its dry part, Pa.
    fn dry(&self) -> f64 {
        self.pressure - self.humidity * saturation(self.temperature)
    }
}

/// Saturation pressure of water, Pa, at a temperature in K [Magnus form, WMO constants; from memory].
fn saturation(temperature: f64) -> f64 {
    let celsius = temperature - 273.15;
    610.94 * (17.625 * celsius / (celsius + 243.04)).exp()
}

/// Both usual corrections of a spark engine that breathes outside air.
pub fn spark(air: &OutsideAir) -> [StandardAir; 2] {
    [Standard::J1349, Standard::J607].map(|own| StandardAir { name: own.name(), factor: own.factor(air, Burns::Spark) })
}

/// The compression-ignition correction of ISO 1585.
pub fn diesel(air: &OutsideAir, fuel: f64, boost: f64) -> StandardAir {
    StandardAir {
        name: "ISO 1585 compression ignition (99 kPa dry, 25 C)",
        factor: Standard::Iso1585.factor(air, Burns::Compression { fuel, boost }),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const fn air(pressure: f64, temperature: f64, humidity: f64) -> OutsideAir {
        OutsideAir { pressure, temperature, humidity }
    }

    #[test]
    fn standard_air_is_its_own_and_thin_air_counts_more() {
        let own = air(99e3, 298.15, 0.0);
        let diesel_fuel = Burns::Compression { fuel: 60.0, boost: 1.0 };
        for standard in [Standard::J1349, Standard::Iso1585] {
            for burns in [Burns::Spark, diesel_fuel] {
                assert!((standard.factor(&own, burns) - 1.0).abs() < 1e-12, "{standard:?}");
            }
        }
        assert!((Standard::J607.factor(&air(101_325.0, 288.71, 0.0), Burns::Spark) - 1.0).abs() < 1e-12);
        // 85 kPa, 30 C, half humid: saturation 4.24 kPa, 82.88 kPa dry: 1.18 x 1.1945 x 1.00835 - .18 = 1.2413, by hand.
        let thin = air(85e3, 303.15, 0.5);
        assert!((Standard::J1349.factor(&thin, Burns::Spark) - 1.2413).abs() < 1e-3);
        // By ISO 1585: 1.1945^1.2 x 1.01677^.6 = 1.2378 x 1.0100 = 1.2502, by hand.
        assert!((Standard::Iso1585.factor(&thin, Burns::Spark) - 1.2502).abs() < 1e-3);
        // By J607: 1.22255 x sqrt(1.05001) = 1.2528, by hand.
        assert!((Standard::J607.factor(&thin, Burns::Spark) - 1.2528).abs() < 1e-3);
        // A diesel with a turbocharger, 110 mg a cycle and litre at twice the pressure: fm = .036 x 55 - 1.14 = .84,
        // fa = 1.1945^.7 x 1.01677^1.5 = 1.1325 x 1.0253 = 1.1611; 1.1611^.84 = 1.1336, by hand.
        let boosted = Burns::Compression { fuel: 110.0, boost: 2.0 };
        assert!((Standard::Iso1585.factor(&thin, boosted) - 1.1336).abs() < 1e-3);
        assert!((saturation(298.15) / 3169.0 - 1.0).abs() < 0.01, "{}", saturation(298.15));
    }
}
