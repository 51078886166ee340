//! The fields of one candidate that may be off, each with its spread: as the document says, else as its source usually is.

use super::usual::{in_common, usual};
use crate::candidate::Resolved;
use crate::document::{Node, Origin, Side, Tolerated};
use crate::given::{Of, Place, Source};
use crate::tolerance::{Cast, Spread, Variable};
use crate::words::{Layout, SharedCause, SpreadShape, Word};

/// A field that may be off.
#[derive(Debug, Clone, PartialEq)]
pub struct Field {
    /// Where it is.
    pub place: Place,
    /// Its spread, who shares it, and what measuring would leave of it.
    pub variable: Variable,
    /// Who shares it.
    pub shared: SharedCause,
    /// Where its value is from.
    pub origin: Origin,
    /// Whether the document says the spread itself.
    pub is_own: bool,
    /// What measuring leaves, SI; `None` where nobody can measure it at a standstill.
    pub measured: Option<f64>,
}

/// An entry of the document.
struct Entry<'a> {
    field: &'a str,
    half: f64,
    shape: SpreadShape,
    shared: Option<SharedCause>,
}

impl<'a> Entry<'a> {
    fn read(node: &Node<'a>) -> Option<Self> {
        let field = node.word("field")?;
        Some(Self {
            field,
            half: Tolerated::of(field)?.figure(node.word("plus_minus")?)?,
            shape: SpreadShape::from_word(node.word("shape")?)?,
            shared: node.word("shared").and_then(SharedCause::from_word),
        })
    }
}

/// Every field of a candidate that may be off.
pub fn fields(resolved: &Resolved, source: &Source<'_>) -> Vec<Field> {
    let entries: Vec<Entry<'_>> =
        source.node(Of::Build, Side::Intake).children("tolerances").iter().filter_map(Entry::read).collect();
    let of = |(place, size): (Place, f64)| field(place, size, &entries, source);
    resolved.given.sizes().into_iter().filter_map(of).collect()
}

fn field(place: Place, size: f64, entries: &[Entry<'_>], source: &Source<'_>) -> Option<Field> {
    let (own, usual) = (entries.iter().find(|entry| source.is_at(place, entry.field)), usual(place));
    let origin = source.node(place.of, place.side).input(place.key).origin;
    let by_source = usual.map(|usual| usual.half(origin, size));
    let half = own.map(|own| own.half).or(by_source).filter(|half| *half > 0.0)?;
    let shared = own.and_then(|own| own.shared).or(usual.map(|usual| usual.shared)).unwrap_or(SharedCause::Cylinder);
    // What the document says is shared, is shared whole.
    let common = if own.is_some_and(|own| own.shared.is_some()) { 1.0 } else { in_common(place) };
    let (engine, bank) = match shared {
        SharedCause::Cylinder => (0.0, 0.0),
        SharedCause::Bank => (0.0, common),
        SharedCause::Engine => (common, 0.0),
    };
    let measured = usual.filter(|_| place.of != Of::Growth).map(|usual| usual.half(Origin::Measured, size));
    let known = measured.map_or(1.0, |measured| (measured / half).min(1.0));
    let shape = own.map_or(SpreadShape::Normal, |own| own.shape);
    let variable = Variable { spread: Spread { half, shape }, engine, bank, known };
    Some(Field { place, variable, shared, origin, is_own: own.is_some(), measured })
}

/// So many engines of a candidate's kind, drawn with this lot.
pub fn cast_of(resolved: &Resolved, engines: usize, seed: u64) -> Cast {
    let engine = &resolved.given.engine;
    let cylinders = engine.cylinders.map_or(8, |count| (count as usize).clamp(1, 16));
    let banks = if engine.layout == Some(Layout::V8) { 2 } else { 1 };
    Cast { cylinders, banks, engines, seed }
}
