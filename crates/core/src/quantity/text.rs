//! Quantities as people type them: `"5/16 in"`, `".050"`, `"37.1mm"`, `"1 3/8 in"`.
//!
//! A text is a number, then a unit. A number is a decimal, a fraction or a whole number with a
//! fraction. Nothing else is guessed: a comma, an exponent or a missing unit is refused with a cure.

use super::units::Dimension;
use thiserror::Error;

/// Longest text that can be a quantity; longer is refused before it is read.
const MAX_LENGTH: usize = 40;

/// Why a text is not a quantity of the dimension asked for.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum TextFault {
    /// No characters, or only blanks.
    #[error("nothing was given")]
    Empty,
    /// More characters than a quantity has.
    #[error("the text is too long for a quantity")]
    TooLong,
    /// It does not begin with a number.
    #[error("it does not begin with a number")]
    NoNumber,
    /// A comma stands where a point is meant.
    #[error("a comma is ambiguous; write a decimal point")]
    Comma,
    /// A number stands alone.
    #[error("the unit is missing")]
    NoUnit,
    /// The unit is not one of the dimension's.
    #[error("\"{0}\" is not a unit of this quantity")]
    UnknownUnit(String),
    /// A fraction over zero, or a number beyond any size.
    #[error("the number is not finite")]
    NotFinite,
}

/// The SI value of `text`, which must carry a unit of `dimension`; an octane number alone is research octane.
///
/// ```
/// use upper_lobe_core::quantity::{parse, Dimension};
/// assert_eq!(parse("5/16 in", Dimension::Length), Ok(0.0079375));
/// ```
pub fn parse(text: &str, dimension: Dimension) -> Result<f64, TextFault> {
    let (number, symbol) = split(text)?;
    let unit = match symbol {
        "" => dimension.bare().ok_or(TextFault::NoUnit)?,
        _ => dimension.find(symbol).ok_or_else(|| TextFault::UnknownUnit(symbol.to_owned()))?,
    };
    finite(number * unit.factor + unit.offset)
}

/// The bare number of `text` when it carries no unit.
pub fn parse_bare(text: &str) -> Result<f64, TextFault> {
    match split(text)? {
        (number, "") => finite(number),
        (_, symbol) => Err(TextFault::UnknownUnit(symbol.to_owned())),
    }
}

/// `text` as a document keeps it: a bare number gets `unit` appended and its leading zero, a text
/// that carries its unit stays exactly as typed.
///
/// ```
/// use upper_lobe_core::quantity::{with_unit, Dimension};
/// assert_eq!(with_unit(".050", Dimension::Length, "in").unwrap(), "0.050 in");
/// assert_eq!(with_unit("37.1mm", Dimension::Length, "in").unwrap(), "37.1mm");
/// ```
pub fn with_unit(text: &str, dimension: Dimension, unit: &str) -> Result<String, TextFault> {
    let trimmed = text.trim();
    match parse_bare(trimmed) {
        Ok(_) => Ok(format!("{} {unit}", with_leading_zero(trimmed))),
        Err(_) => parse(trimmed, dimension).map(|_| trimmed.to_owned()),
    }
}

/// `si` written in the unit that `like` carries, to the trade's digits; `None` when `like` is no
/// quantity of `dimension`.
///
/// ```
/// use upper_lobe_core::quantity::{restate, Dimension};
/// assert_eq!(restate("0.170 in", Dimension::Length, 0.0050).as_deref(), Some("0.197 in"));
/// ```
pub fn restate(like: &str, dimension: Dimension, si: f64) -> Option<String> {
    restated(like, dimension, si, 0)
}

/// The same with a digit more, for what an instrument reads.
pub fn restate_finer(like: &str, dimension: Dimension, si: f64) -> Option<String> {
    restated(like, dimension, si, 1)
}

fn restated(like: &str, dimension: Dimension, si: f64, finer: usize) -> Option<String> {
    let (_, symbol) = split(like).ok()?;
    let unit = if symbol.is_empty() { dimension.bare()? } else { dimension.find(symbol)? };
    let decimals = match unit.symbol {
        "in" | "\"" | "inch" => 3,
        "mm" | "C" | "F" => 2,
        "deg" | "°" | "cc" | "cm3" | "ml" | "psi" | "thou" | "RON" | "(R+M)/2" | "AKI" | "pump" | "R+M/2" => 1,
        "rpm" | "1/min" | "lbf" | "N" | "g" | "cfm" => 0,
        _ => 4,
    };
    let decimals = decimals + finer;
    // A number that stood alone stays alone.
    Some(format!("{:.decimals$} {symbol}", (si - unit.offset) / unit.factor).trim_end().to_owned())
}

fn with_leading_zero(number: &str) -> String {
    if let Some(rest) = number.strip_prefix("-.") {
        format!("-0.{rest}")
    } else if number.starts_with('.') {
        format!("0{number}")
    } else {
        number.to_owned()
    }
}

fn finite(value: f64) -> Result<f64, TextFault> {
    if value.is_finite() { Ok(value) } else { Err(TextFault::NotFinite) }
}

/// The number and the rest of `text`, both trimmed.
fn split(text: &str) -> Result<(f64, &str), TextFault> {
    let text = text.trim();
    if text.is_empty() {
        return Err(TextFault::Empty);
    }
    if text.len() > MAX_LENGTH {
        return Err(TextFault::TooLong);
    }
    let (negative, unsigned) = strip_sign(text);
    let (first, rest) = take_decimal(unsigned)?;
    let (magnitude, rest) = take_fraction(first, rest)?;
    if rest.starts_with(',') {
        return Err(TextFault::Comma);
    }
    let symbol = rest.trim_start();
    let is_number = symbol.starts_with(|c: char| c.is_ascii_digit() || c == '.');
    if is_number && !symbol.starts_with("1/") {
        return Err(TextFault::UnknownUnit(symbol.to_owned()));
    }
    Ok((if negative { -magnitude } else { magnitude }, symbol))
}

fn strip_sign(text: &str) -> (bool, &str) {
    for minus in ["-", "\u{2212}"] {
        if let Some(rest) = text.strip_prefix(minus) {
            return (true, rest);
        }
    }
    (false, text.strip_prefix('+').unwrap_or(text))
}

fn take_decimal(text: &str) -> Result<(f64, &str), TextFault> {
    let end = text.bytes().position(|c| !(c.is_ascii_digit() || c == b'.')).unwrap_or(text.len());
    let (digits, rest) = text.split_at(end);
    let number: f64 = digits.parse().map_err(|_| TextFault::NoNumber)?;
    Ok((finite(number)?, rest))
}

/// Adds `a/b` to `first` when `first` is followed by a fraction, or turns `first` into its numerator.
fn take_fraction(first: f64, rest: &str) -> Result<(f64, &str), TextFault> {
    if let Some(after) = rest.strip_prefix('/') {
        // "1/min" is a unit, not a fraction.
        if !after.starts_with(|c: char| c.is_ascii_digit()) {
            return Ok((first, rest));
        }
        let (below, rest) = take_decimal(after)?;
        return Ok((finite(first / below)?, rest));
    }
    let Some(next) = rest.strip_prefix(' ') else {
        return Ok((first, rest));
    };
    if !next.starts_with(|c: char| c.is_ascii_digit()) {
        return Ok((first, rest));
    }
    let (above, after) = take_decimal(next)?;
    // "6500 1/min" is a number and a unit.
    let Some(below_text) = after.strip_prefix('/').filter(|t| t.starts_with(|c: char| c.is_ascii_digit())) else {
        return Ok((first, rest));
    };
    let (below, rest) = take_decimal(below_text)?;
    Ok((finite(first + above / below)?, rest))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fractions_mixed_numbers_and_decimals_are_the_same_length() {
        for text in ["1.375 in", "1 3/8 in", "11/8 in", "1.375in", " 1.375\" "] {
            assert_eq!(parse(text, Dimension::Length), Ok(1.375 * 0.0254), "{text}");
        }
    }

    #[test]
    fn a_bare_number_takes_the_fields_unit_and_typed_text_stays() {
        assert_eq!(with_unit(".050", Dimension::Length, "in").unwrap(), "0.050 in");
        assert_eq!(with_unit("-.050", Dimension::Length, "in").unwrap(), "-0.050 in");
        assert_eq!(with_unit("1.60", Dimension::Length, "mm").unwrap(), "1.60 mm");
        assert_eq!(with_unit("150lbf", Dimension::Force, "N").unwrap(), "150lbf");
    }

    #[test]
    fn rubbish_is_refused_by_kind() {
        let cases = [
            ("", TextFault::Empty),
            ("  ", TextFault::Empty),
            ("in", TextFault::NoNumber),
            (".", TextFault::NoNumber),
            ("--1 in", TextFault::NoNumber),
            ("NaN in", TextFault::NoNumber),
            ("inf", TextFault::NoNumber),
            ("1,5 in", TextFault::Comma),
            ("1.5", TextFault::NoUnit),
            ("1/0 in", TextFault::NotFinite),
            ("0/0 in", TextFault::NotFinite),
            ("1.5 psi", TextFault::UnknownUnit("psi".into())),
            ("1e3 in", TextFault::UnknownUnit("e3 in".into())),
            ("1 2 in", TextFault::UnknownUnit("2 in".into())),
        ];
        for (text, fault) in cases {
            assert_eq!(parse(text, Dimension::Length), Err(fault), "{text:?}");
        }
        assert_eq!(parse(&"9".repeat(41), Dimension::Length), Err(TextFault::TooLong));
    }

    #[test]
    fn octane_is_research_octane_unless_the_pump_is_named() {
        assert_eq!(parse("95", Dimension::Octane), Ok(95.0));
        assert_eq!(parse("95 RON", Dimension::Octane), Ok(95.0));
        // 91 at the pump is sold as 95 to 96 RON (common practice, no source).
        for pump in ["91 (R+M)/2", "91 AKI", "91 pump", "91 (r+m)/2"] {
            assert_eq!(parse(pump, Dimension::Octane), Ok(95.5), "{pump}");
        }
        assert_eq!(with_unit("95", Dimension::Octane, "RON").unwrap(), "95 RON");
        assert_eq!(restate("91 AKI", Dimension::Octane, 97.5).as_deref(), Some("93.0 AKI"));
        assert_eq!(restate("95", Dimension::Octane, 97.5).as_deref(), Some("97.5"));
    }

    #[test]
    fn temperatures_have_their_own_zero() {
        assert_eq!(parse("25 C", Dimension::Temperature), Ok(298.15));
        assert!((parse("77 F", Dimension::Temperature).unwrap() - 298.15).abs() < 1e-9);
        assert_eq!(parse("6500 1/min", Dimension::Speed), parse("6500 rpm", Dimension::Speed));
    }
}
