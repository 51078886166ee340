//! Lines of text as instruments send them: which number stands in one, in which unit, and whether it is held. A line that is no
//! reading says why; nothing is guessed.

use crate::quantity::{Dimension, UnitSystem, parse, scale};
use serde::{Deserialize, Serialize};

/// What an instrument measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Measures {
    /// Dial, caliper, height gauge.
    Length,
    /// Spring tester.
    Force,
    /// Degree wheel with an encoder.
    Angle,
    /// Scale.
    Mass,
    /// Gauge.
    Pressure,
    /// Burette.
    Volume,
    /// Flow bench.
    Flow,
    /// A dyno: lines of several figures below a heading; its torque.
    Pull,
}

impl Measures {
    /// Its dimension.
    pub const fn dimension(self) -> Dimension {
        match self {
            Self::Length => Dimension::Length,
            Self::Force => Dimension::Force,
            Self::Angle => Dimension::Angle,
            Self::Mass => Dimension::Mass,
            Self::Pressure => Dimension::Pressure,
            Self::Volume => Dimension::Volume,
            Self::Flow => Dimension::Flow,
            Self::Pull => Dimension::Torque,
        }
    }

    /// A reading that stays within this, SI, is at rest (common practice, no source: the last digit of usual tools, a few times).
    pub const fn still(self) -> f64 {
        match self {
            Self::Length => 0.0005 * 0.0254,
            Self::Force => 1.0 * 4.448_221_6,
            Self::Angle => 0.1 * std::f64::consts::PI / 180.0,
            Self::Mass => 0.15e-3,
            Self::Pressure => 1.0 * 6_894.757,
            Self::Volume => 0.1e-6,
            Self::Flow => 0.000_5,
            Self::Pull => 0.5,
        }
    }
}

/// How an instrument writes its lines.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LineFormat {
    /// What it measures.
    pub measures: Measures,
    /// Unit of a number that comes without one; that of inches, pounds and the like when empty.
    #[serde(default)]
    pub unit: String,
    /// Text in front of the number; with none a line may hold one number alone.
    #[serde(default)]
    pub before: String,
    /// Digits behind the point that the instrument leaves out.
    #[serde(default)]
    pub decimals: u32,
    /// Whether its sign is turned: a dial that counts down while its plunger goes in.
    #[serde(default)]
    pub turned: bool,
    /// Text that marks a line whose value is held, such as one sent by a button; none when empty.
    #[serde(default)]
    pub hold: String,
}

/// What a line says.
#[derive(Debug, Clone, PartialEq)]
pub enum Heard {
    /// A reading.
    Reading {
        /// SI.
        si: f64,
        /// As it was sent, with its unit.
        text: String,
        /// Whether it is held.
        held: bool,
    },
    /// An empty line.
    Nothing,
    /// No reading, and why.
    Rubbish(String),
}

/// Longest line, characters.
const LONGEST: usize = 120;
/// No instrument at a bench reads beyond this, in the units of inches and pounds.
const MOST: f64 = 100_000.0;

/// Reads a line.
pub fn heard(format: &LineFormat, line: &str) -> Heard {
    let line = line.trim_matches(|c: char| c.is_whitespace() || c.is_control());
    if line.is_empty() {
        return Heard::Nothing;
    }
    match reading(format, line) {
        Ok((si, text)) => Heard::Reading { si, text, held: !format.hold.is_empty() && line.contains(&format.hold) },
        Err(why) => Heard::Rubbish(why),
    }
}

fn reading(format: &LineFormat, line: &str) -> Result<(f64, String), String> {
    if line.len() > LONGEST || line.chars().any(char::is_control) {
        return Err("no line of an instrument".to_owned());
    }
    let line = if format.hold.is_empty() { line.to_owned() } else { line.replace(&format.hold, " ") };
    let (front, rest) = match format.before.as_str() {
        "" => ("", line.as_str()),
        before => line.split_once(before).ok_or_else(|| format!("no “{before}” in it"))?,
    };
    let start = rest.find(|c: char| c.is_ascii_digit()).ok_or("no number in it")?;
    let sign = rest[..start].trim_end_matches('.').trim_end().ends_with(['-', '\u{2212}']);
    let point = rest[..start].ends_with('.');
    let number: String = rest[start..].chars().take_while(|c| c.is_ascii_digit() || matches!(c, '.' | ',')).collect();
    let after = &rest[start + number.len()..];
    if format.before.is_empty() && (front.contains(is_digit) || after.contains(is_digit)) {
        return Err("more than one number in it".to_owned());
    }
    let magnitude = magnitude(&number, point, format.decimals).ok_or("no number in it")?;
    let signed = if sign != format.turned { -magnitude } else { magnitude };
    let sent = after.split_whitespace().next().unwrap_or("");
    let dimension = format.measures.dimension();
    let unit = [sent, &format.unit, scale(dimension, UnitSystem::Inch).unit].into_iter().find(|unit| !unit.is_empty());
    let text = format!("{signed} {}", unit.unwrap_or_default());
    let si = parse(&text, dimension).map_err(|_| format!("“{sent}” is no unit of {}", dimension.noun()))?;
    let far = MOST * scale(dimension, UnitSystem::Inch).factor;
    if si.abs() > far { Err("further than any instrument reads".to_owned()) } else { Ok((si, text)) }
}

fn is_digit(c: char) -> bool {
    c.is_ascii_digit()
}

/// A number with a point or a comma, or with so many digits behind a point that is left out.
fn magnitude(number: &str, point: bool, decimals: u32) -> Option<f64> {
    let plain = number.replace(',', ".");
    if plain.matches('.').count() > 1 || (point && plain.contains('.')) {
        return None;
    }
    let plain = if point { format!("0.{plain}") } else { plain };
    let value: f64 = plain.trim_end_matches('.').parse().ok()?;
    Some(if plain.contains('.') { value } else { value / 10_f64.powi(i32::try_from(decimals).ok()?) })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn dial() -> LineFormat {
        LineFormat {
            measures: Measures::Length,
            unit: String::new(),
            before: String::new(),
            decimals: 0,
            turned: false,
            hold: String::new(),
        }
    }

    fn si(format: &LineFormat, line: &str) -> Option<f64> {
        match heard(format, line) {
            Heard::Reading { si, .. } => Some((si * 1e9).round() * 1e-9),
            _ => None,
        }
    }

    #[test]
    fn a_number_is_found_with_its_unit_sign_and_point() {
        let near = |line: &str, metres: f64| {
            let read = si(&dial(), line).unwrap_or(f64::NAN);
            assert!((read - metres).abs() < 1e-9, "{line}: {read}");
        };
        near("0.3182", 0.008_082_28);
        near("  +.050 in\r", 0.001_27);
        near("-1,25 mm", -0.001_25);
        near("DIAL = 12.7mm", 0.012_7);
        near("\u{2}- .0105\u{3}", -0.000_266_7);
        let metric = LineFormat { unit: "mm".to_owned(), decimals: 3, turned: true, ..dial() };
        assert_eq!(si(&metric, "0008082"), Some(-0.008_082));
        // A point that is sent stands above one that is left out.
        assert_eq!(si(&metric, "8.082"), Some(-0.008_082));
        let named = LineFormat { before: "B:".to_owned(), ..dial() };
        assert!((si(&named, "A: 0.100 B: 0.200").unwrap() - 0.00508).abs() < 1e-9);
    }

    #[test]
    fn what_is_no_reading_says_why() {
        let why = |line: &str| match heard(&dial(), line) {
            Heard::Rubbish(why) => why,
            other => panic!("{line}: {other:?}"),
        };
        assert!(why("ERR").contains("no number"));
        assert!(why("0.100 0.100").contains("more than one"));
        assert!(why("12 lbf").contains("no unit of a length"));
        assert!(why("1.2.3").contains("no number"));
        assert!(why("9999999999999 in").contains("further"));
        assert!(why(&"1".repeat(300)).contains("no line"));
        assert!(why("1\u{0}2").contains("no line"));
        assert_eq!(heard(&dial(), "\r\n"), Heard::Nothing);
        let named = LineFormat { before: "B:".to_owned(), ..dial() };
        assert!(matches!(heard(&named, "A: 0.1"), Heard::Rubbish(_)));
    }

    #[test]
    fn a_held_line_says_so_and_the_mark_is_no_unit() {
        let tester = LineFormat { measures: Measures::Force, hold: "H".to_owned(), ..dial() };
        let is_held = |line: &str| matches!(heard(&tester, line), Heard::Reading { held: true, .. });
        assert!(is_held("136.4 lbf H") && is_held("H 136.4"));
        assert!(matches!(heard(&tester, "136.4"), Heard::Reading { held: false, .. }));
    }
}
