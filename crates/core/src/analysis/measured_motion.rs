//! Fitting what nobody measures on a train to measured valve motion, as a job; what it makes of every candidate's limiting speed.

use super::turning::{USUAL_TOP, trains};
use crate::build::Build;
use crate::candidate::dynamics::{
    COUNT, FittedTrain, LOOKED_TO, Learned, Limit, ROUNDS, SideTrain, THRESHOLD, Trace, Unfit, Unmeasured,
    fit_to_motion, looked_at, lost_at,
};
use crate::candidate::{Key, Resolved, Stages, key, worded};
use crate::document::{
    CandidateView, Fault, Faults, Field, Kind, Ledger, Node, Side, TRAIN_FIT, candidate_or_first, set_field,
};
use crate::given::{Given, Source};
use crate::quantity::{Angle, Dimension, INCH, Length, Shown, Speed, UnitSystem, format_si};
use crate::report::{FittedField, MotionConstant, MotionFitReport, MotionLimit, MotionTrace};
use crate::words::Word;
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// Candidates whose limits are held against each other.
const MOST: usize = 6;
/// Constants that a sentence names.
const NAMED: usize = 4;
/// Half width that holds 95 of 100 of a normal spread, in standard deviations.
const HOLDS: f64 = 1.96;

/// How far a fit is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MotionFitStep {
    /// Pieces of work done.
    pub done: usize,
    /// Pieces at most.
    pub of: usize,
}

/// What is fitted, in the order of their places: the first fields of what the document keeps.
fn constants_of() -> &'static [Field] {
    &TRAIN_FIT.fields[..COUNT]
}

/// How a value of it is written.
fn text_of(constant: &Field, value: f64) -> String {
    match constant.kind {
        Kind::Quantity { .. } => format!("{:.0} N/mm", 1e-3 * value),
        _ => format!("{value:.4}"),
    }
}

/// Fitting the train of one candidate to the traces of it.
pub struct MotionFitJob {
    build: Build,
    candidate: String,
    traces: Vec<(String, Trace)>,
    stages: Arc<Stages>,
}

impl MotionFitJob {
    /// A fit to the traces of the candidate `id`, or of the first that has any.
    ///
    /// # Errors
    /// A fault when there is no such candidate or none with traces; inside, what its train lacks.
    pub fn new(build: &Build, id: Option<&str>, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Faults> {
        let views = build.candidates();
        // Nobody named one: the first that was looked at.
        let seen = views.iter().find(|view| id.is_none() && !traces_of(view).is_empty());
        let view = match seen {
            Some(view) => view,
            None => candidate_or_first(&views, id)?,
        };
        let traces = traces_of(view);
        if traces.is_empty() {
            let needs = "lift over the crank at some speeds, as a rig or a running engine showed it";
            return Err(Fault::new("valve_motion", "no trace of this candidate", needs).into());
        }
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        if let Err(gap) = trains(&Resolved::new(Given::read(&source), &stages), None) {
            let (reason, needs) = worded(&gap, &source);
            return Ok(Err(Halted::Lacks { reason, needs }));
        }
        let mut value = build.value().clone();
        value.as_object_mut().map(|map| map.shift_remove("train_fit"));
        // What an earlier fit said is no part of the next.
        let build = Build::from_value(value)?;
        Ok(Ok(Self { build, candidate: view.id.clone(), traces, stages }))
    }
}

/// The traces of a candidate that count, with their identifiers; those that name none are of the first.
fn traces_of(view: &CandidateView<'_>) -> Vec<(String, Trace)> {
    let ledger = Ledger::default();
    let of = |own: &Node<'_>| {
        let is_own = own.word("candidate").map_or(view.index == 0, |id| id == view.id);
        if !is_own || own.has("left_out") {
            return None;
        }
        let points = own.rows::<Angle, Length>("points")?;
        let trace = Trace {
            side: Side::of_key(own.word("side")?)?,
            on_rig: own.word("turned_by") != Some("engine"),
            rpm: own.quantity::<Speed>("speed")?.as_rpm(),
            points: points.into_iter().map(|(deg, lift)| (deg.as_deg(), lift.si())).collect(),
        };
        Some((own.word("id").unwrap_or_default().to_owned(), trace))
    };
    let mut found: Vec<_> = view.build(&ledger).children("valve_motion").iter().filter_map(of).collect();
    found.sort_by(|a: &(String, Trace), b| {
        (a.1.side.index(), a.1.rpm).partial_cmp(&(b.1.side.index(), b.1.rpm)).unwrap_or(std::cmp::Ordering::Equal)
    });
    found
}

/// Every candidate as the document has it, with what it is computed from.
fn resolved(build: &Build, stages: &Stages) -> Vec<Resolved> {
    let views = build.candidates();
    let ledger = Ledger::default();
    views.iter().map(|view| Resolved::new(Given::read(&Source::new(view, &ledger)), stages)).collect()
}

/// What the document would keep.
fn fields(fitted: &FittedTrain, resolved: &Resolved, (speeds, left): ([f64; 2], f64), name: &str) -> Vec<FittedField> {
    let field = |key: &str, label: &str, text: String| FittedField {
        field: format!("train_fit.{key}"),
        label: label.to_owned(),
        text,
    };
    let found = fitted.learned.usual().values();
    let values = constants_of().iter().zip(found).map(|(own, value)| field(own.key, own.label, text_of(own, value)));
    let spread: Vec<String> = (0..COUNT)
        .flat_map(|row| (0..=row).map(move |column| (row, column)))
        .map(|(row, column)| format!("{:.4}", fitted.learned.root[row][column]))
        .collect();
    let train = resolved.train(Side::Intake);
    let kinds = [
        ("mount", "Mount", train.rocker.mount.map(Word::word)),
        ("lifter", "Lifter", train.lifter.kind.map(Word::word)),
        ("form", "Springs", train.spring.form.map(Word::word)),
    ];
    let kinds = kinds.into_iter().filter_map(|(key, label, word)| Some(field(key, label, word?.to_owned())));
    let rest = [
        field("spread", "What it leaves open", format!("[{}]", spread.join(", "))),
        field("remaining", "Left", format_si(left, Dimension::Length, UnitSystem::Metric)),
        field("from", "From", format!("{:.0} rpm", speeds[0])),
        field("to", "To", format!("{:.0} rpm", speeds[1])),
        field("measured", "Measured on", name.chars().take(200).collect()),
    ];
    values.chain(kinds).chain(rest).collect()
}

/// The constants in words.
fn constants(learned: &Learned) -> Vec<MotionConstant> {
    let (found, usual) = (learned.usual().values(), Unmeasured::usual().values());
    let ends = [0.0, 1.0].map(|end| Unmeasured::between([end; COUNT]).values());
    let (deviations, seen) = (learned.deviations(), learned.seen());
    let of = |(i, own): (usize, &Field)| {
        let end = |way: f64| (learned.place[i] + way * HOLDS * deviations[i]).clamp(0.0, 1.0);
        MotionConstant {
            label: own.label.to_owned(),
            found: text_of(own, found[i]),
            usual: text_of(own, usual[i]),
            range: [text_of(own, ends[0][i]), text_of(own, ends[1][i])],
            place: [learned.place[i], end(-1.0), end(1.0)],
            learned: seen[i],
        }
    };
    constants_of().iter().enumerate().map(of).collect()
}

/// Median and band of where a train loses control.
fn limit(train: &SideTrain<'_>, top: f64, stop: &(dyn Fn() -> bool + Sync)) -> Option<(Option<f64>, [f64; 2])> {
    let lost = lost_at(train, &train.models(&train.learned.draws()), &looked_at(top), THRESHOLD, stop);
    let found = Limit::of(&lost, LOOKED_TO)?;
    Some((found.median, found.band?))
}

/// Where every candidate loses control before and after; candidates whose trains are not known whole are left out.
fn limits(
    (before, was_resolved): (&Build, &[Resolved]),
    (after, learned): (&Build, &Learned),
    stages: &Stages,
    (tell, stop): (&dyn Fn(usize), &(dyn Fn() -> bool + Sync)),
) -> Result<Vec<MotionLimit>, Halted> {
    let views = before.candidates();
    let pairs = was_resolved.iter().zip(resolved(after, stages));
    let seen = learned.seen();
    let mut found = Vec::new();
    for (place, (view, (was, is))) in views.iter().zip(pairs).take(MOST).enumerate() {
        let (Ok(was_trains), Ok(is_trains)) = (trains(was, None), trains(&is, None)) else { continue };
        let top = is.top_speed().map_or(USUAL_TOP, Speed::as_rpm);
        for side in Side::BOTH {
            let (was, is) = (&was_trains[side.index()], &is_trains[side.index()]);
            let pair = limit(was, top, stop).zip(limit(is, top, stop)).filter(|_| !stop());
            let ((before_rpm, before_band_rpm), (after_rpm, after_band_rpm)) = pair.ok_or(Halted::Stopped)?;
            // Learned, and not of parts such as it has.
            let apart = |i: &usize| seen[*i] && !is.learned.known[*i];
            found.push(MotionLimit {
                candidate: view.id.clone(),
                name: view.name.clone(),
                side,
                before_rpm,
                before_band_rpm,
                after_rpm,
                after_band_rpm,
                apart: (0..COUNT).filter(apart).map(|i| constants_of()[i].label.to_owned()).collect(),
            });
        }
        tell(place + 1);
    }
    Ok(found)
}

/// The answer in sentences.
fn says<'a>(
    traces: &[MotionTrace],
    constants: &[MotionConstant],
    limits: impl Iterator<Item = &'a MotionLimit>,
) -> Shown {
    let mean = |of: fn(&MotionTrace) -> f64| {
        (traces.iter().map(|own| of(own).powi(2)).sum::<f64>() / traces.len().max(1) as f64).sqrt()
    };
    let (before, after) = (mean(|own| own.before_mm), mean(|own| own.after_mm));
    let learned: Vec<String> = constants.iter().filter(|own| own.learned).map(|own| own.label.to_lowercase()).collect();
    let learned = match learned.as_slice() {
        [] => "It says nothing of what nobody measures: faster traces would".to_owned(),
        own if own.len() > NAMED => format!("It says something of {} constants of {COUNT}", own.len()),
        own => format!("It says something of {}", own.join(", ")),
    };
    let limit =
        limits.filter_map(|own| Some((own, own.before_rpm?, own.after_rpm?))).min_by(|a, b| a.2.total_cmp(&b.2));
    let limit = limit.map_or_else(String::new, |(own, before, after)| {
        let [low, high] = own.after_band_rpm;
        let [was_low, was_high] = own.before_band_rpm;
        format!(
            " The {} valve loses control first, at {after:.0} rpm ({low:.0} to {high:.0}); without the traces {before:.0} ({was_low:.0} to {was_high:.0}).",
            own.side.key()
        )
    });
    let (before, after) = (fine(1e-3 * before), fine(1e-3 * after));
    let said = |before: &str, after: &str| {
        format!("The usual train is off the measured lift by {before}, the fitted one by {after}. {learned}.{limit}")
    };
    Shown { inch: said(&before.inch, &after.inch), metric: said(&before.metric, &after.metric) }
}

/// A lift to a thousandth of a millimetre.
fn fine(m: f64) -> Shown {
    Shown { inch: format!("{:.4} in", m / INCH), metric: format!("{:.3} mm", 1e3 * m) }
}

impl MotionFitJob {
    fn unfit(&self, why: &Unfit) -> Halted {
        let lift = |m: f64| format_si(m, Dimension::Length, UnitSystem::Metric);
        let rpm = |place: usize| self.traces[place].1.rpm;
        let reason = match why {
            Unfit::Stopped => return Halted::Stopped,
            Unfit::Thin(place) => {
                format!("at {:.0} rpm too few points lie where the lobe lifts the valve", rpm(*place))
            }
            Unfit::Another(place, read, has) => format!(
                "at {:.0} rpm the valve was lifted {}, the train lifts it {}: that is another lobe, another ratio, or another unit",
                rpm(*place),
                lift(*read),
                lift(*has)
            ),
        };
        Halted::Lacks { reason, needs: Vec::new() }
    }

    /// The document with the fit in it.
    fn with(&self, fields: &[FittedField]) -> Result<Build, Halted> {
        let mut value = self.build.value().clone();
        let set = |field: &FittedField| set_field(&mut value, &field.field, &field.text, UnitSystem::Metric);
        let set: Result<Vec<()>, Fault> = fields.iter().map(set).collect();
        let refused = |why: String| Halted::Lacks { reason: why, needs: Vec::new() };
        set.map_err(|fault| refused(fault.to_string()))?;
        Build::from_value(value).map_err(|faults| refused(faults.to_string()))
    }

    fn trace(&self, place: usize, fitted: &FittedTrain) -> MotionTrace {
        let ((id, trace), own) = (&self.traces[place], &fitted.traces[place]);
        let column = |of: &[f64]| of.iter().map(|m| (1e6 * m).round() * 1e-3).collect::<Vec<f64>>();
        let over =
            |of: &[f64]| column(&own.measured.iter().zip(of).map(|(read, has)| read - has).collect::<Vec<f64>>());
        MotionTrace {
            id: id.clone(),
            side: trace.side,
            rpm: trace.rpm,
            on_rig: trace.on_rig,
            before_mm: 1e3 * own.before,
            after_mm: 1e3 * own.after,
            left: [own.before, own.after].map(fine),
            crank_deg: own.crank_deg.iter().map(|deg| (100.0 * deg).round() / 100.0).collect(),
            measured_mm: column(&own.measured),
            over_usual_mm: over(&own.usual),
            over_fitted_mm: over(&own.fitted),
        }
    }
}

impl Job for MotionFitJob {
    type Step = MotionFitStep;
    type Done = MotionFitReport;

    fn key(&self) -> Key {
        key(&("train fit", self.build.value(), &self.candidate))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<MotionFitReport>> {
        self.stages.train_fits.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, MotionFitStep>) -> Result<Arc<MotionFitReport>, Halted> {
        let views = self.build.candidates();
        let index = views.iter().position(|view| view.id == self.candidate).ok_or(Halted::Stopped)?;
        let all = resolved(&self.build, &self.stages);
        let own = &all[index];
        let pair = trains(own, None).map_err(|gap| Halted::Lacks { reason: gap.reason, needs: Vec::new() })?;
        let traces: Vec<Trace> = self.traces.iter().map(|(_, trace)| trace.clone()).collect();
        let count = views.len().min(MOST);
        let step = |done: usize| (watch.report)(MotionFitStep { done, of: ROUNDS + count });
        let fitted = fit_to_motion(&pair, &traces, (&step, watch.stop)).map_err(|why| self.unfit(&why))?;
        let speeds =
            traces.iter().fold([f64::INFINITY, 0.0_f64], |[low, high], own| [low.min(own.rpm), high.max(own.rpm)]);
        let left = fitted.traces.iter().map(|own| own.after * own.after).sum::<f64>() / fitted.traces.len() as f64;
        let fields = fields(&fitted, own, (speeds, left.sqrt()), &views[index].name);
        let after = self.with(&fields)?;
        let tell = |done: usize| step(ROUNDS + done);
        let limits = limits((&self.build, &all), (&after, &fitted.learned), &self.stages, (&tell, watch.stop))?;
        let traces: Vec<MotionTrace> = (0..traces.len()).map(|place| self.trace(place, &fitted)).collect();
        let constants = constants(&fitted.learned);
        let report = Arc::new(MotionFitReport {
            says: says(&traces, &constants, limits.iter().filter(|own| own.candidate == self.candidate)),
            candidate: self.candidate.clone(),
            constants,
            traces,
            limits,
            fields,
        });
        self.stages.train_fits.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::parse;

    #[test]
    fn the_document_keeps_each_within_the_range_that_it_is_fitted_in() {
        let ends = [0.0, 1.0].map(|end| Unmeasured::between([end; COUNT]).values());
        for (i, constant) in constants_of().iter().enumerate() {
            let [low, high] = match constant.kind {
                Kind::Quantity { dimension, min, max } => [min, max].map(|text| parse(text, dimension).unwrap()),
                Kind::Number { min, max } => [min, max],
                _ => panic!("{} is a number", constant.key),
            };
            let same = |own: f64, other: f64| (own / other - 1.0).abs() < 1e-9;
            assert!(same(ends[0][i], low) && same(ends[1][i], high), "{}: {low} to {high}", constant.key);
        }
    }
}
