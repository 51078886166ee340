//! What a build teaches the shop: what the fit to its own pulls left behind, and what family it belongs to.

use crate::begin::Family;
use crate::build::Build;
use crate::document::Ledger;
use crate::given::{Given, Source};
use crate::quantity::Speed;
use crate::shop_twin::Learned;
use crate::words::{Combustion, FamilyKind, Word};
use serde_json::Value;

/// A build that was on the dyno.
#[derive(Debug, Clone, PartialEq)]
pub struct Taught {
    /// Name of the build.
    pub name: String,
    /// What it is one of.
    pub family: String,
    /// What its fit left behind.
    pub learned: Learned,
    /// Speeds of its pulls, rpm.
    pub speeds: (f64, f64),
}

/// What a build is one of: the family it was begun from, else its cylinders and what it burns.
pub fn family_of(build: &Build) -> String {
    let begun = build.value().get("begun_from").and_then(Value::as_str).and_then(FamilyKind::from_word);
    if let Some(kind) = begun {
        return Family::of(kind).title.to_owned();
    }
    let engine = given_of(build).map(|given| given.engine);
    let diesel = engine.as_ref().is_some_and(|own| own.combustion == Some(Combustion::Diesel));
    let fuel = if diesel { "Diesel" } else { "Petrol" };
    match engine.and_then(|own| own.cylinders) {
        Some(cylinders) => format!("{fuel}, {cylinders:.0} cylinders, begun from a blank page"),
        None => format!("{fuel}, begun from a blank page"),
    }
}

/// What a build teaches; `None` of one that was never fitted to pulls of its own. Constants it took from the shop teach nothing.
pub fn taught_by(build: &Build) -> Option<Taught> {
    let numbers = build.value().pointer("/calibration/information")?.as_array()?;
    let numbers: Vec<f64> = numbers.iter().filter_map(Value::as_f64).collect();
    let learned = Learned::of_numbers(&numbers)?;
    let kept = given_of(build)?.calibration;
    Some(Taught {
        name: build.name().to_owned(),
        family: family_of(build),
        learned,
        speeds: (kept.from.map(Speed::as_rpm)?, kept.to.map(Speed::as_rpm)?),
    })
}

/// What the document gives of what all candidates share.
fn given_of(build: &Build) -> Option<Given> {
    let views = build.candidates();
    let ledger = Ledger::default();
    views.first().map(|view| Given::read(&Source::new(view, &ledger)))
}
