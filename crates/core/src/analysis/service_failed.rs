//! What broke, and what the limit it speaks about had: a shop's own figure comes from there, with its reason.

use super::service_build::Servicing;
use super::service_log::Entry;
use super::service_words::use_shown;
use crate::limits::{Findings, Judged, Judgement, limits};
use crate::quantity::{Shown, UnitSystem, format_finer};
use crate::report::FailureReport;
use crate::words::ServiceEvent;

/// Most characters of a limit's reason.
const MOST: usize = 400;

/// What broke, in the order of the days.
pub(super) fn failures(own: &Servicing<'_>) -> Vec<FailureReport> {
    let broke: Vec<&Entry> = own.log.entries.iter().filter(|entry| entry.event == ServiceEvent::Failure).collect();
    if broke.is_empty() {
        return Vec::new();
    }
    let judgement = own.resolved.as_ref().map(|resolved| limits(resolved, &Findings::default(), own.stages));
    broke.into_iter().map(|entry| failure(own, entry, judgement.as_ref())).collect()
}

fn failure(own: &Servicing<'_>, entry: &Entry, judgement: Option<&Judgement>) -> FailureReport {
    let finding = if entry.finding.is_empty() { "no finding written yet" } else { &entry.finding };
    let at = entry.used.map(|used| use_shown(used.amount, used.of));
    let at =
        at.unwrap_or_else(|| Shown::plain("")).said(|at| if at.is_empty() { String::new() } else { format!(", {at}") });
    let judged = judgement.zip(entry.limit.as_deref()).and_then(|(all, id)| worst(all, id));
    let reason = format!("{}{}: {finding}", entry.date, at.inch);
    let reason: String = reason.chars().take(MOST).collect();
    let (at_least, at_most) = judged.map_or((None, None), figure);
    let held = own.resolved.as_ref().map_or(&[][..], |own| &own.given.own_limits);
    FailureReport {
        id: entry.id.clone(),
        says: at.said(|at| format!("{}{at}: {finding}", entry.date)),
        title: judged.map_or_else(String::new, |own| own.rule.title.to_owned()),
        stands: judged.map_or_else(|| Shown::plain(""), stands),
        is_held: held.iter().any(|own| *own.reason == *reason),
        limit: entry.limit.clone(),
        at_least,
        at_most,
        reason,
    }
}

/// The side of a limit with the least left.
fn worst<'a>(all: &'a Judgement, id: &str) -> Option<&'a Judged> {
    let margin = |own: &Judged| own.found.as_ref().map_or(f64::INFINITY, crate::limits::Finding::margin);
    all.figures.iter().filter(|own| own.rule.id == id).min_by(|a, b| margin(a).total_cmp(&margin(b)))
}

fn stands(judged: &Judged) -> Shown {
    let Ok(found) = &judged.found else { return Shown::plain("what it has is not known") };
    let have = judged.rule.measure.shown(found.have);
    let need =
        [found.min, found.max].into_iter().flatten().map(|own| judged.rule.measure.shown(own)).collect::<Vec<_>>();
    let words = |have: &str, of: fn(&Shown) -> &String| {
        let need: Vec<&str> = need.iter().map(|own| of(own).as_str()).collect();
        format!("it had {have} where {} is needed", need.join(" to "))
    };
    Shown { inch: words(&have.inch, |own| &own.inch), metric: words(&have.metric, |own| &own.metric) }
}

/// A bound that what broke would have missed: what it had, and what counts as tight beside it.
fn figure(judged: &Judged) -> (Option<String>, Option<String>) {
    let Ok(found) = &judged.found else { return (None, None) };
    let measure = judged.rule.measure;
    let text = |si: f64| match measure.dimension() {
        Some(dimension) => format_finer(si, dimension, UnitSystem::Inch),
        None => format!("{:.2}", measure.to_report(si)),
    };
    match (found.min, found.max) {
        (Some(min), _) => (Some(text(min.max(found.have) + found.tight)), None),
        (None, Some(max)) => (None, Some(text(max.min(found.have) - found.tight))),
        (None, None) => (None, None),
    }
}
