//! What power would be in standard air. Torque follows power.

/// A correction and what it is called.
#[derive(Debug, Clone, PartialEq)]
pub struct StandardAir {
    /// The standard, with its air.
    pub name: &'static str,
    /// Power in standard air over power in the plan's air.
    pub factor: f64,
}

/// Saturation pressure of water, Pa, at a temperature in K [Magnus form, WMO constants; from memory].
fn saturation(temperature: f64) -> f64 {
    let celsius = temperature - 273.15;
    610.94 * (17.625 * celsius / (celsius + 243.04)).exp()
}

/// Pressure of the dry part of the air, Pa.
fn dry(pressure: f64, temperature: f64, humidity: f64) -> f64 {
    pressure - humidity * saturation(temperature)
}

/// Both usual corrections of a spark engine that breathes outside air.
///
/// SAE J1349: `1.18 (99 kPa/p) sqrt(T/298 K) - 0.18`; SAE J607: `(101.3 kPa/p) sqrt(T/288.7 K)`; p that of dry air [both from
/// memory].
pub fn spark(pressure: f64, temperature: f64, humidity: f64) -> [StandardAir; 2] {
    let p = dry(pressure, temperature, humidity);
    [
        StandardAir {
            name: "SAE J1349 (99 kPa dry, 25 C)",
            factor: 1.18 * (99e3 / p) * (temperature / 298.15).sqrt() - 0.18,
        },
        StandardAir {
            name: "SAE J607 (29.92 inHg dry, 60 F)",
            factor: (101_325.0 / p) * (temperature / 288.71).sqrt(),
        },
    ]
}

/// The compression-ignition correction of ISO 1585: `fa^fm`, `fa = (99/p)(T/298)^0.7` without and `(99/p)^0.7 (T/298)^1.5` with
/// a turbocharger, `fm = 0.036 q/r - 1.14` between 0.3 and 1.2, q fuel in mg for a cycle and litre, r boost ratio [from
/// memory].
pub fn diesel(pressure: f64, temperature: f64, humidity: f64, fuel: f64, boost_ratio: f64) -> StandardAir {
    let p = 99e3 / dry(pressure, temperature, humidity);
    let t = temperature / 298.15;
    let air = if boost_ratio > 1.01 { p.powf(0.7) * t.powf(1.5) } else { p * t.powf(0.7) };
    let engine = (0.036 * fuel / boost_ratio - 1.14).clamp(0.3, 1.2);
    StandardAir { name: "ISO 1585 compression ignition (99 kPa dry, 25 C)", factor: air.powf(engine) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn standard_air_is_its_own_and_thin_air_counts_more() {
        assert!((spark(99e3, 298.15, 0.0)[0].factor - 1.0).abs() < 1e-12);
        assert!((spark(101_325.0, 288.71, 0.0)[1].factor - 1.0).abs() < 1e-12);
        assert!((diesel(99e3, 298.15, 0.0, 60.0, 1.0).factor - 1.0).abs() < 1e-12);
        // 85 kPa, 30 C, half humid: saturation 4.24 kPa, 82.88 kPa dry: 1.18 x 1.1945 x 1.00835 - .18 = 1.2413, by hand.
        let thin = spark(85e3, 303.15, 0.5);
        assert!((thin[0].factor - 1.2413).abs() < 1e-3, "{thin:?}");
        assert!(thin[1].factor > thin[0].factor);
        assert!((saturation(298.15) / 3169.0 - 1.0).abs() < 0.01, "{}", saturation(298.15));
    }
}
