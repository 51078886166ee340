//! What wears in a build, and when each valve is at its limit.

use super::service_build::Servicing;
use super::service_log::Run;
use super::service_words::{fine, rate_words, reached_words, valve_words};
use crate::candidate::most_play;
use crate::document::Side;
use crate::limits::figures::spring_band;
use crate::quantity::{Force, Shown, Speed};
use crate::report::{ValveTrend, WearTrend};
use crate::service::{CountedIn, Estimate, LASH_MOVES, LIFT_LOST, LOAD_LOST, Reached, Trend, Wear, shrink, trend};
use crate::words::LifterKind;

/// What has to be the same for wear of two builds to be alike.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Kind {
    what: Wear,
    counted_in: CountedIn,
    lifter: Option<LifterKind>,
    is_raced: bool,
}

/// Wear of one build, as engines like it may be told of.
#[derive(Debug, Clone, PartialEq)]
pub struct WearOf {
    /// Of what.
    kind: Kind,
    /// Mean rate, per unit of use; of seat loads as a share of the first load.
    rate: Estimate,
}

impl Servicing<'_> {
    fn fitted(&self, wear: Wear, like: &[WearOf]) -> Option<Fitted> {
        let (runs, as_built) = self.log.runs(wear, |side| self.new_value(wear, side));
        let scale = scale(wear, &runs);
        let alike: Vec<Estimate> = like.iter().filter(|own| own.kind == self.kind(wear)).map(|own| own.rate).collect();
        let expected = shrink(&alike, None)
            .map(|own| Estimate { value: own.next.value * scale, variance: own.next.variance * scale * scale });
        let lines: Vec<_> = runs.iter().map(|run| run.line.clone()).collect();
        let trend = trend(&lines, (wear.repeats(), Wear::WORTH), expected)?;
        Some(Fitted { runs, trend, as_built, scale, expected: expected.map(|own| (alike.len(), own)) })
    }

    fn kind(&self, what: Wear) -> Kind {
        let (counted_in, lifter, is_raced) = (self.log.counted_in, self.lifter(), self.is_raced());
        Kind { what, counted_in, lifter, is_raced }
    }

    pub fn wear(&self, wear: Wear) -> Option<WearOf> {
        let own = self.fitted(wear, &[])?;
        let Estimate { value, variance } = own.trend.rates.mean;
        let rate = Estimate { value: value / own.scale, variance: variance / own.scale.powi(2) };
        Some(WearOf { kind: self.kind(wear), rate })
    }

    pub fn trend(&self, wear: Wear, like: &[WearOf]) -> Option<WearTrend> {
        let own = self.fitted(wear, like)?;
        let now = self.log.now()?;
        let down = own.goes_down(wear);
        let going: Vec<Going> = (0..own.runs.len())
            .filter(|place| own.runs[*place].goes_on)
            .map(|place| {
                let (limit, why) = self.limit(wear, &own.runs[place], down);
                Going { place, limit, why, reached: own.trend.reached(place, limit, down) }
            })
            .collect();
        let soon = |own: &Going| own.reached.at.unwrap_or(f64::INFINITY);
        let first =
            going.iter().min_by(|a, b| soon(a).total_cmp(&soon(b)).then(a.reached.from.total_cmp(&b.reached.from)))?;
        let round = self.log.counted_in.round();
        let unit = fine(wear, 1.0).0;
        let number = |si: f64| fine(wear, si).1;
        let (value, at) = (own.trend.value(first.place, now), first.reached);
        let (rate, doubt) = (own.trend.rates.mean.value * round, own.trend.doubt_of_rate() * round);
        Some(WearTrend {
            what: wear.key().to_owned(),
            title: wear.title().to_owned(),
            unit,
            per_1000: number(rate),
            per_1000_doubt: number(doubt),
            rate: rate_words(wear, (rate, doubt), self.log.counted_in),
            valve: valve_words(own.runs[first.place].valve),
            now: number(value),
            now_shown: fine(wear, value).2,
            limit: number(first.limit),
            limit_shown: fine(wear, first.limit).2,
            why: first.why.clone(),
            reached_at: at.at,
            not_before: finite(at.from),
            not_after: at.to,
            reached: reached_words(&self.log, at),
            like: self.like_words(&own, wear),
            begins_as_built: own.as_built,
            valves: going.iter().map(|going| own.valve(wear, going, (now, round))).collect(),
        })
    }

    /// What a reading must not come to, and where that comes from.
    fn limit(&self, wear: Wear, run: &Run, down: bool) -> (f64, String) {
        let first = run.line.points.first().map_or(0.0, |own| own.1);
        match wear {
            Wear::SeatLoad => self.least_load(first),
            Wear::Lash => {
                let by = if down { -LASH_MOVES } else { LASH_MOVES };
                (first + by, ".004 in from where it was set (common practice, no source)".to_owned())
            }
            Wear::GuidePlay => {
                (most_play(run.valve.1), "most play of this guide (common practice, no source)".to_owned())
            }
            Wear::LobeLift => (first - LIFT_LOST, ".005 in of lift lost (common practice, no source)".to_owned()),
        }
    }

    /// The higher of what the rules ask of the seat load and of what a tired spring has left.
    fn least_load(&self, first: f64) -> (f64, String) {
        let tired = (1.0 - LOAD_LOST) * first;
        let resolved = self.resolved.as_ref().filter(|own| !own.given.is_diesel());
        let usual = resolved.and_then(|own| {
            let kind = own.train(Side::Intake).lifter.kind?;
            Some(Force::lbf(spring_band(kind, own.top_speed().map(Speed::as_rpm)?).seat.0).si())
        });
        match usual.filter(|usual| *usual > tired && *usual < first) {
            Some(usual) => (usual, "the usual band's lower end for these lifters at this speed".to_owned()),
            None => (tired, "a tenth of its first load lost (common practice, no source)".to_owned()),
        }
    }

    fn like_words(&self, own: &Fitted, wear: Wear) -> Shown {
        let Some((count, expected)) = own.expected else { return Shown::plain("") };
        let round = self.log.counted_in.round();
        let builds = if count == 1 { "1 build".to_owned() } else { format!("{count} builds") };
        let rate = (expected.value * round, 1.96 * expected.variance.sqrt() * round);
        rate_words(wear, rate, self.log.counted_in).said(|rate| format!("{builds} like it: {rate}"))
    }
}

/// A valve that goes on wearing, and when it is at its limit.
struct Going {
    /// Place of its run.
    place: usize,
    limit: f64,
    /// Where the limit comes from.
    why: String,
    reached: Reached,
}

/// One kind of wear, fitted.
struct Fitted {
    runs: Vec<Run>,
    trend: Trend,
    as_built: bool,
    /// What rates are compared over between builds.
    scale: f64,
    /// How many builds are like it, and what they say.
    expected: Option<(usize, Estimate)>,
}

impl Fitted {
    /// Loads and lobes lose, play grows; lash goes either way.
    fn goes_down(&self, wear: Wear) -> bool {
        match wear {
            Wear::SeatLoad | Wear::LobeLift => true,
            Wear::GuidePlay => false,
            Wear::Lash => self.trend.rates.mean.value < 0.0,
        }
    }

    fn valve(&self, wear: Wear, going: &Going, (now, round): (f64, f64)) -> ValveTrend {
        let Going { place, limit, reached, .. } = *going;
        let run = &self.runs[place];
        let number = |si: f64| fine(wear, si).1;
        let value = self.trend.value(place, now);
        ValveTrend {
            cylinder: run.valve.0,
            side: run.valve.1,
            per_1000: number(self.trend.rates.each[place].value * round),
            at: run.line.points.iter().map(|own| own.0).collect(),
            read: run.line.points.iter().map(|own| number(own.1)).collect(),
            now: number(value),
            now_shown: fine(wear, value).2,
            limit: number(limit),
            reached_at: reached.at,
            not_before: finite(reached.from),
        }
    }
}

/// First loads of springs are not alike between builds: what they lose is compared as a share.
fn scale(wear: Wear, runs: &[Run]) -> f64 {
    let firsts: Vec<f64> = runs.iter().filter_map(|run| run.line.points.first()).map(|own| own.1).collect();
    match wear {
        Wear::SeatLoad if !firsts.is_empty() => firsts.iter().sum::<f64>() / firsts.len() as f64,
        _ => 1.0,
    }
}

/// JSON has no infinity: what is never reached is so far away that nobody gets there.
fn finite(value: f64) -> f64 {
    value.min(1e9)
}
