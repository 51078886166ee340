//! What a candidate does differently from another, in words: "intake closes 4 deg later", "+.012 in
//! intake lift", "+38 lbf intake open load".

use super::readings::event_handles;
use crate::build::Build;
use crate::document::{Difference, differences, in_a_sentence};
use crate::quantity::{Angle, Dimension, Force, Length, Shown, UnitSystem, format_si, shown};
use crate::report::{CandidateReport, LimitReport};
use serde::Serialize;
use serde_json::{Value, json};

/// How one candidate differs from another.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Comparison {
    /// Sentences, what matters to the engine first.
    pub words: Vec<Shown>,
    /// Fields that differ, candidate against candidate.
    pub fields: Vec<Difference>,
}

/// What `other` does that `reference` does not.
pub fn compare(build: &Build, reference: &CandidateReport, other: &CandidateReport) -> Comparison {
    Comparison { words: words(reference, other), fields: fields(build, &reference.id, &other.id) }
}

/// Fields of the candidates themselves; identifier and name differ by nature.
fn fields(build: &Build, reference: &str, other: &str) -> Vec<Difference> {
    let list = build.value().get("candidates").and_then(Value::as_array);
    let find = |id: &str| list.into_iter().flatten().find(|c| c.get("id").and_then(|v| v.as_str()) == Some(id));
    let (Some(one), Some(two)) = (find(reference), find(other)) else { return Vec::new() };
    let wrapped = |candidate: &Value| {
        let mut own = candidate.clone();
        own["id"] = "x".into();
        own["name"] = two["name"].clone();
        json!({ "candidates": [own] })
    };
    let mut found = differences(&wrapped(one), &wrapped(two));
    for difference in &mut found {
        if let Some((_, label)) = difference.label.split_once(": ") {
            difference.label = label.to_owned();
        }
        difference.field = difference.field.replace("candidates[x].", "");
    }
    found
}

fn words(reference: &CandidateReport, other: &CandidateReport) -> Vec<Shown> {
    let mut words = Vec::new();
    events(reference, other, &mut words);
    for (label, one, two) in lifts(reference, other) {
        amount(&mut words, label, "lift", Length::mm(two - one).si(), Dimension::Length, 1e-6);
    }
    for (label, one, two) in loads(reference, other) {
        amount(&mut words, label, "load", Force::from_si(two - one).si(), Dimension::Force, 2.0);
    }
    for limit in &other.limits {
        let before = reference.limits.iter().find(|l| l.id == limit.id && l.side == limit.side);
        verdict(&mut words, before, limit);
    }
    words
}

fn events(reference: &CandidateReport, other: &CandidateReport, words: &mut Vec<Shown>) {
    for (one, two) in event_handles(reference).iter().zip(&event_handles(other)) {
        let later = two.crank_deg - one.crank_deg;
        if later.abs() >= 0.05 {
            let how = if later > 0.0 { "later" } else { "earlier" };
            both(words, |system| {
                let by = format_si(Angle::deg(later.abs()).si(), Dimension::Angle, system);
                format!("{} {by} {how}", in_a_sentence(&two.label))
            });
        }
    }
    let (Some(one), Some(two)) = (reference.timing.done(), other.timing.done()) else { return };
    let more = two.overlap_050_deg - one.overlap_050_deg;
    if more.abs() >= 0.05 {
        let how = if more > 0.0 { "more" } else { "less" };
        both(words, |system| {
            let by = format_si(Angle::deg(more.abs()).si(), Dimension::Angle, system);
            format!("{by} {how} overlap at .050")
        });
    }
    if let (Some(one), Some(two)) = (one.trapped_compression_ratio, two.trapped_compression_ratio)
        && (one - two).abs() >= 0.005
    {
        both(words, |_| format!("dynamic compression {two:.2} instead of {one:.2}"));
    }
}

fn lifts(reference: &CandidateReport, other: &CandidateReport) -> Vec<(&'static str, f64, f64)> {
    let (Some(one), Some(two)) = (reference.lift.done(), other.lift.done()) else { return Vec::new() };
    vec![("intake", one.intake.net_mm, two.intake.net_mm), ("exhaust", one.exhaust.net_mm, two.exhaust.net_mm)]
}

fn loads(reference: &CandidateReport, other: &CandidateReport) -> Vec<(&'static str, f64, f64)> {
    let (Some(one), Some(two)) = (reference.spring.done(), other.spring.done()) else { return Vec::new() };
    vec![
        ("intake seat", one.intake.seat_load_n, two.intake.seat_load_n),
        ("intake open", one.intake.open_load_n, two.intake.open_load_n),
        ("exhaust seat", one.exhaust.seat_load_n, two.exhaust.seat_load_n),
        ("exhaust open", one.exhaust.open_load_n, two.exhaust.open_load_n),
    ]
}

/// "`.012 in` more intake lift"; changes below `least` (SI) are not worth a sentence.
fn amount(words: &mut Vec<Shown>, label: &str, noun: &str, change: f64, dimension: Dimension, least: f64) {
    if change.abs() >= least {
        let how = if change > 0.0 { "more" } else { "less" };
        let by = shown(change.abs(), dimension);
        words.push(Shown {
            inch: format!("{} {how} {label} {noun}", by.inch),
            metric: format!("{} {how} {label} {noun}", by.metric),
        });
    }
}

fn verdict(words: &mut Vec<Shown>, before: Option<&LimitReport>, now: &LimitReport) {
    let Some(before) = before.filter(|b| b.verdict != now.verdict) else { return };
    both(words, |_| {
        format!("{} {} instead of {}", in_a_sentence(&now.title), now.verdict.word(), before.verdict.word())
    });
}

fn both(words: &mut Vec<Shown>, text: impl Fn(UnitSystem) -> String) {
    words.push(Shown { inch: text(UnitSystem::Inch), metric: text(UnitSystem::Metric) });
}
