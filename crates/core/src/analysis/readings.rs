//! The figures a builder watches, as read: what moved after an edit is found by comparing them.

use crate::document::in_a_sentence;
use crate::edit::Event;
use crate::quantity::{Dimension, Length, Shown, shown};
use crate::report::CandidateReport;
use serde::Serialize;

/// Cubic centimetres in a cubic inch.
const CUBIC_INCH: f64 = 16.387_064;

/// One figure with its name.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Reading {
    /// Stable identifier.
    pub id: String,
    /// In words.
    pub label: String,
    /// As read in both systems.
    pub shown: Shown,
}

/// An event's handle on the strip.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct EventHandle {
    /// Which event.
    pub event: Event,
    /// Two letters.
    pub short: String,
    /// In words.
    pub label: String,
    /// What it is quoted from, in words.
    pub reference: String,
    /// As quoted, crank degrees.
    pub quoted_deg: f64,
    /// Where on the strip.
    pub crank_deg: f64,
}

/// The handles of the four events at .050.
pub fn event_handles(candidate: &CandidateReport) -> Vec<EventHandle> {
    let Some(timing) = candidate.timing.done() else { return Vec::new() };
    let of = |event: Event| match event {
        Event::IntakeOpens => ("IO", "Intake opens", "before TDC", timing.intake.opens_050_deg),
        Event::IntakeCloses => ("IC", "Intake closes", "after BDC", timing.intake.closes_050_deg),
        Event::ExhaustOpens => ("EO", "Exhaust opens", "before BDC", timing.exhaust.opens_050_deg),
        Event::ExhaustCloses => ("EC", "Exhaust closes", "after TDC", timing.exhaust.closes_050_deg),
    };
    let handle = |event: Event| {
        let (short, label, reference, quoted_deg) = of(event);
        EventHandle {
            event,
            short: short.to_owned(),
            label: label.to_owned(),
            reference: reference.to_owned(),
            quoted_deg,
            crank_deg: event.crank_deg(quoted_deg),
        }
    };
    Event::ALL.into_iter().map(handle).collect()
}

/// The figures of a candidate that an edit may move.
pub fn readings(candidate: &CandidateReport) -> Vec<Reading> {
    let mut list = List(Vec::new());
    if let Some(engine) = candidate.engine.done() {
        list.both(
            "displacement",
            "displacement",
            Shown {
                inch: format!("{:.1} cu in", engine.displacement_cc / CUBIC_INCH),
                metric: format!("{:.0} cc", engine.displacement_cc),
            },
        );
        list.quantity("quench", "piston to head at rest", Length::mm(engine.quench_mm).si(), Dimension::Length);
        if let Some(ratio) = engine.compression_ratio {
            list.plain("compression", "compression", &format!("{ratio:.2}"));
        }
    }
    timing(candidate, &mut list);
    for (id, label, lift) in candidate
        .lift
        .done()
        .into_iter()
        .flat_map(|l| [("intake_lift", "intake lift", &l.intake), ("exhaust_lift", "exhaust lift", &l.exhaust)])
    {
        list.quantity(id, label, Length::mm(lift.net_mm).si(), Dimension::Length);
    }
    for limit in &candidate.limits {
        if let Some(shown) = &limit.shown {
            let side = limit.side.map_or("", |side| side.key());
            list.0.push(Reading {
                id: format!("{}_{side}", limit.id),
                label: in_a_sentence(&limit.title),
                shown: shown.have.clone(),
            });
        }
    }
    list.0
}

fn timing(candidate: &CandidateReport, list: &mut List) {
    let Some(timing) = candidate.timing.done() else { return };
    for handle in event_handles(candidate) {
        let id = format!("event_{}", handle.short);
        list.plain(&id, &in_a_sentence(&handle.label), &format!("{:.1}", rounded(handle.quoted_deg)));
    }
    for (id, label, deg) in [
        ("intake_duration", "intake duration", timing.intake.duration_050_deg),
        ("exhaust_duration", "exhaust duration", timing.exhaust.duration_050_deg),
        ("lobe_separation", "separation", timing.lobe_separation_deg),
        ("intake_centreline", "intake centreline", timing.intake.centreline_deg),
        ("exhaust_centreline", "exhaust centreline", timing.exhaust.centreline_deg),
        ("advance", "advance", timing.advance_deg),
        ("overlap_050", "overlap", timing.overlap_050_deg),
        ("overlap_006", "seat overlap", timing.overlap_006_deg),
    ] {
        list.plain(id, label, &format!("{:.1}", rounded(deg)));
    }
    // With a limit on it, the limit's own reading says the same.
    let limited = candidate.limits.iter().any(|limit| limit.id == "trapped_compression" && limit.have.is_some());
    if let (Some(ratio), false) = (timing.trapped_compression_ratio, limited) {
        list.plain("trapped", "dynamic compression", &format!("{ratio:.2}"));
    }
}

/// A tenth of a degree, without a negative zero.
fn rounded(deg: f64) -> f64 {
    (deg * 10.0).round() / 10.0 + 0.0
}

struct List(Vec<Reading>);

impl List {
    fn plain(&mut self, id: &str, label: &str, text: &str) {
        self.both(id, label, Shown::plain(text));
    }

    fn both(&mut self, id: &str, label: &str, shown: Shown) {
        self.0.push(Reading { id: id.to_owned(), label: label.to_owned(), shown });
    }

    fn quantity(&mut self, id: &str, label: &str, si: f64, dimension: Dimension) {
        self.0.push(Reading { id: id.to_owned(), label: label.to_owned(), shown: shown(si, dimension) });
    }
}
