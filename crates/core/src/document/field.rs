//! What a field of the build document may hold. The tables in [`super::table`] are made of these;
//! checking, messages, the published schema, defaults and the forms all read the same rows.

use crate::quantity::{Dimension, TextFault, UnitSystem, format_si, parse};
use serde_json::Value;
use std::borrow::Cow;

/// One key of an object.
#[derive(Debug)]
pub struct Field {
    /// The key in the document.
    pub key: &'static str,
    /// What the form calls it.
    pub label: &'static str,
    /// One sentence: what it is and how it is measured.
    pub doc: &'static str,
    /// What it may hold.
    pub kind: Kind,
    /// The text assumed when it is absent; `None` means unknown.
    pub default: Option<&'static str>,
    /// The neighbour whose word chooses the default, and the text for each of its words: it goes before [`Self::default`].
    pub default_by: Option<DefaultBy>,
    /// A document without it is refused.
    pub required: bool,
    /// The neighbour of the same object, and its words, with which this field has a meaning; always when absent.
    pub when: Option<(&'static str, &'static [&'static str])>,
    /// The neighbour without which the default stands for nothing.
    pub beside: Option<&'static str>,
}

/// A neighbour's key, and the default for each of its words.
pub type DefaultBy = (&'static str, &'static [(&'static str, &'static str)]);

/// What a value may be.
#[derive(Debug)]
pub enum Kind {
    /// A text with its unit, between two texts with theirs (both inclusive).
    Quantity {
        /// What it measures.
        dimension: Dimension,
        /// Least, as written in messages.
        min: &'static str,
        /// Most, as written in messages.
        max: &'static str,
    },
    /// A plain JSON number (both bounds inclusive).
    Number {
        /// Least.
        min: f64,
        /// Most.
        max: f64,
    },
    /// A whole JSON number (both bounds inclusive).
    Integer {
        /// Least.
        min: i64,
        /// Most.
        max: i64,
    },
    /// True or false.
    Flag,
    /// Free text of at most so many characters.
    Text(usize),
    /// One of a closed list.
    Choice(&'static [&'static str]),
    /// An object with its own table.
    Object(&'static Object),
    /// An array of one kind.
    List {
        /// What every item is.
        of: &'static Kind,
        /// Fewest items.
        min: usize,
        /// Most items.
        max: usize,
    },
    /// An array with one named kind for each place: a row of a table.
    Row(&'static [(&'static str, Kind)]),
    /// A JSON merge patch (RFC 7396) on `engine` and `target`.
    Patch,
}

/// The text of a quantity as `value` holds it: a text, or a plain number where `dimension` has a unit for it.
pub fn quantity_text(value: &Value, dimension: Dimension) -> Option<Cow<'_, str>> {
    match value {
        Value::String(text) => Some(text.into()),
        Value::Number(number) if dimension.bare().is_some() => Some(number.to_string().into()),
        _ => None,
    }
}

/// A table of fields.
#[derive(Debug)]
pub struct Object {
    /// Its name in the schema.
    pub name: &'static str,
    /// One sentence.
    pub doc: &'static str,
    /// Its fields, in the builder's order.
    pub fields: &'static [Field],
    /// Whether `intake` and `exhaust` objects may override it field by field.
    pub sided: bool,
}

impl Object {
    /// The row of `key`.
    pub fn field(&self, key: &str) -> Option<&'static Field> {
        self.fields.iter().find(|f| f.key == key)
    }
}

impl Kind {
    /// The words a refusal uses for what is needed.
    pub fn needs(&self) -> String {
        match self {
            Self::Quantity { dimension, min, max } => {
                format!("{} with its unit, {min} to {max}", dimension.noun())
            }
            Self::Number { min, max } => format!("a number, {min} to {max}"),
            Self::Integer { min, max } => format!("a whole number, {min} to {max}"),
            Self::Flag => "true or false".to_owned(),
            Self::Text(most) => format!("a text of 1 to {most} characters"),
            Self::Choice(words) => format!("one of {}", words.join(", ")),
            Self::Object(object) => format!("an object: {}", object.doc),
            Self::List { of, min, max } => {
                format!("a list of {min} to {max} items, each {}", of.needs())
            }
            Self::Row(kinds) => {
                let parts: Vec<_> = kinds.iter().map(|(_, kind)| kind.needs()).collect();
                format!("a list of {}: {}", kinds.len(), parts.join("; then "))
            }
            Self::Patch => "an object with engine and target fields to change".to_owned(),
        }
    }

    /// The same as a person reads it: ranges in the units of `system`, words without their underscores.
    pub fn needs_in(&self, system: UnitSystem) -> String {
        match self {
            Self::Quantity { dimension, min, max } => {
                let own = self.bare_unit();
                let kept = super::edit::bare_unit(self, *dimension, system) == own;
                let (low, high) = match self.si_range() {
                    Ok((low, high)) if !kept => {
                        (format_si(low, *dimension, system), format_si(high, *dimension, system))
                    }
                    _ => ((*min).to_owned(), (*max).to_owned()),
                };
                format!("{}, {low} to {high}", dimension.noun())
            }
            Self::Choice(words) => format!("one of {}", words.join(", ").replace('_', " ")),
            _ => self.needs(),
        }
    }

    /// Headings and kinds of the columns of a list of rows; `None` of anything else.
    pub const fn columns(&self) -> Option<&'static [(&'static str, Self)]> {
        match self {
            Self::List { of: Self::Row(columns), .. } => Some(columns),
            _ => None,
        }
    }

    /// The dimension of a quantity.
    pub const fn dimension(&self) -> Option<Dimension> {
        match self {
            Self::Quantity { dimension, .. } => Some(*dimension),
            _ => None,
        }
    }

    /// The unit a bare number is taken in: that of the row's own lower bound.
    pub fn bare_unit(&self) -> &'static str {
        match self {
            Self::Quantity { dimension, min, .. } => min
                .rsplit(' ')
                .next()
                .and_then(|symbol| dimension.find(symbol))
                .map_or(dimension.units()[0].symbol, |unit| unit.symbol),
            _ => "",
        }
    }

    /// The bounds of a quantity in SI.
    pub fn si_range(&self) -> Result<(f64, f64), TextFault> {
        match self {
            Self::Quantity { dimension, min, max } => Ok((parse(min, *dimension)?, parse(max, *dimension)?)),
            Self::Number { min, max } => Ok((*min, *max)),
            Self::Integer { min, max } => Ok((*min as f64, *max as f64)),
            _ => Err(TextFault::NoNumber),
        }
    }
}

/// A quantity row.
pub(super) const fn quantity(
    key: &'static str,
    label: &'static str,
    dimension: Dimension,
    range: (&'static str, &'static str),
    doc: &'static str,
) -> Field {
    let (min, max) = range;
    plain(key, label, Kind::Quantity { dimension, min, max }, doc)
}

/// A table of fields that `intake` and `exhaust` objects may override.
pub(super) const fn sided(name: &'static str, doc: &'static str, fields: &'static [Field]) -> Object {
    Object { name, doc, fields, sided: true }
}

/// A row of any kind that is optional and has no default.
pub(super) const fn plain(key: &'static str, label: &'static str, kind: Kind, doc: &'static str) -> Field {
    Field { key, label, doc, kind, default: None, default_by: None, required: false, when: None, beside: None }
}

impl Field {
    /// The same row with the text assumed when it is absent.
    pub(super) const fn or(mut self, default: &'static str) -> Self {
        self.default = Some(default);
        self
    }

    /// The same row with the text assumed for each word of the neighbour `key`.
    pub(super) const fn or_by(mut self, key: &'static str, texts: &'static [(&'static str, &'static str)]) -> Self {
        self.default_by = Some((key, texts));
        self
    }

    /// The text assumed when it is absent, where `word_of` gives the word of a neighbour.
    pub(super) fn default_beside(&self, word_of: impl Fn(&str) -> Option<String>) -> Option<&'static str> {
        let chosen = self.default_by.and_then(|(neighbour, texts)| {
            let word = word_of(neighbour)?;
            texts.iter().find(|(of, _)| *of == word).map(|(_, text)| *text)
        });
        chosen.or(self.default)
    }

    /// The same row, whose default counts only where the neighbour `key` is given.
    pub(super) const fn beside(mut self, key: &'static str) -> Self {
        self.beside = Some(key);
        self
    }

    /// The same row, required.
    pub(super) const fn required(mut self) -> Self {
        self.required = true;
        self
    }

    /// The same row, with a meaning only while the neighbour `key` holds one of `words`.
    pub(super) const fn when(mut self, key: &'static str, words: &'static [&'static str]) -> Self {
        self.when = Some((key, words));
        self
    }
}
