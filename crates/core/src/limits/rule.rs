//! What a rule is, what it is held against, and what comes of it: numbers only, worded in [`super::report`].

use super::findings::Findings;
use super::measure::Measure;
use super::reads::Reads;
use crate::candidate::{Part, Resolved, Stages};
use crate::document::Side;
use crate::given::{OwnLimit, Place};
use crate::quantity::Pressure;
use crate::report::{Place as Step, Sense, Verdict};

/// A remark that goes with a finding.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Note {
    /// As it stands.
    Text(&'static str),
    /// Below a usual band, SI, and why that may do.
    Below(f64, f64, &'static str),
    /// Above a usual band, SI, and what that costs.
    Above(f64, f64, &'static str),
}

/// A rule held against a candidate: everything in SI.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// Least that is needed.
    pub min: Option<f64>,
    /// Most that is allowed.
    pub max: Option<f64>,
    /// Met with less than this left is tight.
    pub tight: f64,
    /// What there is.
    pub have: f64,
    /// Tight whatever is left over.
    pub is_tight: bool,
    /// A failure is advice at worst: something else decides.
    pub is_advice: bool,
    /// What goes with it.
    pub note: Option<Note>,
}

impl Finding {
    /// Between two bounds, either of which may be open.
    pub const fn between(min: Option<f64>, max: Option<f64>, tight: f64, have: f64) -> Self {
        Self { min, max, tight, have, is_tight: false, is_advice: false, note: None }
    }

    /// At least `min`.
    pub const fn at_least(min: f64, tight: f64, have: f64) -> Self {
        Self::between(Some(min), None, tight, have)
    }

    /// At most `max`.
    pub const fn at_most(max: f64, tight: f64, have: f64) -> Self {
        Self::between(None, Some(max), tight, have)
    }

    /// The same with a remark.
    #[must_use]
    pub const fn noting(mut self, note: Note) -> Self {
        self.note = Some(note);
        self
    }

    /// What is left over.
    pub fn margin(&self) -> f64 {
        let above = self.min.map_or(f64::INFINITY, |min| self.have - min);
        let below = self.max.map_or(f64::INFINITY, |max| max - self.have);
        above.min(below)
    }

    /// The verdict; rounding is not a failure: a nanometre, or less where margins are counted in nanometres.
    pub fn verdict(&self) -> Verdict {
        let slack = if self.tight > 0.0 { f64::min(1e-9, 1e-4 * self.tight) } else { 1e-9 };
        match self.margin() {
            m if m.is_nan() => Verdict::Unknown,
            m if m < -slack && self.is_advice => Verdict::Advice,
            m if m < -slack => Verdict::Fails,
            m if self.is_tight || m < self.tight - slack => Verdict::Tight,
            _ => Verdict::Ok,
        }
    }
}

/// A change that may buy margin, and what doing it means.
#[derive(Debug)]
pub struct Lever {
    /// The field, as the rule's side sees it.
    pub place: fn(Side) -> Place,
    /// Smallest step worth making, SI for quantities.
    pub step: f64,
    /// Most steps tried.
    pub most: f64,
    /// How it is done, and what it takes.
    pub how: How,
}

/// What a change takes, cheapest first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum How {
    /// Set on the engine as it stands.
    Setting,
    /// Shims, gaskets, keys.
    Shims,
    /// A decision of the plan.
    Plan,
    /// Cut or ground.
    Machining,
    /// Another part.
    Part,
}

/// What a rule is held against.
#[derive(Clone, Copy)]
pub struct Case<'a> {
    /// The candidate.
    pub resolved: &'a Resolved,
    /// What was computed of it.
    pub findings: &'a Findings,
    /// Cached stages.
    pub stages: &'a Stages,
    /// The side; the intake for a rule of the whole engine.
    pub side: Side,
}

impl Case<'_> {
    /// Greatest manifold and drive pressure, gauge: computed where breathing has run, else by the plan.
    pub fn boost(&self) -> Option<(Pressure, Pressure)> {
        let computed = self.findings.gas.as_ref().and_then(|gas| gas.boost);
        computed.or_else(|| self.resolved.boost())
    }
}

/// A rule of the table.
pub struct Rule {
    /// Stable identifier.
    pub id: &'static str,
    /// In words, without the side.
    pub title: &'static str,
    /// The step of the work it belongs to.
    pub place: Step,
    /// How it compares.
    pub sense: Sense,
    /// What it is measured in.
    pub measure: Measure,
    /// Whether each side has its own.
    pub sided: bool,
    /// How have is computed.
    pub formula: &'static str,
    /// Whose rule it is.
    pub school: fn(&Resolved) -> &'static str,
    /// What it reads; the first that is given is where one goes to change it.
    pub reads: &'static [Reads],
    /// Whether what breathing found goes into it.
    pub gas: bool,
    /// Need and have; `None` when the rule does not apply.
    pub find: fn(&Case<'_>) -> Option<Part<Finding>>,
    /// Not met is advice, never a failure.
    pub advice: bool,
    /// Changes that may buy margin.
    pub levers: &'static [Lever],
}

/// The default school of figures nobody quarrels about.
pub fn common(_: &Resolved) -> &'static str {
    "common practice"
}

/// A rule held against a candidate.
#[derive(Clone)]
pub struct Judged {
    /// The rule.
    pub rule: &'static Rule,
    /// The side, for a rule that has sides.
    pub side: Option<Side>,
    /// Need and have, or what is missing.
    pub found: Part<Finding>,
}

impl Judged {
    /// In one word.
    pub fn verdict(&self) -> Verdict {
        self.found.as_ref().map_or(Verdict::Unknown, Finding::verdict)
    }

    /// What is left over, SI.
    pub fn margin(&self) -> Option<f64> {
        self.found.as_ref().ok().map(Finding::margin)
    }
}

impl Rule {
    /// The sides it is held against.
    pub const fn sides(&self) -> &'static [Option<Side>] {
        if self.sided { &[Some(Side::Intake), Some(Side::Exhaust)] } else { &[None] }
    }

    /// The places it reads on `side`.
    pub fn places(&self, side: Option<Side>) -> impl Iterator<Item = Place> {
        self.reads.iter().flat_map(|reads| reads.iter()).flat_map(move |read| read.places(side))
    }

    /// Held against `case` on `side`; the shop's own figures stand above the default. `None` when it does not apply.
    pub fn judge(&'static self, side: Option<Side>, case: Case<'_>) -> Option<Judged> {
        let case = Case { side: side.unwrap_or(Side::Intake), ..case };
        let mut found = (self.find)(&case)?;
        if let Ok(finding) = &mut found {
            finding.is_advice |= self.advice;
            if let Some(own) = own_limit(self.id, side, case.resolved) {
                let scale = if self.measure.dimension().is_none() { self.measure.one() } else { 1.0 };
                finding.min = own.min.map(|min| min * scale).or(finding.min);
                finding.max = own.max.map(|max| max * scale).or(finding.max);
            }
        }
        Some(Judged { rule: self, side, found })
    }
}

/// The shop's own limit for a rule; one for the side before one for both.
pub fn own_limit<'a>(id: &str, side: Option<Side>, resolved: &'a Resolved) -> Option<&'a OwnLimit> {
    let own = |wanted: Option<Side>| {
        resolved.given.own_limits.iter().find(move |limit| &*limit.limit == id && limit.side == wanted)
    };
    side.and_then(|side| own(Some(side))).or_else(|| own(None))
}
