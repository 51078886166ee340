//! SI back to what people read: one inch and one metric display for every quantity.
//!
//! Decimals follow the trade: lengths in thousandths, angles to a tenth, loads to the pound.

use super::units::Dimension;
use serde::{Deserialize, Serialize};

/// The two ways every quantity is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, Default)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum UnitSystem {
    /// Inches, pounds-force, psi.
    #[default]
    Inch,
    /// Millimetres, newtons, kilopascals.
    Metric,
}

/// How a dimension is shown in one unit system: `shown = (si - offset) / factor`, rounded.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Scale {
    /// The unit's symbol.
    pub unit: &'static str,
    /// SI units in one shown unit.
    pub factor: f64,
    /// SI value of the shown zero.
    pub offset: f64,
    /// Digits after the point.
    pub decimals: usize,
}

/// A quantity in both displays.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Shown {
    /// In inches, pounds-force and the like.
    pub inch: String,
    /// In millimetres, newtons and the like.
    pub metric: String,
}

impl Shown {
    /// A text that reads the same in both systems.
    pub fn plain(text: impl Into<String>) -> Self {
        let text = text.into();
        Self { inch: text.clone(), metric: text }
    }

    /// In a sentence of its own in both systems.
    #[must_use]
    pub fn said(self, words: impl Fn(&str) -> String) -> Self {
        Self { inch: words(&self.inch), metric: words(&self.metric) }
    }

    /// The same without taking it.
    pub fn text(&self, system: UnitSystem) -> &str {
        match system {
            UnitSystem::Inch => &self.inch,
            UnitSystem::Metric => &self.metric,
        }
    }

    /// As it is read in one system.
    pub fn read(self, system: UnitSystem) -> String {
        match system {
            UnitSystem::Inch => self.inch,
            UnitSystem::Metric => self.metric,
        }
    }
}

/// The scale that shows `dimension` in `system`.
pub fn scale(dimension: Dimension, system: UnitSystem) -> Scale {
    use UnitSystem::{Inch, Metric};
    let (symbol, decimals) = match (dimension, system) {
        (Dimension::Length, Inch) => ("in", 3),
        (Dimension::Length, Metric) => ("mm", 2),
        (Dimension::Angle, _) => ("deg", 1),
        (Dimension::Force, Inch) => ("lbf", 0),
        (Dimension::Force, Metric) => ("N", 0),
        (Dimension::SpringRate, Inch) => ("lbf/in", 0),
        (Dimension::SpringRate, Metric) => ("N/mm", 1),
        (Dimension::Pressure, Inch) => ("psi", 1),
        (Dimension::Pressure, Metric) => ("kPa", 0),
        (Dimension::Area, Inch) => ("in2", 2),
        (Dimension::Area, Metric) => ("cm2", 1),
        (Dimension::Mass, _) => ("g", 0),
        (Dimension::Volume, _) => ("cc", 1),
        (Dimension::Flow, Inch) => ("cfm", 0),
        (Dimension::Flow, Metric) => ("l/s", 1),
        (Dimension::Speed, _) => ("rpm", 0),
        (Dimension::Temperature, Inch) => ("F", 0),
        (Dimension::Temperature, Metric) => ("C", 0),
        (Dimension::Money, _) => ("USD", 2),
        (Dimension::Torque, Inch) => ("lbf ft", 0),
        (Dimension::Torque, Metric) => ("N m", 0),
        (Dimension::Power, Inch) => ("hp", 0),
        (Dimension::Power, Metric) => ("kW", 0),
        (Dimension::Octane, _) => ("RON", 1),
        (Dimension::LobeAcceleration, Inch) => ("in/deg2", 5),
        (Dimension::LobeAcceleration, Metric) => ("mm/deg2", 4),
    };
    let unit = dimension.find(symbol).unwrap_or(dimension.units()[0]);
    Scale { unit: unit.symbol, factor: unit.factor, offset: unit.offset, decimals }
}

/// `si` in one system with its unit. Lengths in inches drop the leading zero, as spoken.
pub fn format_si(si: f64, dimension: Dimension, system: UnitSystem) -> String {
    let scale = scale(dimension, system);
    worded(format!("{:.*}", scale.decimals, (si - scale.offset) / scale.factor), &scale)
}

/// The same with a digit more where it says something: what was measured is not rounded to what is shown.
pub fn format_finer(si: f64, dimension: Dimension, system: UnitSystem) -> String {
    let scale = scale(dimension, system);
    let number = format!("{:.*}", scale.decimals + 1, (si - scale.offset) / scale.factor);
    let number = number.strip_suffix('0').map_or(number.as_str(), |number| number.trim_end_matches('.'));
    worded(number.to_owned(), &scale)
}

/// A number with its unit, nought without a sign.
fn worded(number: String, scale: &Scale) -> String {
    let number = if number.trim_start_matches('-').chars().all(|c| c == '0' || c == '.') {
        number.trim_start_matches('-').to_owned()
    } else {
        number
    };
    let spoken = if matches!(scale.unit, "in" | "in/deg2") { without_leading_zero(&number) } else { number };
    format!("{spoken} {}", scale.unit)
}

/// `si` in both systems.
pub fn shown(si: f64, dimension: Dimension) -> Shown {
    Shown { inch: format_si(si, dimension, UnitSystem::Inch), metric: format_si(si, dimension, UnitSystem::Metric) }
}

/// A small length to a tenth of a thousandth, or a micrometre.
pub fn shown_small(si: f64) -> Shown {
    Shown { inch: format!("{:.4} in", si / 0.0254).replacen("0.", ".", 1), metric: format!("{:.3} mm", si * 1e3) }
}

/// A vacuum as gauges show it: inches of mercury, or kilopascals.
pub fn shown_vacuum(si: f64) -> Shown {
    const INCH_MERCURY: f64 = 3386.389;
    Shown {
        inch: format!("{:.1} inHg", si / INCH_MERCURY),
        metric: format_si(si, Dimension::Pressure, UnitSystem::Metric),
    }
}

/// A stress as the trade reads it: thousands of pounds to the square inch, or megapascals.
pub fn shown_stress(si: f64) -> Shown {
    Shown { inch: format!("{:.0} ksi", si / 6.894_757e6), metric: format!("{:.0} MPa", si * 1e-6) }
}

/// A length of some ten-thousandths of an inch.
pub fn shown_fine(si: f64) -> Shown {
    Shown {
        inch: format!("{} in", without_leading_zero(&format!("{:.4}", si / 0.0254))),
        metric: format!("{:.3} mm", si * 1e3),
    }
}

fn without_leading_zero(number: &str) -> String {
    if let Some(rest) = number.strip_prefix("0.") {
        format!(".{rest}")
    } else if let Some(rest) = number.strip_prefix("-0.") {
        format!("-.{rest}")
    } else {
        number.to_owned()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn thousandths_are_spoken_without_a_leading_zero() {
        let length = shown(0.098 * 0.0254, Dimension::Length);
        assert_eq!((length.inch.as_str(), length.metric.as_str()), (".098 in", "2.49 mm"));
        assert_eq!(format_si(-0.0127, Dimension::Length, UnitSystem::Inch), "-.500 in");
        assert_eq!(format_si(-1e-9, Dimension::Length, UnitSystem::Inch), ".000 in");
    }

    #[test]
    fn every_dimension_has_a_scale_in_one_of_its_own_units() {
        for dimension in Dimension::ALL {
            for system in [UnitSystem::Inch, UnitSystem::Metric] {
                assert!(dimension.find(scale(dimension, system).unit).is_some());
            }
        }
    }
}
