//! A train in motion as it is answered.

use super::super::blocks::{closed_gap, closed_gaps, rigid_control};
use super::super::follower::{LobeContact, lobe_contact};
use super::super::resolve::Resolved;
use super::super::stages::Stages;
use super::train::SideTrain;
use super::work::Sample;
use crate::document::Side;
use crate::dynamics::limit::LimitedBy as Lost;
use crate::dynamics::measure::Window;
use crate::dynamics::run::RECORDS;
use crate::quantity::Length;
use crate::report::{DynamicsSide, LimitedBy};
use crate::train::ELASTIC_SHARE;
use crate::train::compliance::Pushrod;
use std::sync::Arc;

/// Records between the entries of the tables over the crank.
const EVERY: usize = 4;
/// Share of draws that lie outside a band on each side.
const OUTSIDE: f64 = 0.05;
/// Hand check and computed limit agree when they are no further apart than this share.
const AGREE: f64 = 0.06;

/// Limits of the draws: median, the band nine of ten lie in, and what most of them are lost by. Beyond the speeds looked
/// at, to `top`, a limit counts as `top`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// rpm; `None` where most draws have none.
    pub median: Option<f64>,
    /// rpm; `None` of a single set.
    pub band: Option<[f64; 2]>,
    /// By what.
    pub by: Option<Lost>,
}

impl Limit {
    /// Of every draw's limit; `None` without draws.
    pub fn of(lost: &[Option<(f64, Lost)>], top: f64) -> Option<Self> {
        let mut speeds: Vec<f64> = lost.iter().map(|lost| lost.map_or(top, |(rpm, _)| rpm)).collect();
        speeds.sort_by(f64::total_cmp);
        let last = speeds.len().checked_sub(1)?;
        let at = |share: f64| quantile(&speeds, share);
        let count = |by: Lost| lost.iter().filter(|lost| lost.is_some_and(|(_, own)| own == by)).count();
        let kinds = [Lost::Separation, Lost::Bounce, Lost::HangOpen, Lost::PumpUp, Lost::CoilClash];
        let by = kinds.into_iter().max_by_key(|by| count(*by)).filter(|by| count(*by) > 0);
        let found = lost.iter().filter(|lost| lost.is_some()).count();
        let band = (last > 0).then(|| [at(OUTSIDE), at(1.0 - OUTSIDE)]);
        Some(Self { median: (2 * found > last).then(|| at(0.5)), band, by })
    }
}

/// The value below which a share of sorted values lies, between two of them linear.
pub(super) fn quantile(sorted: &[f64], share: f64) -> f64 {
    let place = share * (sorted.len() - 1) as f64;
    let (low, high) = (sorted[place.floor() as usize], sorted[place.ceil() as usize]);
    low + place.fract() * (high - low)
}

const fn limited_by(limit: Option<&Limit>) -> LimitedBy {
    match limit {
        Some(Limit { median: Some(_), by: Some(by), .. }) => match by {
            Lost::Separation => LimitedBy::Separation,
            Lost::Bounce => LimitedBy::Bounce,
            Lost::HangOpen => LimitedBy::HangOpen,
            Lost::PumpUp => LimitedBy::PumpUp,
            Lost::CoilClash => LimitedBy::CoilClash,
        },
        _ => LimitedBy::None,
    }
}

/// What the parts around a train bear of its motion, and what is left above the piston.
pub struct Around<'a> {
    buckling: Option<f64>,
    lobe: Option<LobeContact<'a>>,
    /// Gap of the closed valve over a turn, m.
    closed: Option<Arc<Vec<Length>>>,
}

impl<'a> Around<'a> {
    /// Of one side.
    pub fn of(inputs: &'a Resolved, side: Side, stages: &Stages) -> Self {
        Self {
            buckling: Pushrod::read(&inputs.train(side).pushrod).ok().map(|pushrod| pushrod.buckling_load()),
            lobe: lobe_contact(inputs, side).ok(),
            closed: closed_gap(inputs, side).ok().map(|closed| closed_gaps(&closed, stages)),
        }
    }

    /// Greatest contact stress of a sample, Pa.
    fn stress(&self, sample: &Sample) -> Option<f64> {
        let lobe = self.lobe.as_ref()?;
        let at = |record: usize| {
            let load = sample.turned.cycles.iter().map(|cycle| cycle.most_contact[record]).fold(0.0, f64::max);
            lobe.stress_at(0.5 * (record as f64 + 0.5 - 0.5 * RECORDS as f64), load)
        };
        (0..RECORDS).map(at).try_fold(0.0_f64, |most, stress| Some(most.max(stress?)))
    }

    /// Least gap to the piston, m, and its crank degree from firing top.
    fn gap(&self, sample: &Sample, begins_at: f64) -> Option<(f64, f64)> {
        let closed = self.closed.as_ref().filter(|closed| !closed.is_empty())?;
        let at = |record: usize| {
            let lift = sample.turned.cycles.iter().map(|cycle| cycle.valve[record]).fold(f64::NEG_INFINITY, f64::max);
            // A record holds the lift at its end.
            let deg = (begins_at + record as f64 + 1.0).rem_euclid(720.0);
            let (low, share) = (deg as usize, deg.fract());
            let gap = |deg: usize| closed[deg % closed.len()].si();
            ((1.0 - share) * gap(low) + share * gap(low + 1) - lift, deg)
        };
        (0..RECORDS).map(at).min_by(|a, b| a.0.total_cmp(&b.0))
    }
}

/// One side's report of `samples` in rising speed; `limit` where it was computed, looked for up to `top`.
pub fn side_report(
    side: &SideTrain<'_>,
    around: &Around<'_>,
    samples: &[Sample],
    limit: Option<&Limit>,
    top: f64,
) -> DynamicsSide {
    let gaps: Option<Vec<(f64, f64)>> = samples.iter().map(|s| around.gap(s, side.begins_at)).collect();
    let stresses: Option<Vec<f64>> = samples.iter().map(|s| around.stress(s).map(|pa| pa * 1e-6)).collect();
    let column = |of: &dyn Fn(&Sample) -> f64| samples.iter().map(of).collect::<Vec<f64>>();
    let angle = |record: usize| (side.begins_at + record as f64).rem_euclid(720.0);
    let hand = rigid_control(side.own()).ok().map(|(check, _)| ELASTIC_SHARE * check.speed.as_rpm());
    let thin = |values: &[f64], scale: f64, join: fn(f64, f64) -> f64| -> Vec<f64> {
        values
            .chunks(EVERY)
            .map(|four| scale * four.iter().copied().reduce(join).unwrap_or_default())
            .map(rounded)
            .collect()
    };
    let first = |a: f64, _: f64| a;
    // Where the lobe does not hold the valve open, nothing is asked of the contact.
    let held = |sample: &Sample| -> Vec<f64> {
        let [last, before] = &sample.turned.cycles;
        judged(&side.window, |record| last.least_contact[record].min(before.least_contact[record]))
    };
    DynamicsSide {
        limiting_speed_rpm: limit.and_then(|limit| limit.median).map(f64::round),
        limiting_speed_band_rpm: limit.and_then(|limit| limit.band).map(|band| band.map(f64::round)),
        limited_by: limited_by(limit),
        beside_hand_check: hand.zip(limit).map(|(hand, limit)| beside(hand, limit, top)),
        hand_check_rpm: hand,
        speed_rpm: column(&|s| s.rpm),
        loft_mm: column(&|s| s.figures.loft * 1e3),
        bounce_mm: column(&|s| s.figures.bounce * 1e3),
        bounces: samples.iter().map(|s| s.figures.bounces).collect(),
        hang_open_mm: column(&|s| s.figures.hang_open * 1e3),
        seating_velocity_m_per_s: column(&|s| s.figures.seating),
        maximum_lift_mm: column(&|s| s.figures.lift * 1e3),
        minimum_contact_n: column(&|s| s.figures.least_contact.0),
        minimum_contact_at_deg: column(&|s| angle(s.figures.least_contact.1)),
        peak_contact_n: column(&|s| s.figures.most_contact),
        peak_pushrod_n: column(&|s| s.figures.pushrod),
        peak_pivot_n: column(&|s| s.figures.pivot),
        spring_swing_n: column(&|s| s.figures.spring.1 - s.figures.spring.0),
        coil_clash_n: column(&|s| s.figures.clash),
        spring_stress_share: samples.iter().map(|s| Some(s.figures.stress).filter(|share| *share > 0.0)).collect(),
        lobe_stress_mpa: stresses,
        pushrod_reserve: around
            .buckling
            .map(|load| column(&|s| if s.figures.pushrod > 0.0 { load / s.figures.pushrod } else { 0.0 })),
        piston_gap_mm: gaps.as_ref().map(|gaps| gaps.iter().map(|(gap, _)| gap * 1e3).collect()),
        piston_gap_at_deg: gaps.map(|gaps| gaps.iter().map(|(_, deg)| *deg).collect()),
        plunger_mm: column(&|s| s.figures.plunger.0.max(0.0) * 1e3),
        cycles: samples.iter().map(|s| s.turned.count).collect(),
        converged: samples.iter().map(|s| s.turned.repeats).collect(),
        crank_deg: (0..RECORDS).step_by(EVERY).map(angle).collect(),
        contact_n: samples
            .iter()
            .map(|s| thin(&held(s), 1.0, f64::min).into_iter().map(f64::round).collect())
            .collect(),
        valve_mm: samples.iter().map(|s| thin(&s.turned.cycles[0].valve, 1e3, first)).collect(),
        rigid_mm: thin(&side.rigid, 1e3, first),
    }
}

/// A value at every record while the lobe holds the valve open; elsewhere one that no load has.
fn judged(window: &Window, of: impl Fn(usize) -> f64) -> Vec<f64> {
    (0..RECORDS)
        .map(|record| if (window.open.0..=window.open.1).contains(&record) { of(record) } else { -1.0 })
        .collect()
}

/// To a thousandth: what a picture shows, in a tenth of the text.
fn rounded(value: f64) -> f64 {
    (value * 1e3).round() / 1e3
}

/// Why hand check and computed limit differ.
fn beside(hand: f64, limit: &Limit, top: f64) -> String {
    let Some(median) = limit.median else {
        return format!("the hand check says {hand:.0} rpm, and no limit was found up to {top:.0} rpm");
    };
    let share = median / hand - 1.0;
    let why = match limit.by {
        _ if share.abs() < AGREE => "they agree",
        Some(Lost::Separation) if share < 0.0 => {
            "the train's own swing and the coils' waves take contact off before the nose's mean load is gone"
        }
        Some(Lost::CoilClash) if share < 0.0 => "coils strike each other, which no mean load shows",
        Some(Lost::Bounce) if share < 0.0 => "the valve lands too hard and bounces before the nose lets go",
        Some(Lost::HangOpen | Lost::PumpUp) if share < 0.0 => {
            "the valve stays open on the base circle before the nose lets go"
        }
        _ => "this train loses less to its flex and its coils' waves than the share the hand check takes off for them",
    };
    format!("the hand check says {hand:.0} rpm: {why}")
}
