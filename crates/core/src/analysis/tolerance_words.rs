//! Limits under tolerances in words.

use super::drawing::{Check, Drawing, Trust};
use crate::choose::{Agreement, Band, Responded, Run, angles};
use crate::document::{Origin, Tolerated, in_a_sentence, spoken_label};
use crate::given::{Place, Source};
use crate::limits::{Findings, limit_shown, titled};
use crate::quantity::{Dimension, Shown, shown, shown_small};
use crate::report::{
    Driver, GapBand, MeasureFirst, OverlapBands, ToleranceLimit, ToleranceRemedy, ToleranceReport, TolerancedField,
};
use crate::tolerance::{Outcome, hold};
use crate::words::Word;
use std::collections::HashSet;

/// Share of engines that may fail a limit (assumed: one in a hundred).
const WANTED: f64 = 0.01;
/// Drivers and measurements that are told.
const DRIVERS: usize = 6;
const MEASURED: usize = 8;
/// Drivers below this share are not.
const SMALL: f64 = 0.01;
/// What a measurement must be worth, of all engines, and of those that fail.
const WORTH: f64 = 0.000_5;
const WORTH_SHARE: f64 = 0.01;

/// Everything in words.
pub(super) fn worded(drawing: &Drawing<'_>, source: &Source<'_>) -> ToleranceReport {
    let drawn = &Drawn { drawing };
    let mut limits: Vec<ToleranceLimit> =
        (0..drawing.responses.limits.len()).map(|place| drawn.limit(place, source)).collect();
    // What an engine fails by first, then what fails as things are given, then advice.
    let rank = |own: &ToleranceLimit| u8::from(own.fails_as_given) + 2 * u8::from(own.is_advice);
    limits.sort_by(|a, b| rank(a).cmp(&rank(b)).then(b.fails_any_share.total_cmp(&a.fails_any_share)));
    let runs = |run: Run| {
        let own = drawing.checks.iter().flatten().filter(|own| own.run == run);
        own.map(|own| own.agreement.runs).min().unwrap_or(0)
    };
    let disagree = drawing.checks.iter().flatten().filter(|own| !own.in_full).map(|own| own.agreement.disagree);
    let any = drawn.any(drawing.simulated.any);
    ToleranceReport {
        samples: drawing.cast.engines,
        seed: drawing.cast.seed,
        cylinders: drawing.cast.cylinders,
        wanted_share: WANTED,
        any_fails_share: any,
        measure_first: drawn.measure_first(source),
        fields: drawn.fields(source),
        held: drawing.responses.held.iter().map(|(rule, side)| titled(rule.title, *side)).collect(),
        joins: joins(drawing.findings()),
        checked_runs: runs(Run::Metal),
        checked_gas_runs: runs(Run::GasAndTrains),
        checked_disagree: disagree.fold(0.0, f64::max),
        overlap: overlap(&drawing.overlap),
        says: says(any, &limits),
        limits,
    }
}

/// Which limits are not judged yet, and when they will be.
fn joins(findings: &Findings) -> Option<String> {
    let says = match (&findings.gas, &findings.control) {
        (Some(_), Some(_)) => return None,
        (None, Some(_)) => "Limits of the gas and of idle join once torque is computed.",
        (Some(_), None) => {
            "Limits of trains in motion join once control is computed; until then the hand check counts."
        }
        (None, None) => {
            "Limits of the gas and of idle join once torque is computed, those of trains in motion once control is; \
             until then the hand check counts."
        }
    };
    Some(says.to_owned())
}

/// What was drawn, to be worded.
struct Drawn<'a> {
    drawing: &'a Drawing<'a>,
}

/// Gaps over the overlap; nothing until cylinders were computed in full.
fn overlap([intake, exhaust]: &[Option<Band>; 2]) -> Option<OverlapBands> {
    let band = |own: &Band| {
        let mm = |gaps: &[f64]| gaps.iter().map(|gap| 1e3 * gap).collect();
        GapBand { low_mm: mm(&own.low), middle_mm: mm(&own.middle), high_mm: mm(&own.high) }
    };
    Some(OverlapBands { crank_deg: angles(), intake: band(intake.as_ref()?), exhaust: band(exhaust.as_ref()?) })
}

/// A share of engines in words.
fn of_engines(share: f64) -> String {
    match share {
        share if share <= 0.0 => "no engine of those drawn fails".to_owned(),
        share if share < 0.000_95 => "fewer than 1 in 1,000 engines fail".to_owned(),
        share if share < 0.009_5 => format!("{:.0} in 1,000 engines fail", share * 1e3),
        share if share < 0.995 => format!("{:.0} in 100 engines fail", share * 1e2),
        _ => "every engine fails".to_owned(),
    }
}

fn says(any: f64, limits: &[ToleranceLimit]) -> String {
    let failing: Vec<&str> =
        limits.iter().filter(|own| own.fails_as_given && !own.is_advice).map(|own| own.title.as_str()).collect();
    let worst = limits.iter().find(|own| !own.fails_as_given && !own.is_advice && own.fails_any_share > 0.0);
    let worst =
        worst.map_or(String::new(), |own| format!(" Most of them by {}: {}.", own.title.to_lowercase(), own.says));
    let given = match failing.as_slice() {
        [] => String::new(),
        some => format!(" Not counted, since it fails as things are given: {}.", some.join(", ")),
    };
    let all = of_engines(any);
    format!("Of all limits that are met, built with these tolerances: {all}.{worst}{given}")
}

/// What a field is called; of one that both sides share each side's own, since every valve is off by itself.
pub(super) fn called(place: Place, path: &str) -> String {
    let label = spoken_label(path);
    let is_shared = place.of.is_sided() && !path.split('.').any(|part| matches!(part, "intake" | "exhaust"));
    if is_shared { titled(&in_a_sentence(&label), Some(place.side)) } else { label }
}

/// A field's figure as people read it.
pub(super) fn figure_of(si: f64, tolerated: Tolerated) -> Shown {
    match tolerated {
        Tolerated::Quantity(dimension) => shown(si, dimension),
        Tolerated::Number => Shown::plain(format!("{si:.3}")),
    }
}

/// A plus-minus as people read it: small lengths to a tenth of a thousandth.
fn plus_minus(si: f64, tolerated: Tolerated) -> Shown {
    let Shown { inch, metric } = match tolerated {
        Tolerated::Quantity(Dimension::Length) => shown_small(si),
        other => figure_of(si, other),
    };
    Shown { inch: format!("± {inch}"), metric: format!("± {metric}") }
}

const fn origin_word(origin: Origin) -> &'static str {
    match origin {
        Origin::Measured | Origin::Computed => "measured",
        Origin::Card => "card",
        Origin::Assumed => "assumed",
        Origin::Unmarked => "not marked",
    }
}

impl Drawn<'_> {
    /// The share of engines that fail with those that fail a limit without a response, of which only runs in full tell; each by
    /// itself.
    fn any(&self, by_responses: f64) -> f64 {
        let lost = (0..self.drawing.checks.len()).filter(|place| self.is_lost(*place));
        let clear = lost.filter_map(|place| self.in_full(place)).map(|own| 1.0 - own.fails_any).product::<f64>();
        1.0 - (1.0 - by_responses) * clear
    }

    /// Whether a limit counts and has no response.
    fn is_lost(&self, place: usize) -> bool {
        self.drawing.responses.limits[place].counts() && !self.drawing.model.counts[place]
    }

    /// Whether fields tell how it spreads.
    fn is_driven(&self, place: usize) -> bool {
        !self.is_lost(place) && self.drawing.trust(place) != Some(Trust::Spread)
    }

    fn check(&self, place: usize) -> Option<&Check> {
        self.drawing.checks[place].as_ref()
    }

    fn in_full(&self, place: usize) -> Option<&Agreement> {
        self.check(place).filter(|own| own.in_full).map(|own| &own.agreement)
    }

    fn named(&self, variable: usize, source: &Source<'_>) -> (String, String) {
        let place = self.drawing.fields()[variable].place;
        let field = source.path(place);
        let label = called(place, &field);
        (field, label)
    }

    fn width(&self, variable: usize, half: f64, source: &Source<'_>) -> Shown {
        let tolerated = Tolerated::of(&source.path(self.drawing.fields()[variable].place)).unwrap_or(Tolerated::Number);
        plus_minus(half, tolerated)
    }

    fn limit(&self, place: usize, source: &Source<'_>) -> ToleranceLimit {
        let (own, outcome) = (&self.drawing.responses.limits[place], &self.drawing.simulated.limits[place]);
        let measure = own.rule.measure;
        let report = |si: f64| measure.to_report(si);
        let agreement = self.check(place).map(|own| &own.agreement);
        let in_full = self.in_full(place);
        let any = in_full.map_or(outcome.fails_any, |own| own.fails_any);
        let per_unit = report(1.0) - report(0.0);
        ToleranceLimit {
            id: own.rule.id.to_owned(),
            side: own.side,
            title: titled(own.rule.title, own.side),
            unit: measure.reported().0.to_owned(),
            shown: limit_shown(measure, &own.found),
            nominal: report(own.found.have),
            mean: report(outcome.mean),
            sd: outcome.sd * per_unit,
            p01: report(outcome.p01),
            p50: report(outcome.p50),
            p99: report(outcome.p99),
            percentiles: [outcome.p01, outcome.p50, outcome.p99].map(|si| measure.shown(si)).to_vec(),
            need_min: own.found.min.map(report),
            need_max: own.found.max.map(report),
            fails_share: in_full.map_or(outcome.fails_one, |own| own.fails_one),
            fails_any_share: any,
            says: of_engines(any),
            fails_as_given: own.found.margin() < 0.0,
            is_advice: own.found.is_advice,
            in_full: in_full.is_some(),
            by_runs: self.drawing.trust(place) == Some(Trust::Spread),
            off_share: agreement.map(|own| own.off() / outcome.sd.max(f64::MIN_POSITIVE)),
            disagree_share: agreement.map(|own| own.disagree),
            drivers: if self.is_driven(place) { self.drivers(own, source) } else { Vec::new() },
            remedy: self.remedy(place, (own, outcome), any, source),
            from: report(outcome.from),
            width: outcome.width * per_unit,
            bars: outcome.bars.clone(),
        }
    }

    fn drivers(&self, own: &Responded, source: &Source<'_>) -> Vec<Driver> {
        let told = own
            .margin
            .drivers(&self.drawing.model.variables)
            .into_iter()
            .filter(|(_, share)| *share >= SMALL)
            .take(DRIVERS);
        let driver = |(variable, share): (usize, f64)| {
            let (field, label) = self.named(variable, source);
            Driver { field, label, share }
        };
        told.map(driver).collect()
    }

    /// How tightly to hold what drives a limit most, or how much more to leave.
    fn remedy(
        &self,
        place: usize,
        (own, outcome): (&Responded, &Outcome),
        any: f64,
        source: &Source<'_>,
    ) -> Option<ToleranceRemedy> {
        let is_wanted = any > WANTED && self.is_driven(place);
        let (variable, _) = *own.margin.drivers(&self.drawing.model.variables).first().filter(|_| is_wanted)?;
        let (field, label) = self.named(variable, source);
        let half = self.drawing.fields()[variable].variable.spread.half;
        let held = hold(&self.drawing.model, place, variable, WANTED, &self.drawing.cast);
        let more = own.rule.measure.shown(outcome.more_for(WANTED));
        Some(ToleranceRemedy {
            field,
            label,
            hold: held.map(|held| self.width(variable, held.share * half, source)),
            more,
        })
    }

    fn measure_first(&self, source: &Source<'_>) -> Vec<MeasureFirst> {
        let any = self.any(self.drawing.simulated.any);
        let mut worth: Vec<(usize, f64)> = self
            .drawing
            .simulated
            .any_if_known
            .iter()
            .map(|if_known| any - self.any(*if_known))
            .enumerate()
            .filter(|(variable, worth)| {
                self.drawing.model.variables[*variable].known < 0.999 && *worth > WORTH.max(WORTH_SHARE * any)
            })
            .collect();
        worth.sort_by(|a, b| b.1.total_cmp(&a.1));
        let first = |(variable, worth_share): (usize, f64)| {
            let (field, label) = self.named(variable, source);
            let own = &self.drawing.fields()[variable];
            MeasureFirst {
                field,
                label,
                now: self.width(variable, own.variable.spread.half, source),
                then: self.width(variable, own.variable.spread.half * own.variable.known, source),
                any_fails_share_if_known: any - worth_share,
                worth_share,
                settles: self.settles(variable),
            }
        };
        worth.into_iter().take(MEASURED).map(first).collect()
    }

    /// Limits that a variable drives among the first, and that can fail.
    fn settles(&self, variable: usize) -> Vec<String> {
        let variables = &self.drawing.model.variables;
        let share = |own: &Responded| own.margin.drivers(variables).into_iter().find(|(v, _)| *v == variable);
        let own = self.drawing.responses.limits.iter().zip(&self.drawing.simulated.limits);
        let mut found: Vec<(f64, String)> = own
            .filter(|(own, outcome)| !own.found.is_advice && outcome.fails_any > 0.0)
            .filter_map(|(own, outcome)| Some((share(own)?.1 * outcome.fails_any, titled(own.rule.title, own.side))))
            .collect();
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        found.into_iter().take(2).map(|(_, title)| title).collect()
    }

    fn fields(&self, source: &Source<'_>) -> Vec<TolerancedField> {
        let mut drives = vec![0.0_f64; self.drawing.fields().len()];
        for (variable, share) in
            self.drawing.responses.limits.iter().flat_map(|own| own.margin.drivers(&self.drawing.model.variables))
        {
            drives[variable] = drives[variable].max(share);
        }
        let mut found: Vec<TolerancedField> = (0..self.drawing.fields().len())
            .filter(|variable| drives[*variable] > 0.0 || self.drawing.fields()[*variable].is_own)
            .map(|variable| {
                let own = &self.drawing.fields()[variable];
                let field = source.path(own.place);
                TolerancedField {
                    label: spoken_label(&field),
                    field,
                    plus_minus: self.width(variable, own.variable.spread.half, source),
                    shape: own.variable.spread.shape.word().to_owned(),
                    shared: own.shared.word().to_owned(),
                    source: origin_word(own.origin).to_owned(),
                    is_own: own.is_own,
                    drives: drives[variable],
                }
            })
            .collect();
        found.sort_by(|a, b| b.drives.total_cmp(&a.drives));
        // A field of both sides stands once.
        let mut seen = HashSet::new();
        found.retain(|own| seen.insert(own.field.clone()));
        found
    }
}
