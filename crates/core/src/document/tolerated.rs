//! Fields that may carry a tolerance, and what one is written in.

use super::field::Kind;
use super::path::get;
use super::rows::kind_of;
use crate::quantity::{Dimension, parse};
use serde_json::Value;

/// What a tolerance of the field at `path` is written in: a quantity, or a plain number; of a table its second column.
/// `None` for what cannot be off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Tolerated {
    /// With a unit.
    Quantity(Dimension),
    /// A plain number.
    Number,
}

impl Tolerated {
    /// Of the field at `path`, whichever candidate it is of.
    pub fn of(path: &str) -> Option<Self> {
        match kind_of(&of_first(path))? {
            Kind::Quantity { dimension, .. } => Some(Self::Quantity(*dimension)),
            Kind::Number { .. } => Some(Self::Number),
            Kind::List { of: Kind::Row([_, (_, Kind::Quantity { dimension, .. })]), .. } => {
                matches!(dimension, Dimension::Angle | Dimension::Force).then_some(Self::Quantity(*dimension))
            }
            _ => None,
        }
    }

    /// A plus-minus as written, SI; `None` for a text that is none.
    pub fn figure(self, text: &str) -> Option<f64> {
        let figure = match self {
            Self::Quantity(Dimension::Temperature) | Self::Quantity(Dimension::Octane) => return None,
            Self::Quantity(dimension) => parse(text, dimension).ok()?,
            Self::Number => text.trim().parse().ok()?,
        };
        (figure.is_finite() && figure > 0.0).then_some(figure)
    }

    /// The value the document holds at `path`, SI, where it is one number that cannot be negative.
    pub fn positive(self, document: &Value, path: &str) -> Option<f64> {
        let value = get(document, &by_place(document, path))?;
        let below = match kind_of(&of_first(path))? {
            Kind::Quantity { dimension, min, .. } => parse(min, *dimension).ok()?,
            Kind::Number { min, .. } => *min,
            _ => return None,
        };
        let figure = match self {
            Self::Quantity(dimension) => parse(value.as_str()?, dimension).ok()?,
            Self::Number => value.as_f64()?,
        };
        (below >= 0.0).then_some(figure)
    }
}

/// The part of `path` that names a candidate, and what stands before and behind it.
fn candidate_of(path: &str) -> Option<(&str, &str)> {
    path.strip_prefix("candidates[")?.split_once(']')
}

/// The same path of the first candidate.
fn of_first(path: &str) -> String {
    candidate_of(path).map_or_else(|| path.to_owned(), |(_, rest)| format!("candidates[0]{rest}"))
}

/// The path with its candidate by its place, where the document has one of that identifier.
pub fn by_place(document: &Value, path: &str) -> String {
    let Some((name, rest)) = candidate_of(path) else { return path.to_owned() };
    let list = document.get("candidates").and_then(Value::as_array);
    let place = list.and_then(|list| list.iter().position(|own| own.get("id").and_then(Value::as_str) == Some(name)));
    place.map_or_else(|| path.to_owned(), |place| format!("candidates[{place}]{rest}"))
}

/// The path with its candidate by its identifier, which does not change when candidates are moved.
pub fn by_id(document: &Value, path: &str) -> String {
    let named = || {
        let (name, rest) = candidate_of(path)?;
        let id = document.get("candidates")?.get(name.parse::<usize>().ok()?)?.get("id")?.as_str()?;
        Some(format!("candidates[{id}]{rest}"))
    };
    named().unwrap_or_else(|| path.to_owned())
}

/// Whether a tolerance is of the candidate `id`.
pub fn is_of(path: &str, id: &str) -> bool {
    candidate_of(path).is_some_and(|(name, _)| name == id)
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    #[test]
    fn a_field_is_tolerated_in_its_own_unit() {
        let of = Tolerated::of;
        assert_eq!(of("engine.deck_clearance"), Some(Tolerated::Quantity(Dimension::Length)));
        assert_eq!(of("candidates[b].train.rocker.exhaust.ratio"), Some(Tolerated::Number));
        assert_eq!(of("candidates[0].train.spring.points"), Some(Tolerated::Quantity(Dimension::Force)));
        assert_eq!(of("candidates[0].cam.intake.checks"), Some(Tolerated::Quantity(Dimension::Angle)));
        for none in ["engine.fuel", "engine.boar", "candidates[0].name", "engine.intake.flow"] {
            assert_eq!(of(none), None, "{none}");
        }
        assert_eq!(Tolerated::Number.figure("0.02"), Some(0.02));
        assert_eq!(Tolerated::Quantity(Dimension::Length).figure("-0.003 in"), None);
    }

    #[test]
    fn a_candidate_goes_by_its_name_wherever_it_stands() {
        let document = json!({ "candidates": [{ "id": "x" }, { "id": "a" }] });
        assert_eq!(by_place(&document, "candidates[a].cam.price"), "candidates[1].cam.price");
        assert_eq!(by_place(&document, "candidates[1].cam.price"), "candidates[1].cam.price");
        assert_eq!(by_id(&document, "candidates[1].cam.price"), "candidates[a].cam.price");
        assert_eq!(by_id(&document, "engine.bore"), "engine.bore");
    }
}
