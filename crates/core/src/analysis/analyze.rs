//! The report of a build: the parts asked for, of one candidate or of all.

use super::cautions::{bench_against_fields, warn};
use super::control::{control_finding, in_motion};
use super::curve::{gas_finding, whole_curve};
use super::findings::findings_of;
use super::following::following;
use super::phasing::phasing;
use super::speed_bought::Variants;
use super::springs_stay::springs_stay;
use super::tolerating::{drawn, put_chances};
use super::unknowns::measure_next;
use crate::begin::strangers;
use crate::build::Build;
use crate::candidate::Stages;
use crate::candidate::{self, Gap, Part, Resolved, block, motion_of_valves, note_assumed};
use crate::choose::{Advisor, remedies};
use crate::document::{CandidateView, Fault, Ledger, candidate_or_first};
use crate::engine::read_cylinder;
use crate::given::{Given, Source};
use crate::limits::{Findings, limits};
use crate::parts::Part as ShelfPart;
use crate::quantity::{Dimension, UnitSystem, scale};
use crate::report::*;
use serde::{Deserialize, Serialize};
use std::sync::Arc;

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
    /// The same at speed.
    AtSpeed,
    /// What readings of the bench say.
    Bench,
    /// Sessions at the bench.
    Sessions,
    /// Putting it together, line by line.
    Assembly,
    /// One cylinder to scale.
    Drawing,
    /// Torque and power over speed; takes seconds.
    Breathing,
    /// Torque by cams that were computed around this one, where they were.
    Following,
    /// Both valves in motion over speed; takes seconds.
    Dynamics,
    /// How the cam may be turned; takes seconds.
    Phasing,
    /// How likely limits fail under the tolerances; takes seconds.
    Tolerance,
    /// Every rule.
    Limits,
    /// What buys margins back; needs limits.
    Remedies,
}

impl PartName {
    /// Every part, in the order of the report.
    pub const ALL: [Self; 20] = [
        Self::Timing,
        Self::Strip,
        Self::Lift,
        Self::Lobe,
        Self::Train,
        Self::Spring,
        Self::Control,
        Self::Clearance,
        Self::AtSpeed,
        Self::Bench,
        Self::Sessions,
        Self::Assembly,
        Self::Drawing,
        Self::Breathing,
        Self::Following,
        Self::Dynamics,
        Self::Phasing,
        Self::Tolerance,
        Self::Limits,
        Self::Remedies,
    ];

    /// Every part that takes milliseconds.
    pub fn cheap() -> Vec<Self> {
        Self::ALL
            .into_iter()
            .filter(|part| !matches!(part, Self::Breathing | Self::Dynamics | Self::Phasing | Self::Tolerance))
            .collect()
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
            Self::AtSpeed => "at_speed",
            Self::Bench => "bench",
            Self::Sessions => "sessions",
            Self::Assembly => "assembly",
            Self::Drawing => "drawing",
            Self::Breathing => "breathing",
            Self::Following => "following",
            Self::Dynamics => "dynamics",
            Self::Phasing => "phasing",
            Self::Tolerance => "tolerance",
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
#[derive(Debug, Clone, PartialEq)]
pub struct Request {
    /// Only the candidate of this id; all when absent.
    pub candidate: Option<String>,
    /// The parts wanted.
    pub parts: Vec<PartName>,
    /// Parts of the shelf that remedies may put in.
    pub shelf: Arc<[ShelfPart]>,
}

impl Request {
    /// These parts of one candidate, or of all.
    pub fn of(candidate: Option<String>, parts: Vec<PartName>) -> Self {
        Self { candidate, parts, shelf: Arc::default() }
    }
}

impl Default for Request {
    /// Everything that is cheap.
    fn default() -> Self {
        Self::of(None, PartName::cheap())
    }
}

/// Analyses `build`; `stages` may serve many calls and changes no result.
pub fn analyze(build: &Build, request: &Request, stages: &Stages) -> Result<Analysis, Fault> {
    let views = build.candidates();
    let chosen: Vec<&CandidateView<'_>> = match &request.candidate {
        None => views.iter().collect(),
        Some(id) => vec![candidate_or_first(&views, Some(id))?],
    };
    let ledger = Ledger::default();
    let mut warnings = strangers(build.value());
    let candidates =
        chosen.into_iter().map(|view| report_of(build, view, request, &ledger, stages, &mut warnings)).collect();
    Ok(Analysis {
        engine: shared_engine(build),
        candidates,
        assumed: ledger.into_assumed(),
        warnings,
        scales: Scales {
            length_inch: scale(Dimension::Length, UnitSystem::Inch),
            length_metric: scale(Dimension::Length, UnitSystem::Metric),
            force_inch: scale(Dimension::Force, UnitSystem::Inch),
            force_metric: scale(Dimension::Force, UnitSystem::Metric),
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

/// Displacement, compression and quench of what all candidates share, without any one's changes.
fn shared_engine(build: &Build) -> Block<EngineReport> {
    let ledger = Ledger::default();
    let view = build.shared();
    let source = Source::new(&view, &ledger);
    let cylinder = read_cylinder(&Given::read(&source).engine);
    block(cylinder.map(|c| candidate::engine(&c)).map_err(Gap::from), &source)
}

fn report_of(
    build: &Build,
    view: &CandidateView<'_>,
    request: &Request,
    ledger: &Ledger,
    stages: &Stages,
    warnings: &mut Vec<String>,
) -> CandidateReport {
    let source = Source::new(view, ledger);
    let resolved = Resolved::new(Given::read(&source), stages);
    note_assumed(&resolved, &source, ledger);
    let wants = |part: PartName| request.parts.contains(&part);
    let curve = asked(wants(PartName::Breathing), &source, || whole_curve(&resolved, stages));
    let motion = asked(wants(PartName::Dynamics), &source, || {
        let (index, shelf) = (view.index, request.shelf.as_ref());
        in_motion(&Variants { build, index, resolved: &resolved, shelf, stages })
    });
    let mut findings = if wants(PartName::Limits) { findings_of(&resolved, stages) } else { Findings::default() };
    findings.gas = curve.done().map(gas_finding).or(findings.gas);
    findings.control = motion.done().map(control_finding).or(findings.control);
    let tolerance = asked(wants(PartName::Tolerance), &source, || drawn(&resolved, &source, stages));
    // Turning the trains takes some milliseconds: a drag goes without.
    findings.moved = wants(PartName::AtSpeed).then(|| motion_of_valves(&resolved, stages)).flatten();
    let lines = if wants(PartName::Limits) {
        let judgement = limits(&resolved, &findings, stages);
        let mut lines = judgement.lines(&resolved, &findings, stages, &source);
        put_chances(&mut lines, (&resolved, &findings), &source, stages);
        if wants(PartName::Remedies) {
            let advisor = Advisor {
                build,
                index: view.index,
                resolved: &resolved,
                source: &source,
                judgement: &judgement,
                findings: &findings,
                shelf: &request.shelf,
                stages,
            };
            remedies(&mut lines, advisor);
        }
        lines
    } else {
        Vec::new()
    };
    let bench = if wants(PartName::Bench) { candidate::bench(&resolved, &source) } else { Vec::new() };
    let measured = wants(PartName::Sessions) || wants(PartName::Assembly);
    let sessions = if measured { candidate::sessions(&resolved, &source, view.index == 0) } else { Vec::new() };
    let assembly = wants(PartName::Assembly).then(|| candidate::assembly(&resolved, &source, &sessions));
    warn(&resolved, view, &source, warnings);
    warnings.extend(bench_against_fields(&bench, view));
    let spring = asked(wants(PartName::Spring), &source, || candidate::spring(&resolved));
    CandidateReport {
        springs_stay: springs_stay(&lines, spring.done()),
        id: view.id.clone(),
        name: view.name.clone(),
        engine: block(resolved.cylinder.as_ref().map(candidate::engine).map_err(Clone::clone), &source),
        timing: asked(wants(PartName::Timing), &source, || candidate::timing(&resolved)),
        strip: asked(wants(PartName::Strip), &source, || candidate::strip(&resolved, stages)),
        lift: asked(wants(PartName::Lift), &source, || candidate::lift(&resolved)),
        lobe: asked(wants(PartName::Lobe), &source, || candidate::lobe(&resolved)),
        train: asked(wants(PartName::Train), &source, || candidate::train(&resolved, stages)),
        spring,
        control: asked(wants(PartName::Control), &source, || candidate::control(&resolved)),
        clearance: asked(wants(PartName::Clearance), &source, || candidate::clearance(&resolved, stages)),
        at_speed: asked(wants(PartName::AtSpeed), &source, || candidate::at_speed(&resolved, &source, stages)),
        bench,
        sessions: if wants(PartName::Sessions) { sessions } else { Vec::new() },
        assembly,
        breathing: curve,
        phasing: asked(wants(PartName::Phasing), &source, || phasing(&resolved, stages)),
        tolerance,
        following: asked(wants(PartName::Following), &source, || following(&resolved, stages)),
        dynamics: motion,
        drawing: asked(wants(PartName::Drawing), &source, || candidate::drawing(&resolved)),
        measure_next: measure_next(&lines),
        limits: lines,
    }
}

/// A block, where it is wanted.
fn asked<T>(wanted: bool, source: &Source<'_>, compute: impl FnOnce() -> Part<T>) -> Block<T> {
    if wanted { block(compute(), source) } else { Block::NotAsked }
}
