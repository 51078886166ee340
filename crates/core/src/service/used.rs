//! How far an engine has run, and on which day: what a service log is counted in.

use crate::quantity::parse_bare;
use crate::words::Use;
use time::Date;
use time::format_description::well_known::Iso8601;

/// What an interval is counted in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum CountedIn {
    /// Miles on the road.
    Miles,
    /// Passes down a strip.
    Passes,
    /// Running hours.
    Hours,
}

impl CountedIn {
    /// By what an engine is for; on the road where nobody says.
    pub const fn of(used_for: Option<Use>) -> Self {
        match used_for {
            Some(Use::Strip) => Self::Passes,
            Some(Use::Circuit | Use::Marine | Use::Work) => Self::Hours,
            _ => Self::Miles,
        }
    }

    /// In a word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Miles => "miles",
            Self::Passes => "passes",
            Self::Hours => "hours",
        }
    }
}

/// Miles of a kilometre.
pub(crate) const KILOMETRE: f64 = 1.0 / 1.609_344;

/// How far an engine has run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Used {
    /// How much of it; kilometres are turned into miles.
    pub amount: f64,
    /// Of what.
    pub of: CountedIn,
}

/// What a use is written as.
pub const NEEDS: &str = "how far it had run with its unit: mi, km, h or passes, as \"18500 mi\"";

/// Reads `18500 mi`, `29,800 km`, `212 h`, `61 passes`; `None` of anything else.
pub fn used(text: &str) -> Option<Used> {
    let text = text.trim();
    let at = text.find(|c: char| c.is_alphabetic())?;
    let (number, unit) = text.split_at(at);
    let number = number.trim();
    let amount = parse_bare(&without_thousands(number)).ok().filter(|own| (0.0..=1e7).contains(own))?;
    let (factor, of) = match unit.trim().trim_end_matches('.').to_lowercase().as_str() {
        "mi" | "mile" | "miles" => (1.0, CountedIn::Miles),
        "km" | "kilometre" | "kilometres" | "kilometers" => (KILOMETRE, CountedIn::Miles),
        "h" | "hr" | "hrs" | "hour" | "hours" => (1.0, CountedIn::Hours),
        "pass" | "passes" | "run" | "runs" => (1.0, CountedIn::Passes),
        _ => return None,
    };
    Some(Used { amount: amount * factor, of })
}

/// A comma before three digits parts thousands; anything else stays for the reader of numbers to refuse.
fn without_thousands(number: &str) -> String {
    let mut groups = number.split(',');
    let first = groups.next().unwrap_or_default();
    let rest: Vec<&str> = groups.collect();
    let are_thousands =
        !first.is_empty() && rest.iter().all(|own| own.len() == 3 && own.bytes().all(|b| b.is_ascii_digit()));
    if are_thousands { format!("{first}{}", rest.concat()) } else { number.to_owned() }
}

/// A day as 2026-06-01 (ISO 8601); `None` of anything else.
pub fn day(text: &str) -> Option<Date> {
    Date::parse(text.trim(), &Iso8601::DATE).ok().filter(|own| (1900..=2200).contains(&own.year()))
}

impl CountedIn {
    /// The unit behind a number.
    pub const fn unit(self) -> &'static str {
        match self {
            Self::Miles => "mi",
            Self::Hours => "h",
            Self::Passes => "passes",
        }
    }

    /// A round amount of it over which wear is told.
    pub const fn round(self) -> f64 {
        match self {
            Self::Miles => 1000.0,
            Self::Hours => 100.0,
            Self::Passes => 10.0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn use_is_read_with_its_unit_and_never_without() {
        assert_eq!(used("18500 mi"), Some(Used { amount: 18500.0, of: CountedIn::Miles }));
        assert_eq!(used("18,500 miles").map(|own| own.amount), Some(18500.0));
        assert_eq!(used("212.5h"), Some(Used { amount: 212.5, of: CountedIn::Hours }));
        assert_eq!(used("61 passes"), Some(Used { amount: 61.0, of: CountedIn::Passes }));
        assert!((used("16093.44 km").unwrap().amount - 10_000.0).abs() < 1e-9);
        for odd in ["18500", "mi", "-3 mi", "18,50 mi", "18500 furlongs", "1e400 h", "99999999 mi", ",500 mi"] {
            assert_eq!(used(odd), None, "{odd}");
        }
    }

    #[test]
    fn days_are_of_the_calendar() {
        assert_eq!(day("2026-06-01").map(|own| own.ordinal()), Some(152));
        assert!(day("2028-02-29").is_some());
        for odd in ["2026-02-29", "01.06.2026", "2026-13-01", "", "0026-06-01"] {
            assert_eq!(day(odd), None, "{odd}");
        }
    }
}
