//! What moves the target: single decisions changed a little, each curve computed again.

use super::analyze::{PartName, Request, analyze};
use super::curve::{breathing_inputs, halted};
use super::drafting::effort_of;
use super::readings::{EventHandle, event_handles};
use crate::build::Build;
use crate::candidate::breathing::{Breathing, report, samples};
use crate::candidate::{Key, Stages, key};
use crate::document::{Fault, Side, get, set_field};
use crate::edit::{CardNumber, Edit, apply};
use crate::quantity::{Dimension, UnitSystem, parse, restate};
use crate::report::{BreathingReport, CandidateReport, Effect};
use crate::work::{Class, Halted, Job, Watch};
use serde::Serialize;
use std::sync::Arc;

/// One decision and how it is changed.
#[derive(Debug, Clone, PartialEq)]
pub struct Decision {
    /// Stable identifier.
    pub id: String,
    /// In words.
    pub label: String,
    /// By how much, in words.
    pub change: String,
    /// The build after it, or why there is none.
    pub build: Result<Build, String>,
}

/// Degrees an event is moved, and separation and centreline.
const EVENT_STEP: f64 = 4.0;
const CARD_STEP: f64 = 2.0;
/// Lengths that are made longer: field, words, by how much.
const LENGTHS: [(&str, &str, &str); 2] =
    [("engine.intake.runner_length", "Runner", "1 in"), ("engine.exhaust.primary_length", "Primary", "2 in")];

/// Every decision of the candidate `id`, each changed alone.
pub fn decisions(build: &Build, id: &str, stages: &Stages) -> Vec<Decision> {
    let request = Request::of(Some(id.to_owned()), vec![PartName::Timing, PartName::Lift]);
    let Some(report) = analyze(build, &request, stages).ok().and_then(|mut found| found.candidates.pop()) else {
        return Vec::new();
    };
    let path = format!("candidates[{}]", build.candidates().iter().position(|v| v.id == id).unwrap_or(0));
    let mut found = events(build, id, &report, stages);
    found.extend(card(build, id, &report, stages));
    found.extend(lift(build, &path, stages));
    found.extend(
        LENGTHS.iter().filter_map(|(field, label, step)| longer(build, &own(build, &path, field), label, step)),
    );
    found.extend(compression(build, &path, &report));
    found.extend(boost(build));
    found
}

/// What `after` does that `before` does not.
pub fn effect(decision: &Decision, before: &BreathingReport, after: Result<&BreathingReport, String>) -> Effect {
    let relative = |a: f64, b: f64| a / b - 1.0;
    let (after, trouble) = match after {
        Ok(after) => (Some(after), None),
        Err(trouble) => (None, Some(trouble)),
    };
    Effect {
        id: decision.id.clone(),
        label: decision.label.clone(),
        change: decision.change.clone(),
        average_torque: after.and_then(|after| Some(relative(after.average_torque_nm?, before.average_torque_nm?))),
        peak_power: after.map(|after| relative(after.peak_power_kw, before.peak_power_kw)),
        peak_power_rpm: after.map(|after| after.peak_power_rpm - before.peak_power_rpm),
        trouble,
    }
}

fn events(build: &Build, id: &str, report: &CandidateReport, stages: &Stages) -> Vec<Decision> {
    let moved = |handle: &EventHandle| {
        let edit =
            Edit::MoveEvent { candidate: id.to_owned(), event: handle.event, crank_deg: handle.crank_deg + EVENT_STEP };
        Decision {
            id: format!("{:?}", handle.event),
            label: handle.label.clone(),
            change: format!("{EVENT_STEP} deg later"),
            build: apply(build, &edit, UnitSystem::Inch, stages).map_err(|faults| faults.to_string()),
        }
    };
    event_handles(report).iter().map(moved).collect()
}

fn card(build: &Build, id: &str, report: &CandidateReport, stages: &Stages) -> Vec<Decision> {
    let Some(timing) = report.timing.done() else { return Vec::new() };
    let centreline = timing.lobe_separation_deg - timing.advance_deg;
    let numbers = [
        (CardNumber::LobeSeparation, timing.lobe_separation_deg, "Lobe separation", "wider"),
        (CardNumber::IntakeCentreline, centreline, "Cam as a whole", "later"),
    ];
    let typed = |(number, now, label, sense): (CardNumber, f64, &str, &str)| {
        let text = format!("{:.2} deg", now + CARD_STEP);
        let edit = Edit::TypeCard { candidate: id.to_owned(), number, text };
        Decision {
            id: format!("{number:?}"),
            label: label.to_owned(),
            change: format!("{CARD_STEP} deg {sense}"),
            build: apply(build, &edit, UnitSystem::Inch, stages).map_err(|faults| faults.to_string()),
        }
    };
    numbers.into_iter().map(typed).collect()
}

/// Lift by the rocker: a tenth more ratio on both sides, its arms with it.
fn lift(build: &Build, path: &str, stages: &Stages) -> Option<Decision> {
    const STEP: f64 = 0.1;
    let fields = ["ratio".to_owned()].into_iter().chain(Side::BOTH.map(|side| format!("{}.ratio", side.key())));
    let mut changed: Option<Result<Build, String>> = None;
    for field in fields.map(|field| format!("{path}.train.rocker.{field}")) {
        let Some(now) = get(build.value(), &field).and_then(serde_json::Value::as_f64) else { continue };
        let edit = Edit::Set { field, text: format!("{:.3}", now + STEP) };
        let from = changed.unwrap_or_else(|| Ok(build.clone()));
        let made =
            from.and_then(|build| apply(&build, &edit, UnitSystem::Inch, stages).map_err(|faults| faults.to_string()));
        changed = Some(made);
    }
    changed.map(|build| Decision {
        id: "ratio".to_owned(),
        label: "Rocker ratio".to_owned(),
        change: format!("{STEP} more"),
        build,
    })
}

fn longer(build: &Build, field: &str, label: &str, step: &str) -> Option<Decision> {
    let now = get(build.value(), field)?.as_str()?;
    let by = parse(step, Dimension::Length).ok()?;
    let text = restate(now, Dimension::Length, parse(now, Dimension::Length).ok()? + by)?;
    Some(Decision {
        id: field.to_owned(),
        label: label.to_owned(),
        change: format!("{step} longer"),
        build: changed(build, field, &text),
    })
}

/// Half a point of compression: by the chamber, or by the bowl of a piston under a flat head.
fn compression(build: &Build, path: &str, report: &CandidateReport) -> Option<Decision> {
    const STEP: f64 = 0.5;
    let engine = report.engine.done()?;
    let count = get(build.value(), "engine.cylinders").and_then(serde_json::Value::as_f64).unwrap_or(8.0);
    let (swept, ratio) = (engine.displacement_cc * 1e-6 / count, engine.compression_ratio?);
    let less = swept / (ratio - 1.0) - swept / (ratio + STEP - 1.0);
    let smaller = |key: &str| -> Option<(String, String)> {
        let field = own(build, path, key);
        let now = get(build.value(), &field)?.as_str()?;
        let left = parse(now, Dimension::Volume).ok()? - less;
        (left > 0.0).then_some(())?;
        Some((restate(now, Dimension::Volume, left)?, field))
    };
    let (text, field) = smaller("engine.chamber_volume").or_else(|| smaller("engine.piston_volume"))?;
    Some(Decision {
        id: "compression".to_owned(),
        label: "Compression".to_owned(),
        change: format!("{STEP} more"),
        build: changed(build, &field, &text),
    })
}

/// More boost at every speed of the plan.
fn boost(build: &Build) -> Option<Decision> {
    const STEP: &str = "2 psi";
    let by = parse(STEP, Dimension::Pressure).ok()?;
    let mut value = build.value().clone();
    let rows = value.get_mut("target")?.get_mut("boost")?.as_array_mut()?;
    for row in rows.iter_mut() {
        let now = row.get("manifold")?.as_str()?.to_owned();
        let text = restate(&now, Dimension::Pressure, parse(&now, Dimension::Pressure).ok()? + by)?;
        row["manifold"] = text.into();
    }
    (!rows.is_empty()).then(|| Decision {
        id: "boost".to_owned(),
        label: "Boost".to_owned(),
        change: format!("{STEP} more"),
        build: Build::from_value(value).map_err(|faults| faults.to_string()),
    })
}

/// Where the candidate at `path` has a field of the engine: among its own changes, or where all share it.
fn own(build: &Build, path: &str, field: &str) -> String {
    let changed = format!("{path}.changes.{field}");
    if get(build.value(), &changed).is_some() { changed } else { field.to_owned() }
}

fn changed(build: &Build, field: &str, text: &str) -> Result<Build, String> {
    let mut value = build.value().clone();
    set_field(&mut value, field, text, UnitSystem::Inch).map_err(|fault| fault.to_string())?;
    Build::from_value(value).map_err(|faults| faults.to_string())
}

/// Decisions so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SensitivityStep {
    /// Decisions in all.
    pub of: usize,
    /// Those computed.
    pub effects: Vec<Effect>,
}

/// Changing each decision of a candidate a little and computing its curve again, on drafts.
pub struct SensitivityJob {
    build: Build,
    breathing: Breathing,
    id: String,
    key: Key,
    stages: Arc<Stages>,
}

impl SensitivityJob {
    /// The decisions of the candidate `id`.
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, what is missing for its curve.
    pub fn new(build: &Build, id: &str, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
        let breathing = breathing_inputs(build, Some(id), None, &stages)?;
        Ok(breathing.map(|breathing| {
            let key = key(&(&breathing, build.text()));
            Self { build: build.clone(), breathing, id: id.to_owned(), key, stages }
        }))
    }

    /// The curve after a decision.
    fn changed(&self, build: &Build, watch: &Watch<'_, SensitivityStep>) -> Result<BreathingReport, Halted> {
        let lacks = |fault: Fault| Halted::Lacks { reason: fault.to_string(), needs: Vec::new() };
        drafted(&breathing_inputs(build, Some(&self.id), None, &self.stages).map_err(lacks)??, watch)
    }
}

/// A draft of the curve, or that of one cylinder where the document does not say how they are joined.
fn drafted(breathing: &Breathing, watch: &Watch<'_, SensitivityStep>) -> Result<BreathingReport, Halted> {
    let effort = effort_of(breathing);
    let level = breathing.strongest();
    let found = samples(breathing, (effort, level), watch.stop, |_| ()).map_err(halted)?;
    Ok(report(breathing, effort, level, &found, None))
}

impl Job for SensitivityJob {
    type Step = SensitivityStep;
    type Done = Vec<Effect>;

    fn key(&self) -> Key {
        self.key
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<Vec<Effect>>> {
        self.stages.effects.kept(self.key)
    }

    fn run(&self, watch: &Watch<'_, SensitivityStep>) -> Result<Arc<Vec<Effect>>, Halted> {
        let before = drafted(&self.breathing, watch)?;
        let all = decisions(&self.build, &self.id, &self.stages);
        let mut effects = Vec::with_capacity(all.len());
        for decision in &all {
            let after = match &decision.build {
                Ok(build) => match self.changed(build, watch) {
                    Ok(after) => Ok(after),
                    Err(Halted::Stopped) => return Err(Halted::Stopped),
                    Err(Halted::Lacks { reason, .. }) => Err(reason),
                },
                Err(trouble) => Err(trouble.clone()),
            };
            effects.push(effect(decision, &before, after.as_ref().map_err(Clone::clone)));
            if effects.len() < all.len() {
                (watch.report)(SensitivityStep { of: all.len(), effects: effects.clone() });
            }
        }
        let effects = Arc::new(effects);
        self.stages.effects.keep(self.key, Arc::clone(&effects));
        Ok(effects)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const DIESEL: &str = include_str!("../../../../demo/harbour-six-7-2-diesel.json");
    const TOW: &str = include_str!("../../../../demo/tollgate-388-hauler.json");

    #[test]
    fn every_decision_of_a_demo_changes_one_thing() {
        let (build, stages) = (Build::read(TOW).unwrap(), Stages::default());
        let found = decisions(&build, "a", &stages);
        let ids: Vec<&str> = found.iter().map(|d| d.id.as_str()).collect();
        assert_eq!(ids.len(), 10, "{ids:?}");
        for decision in &found {
            let after = decision.build.as_ref().unwrap_or_else(|trouble| panic!("{}: {trouble}", decision.id));
            assert_ne!(after.value(), build.value(), "{}", decision.id);
        }
    }

    #[test]
    fn half_a_point_of_compression_is_half_a_point() {
        for text in [TOW, DIESEL] {
            half_a_point(text);
        }
    }

    fn half_a_point(text: &str) {
        let (build, stages) = (Build::read(text).unwrap(), Stages::default());
        let ratio = |build: &Build| {
            let found = analyze(build, &Request::of(Some("a".into()), vec![]), &stages).unwrap();
            found.candidates[0].engine.done().unwrap().compression_ratio.unwrap()
        };
        let found = decisions(&build, "a", &stages);
        let after = found.iter().find(|d| d.id == "compression").unwrap().build.clone().unwrap();
        assert!((ratio(&after) - ratio(&build) - 0.5).abs() < 0.02, "{}", ratio(&after));
    }
}
