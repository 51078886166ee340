//! What buys limiting speed, in words: variants of the document that are worth turning, and what came of each.

use crate::build::Build;
use crate::candidate::dynamics::{Bought, Moved, Variant};
use crate::candidate::{Resolved, Stages};
use crate::choose::{Advisor, parts_that_fit};
use crate::document::{Ledger, Side};
use crate::given::{Given, Place, Source};
use crate::limits::{Findings, limits};
use crate::parts::{Part, PartKind};
use crate::quantity::{Dimension, Shown, parse, restate, shown, shown_stress};
use crate::report::{MovedReport, Named, SpeedBought, Topic};
use serde_json::Value;

/// Checking height above which a duration tells how firm a flank is, m, and what is taken off it, crank degrees: the most
/// that a smooth lobe of this lift still allows.
const FIRM_ABOVE: f64 = 0.100 * 0.0254;
const GENTLER: [f64; 3] = [4.0, 2.0, 1.0];

/// Kinds of part that are tried, with what they are about.
const TRIED: [(PartKind, Topic, &str); 4] = [
    (
        PartKind::Spring,
        Topic::Spring,
        "another package: its height, its bind and its pocket are checked, its life is not",
    ),
    (PartKind::Retainer, Topic::Retainer, "its locks go with it"),
    (PartKind::Rocker, Topic::Tip, "geometry to be set again"),
    (PartKind::Lifter, Topic::Lifter, "preload or lash to be set again"),
];

/// What may be put in the place of what is fitted, of one candidate.
pub struct Variants<'a> {
    /// The document.
    pub build: &'a Build,
    /// Place of the candidate in it.
    pub index: usize,
    /// The candidate.
    pub resolved: &'a Resolved,
    /// Parts at hand.
    pub shelf: &'a [Part],
    /// Cached stages.
    pub stages: &'a Stages,
}

impl Variants<'_> {
    /// The same lobe with less of it high up at the same card below.
    pub fn gentler(&self, side: Side) -> Option<Variant> {
        GENTLER.into_iter().find_map(|by| self.gentler_by(side, by))
    }

    fn gentler_by(&self, side: Side, by: f64) -> Option<Variant> {
        let mut value = self.build.value().clone();
        let lobe = value.get_mut("candidates")?.get_mut(self.index)?.get_mut("cam")?.get_mut(side.key())?;
        let whole = soften(lobe, by);
        let halves = ["opening", "closing"].map(|half| lobe.get_mut(half).is_some_and(|half| soften(half, 0.5 * by)));
        if !whole && !halves.contains(&true) {
            return None;
        }
        let resolved = self.read(&Build::from_value(value).ok()?)?;
        resolved.side(side).lobe().is_ok().then_some(())?;
        Some(Variant {
            topic: Topic::Flank,
            what: format!("a gentler flank: {by:.0} deg less high up, the same card below"),
            resolved,
            costs: "area under the lift curve",
            price: None,
        })
    }

    /// Every part of the shelf that fits without breaking a limit.
    pub fn shelved(&self) -> Vec<Variant> {
        if self.shelf.is_empty() {
            return Vec::new();
        }
        let ledger = Ledger::default();
        let views = self.build.candidates();
        let Some(view) = views.get(self.index) else { return Vec::new() };
        let findings = Findings::default();
        let judgement = limits(self.resolved, &findings, self.stages);
        let advisor = Advisor {
            build: self.build,
            index: self.index,
            resolved: self.resolved,
            source: &Source::new(view, &ledger),
            judgement: &judgement,
            findings: &findings,
            shelf: self.shelf,
            stages: self.stages,
        };
        let mut all = Vec::new();
        for (kind, topic, costs) in TRIED {
            for (part, build) in parts_that_fit(&advisor, kind) {
                let Some(resolved) = self.read(&build) else { continue };
                let what = format!("{} {}", kind.word(), part.name);
                all.push(Variant { topic, what, resolved, costs, price: part.price.clone() });
            }
        }
        all
    }

    fn read(&self, build: &Build) -> Option<Resolved> {
        let (views, ledger) = (build.candidates(), Ledger::default());
        Some(Resolved::new(Given::read(&Source::new(views.get(self.index)?, &ledger)), self.stages))
    }
}

/// Takes `by` degrees off every duration above [`FIRM_ABOVE`]; whether there was one.
fn soften(lobe: &mut Value, by: f64) -> bool {
    let Some(checks) = lobe.get_mut("checks").and_then(Value::as_array_mut) else { return false };
    let mut found = false;
    for check in checks {
        let text = |i: usize| check.get(i).and_then(Value::as_str);
        let height = text(0).and_then(|text| parse(text, Dimension::Length).ok());
        let Some(angle) = text(1).filter(|_| height.is_some_and(|height| height > FIRM_ABOVE)) else { continue };
        let softer = parse(angle, Dimension::Angle).ok().map(|now| now - by.to_radians());
        let Some(softer) = softer.and_then(|softer| restate(angle, Dimension::Angle, softer)) else { continue };
        if let Some(slot) = check.get_mut(1) {
            *slot = Value::from(softer);
            found = true;
        }
    }
    found
}

/// A change that was turned, in words.
pub fn in_words(bought: Bought, name: &dyn Fn(Place) -> Named) -> SpeedBought {
    let dimension = |place: Place| match place.key {
        "mass" | "tip_side_mass" => Some(Dimension::Mass),
        "ratio" => None,
        _ => Some(Dimension::Length),
    };
    let value = |of: fn(&(Place, f64, f64)) -> f64| {
        let field = bought.field.as_ref()?;
        Some(match dimension(field.0) {
            Some(dimension) => shown(of(field), dimension),
            None => plain(format!("{:.2}", of(field))),
        })
    };
    SpeedBought {
        topic: bought.topic,
        field: bought.field.as_ref().map(|(place, _, _)| name(*place)),
        from: value(|field| field.1),
        to: value(|field| field.2),
        change: bought.what,
        gain_rpm: bought.gain.round(),
        gain_band_rpm: bought.band.map(f64::round),
        costs: bought.costs.to_owned(),
        moves: bought.moves.iter().map(moved).collect(),
        price: bought
            .price
            .as_deref()
            .and_then(|price| parse(price, Dimension::Money).ok())
            .map(|price| shown(price, Dimension::Money)),
        why: bought.why,
    }
}

/// The same words in both systems of units.
fn plain(text: String) -> Shown {
    Shown { inch: text.clone(), metric: text }
}

fn moved(moved: &Moved) -> MovedReport {
    let read = |value: f64| match moved.dimension {
        Some(Dimension::Pressure) => shown_stress(value),
        Some(dimension) => shown(value, dimension),
        None => plain(format!("{:.0} %", 100.0 * value)),
    };
    MovedReport { what: moved.what.to_owned(), from: read(moved.from), to: read(moved.to) }
}
