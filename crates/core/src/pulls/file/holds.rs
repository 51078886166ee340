//! What a column of a dyno's file holds: by its heading, and in which unit.

use crate::quantity::{Dimension, Unit};
use serde::{Deserialize, Serialize};

/// What a column holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Holds {
    /// Speed of the crank.
    Speed,
    /// Torque.
    Torque,
    /// Power; torque follows from it and the speed.
    Power,
    /// Mass of air for one of fuel.
    AirFuelRatio,
    /// Oil.
    OilTemperature,
    /// Coolant.
    WaterTemperature,
    /// Air at the inlet.
    AirTemperature,
    /// Exhaust.
    ExhaustTemperature,
    /// Oil.
    OilPressure,
    /// Manifold.
    ManifoldPressure,
    /// Ignition or injection before top dead centre.
    Spark,
    /// Nothing that is wanted.
    Nothing,
}

/// What one column of a file holds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Mapped {
    /// What.
    pub holds: Holds,
    /// Its unit; empty for plain numbers.
    #[serde(default)]
    pub unit: String,
}

/// Words of headings, the first that fits counts: all of one entry's words have to be in it (common practice, no source).
const NAMES: &[(Holds, &[&str])] = &[
    (Holds::OilTemperature, &["oil", "temp"]),
    (Holds::OilPressure, &["oil", "pres"]),
    (Holds::OilPressure, &["oilp"]),
    (Holds::OilTemperature, &["oil"]),
    (Holds::WaterTemperature, &["water"]),
    (Holds::WaterTemperature, &["coolant"]),
    (Holds::ExhaustTemperature, &["egt"]),
    (Holds::ExhaustTemperature, &["exhaust", "temp"]),
    (Holds::AirFuelRatio, &["afr"]),
    (Holds::AirFuelRatio, &["a/f"]),
    (Holds::AirFuelRatio, &["air", "fuel"]),
    (Holds::AirTemperature, &["air", "temp"]),
    (Holds::AirTemperature, &["iat"]),
    (Holds::AirTemperature, &["inlet", "temp"]),
    (Holds::ManifoldPressure, &["boost"]),
    (Holds::ManifoldPressure, &["manifold"]),
    (Holds::ManifoldPressure, &["map"]),
    (Holds::Spark, &["spark"]),
    (Holds::Spark, &["ignition"]),
    (Holds::Spark, &["timing"]),
    (Holds::Torque, &["torque"]),
    (Holds::Torque, &["tq"]),
    (Holds::Torque, &["trq"]),
    (Holds::Power, &["power"]),
    (Holds::Power, &["pwr"]),
    (Holds::Power, &["hp"]),
    (Holds::Speed, &["rpm"]),
    (Holds::Speed, &["engine", "speed"]),
    (Holds::Speed, &["speed"]),
];

/// Other ways to write a unit, without case, blanks, points and hyphens.
const SPELLINGS: &[(&str, &str)] = &[
    ("ftlb", "lbf ft"),
    ("ftlbs", "lbf ft"),
    ("ftlbf", "lbf ft"),
    ("lbft", "lbf ft"),
    ("lbsft", "lbf ft"),
    ("lbfft", "lbf ft"),
    ("footpounds", "lbf ft"),
    ("poundfeet", "lbf ft"),
    ("nm", "N m"),
    ("n·m", "N m"),
    ("bhp", "hp"),
    ("whp", "hp"),
    ("chp", "hp"),
    ("degc", "C"),
    ("degf", "F"),
    ("celsius", "C"),
    ("fahrenheit", "F"),
    ("u/min", "rpm"),
    ("r/min", "rpm"),
    ("min1", "rpm"),
    ("degbtdc", "deg"),
    ("btdc", "deg"),
    ("psig", "psi"),
    ("kpaa", "kPa"),
];

impl Holds {
    /// By its heading.
    pub fn of_heading(name: &str) -> Self {
        let name = name.to_lowercase();
        let fits = |words: &[&str]| words.iter().all(|word| name.contains(word));
        NAMES.iter().find(|(_, words)| fits(words)).map_or(Self::Nothing, |(holds, _)| *holds)
    }

    /// What its numbers measure; `None` for plain ones.
    pub const fn dimension(self) -> Option<Dimension> {
        match self {
            Self::Speed => Some(Dimension::Speed),
            Self::Torque => Some(Dimension::Torque),
            Self::Power => Some(Dimension::Power),
            Self::OilTemperature | Self::WaterTemperature | Self::AirTemperature | Self::ExhaustTemperature => {
                Some(Dimension::Temperature)
            }
            Self::OilPressure | Self::ManifoldPressure => Some(Dimension::Pressure),
            Self::Spark => Some(Dimension::Angle),
            Self::AirFuelRatio | Self::Nothing => None,
        }
    }

    /// The unit that `text` means here, in whatever spelling.
    pub fn unit(self, text: &str) -> Option<Unit> {
        let dimension = self.dimension()?;
        let plain: String = text
            .to_lowercase()
            .chars()
            .filter(|c| !matches!(c, ' ' | '.' | '-' | '°' | '(' | ')' | '[' | ']'))
            .collect();
        let spelt = SPELLINGS.iter().find(|(own, _)| *own == plain).and_then(|(_, unit)| dimension.find(unit));
        spelt.or_else(|| dimension.find(text.trim())).or_else(|| dimension.find(&plain))
    }

    /// The units it may be in, for who is asked.
    pub fn units(self) -> Vec<String> {
        let all = self.dimension().map_or(&[][..], Dimension::units);
        let twice = ["lb-ft", "ft-lb", "Nm", "1/min", "°", "kpsi", "hPa"];
        all.iter().map(|unit| unit.symbol.to_owned()).filter(|symbol| !twice.contains(&symbol.as_str())).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn headings_and_units_are_known_in_many_spellings() {
        for (name, holds) in [
            ("Engine Speed", Holds::Speed),
            ("RPM", Holds::Speed),
            ("STP Torque", Holds::Torque),
            ("CHp", Holds::Power),
            ("A/F 1", Holds::AirFuelRatio),
            ("Oil Pressure", Holds::OilPressure),
            ("oil t", Holds::OilTemperature),
            ("Coolant out", Holds::WaterTemperature),
            ("fuel flow", Holds::Nothing),
        ] {
            assert_eq!(Holds::of_heading(name), holds, "{name}");
        }
        for text in ["ft-lb", "lb.ft", "LBF FT", "ft lbs", "lbft"] {
            assert_eq!(Holds::Torque.unit(text).map(|unit| unit.symbol), Some("lbf ft"), "{text}");
        }
        assert_eq!(Holds::OilTemperature.unit("°F").map(|unit| unit.symbol), Some("F"));
        assert_eq!(Holds::Torque.unit("hp").map(|unit| unit.symbol), None);
    }
}
