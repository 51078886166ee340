//! A change of a candidate as the document would write it, and as numbers.

use crate::candidate::Resolved;
use crate::document::{Side, kind_of};
use crate::given::{Of, Place, Source};
use crate::limits::How;
use crate::quantity::{Length, Mass, parse, restate};
use crate::report::RemedyChange;

/// One field changed; plain fields of the train change both sides that have no override.
#[derive(Debug, Clone, PartialEq)]
pub struct FieldChange {
    /// As the document writes it.
    pub written: RemedyChange,
    /// The places it stands for.
    pub places: Vec<Place>,
    /// The new number, SI for quantities.
    pub number: f64,
}

/// Fields that change together.
#[derive(Debug, Clone, PartialEq)]
pub struct Change {
    /// The fields; the first is what was asked for, the others are what goes with it.
    pub fields: Vec<FieldChange>,
    /// What it takes.
    pub how: How,
}

impl Change {
    /// Every place it touches.
    pub fn places(&self) -> impl Iterator<Item = Place> {
        self.fields.iter().flat_map(|field| field.places.iter().copied())
    }

    /// The numbers it sets.
    pub fn numbers(&self) -> impl Iterator<Item = (Place, f64)> {
        self.fields.iter().flat_map(|field| field.places.iter().map(move |place| (*place, field.number)))
    }
}

/// `place` changed by `by`, with what goes with it; `None` where it is not given, or no part or machining allows it.
pub fn change(resolved: &Resolved, source: &Source<'_>, place: Place, by: f64, how: How) -> Option<Change> {
    let now = resolved.given.number(place)?;
    let mut fields = vec![field(resolved, source, place, now + by)?];
    if place.of == Of::Rocker && place.key == "ratio" {
        fields.extend(arms(resolved, source, &fields[0], now));
    }
    Some(Change { fields, how })
}

/// The cup arms that go with a new ratio, where the rocker's geometry is given: arm and ratio are one thing.
fn arms(resolved: &Resolved, source: &Source<'_>, ratio: &FieldChange, before: f64) -> Vec<FieldChange> {
    let mut found: Vec<FieldChange> = Vec::new();
    for place in &ratio.places {
        let arm = Place::new(Of::Rocker, "pivot_to_cup", place.side);
        let Some(now) = resolved.given.number(arm) else { continue };
        let shorter = now * before / ratio.number;
        if let Some(arm) = field(resolved, source, arm, shorter)
            && !found.iter().any(|other| other.written.field == arm.written.field)
        {
            found.push(arm);
        }
    }
    found
}

fn field(resolved: &Resolved, source: &Source<'_>, place: Place, number: f64) -> Option<FieldChange> {
    let node = source.node(place.of, place.side);
    let input = node.input(place.key);
    let kind = kind_of(&input.field)?;
    let to = match kind.dimension() {
        Some(dimension) => restate(&input.value, dimension, number)?,
        None => plain(number),
    };
    // What is written is what is tried.
    let number = match kind.dimension() {
        Some(dimension) => parse(&to, dimension).ok()?,
        None => to.parse().ok()?,
    };
    let (low, high) = kind.si_range().ok()?;
    if !(low..=high).contains(&number) || !is_made(resolved, place, number) {
        return None;
    }
    let places = Side::BOTH.map(|side| Place::new(place.of, place.key, side));
    let mut places: Vec<Place> = places.into_iter().filter(|place| source.path(*place) == input.field).collect();
    places.dedup();
    let written = RemedyChange { label: input.label, field: input.field, from: input.value, to };
    Some(FieldChange { written, places, number })
}

/// A plain number with two decimals at most.
fn plain(number: f64) -> String {
    let text = format!("{number:.2}");
    text.strip_suffix(".00").map_or_else(|| text.clone(), str::to_owned)
}

/// Whether parts come so, or machining leaves enough (common practice, no source; from memory).
fn is_made(resolved: &Resolved, place: Place, number: f64) -> bool {
    /// Deepest pocket common crowns stand, in, and thinnest tube wall that is left of a pushrod's radius.
    const DEEPEST_POCKET: f64 = 0.300;
    /// Lightest retainer, kg, and share of the present one that titanium leaves.
    const LIGHTEST_RETAINER: f64 = 0.012;
    const TITANIUM_RETAINER: f64 = 0.6;
    /// Share of an exhaust valve's mass that a hollow stem leaves; titanium does not bear the heat of every exhaust.
    const HOLLOW_EXHAUST: f64 = 0.8;
    /// Thickest gasket that common sets have, in.
    const THICKEST_GASKET: f64 = 0.080;
    /// Ratios that rockers come in.
    const RATIOS: std::ops::RangeInclusive<f64> = 1.3..=2.0;
    let train = resolved.train(place.side);
    match (place.of, place.key) {
        (Of::Valve, "mass") => {
            let head = resolved.port(place.side).valve_diameter.map_or(1.5, Length::as_inches);
            let now = train.valve.mass.map_or(0.0, Mass::si);
            let kept = if place.side == Side::Exhaust { HOLLOW_EXHAUST * now } else { 0.0 };
            number >= kept.max(1e-3 * titanium_valve(head))
        }
        (Of::Retainer, "mass") => {
            let now = train.retainer.mass.map_or(0.0, Mass::si);
            number >= LIGHTEST_RETAINER.max(TITANIUM_RETAINER * now)
        }
        (Of::Engine, "gasket_thickness") => number <= THICKEST_GASKET * 0.0254,
        (Of::Pocket, "depth") => number <= DEEPEST_POCKET * 0.0254,
        (Of::Rocker, "ratio") => RATIOS.contains(&number),
        (Of::Pushrod, "wall") => train.pushrod.outside_diameter.is_none_or(|outside| number < 0.45 * outside.si()),
        (Of::Pushrod, "outside_diameter") => train.pushrod.wall.is_none_or(|wall| wall.si() < 0.45 * number),
        _ => true,
    }
}

/// Mass of a titanium valve with a head of so many inches, g: the lightest there is (from memory: 78 g at 2.08 in, 66 g at
/// 1.60 in).
pub fn titanium_valve(head: f64) -> f64 {
    26.0 + 25.0 * head
}
