//! The limits of one candidate as engines are drawn on them: a response of each, what runs in full say of those, and what engines
//! come to with both.

use super::findings::findings_in_motion;
use crate::candidate::{Key, Resolved, Stages, key};
use crate::choose::{
    Agreement, Band, InFull, Responded, Responses, Run, Strays, Toleranced, cast_of, model_of, respond, run_in_full,
    toleranced,
};
use crate::document::Side;
use crate::given::Source;
use crate::limits::{Findings, Rule};
use crate::tolerance::{Cast, Model, Simulated, simulate};

/// Engines drawn, and the lot.
const ENGINES: usize = 20_000;
const SEED: u64 = 2026;
/// Beyond this share of the standard deviation, or of the runs that do not agree, a response is off.
const OFF: f64 = 0.2;
const DISAGREE: f64 = 0.01;
/// Beyond this share of the standard deviation there is no response at all.
const LOST: f64 = 1.0;
/// Beyond this share of the standard deviation of the runs in full a response tells less than half of their variance.
const HALF: f64 = 0.7;
/// A response that spreads by so many times what runs in full do is of no use either.
const WIDE: f64 = 1.5;
/// A limit with so many standard deviations left does not fail, whatever its response is off by.
const FAR: f64 = 6.0;

/// A work's stop.
pub(super) type Stop<'a> = &'a (dyn Fn() -> bool + Sync);

/// What a candidate is held against the tolerances with.
pub(super) struct Begun {
    pub resolved: Resolved,
    pub fields: Vec<Toleranced>,
    pub findings: Findings,
}

impl Begun {
    pub fn of(resolved: Resolved, source: &Source<'_>, stages: &Stages) -> Self {
        let (fields, findings) = (toleranced(&resolved, source), findings_in_motion(&resolved, stages));
        Self { resolved, fields, findings }
    }

    /// Stands for everything the result depends on.
    pub fn key(&self) -> Key {
        keyed(&self.resolved, &self.fields, &self.findings)
    }

    /// Whether long work found anything that a field that is off may move.
    pub fn has_gas_or_trains(&self) -> bool {
        self.findings.gas.is_some() || self.findings.control.is_some()
    }

    /// What long work finds with each field off, kept in `within`'s stages. Its stop ends it with `None`.
    pub fn strays(&self, within: (&Stages, Stop<'_>)) -> Option<Strays> {
        Strays::of(&self.resolved, &self.fields, &self.findings, within)
    }
}

/// Stands for everything a result depends on.
pub(super) fn keyed(resolved: &Resolved, fields: &[Toleranced], findings: &Findings) -> Key {
    key(&(&resolved.given, fields, findings))
}

/// What runs in full make of a response.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Trust {
    /// It holds.
    Holds,
    /// It holds with a bias and a scatter of its own.
    Doubted,
    /// It tells less than the runs' own mean and standard deviation, which stand for it.
    Spread,
    /// There is none: shares of runs in full alone count.
    Lost,
}

/// What runs in full said of a limit.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Check {
    /// Beside its response.
    pub agreement: Agreement,
    /// How.
    pub run: Run,
    /// Whether the shares of those runs stand for those of the response.
    pub in_full: bool,
    /// What they make of it.
    pub trust: Trust,
}

/// The limits of a candidate as engines are drawn on them.
pub(super) struct Drawing<'a> {
    begun: &'a Begun,
    pub responses: Responses,
    /// What runs in full said of every limit so far.
    pub checks: Vec<Option<Check>>,
    /// Gaps over the overlap, intake and exhaust.
    pub overlap: [Option<Band>; 2],
    pub model: Model,
    pub simulated: Simulated,
    pub cast: Cast,
}

impl<'a> Drawing<'a> {
    /// By the responses alone. `stop` ends it with `None`.
    pub fn of(begun: &'a Begun, stop: Stop<'_>) -> Option<Self> {
        let responses = responses(begun, &Strays::default(), stop)?;
        let checks = vec![None; responses.limits.len()];
        Some(Self::with(begun, responses, checks, [None, None]))
    }

    /// With gas and trains straying too: what is known of limits whose response is the same is taken over, and the others are told.
    /// `stop` ends it with `None`.
    pub fn straying(self, strays: &Strays, stop: Stop<'_>) -> Option<(Self, Vec<usize>)> {
        let Self { begun, responses: before, checks: known, overlap, .. } = self;
        let responses = responses(begun, strays, stop)?;
        let same =
            |own: &Responded| before.limits.iter().position(|limit| name(limit) == name(own) && limit.moves_like(own));
        let same: Vec<Option<usize>> = responses.limits.iter().map(same).collect();
        let left = (0..same.len()).filter(|place| same[*place].is_none()).collect();
        let checks = same.into_iter().map(|before| known[before?].clone()).collect();
        Some((Self::with(begun, responses, checks, overlap), left))
    }

    fn with(begun: &'a Begun, responses: Responses, checks: Vec<Option<Check>>, overlap: [Option<Band>; 2]) -> Self {
        let cast = cast_of(&begun.resolved, ENGINES, SEED);
        let model = modelled(begun, &responses, &checks);
        let simulated = simulate(&model, &cast);
        Self { begun, responses, checks, overlap, model, simulated, cast }
    }

    /// Every field that may be off.
    pub fn fields(&self) -> &'a [Toleranced] {
        &self.begun.fields
    }

    /// What long work found.
    pub fn findings(&self) -> &'a Findings {
        &self.begun.findings
    }

    /// Every limit.
    pub fn all(&self) -> Vec<usize> {
        (0..self.checks.len()).collect()
    }

    /// The limits whose response is off.
    pub fn off(&self) -> Vec<usize> {
        let is_off = |place: &usize| self.trust(*place).is_some_and(|trust| trust != Trust::Holds);
        (0..self.checks.len()).filter(is_off).collect()
    }

    /// What runs in full made of a limit's response; `None` while they run.
    pub fn trust(&self, place: usize) -> Option<Trust> {
        self.checks[place].as_ref().map(|own| own.trust)
    }

    /// Holds some limits against so many cylinders in full, whole engines at a time; with `in_full` their shares stand. `stop` ends
    /// it with `None`.
    pub fn hold(
        &mut self,
        (places, cylinders): (&[usize], usize),
        (run, in_full): (Run, bool),
        stop: Stop<'_>,
    ) -> Option<()> {
        let Begun { resolved, fields, findings } = self.begun;
        let cast = Cast { engines: cylinders.div_ceil(self.cast.cylinders), ..self.cast };
        let limits: Vec<Responded> = places.iter().map(|place| self.responses.limits[*place].clone()).collect();
        let InFull { limits: found, overlap } = run_in_full(resolved, fields, findings, &limits, (run, &cast), stop)?;
        if run == Run::Metal {
            self.overlap = overlap;
        }
        for (place, agreement) in places.iter().zip(found) {
            self.checks[*place] = Some(self.checked(*place, agreement, (run, in_full)));
        }
        self.model = modelled(self.begun, &self.responses, &self.checks);
        self.simulated = simulate(&self.model, &self.cast);
        Some(())
    }

    fn checked(&self, place: usize, agreement: Agreement, (run, in_full): (Run, bool)) -> Check {
        let (limit, sd) = (&self.responses.limits[place], self.simulated.limits[place].sd);
        let off = agreement.off();
        // One run of a few dozen that does not agree is more than a hundredth of them.
        let disagree = agreement.disagree > DISAGREE.max(1.5 / agreement.runs.max(1) as f64);
        let is_near = limit.found.margin() < FAR * sd.hypot(off);
        let trust = match run {
            _ if is_near && limit.is_broken => Trust::Lost,
            // Trains come to another bounce for a gram: a line through two of them tells nothing, or too much.
            Run::GasAndTrains if agreement.scatter > HALF * agreement.sd => Trust::Spread,
            Run::GasAndTrains if sd > WIDE * agreement.sd => Trust::Spread,
            Run::GasAndTrains if off > OFF * sd => Trust::Doubted,
            Run::GasAndTrains => Trust::Holds,
            Run::Metal if !in_full && !(is_near && (disagree || off > OFF * sd)) => Trust::Holds,
            Run::Metal if off > LOST * sd => Trust::Lost,
            Run::Metal => Trust::Doubted,
        };
        Check { agreement, run, in_full, trust }
    }
}

fn responses(begun: &Begun, strays: &Strays, stop: Stop<'_>) -> Option<Responses> {
    // Cylinders that nobody builds are not kept beside those that somebody does.
    let stages = Stages::default();
    respond(&begun.resolved, &begun.fields, (&begun.findings, strays), (&stages, stop))
}

/// The responses with what is known of their doubts.
fn modelled(begun: &Begun, responses: &Responses, checks: &[Option<Check>]) -> Model {
    let mut model = model_of(&begun.fields, responses);
    for (place, check) in checks.iter().enumerate() {
        let Some(Check { agreement, trust, .. }) = check else { continue };
        match trust {
            Trust::Holds => {}
            Trust::Doubted => model.doubt(place, agreement.bias, agreement.scatter),
            Trust::Spread => model.replace(place, agreement.mean, agreement.sd),
            Trust::Lost => model.counts[place] = false,
        }
    }
    model
}

/// What stands for a limit.
fn name(limit: &Responded) -> (*const Rule, Option<Side>) {
    (std::ptr::from_ref(limit.rule), limit.side)
}
