//! Both trains of a candidate turned: where the usual ones lose control, speeds in batches, the limits with their bands, worn
//! springs, what buys more; and the answer in a sentence.

use super::speed_bought::{Variants, in_words};
use super::speed_choices::choices;
use crate::candidate::dynamics::{
    Around, Bought, LOOKED_TO, Learned, Limit, Near, Sample, SideTrain, Unmeasured, Variant, looked_at, lost_at,
    side_report, side_train, sweep,
};
use crate::candidate::{Gap, Part, Resolved, lack, together};
use crate::document::{Ledger, Side};
use crate::given::{Place, Source};
use crate::quantity::{Dimension, Speed, shown};
use crate::report::{Curve, DynamicsReport, DynamicsSide, LimitedBy, Named, SpeedBought, TrainShare, WornReport};
use crate::work::{Halted, Watch};
use serde::Serialize;

/// Speeds of the columns, and how far beyond a missed shift they go.
const COLUMNS: usize = 32;
const BEYOND: f64 = 1.5;
/// Top speed of a plan that says none, rpm.
pub(super) const USUAL_TOP: f64 = 6000.0;
/// Loads that springs may have kept, of those when new: at a tenth less they are renewed (common practice, no source).
const WORN: [f64; 3] = [0.95, 0.90, 0.85];
/// Steps a sweep is told in.
const BATCHES: usize = 4;

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ControlStep {
    /// Pieces of work done.
    pub done: usize,
    /// Pieces of the whole.
    pub of: usize,
    /// The report so far.
    pub report: Box<DynamicsReport>,
}

/// Turns both trains: the speeds in batches, the limits, what buys more.
pub(super) fn turned(
    variants: &Variants<'_>,
    curve: Option<&Curve>,
    threshold: f64,
    watch: &Watch<'_, ControlStep>,
) -> Result<DynamicsReport, Halted> {
    let turning = Turning::of(variants, curve, threshold)?;
    let resolved = variants.resolved;
    let of = BATCHES + 4;
    let tell = |done: usize, report: DynamicsReport| {
        (watch.report)(ControlStep { done, of, report: Box::new(report) });
    };
    let unless_stopped = || if (watch.stop)() { Err(Halted::Stopped) } else { Ok(()) };
    let mut samples: [Vec<Sample>; 2] = Default::default();
    // Where the usual train loses control comes first: it is there before a hand has left the key.
    let mut limits = Side::BOTH.map(|side| turning.limit(side, usual_alone, watch.stop));
    unless_stopped()?;
    tell(1, turning.report(&samples, limits, Vec::new()));
    for batch in 0..BATCHES {
        turning.more(&mut samples, batch, watch.stop);
        unless_stopped()?;
        tell(batch + 2, turning.report(&samples, limits, Vec::new()));
    }
    for (done, side) in Side::BOTH.into_iter().enumerate() {
        limits[done] = turning.limit(side, Learned::draws, watch.stop);
        unless_stopped()?;
        tell(BATCHES + 2 + done, turning.report(&samples, limits, Vec::new()));
    }
    let (worn, bought) = turning.near(limits, variants, watch.stop);
    unless_stopped()?;
    let (views, ledger) = (variants.build.candidates(), Ledger::default());
    let name = |place: Place| {
        Named::at(views.get(variants.index).map_or_else(String::new, |view| Source::new(view, &ledger).path(place)))
    };
    let bought: Vec<SpeedBought> = bought.into_iter().map(|bought| in_words(bought, &name)).collect();
    let mut report = turning.report(&samples, limits, bought);
    let Some((side, _)) = first_lost(limits) else { return Ok(report) };
    let share = |(part, gives, moves): (&str, f64, f64)| TrainShare { part: part.to_owned(), gives, moves };
    report.worn = worn;
    report.shares = turning.trains[side.index()].shares().into_iter().map(share).collect();
    report.choices = choices(resolved, side, &report);
    Ok(report)
}

/// No more than where the usual trains lose control.
pub(super) fn usual(
    variants: &Variants<'_>,
    curve: Option<&Curve>,
    threshold: f64,
    stop: &(dyn Fn() -> bool + Sync),
) -> Result<DynamicsReport, Halted> {
    let turning = Turning::of(variants, curve, threshold)?;
    let limits = Side::BOTH.map(|side| turning.limit(side, usual_alone, stop));
    if stop() { Err(Halted::Stopped) } else { Ok(turning.report(&Default::default(), limits, Vec::new())) }
}

/// The likeliest of what nobody measures alone.
fn usual_alone(learned: &Learned) -> Vec<Unmeasured> {
    vec![learned.usual()]
}

/// Both trains of a candidate with what they are turned by.
struct Turning<'a> {
    resolved: &'a Resolved,
    trains: [SideTrain<'a>; 2],
    around: [Around<'a>; 2],
    threshold: f64,
}

impl<'a> Turning<'a> {
    /// Of a candidate, under the gas of its curve where there is one.
    fn of(variants: &Variants<'a>, curve: Option<&Curve>, threshold: f64) -> Result<Self, Halted> {
        let (resolved, stages) = (variants.resolved, variants.stages);
        let lacks = |gap: Gap| Halted::Lacks { reason: gap.reason, needs: Vec::new() };
        let around = Side::BOTH.map(|side| Around::of(resolved, side, stages));
        Ok(Self { resolved, trains: trains(resolved, curve).map_err(lacks)?, around, threshold })
    }

    /// Shift plus overspeed, rpm.
    fn top(&self) -> f64 {
        self.resolved.top_speed().map_or(USUAL_TOP, Speed::as_rpm)
    }

    /// Speeds of the columns, rpm: from a sixth of the top speed to beyond it.
    fn columns(&self) -> Vec<f64> {
        let (first, last) = ((self.top() / 6.0).max(500.0), (BEYOND * self.top()).min(LOOKED_TO));
        let at = |i: usize| first + (last - first) * i as f64 / (COLUMNS - 1) as f64;
        (0..COLUMNS).map(|i| (at(i) / 10.0).round() * 10.0).collect()
    }

    /// Another batch of speeds, spread over all, put in their places.
    fn more(&self, samples: &mut [Vec<Sample>; 2], batch: usize, stop: &(dyn Fn() -> bool + Sync)) {
        let speeds: Vec<f64> = self.columns().into_iter().skip(batch).step_by(BATCHES).collect();
        for (own, train) in samples.iter_mut().zip(&self.trains) {
            own.extend(sweep(train, &train.learned.usual(), &speeds, stop));
            own.sort_by(|a, b| a.rpm.total_cmp(&b.rpm));
        }
    }

    /// Lowest speed a limit is looked for at, rpm.
    fn looked_from(&self) -> f64 {
        looked_at(self.top())[0]
    }

    /// Of trains with these sets of what nobody measures; `None` when stopped.
    fn limit(
        &self,
        side: Side,
        sets: fn(&Learned) -> Vec<Unmeasured>,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Option<Limit> {
        let train = &self.trains[side.index()];
        let sets = sets(&train.learned);
        let speeds = looked_at(self.top());
        Limit::of(&lost_at(train, &train.models(&sets), &speeds, self.threshold, stop), LOOKED_TO)
    }

    /// Of the valve that loses control first: what worn springs cost it, and what buys speed.
    fn near(
        &self,
        limits: [Option<Limit>; 2],
        variants: &Variants<'_>,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> (Vec<WornReport>, Vec<Bought>) {
        let Some((side, limit)) = first_lost(limits) else { return Default::default() };
        let near = Near::new(self.resolved, side, (limit, self.threshold), variants.stages, stop);
        let mut tried: Vec<Variant> = variants.gentler(side).into_iter().collect();
        tried.extend(near.promising(variants.shelved()));
        let worn = WORN.iter().zip(near.worn(&WORN));
        let worn = worn.map(|(share, rpm)| WornReport { load_share: *share, limiting_speed_rpm: rpm.round() });
        (worn.collect(), near.bought(&tried))
    }

    fn report(
        &self,
        samples: &[Vec<Sample>; 2],
        limits: [Option<Limit>; 2],
        what_buys_speed: Vec<SpeedBought>,
    ) -> DynamicsReport {
        let of = |i: usize| side_report(&self.trains[i], &self.around[i], &samples[i], limits[i].as_ref(), LOOKED_TO);
        let (intake, exhaust) = (of(0), of(1));
        let target = &self.resolved.given.target;
        let missed = self.resolved.top_speed().map(Speed::as_rpm);
        DynamicsReport {
            threshold_mm: self.threshold * 1e3,
            threshold: shown(self.threshold, Dimension::Length),
            looked_to_rpm: LOOKED_TO,
            shift_rpm: target.shift_at.map(Speed::as_rpm),
            missed_rpm: missed,
            gas_computed: self.trains[0].gas.is_computed(),
            says: if limits.iter().all(Option::is_some) {
                says(&intake, &exhaust, missed, self.looked_from())
            } else {
                String::new()
            },
            intake,
            exhaust,
            what_buys_speed,
            worn: Vec::new(),
            shares: Vec::new(),
            choices: Vec::new(),
        }
    }
}

/// The side whose median limit is the lower one, rpm.
fn first_lost(limits: [Option<Limit>; 2]) -> Option<(Side, f64)> {
    let all = Side::BOTH.into_iter().filter_map(|side| Some((side, limits[side.index()]?.median?)));
    all.min_by(|a, b| a.1.total_cmp(&b.1))
}

/// What loses control, in words.
const fn how(by: LimitedBy) -> &'static str {
    match by {
        LimitedBy::Separation => "the train parts",
        LimitedBy::Bounce => "the valve bounces off its seat",
        LimitedBy::HangOpen => "the valve does not close",
        LimitedBy::PumpUp => "the lifter pumps up and holds the valve open",
        LimitedBy::CoilClash => "the train parts and its coils strike each other",
        LimitedBy::None => "nothing is lost",
    }
}

/// The answer in a sentence.
fn says(intake: &DynamicsSide, exhaust: &DynamicsSide, missed: Option<f64>, from: f64) -> String {
    let sides = [("intake", intake), ("exhaust", exhaust)];
    let first = sides
        .iter()
        .filter_map(|(name, side)| Some((*name, side.limiting_speed_rpm?, *side)))
        .min_by(|a, b| a.1.total_cmp(&b.1));
    let Some((name, limit, side)) = first else {
        return format!("Both valves follow their lobes up to {LOOKED_TO:.0} rpm.");
    };
    let band = side.limiting_speed_band_rpm.map_or_else(String::new, |[low, high]| format!(" ({low:.0} to {high:.0})"));
    let beside = missed.map_or_else(String::new, |missed| {
        if limit >= missed {
            format!(", {:.0} rpm beyond a missed shift", limit - missed)
        } else {
            format!(", {:.0} rpm short of a missed shift", missed - limit)
        }
    });
    let at = match (limit > from, side.limiting_speed_band_rpm.is_some()) {
        (false, _) => "at or below",
        (true, true) => "at",
        // The usual train alone says so.
        (true, false) => "at about",
    };
    format!("The {name} valve loses control first, {at} {limit:.0} rpm{band}{beside}: {}.", how(side.limited_by))
}

/// Both trains, or everything they lack at once; under the gas of a curve, where there is one.
pub(super) fn trains<'a>(resolved: &'a Resolved, curve: Option<&Curve>) -> Part<[SideTrain<'a>; 2]> {
    let [intake, exhaust] = Side::BOTH.map(|side| side_train(resolved, side));
    together([lack(&intake), lack(&exhaust)])?;
    let under = |train: SideTrain<'a>, side: Side| match curve {
        Some(curve) => train.breathing(resolved, side, &curve.traces),
        None => train,
    };
    Ok([under(intake?, Side::Intake), under(exhaust?, Side::Exhaust)])
}
