//! The one entrance: from a checked build to its report.
//!
//! [`analyze`] computes the parts asked for, each cheap part at once. Results start cold in a fixed
//! order: the same document gives the same bits.

mod calibration;
mod compare;
mod lobes_apart;
mod readings;
mod sensitivity;
mod unknowns;

pub use crate::candidate::Stages;
pub use crate::report::*;
pub use calibration::{CalibrationInputs, CalibrationReport, FittedField, calibration_inputs};
pub use compare::{Comparison, compare};
pub use lobes_apart::{LobesApart, lobes_apart};
pub use readings::{EventHandle, Reading, event_handles, readings};
pub use sensitivity::{Decision, Effect, decisions, effect};

use crate::candidate::breathing::{Breathing, breathing, breathing_of};
use crate::candidate::{self, Computed, Gap, Inputs, Part};
use crate::document::{Build, CandidateView, Fault, Ledger, Side, unknown_candidate};
use crate::engine::read_cylinder;
use crate::limits::{RULES, all_limits, computed_limits, remedies_for};
use crate::quantity::{Dimension, Pressure, UnitSystem, scale};
use serde::{Deserialize, Serialize};
use unknowns::measure_next;

/// A part of the report that can be asked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartName {
    /// Events and durations.
    Timing,
    /// Curves over the crank.
    Strip,
    /// Lift at lobe and valve.
    Lift,
    /// Follower motion.
    Lobe,
    /// From lobe to valve, turning slowly.
    Train,
    /// Spring package.
    Spring,
    /// The hand check.
    Control,
    /// What must not touch.
    Clearance,
    /// One cylinder to scale.
    Drawing,
    /// Torque and power over speed; takes seconds.
    Breathing,
    /// Every rule.
    Limits,
    /// What buys margins back; needs limits.
    Remedies,
}

impl PartName {
    /// Every part, in the order of the report.
    pub const ALL: [Self; 12] = [
        Self::Timing,
        Self::Strip,
        Self::Lift,
        Self::Lobe,
        Self::Train,
        Self::Spring,
        Self::Control,
        Self::Clearance,
        Self::Drawing,
        Self::Breathing,
        Self::Limits,
        Self::Remedies,
    ];

    /// Every part that takes milliseconds.
    pub fn cheap() -> Vec<Self> {
        Self::ALL.into_iter().filter(|part| *part != Self::Breathing).collect()
    }

    /// The word in `--parts` and in requests.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Timing => "timing",
            Self::Strip => "strip",
            Self::Lift => "lift",
            Self::Lobe => "lobe",
            Self::Train => "train",
            Self::Spring => "spring",
            Self::Control => "control",
            Self::Clearance => "clearance",
            Self::Drawing => "drawing",
            Self::Breathing => "breathing",
            Self::Limits => "limits",
            Self::Remedies => "remedies",
        }
    }

    /// The part of that word.
    pub fn from_word(word: &str) -> Result<Self, Fault> {
        Self::ALL.into_iter().find(|part| part.word() == word).ok_or_else(|| {
            let words: Vec<_> = Self::ALL.iter().map(|p| p.word()).collect();
            Fault::new("parts", word, format!("some of {}", words.join(", ")))
        })
    }
}

/// What to compute.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Request {
    /// Only the candidate of this id; all when absent.
    pub candidate: Option<String>,
    /// The parts wanted.
    pub parts: Vec<PartName>,
}

impl Default for Request {
    /// Everything that is cheap.
    fn default() -> Self {
        Self { candidate: None, parts: PartName::cheap() }
    }
}

/// Analyses `build`; `stages` may serve many calls and changes no result.
pub fn analyze(build: &Build, request: &Request, stages: &Stages) -> Result<Analysis, Fault> {
    let views = build.candidates();
    let chosen: Vec<&CandidateView> = match &request.candidate {
        None => views.iter().collect(),
        Some(id) => vec![views.iter().find(|v| v.id == *id).ok_or_else(|| unknown_candidate("candidate", id, &views))?],
    };
    let ledger = Ledger::default();
    let shared = Ledger::default();
    let engine = read_cylinder(&build.engine(&shared)).map(|c| candidate::engine(&c)).map_err(Gap::from);
    let mut warnings = Vec::new();
    let candidates =
        chosen.into_iter().map(|view| report_of(build, view, request, &ledger, stages, &mut warnings)).collect();
    Ok(Analysis {
        engine: engine.into(),
        candidates,
        assumed: ledger.into_assumed(),
        warnings,
        scales: Scales {
            length_inch: scale(Dimension::Length, UnitSystem::Inch),
            length_metric: scale(Dimension::Length, UnitSystem::Metric),
            angle: scale(Dimension::Angle, UnitSystem::Inch),
            flow_inch: scale(Dimension::Flow, UnitSystem::Inch),
            flow_metric: scale(Dimension::Flow, UnitSystem::Metric),
            torque_inch: scale(Dimension::Torque, UnitSystem::Inch),
            torque_metric: scale(Dimension::Torque, UnitSystem::Metric),
            power_inch: scale(Dimension::Power, UnitSystem::Inch),
            power_metric: scale(Dimension::Power, UnitSystem::Metric),
            pressure_inch: scale(Dimension::Pressure, UnitSystem::Inch),
            pressure_metric: scale(Dimension::Pressure, UnitSystem::Metric),
            temperature_inch: scale(Dimension::Temperature, UnitSystem::Inch),
            temperature_metric: scale(Dimension::Temperature, UnitSystem::Metric),
        },
    })
}

/// What the curve of the candidate `id`, or of the first, is computed from; `Err` inside when something is missing.
///
/// # Errors
/// A fault when there is no such candidate.
pub fn breathing_inputs(build: &Build, id: Option<&str>, stages: &Stages) -> Result<Part<Breathing>, Fault> {
    let views = build.candidates();
    let view = match id {
        Some(id) => views.iter().find(|v| v.id == id),
        None => views.first(),
    };
    let view = view.ok_or_else(|| unknown_candidate("candidate", id.unwrap_or_default(), &views))?;
    let ledger = Ledger::default();
    Ok(breathing_of(&Inputs::resolve(view, &ledger, stages)))
}

/// The limits that ask for the gas, with what a curve of the candidate `id` found.
pub fn gas_limits(build: &Build, id: Option<&str>, curve: &BreathingReport, stages: &Stages) -> Vec<LimitReport> {
    let most = |values: &[f64]| values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let gauge = |values: &Option<Vec<f64>>| values.as_ref().map(|kpa| Pressure::from_si(most(kpa) * 1e3));
    let computed = Computed {
        octane_needed: curve.octane_needed.as_deref().map(most),
        peak_pressure: most(&curve.peak_cylinder_pressure_kpa) * 1e3,
        opening_pressure: most(&curve.exhaust_opening_kpa) * 1e3,
        idle_vacuum: curve.idle.as_ref().map(|idle| idle.vacuum_kpa.unwrap_or(0.0) * 1e3),
        boost: gauge(&curve.boost_kpa).zip(gauge(&curve.drive_kpa)),
    };
    let views = build.candidates();
    let ledger = Ledger::default();
    let view = views.iter().find(|v| id.is_none_or(|id| v.id == id));
    view.map_or_else(Vec::new, |view| computed_limits(Inputs::resolve(view, &ledger, stages), computed, stages))
}

fn report_of(
    build: &Build,
    view: &CandidateView,
    request: &Request,
    ledger: &Ledger,
    stages: &Stages,
    warnings: &mut Vec<String>,
) -> CandidateReport {
    let inputs = Inputs::resolve(view, ledger, stages);
    let wants = |part: PartName| request.parts.contains(&part);
    let mut limits = if wants(PartName::Limits) { all_limits(&inputs, stages) } else { Vec::new() };
    if wants(PartName::Remedies) {
        add_remedies(&mut limits, build, view.index, stages);
    }
    warn(&inputs, view, warnings);
    CandidateReport {
        id: view.id.clone(),
        name: view.name.clone(),
        engine: inputs.cylinder.as_ref().map(candidate::engine).map_err(Clone::clone).into(),
        timing: block(wants(PartName::Timing), || candidate::timing(&inputs)),
        strip: block(wants(PartName::Strip), || candidate::strip(&inputs, stages)),
        lift: block(wants(PartName::Lift), || candidate::lift(&inputs)),
        lobe: block(wants(PartName::Lobe), || candidate::lobe(&inputs)),
        train: block(wants(PartName::Train), || candidate::train(&inputs, stages)),
        spring: block(wants(PartName::Spring), || candidate::spring(&inputs)),
        control: block(wants(PartName::Control), || candidate::control(&inputs)),
        clearance: block(wants(PartName::Clearance), || candidate::clearance(&inputs, stages)),
        breathing: block(wants(PartName::Breathing), || breathing(&inputs)),
        drawing: block(wants(PartName::Drawing), || candidate::drawing(&inputs)),
        measure_next: measure_next(&limits),
        limits,
    }
}

fn block<T>(wanted: bool, compute: impl FnOnce() -> Part<T>) -> Block<T> {
    if wanted { compute().into() } else { Block::NotAsked }
}

fn add_remedies(limits: &mut [LimitReport], build: &Build, index: usize, stages: &Stages) {
    for limit in limits.iter_mut().filter(|l| matches!(l.verdict, Verdict::Fails | Verdict::Tight)) {
        if let Some(rule) = RULES.iter().find(|rule| rule.id == limit.id) {
            limit.remedies = remedies_for(rule, limit.side, build, index, stages);
        }
    }
}

/// Cautions that belong to what the document says; what holds for both sides is said once.
fn warn(inputs: &Inputs<'_>, view: &CandidateView, warnings: &mut Vec<String>) {
    let [intake, exhaust] = Side::BOTH.map(|side| cautions(inputs, side));
    for caution in &intake {
        let whose = if exhaust.contains(caution) { "" } else { "intake " };
        warnings.push(format!("{}: {whose}{caution}", view.name));
    }
    for caution in exhaust.iter().filter(|caution| !intake.contains(caution)) {
        warnings.push(format!("{}: exhaust {caution}", view.name));
    }
}

fn cautions(inputs: &Inputs<'_>, side: Side) -> Vec<String> {
    let mut found = Vec::new();
    let (lifter, rules) = (inputs.train(side, "lifter"), inputs.target.child("rules"));
    let kind = lifter.word("kind").unwrap_or_default();
    if let Some(allowed) = rules.word("lifter").filter(|allowed| !kind.is_empty() && *allowed != kind) {
        found.push(format!("lifters are {}; the class allows {} only", spoken(kind), spoken(allowed)));
    }
    let ratio = inputs.train(side, "rocker").number("ratio");
    if let (Some(stock), Some(ratio)) = (rules.number("stock_ratio"), ratio)
        && (stock - ratio).abs() > 1e-9
    {
        found.push(format!("rocker ratio is {ratio}; the class allows {stock} only"));
    }
    if kind.ends_with("roller") && lifter.word("anti_rotation") == Some("none") {
        found.push("roller lifters must be kept from turning".to_owned());
    }
    if kind.ends_with("flat") {
        found.push("flat lifters: break in with reduced spring load and the right oil, without idling; a lobe can be lost in minutes".to_owned());
    }
    found
}

fn spoken(word: &str) -> String {
    word.replace('_', " ")
}
