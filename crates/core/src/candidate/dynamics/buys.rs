//! What buys limiting speed: changes of the train, each turned on the same draws as the train itself.

use super::super::blocks::spring_at_lift;
use super::super::breathing::{Effort, breathing_of, curve};
use super::super::follower::lobe_contact;
use super::super::resolve::Resolved;
use super::super::stages::Stages;
use super::changes::{CHANGES, How, why};
use super::report::quantile;
use super::train::{SideTrain, side_train};
use super::work::lost_at;
use crate::document::Side;
use crate::dynamics::model::Model;
use crate::given::{Of, Place};
use crate::quantity::Dimension;
use crate::report::Topic;

/// Speeds looked at below and above the train's own limit, rpm, and how far apart; worn springs are looked at below it.
const NEAR: (f64, f64) = (600.0, 1200.0);
const WORN: (f64, f64) = (1600.0, 200.0);
const STEP: f64 = 200.0;
/// Parts of the shelf of one topic that are turned on every draw: the best of those tried on the usual one, and what they
/// must gain there, rpm.
const OF_A_TOPIC: usize = 2;
const WORTH_A_LOOK: f64 = 30.0;
/// Figures that change by less than this share are not told.
const TOLD: f64 = 0.005;

/// Another candidate that may hold further: a lobe with another flank, a part of the shelf in its place.
pub struct Variant {
    /// What it is about.
    pub topic: Topic,
    /// What is done.
    pub what: String,
    /// The candidate.
    pub resolved: Resolved,
    /// What it costs beside money.
    pub costs: &'static str,
    /// As the shelf has it.
    pub price: Option<String>,
}

/// A change that was turned.
#[derive(Debug, Clone, PartialEq)]
pub struct Bought {
    /// What it is about.
    pub topic: Topic,
    /// What is done.
    pub what: String,
    /// The field with its old and new value, SI.
    pub field: Option<(Place, f64, f64)>,
    /// Median over the draws, rpm.
    pub gain: f64,
    /// Nine of ten lie between, rpm.
    pub band: [f64; 2],
    /// What it costs.
    pub costs: &'static str,
    /// What moves with it.
    pub moves: Vec<Moved>,
    /// As the shelf has it.
    pub price: Option<String>,
    /// Why it does less than the trade expects, where it does.
    pub why: Option<String>,
}

/// A figure that a change moves.
#[derive(Debug, Clone, PartialEq)]
pub struct Moved {
    /// What it is.
    pub what: &'static str,
    /// Before, SI; shares of one without a dimension.
    pub from: f64,
    /// After.
    pub to: f64,
    /// Its dimension.
    pub dimension: Option<Dimension>,
}

/// The trains of one side near their limit.
pub struct Near<'a> {
    side: Side,
    threshold: f64,
    limit: f64,
    resolved: &'a Resolved,
    stages: &'a Stages,
    stop: &'a (dyn Fn() -> bool + Sync),
}

impl<'a> Near<'a> {
    /// Around `limit` rpm.
    pub fn new(
        resolved: &'a Resolved,
        side: Side,
        (limit, threshold): (f64, f64),
        stages: &'a Stages,
        stop: &'a (dyn Fn() -> bool + Sync),
    ) -> Self {
        Self { side, threshold, limit, resolved, stages, stop }
    }

    /// Limits of these models, rpm; one beyond the speeds counts as the last of them.
    fn limits(&self, train: &SideTrain<'_>, models: &[Model]) -> Vec<f64> {
        self.limits_within(NEAR, train, models)
    }

    fn limits_within(&self, (below, above): (f64, f64), train: &SideTrain<'_>, models: &[Model]) -> Vec<f64> {
        let steps = ((below + above) / STEP) as usize;
        let speeds: Vec<f64> = (0..=steps).map(|i| (self.limit - below + STEP * i as f64).max(500.0)).collect();
        let lost = lost_at(train, models, &speeds, self.threshold, self.stop);
        lost.into_iter().map(|lost| lost.map_or(speeds[steps], |(rpm, _)| rpm)).collect()
    }

    /// Of each topic the variants that gain most with the usual of what nobody measures.
    pub fn promising(&self, variants: Vec<Variant>) -> Vec<Variant> {
        let usual = |resolved: &Resolved| -> Option<f64> {
            let train = side_train(resolved, self.side).ok()?;
            let limits = self.limits(&train, &train.models(&[train.learned.usual()]));
            limits.first().copied()
        };
        let Some(base) = usual(self.resolved) else { return Vec::new() };
        let mut gains: Vec<(f64, Variant)> = variants
            .into_iter()
            .filter_map(|variant| Some((usual(&variant.resolved)? - base, variant)))
            .filter(|(gain, _)| *gain > WORTH_A_LOOK)
            .collect();
        gains.sort_by(|a, b| b.0.total_cmp(&a.0));
        let mut kept: Vec<Variant> = Vec::new();
        for (_, variant) in gains {
            if kept.iter().filter(|other| other.topic == variant.topic).count() < OF_A_TOPIC {
                kept.push(variant);
            }
        }
        kept
    }

    /// What every change and every variant does to the limit, what buys most first; empty when stopped.
    pub fn bought(&self, variants: &[Variant]) -> Vec<Bought> {
        let Ok(own) = side_train(self.resolved, self.side) else { return Vec::new() };
        let draws = own.learned.draws();
        let models = own.models(&draws);
        let (base, figures) = (self.limits(&own, &models), self.figures(self.resolved, &own));
        let torque = self.torque(self.resolved);
        let mut all = Vec::new();
        let mut add = |after: Vec<f64>, bought: Bought| -> Option<()> {
            if (self.stop)() || after.len() != base.len() {
                return None;
            }
            let mut gains: Vec<f64> = after.iter().zip(&base).map(|(after, before)| after - before).collect();
            gains.sort_by(f64::total_cmp);
            let (gain, band) = (quantile(&gains, 0.5), [quantile(&gains, 0.05), quantile(&gains, 0.95)]);
            let why = models.first().and_then(|model| why(bought.topic, &bought.what, gain, band, model));
            all.push(Bought { gain, band, why, ..bought });
            Some(())
        };
        let moves = |resolved: &Resolved, train: &SideTrain<'_>, topic: Topic| {
            let mut moves = moved(&figures, &self.figures(resolved, train));
            if matches!(topic, Topic::Lift | Topic::Flank) {
                moves.extend(moved(&torque, &self.torque(resolved)));
            }
            moves
        };
        for change in &CHANGES {
            let (after, field, moves) = match change.how {
                How::Part(make, applies) => {
                    if !applies(self.resolved, self.side) {
                        continue;
                    }
                    let mut changed = models.clone();
                    changed.iter_mut().for_each(make);
                    let moves = model_moves(&own, &models, &changed);
                    (self.limits(&own, &changed), None, moves)
                }
                How::Field(place, by) => {
                    let place = place(self.side);
                    let Some((changed, field)) = self.with(place, by) else { continue };
                    let Ok(train) = side_train(&changed, self.side) else { continue };
                    let moves = moves(&changed, &train, change.topic);
                    (self.limits(&train, &train.models(&draws)), Some(field), moves)
                }
            };
            let (topic, what, costs) = (change.topic, change.what.to_owned(), change.costs);
            let bought = Bought { topic, what, field, gain: 0.0, band: [0.0; 2], costs, moves, price: None, why: None };
            if add(after, bought).is_none() {
                return Vec::new();
            }
        }
        for variant in variants {
            let Ok(train) = side_train(&variant.resolved, self.side) else { continue };
            let bought = Bought {
                topic: variant.topic,
                what: variant.what.clone(),
                field: None,
                gain: 0.0,
                band: [0.0; 2],
                costs: variant.costs,
                moves: moves(&variant.resolved, &train, variant.topic),
                price: variant.price.clone(),
                why: None,
            };
            if add(self.limits(&train, &train.models(&draws)), bought).is_none() {
                return Vec::new();
            }
        }
        all.sort_by(|a, b| b.gain.total_cmp(&a.gain));
        all
    }

    /// Median limits with springs that have kept these shares of their loads, rpm; empty when stopped.
    pub fn worn(&self, shares: &[f64]) -> Vec<f64> {
        let Ok(own) = side_train(self.resolved, self.side) else { return Vec::new() };
        let models = own.models(&own.learned.draws());
        let median = |share: &f64| {
            let mut worn = models.clone();
            for coil in worn.iter_mut().flat_map(|model| &mut model.coils) {
                (coil.seat_load, coil.rate) = (share * coil.seat_load, share * coil.rate);
            }
            let mut limits = self.limits_within(WORN, &own, &worn);
            limits.sort_by(f64::total_cmp);
            (!limits.is_empty()).then(|| quantile(&limits, 0.5))
        };
        shares.iter().filter_map(median).collect()
    }

    /// The candidate with one number changed, with what goes with it: arm and ratio of a rocker are one thing.
    fn with(&self, place: Place, by: f64) -> Option<(Resolved, (Place, f64, f64))> {
        let from = self.resolved.given.number(place)?;
        let mut changes = vec![(place, from + by)];
        if place.of == Of::Rocker && place.key == "ratio" {
            let arm = Place::new(Of::Rocker, "pivot_to_cup", place.side);
            changes.extend(self.resolved.given.number(arm).map(|length| (arm, length * from / (from + by))));
        }
        Some((self.resolved.with(&changes, self.stages)?, (place, from, from + by)))
    }

    /// What a change of springs or lobe may move beside the limit.
    fn figures(&self, resolved: &Resolved, train: &SideTrain<'_>) -> Vec<(&'static str, f64, Option<Dimension>)> {
        let own = resolved.side(self.side);
        let mut all = vec![("open load", train.open_load(), Some(Dimension::Force))];
        let stress = lobe_contact(resolved, self.side).ok().and_then(|contact| contact.stress());
        all.extend(stress.map(|stress| ("lobe stress", stress, Some(Dimension::Pressure))));
        if let Ok((spring, net)) = spring_at_lift(own) {
            all.extend(spring.stress_share(net).map(|share| ("wire stress", share, None)));
            all.extend(spring.to_bind(net).map(|left| ("to bind", left.si(), Some(Dimension::Length))));
        }
        all
    }

    /// Average torque over the band by a draft; nothing where it cannot be computed.
    fn torque(&self, resolved: &Resolved) -> Vec<(&'static str, f64, Option<Dimension>)> {
        let draft = || curve(&breathing_of(resolved).ok()?, Effort::Draft).ok()?.average_torque_nm;
        draft().map(|torque| ("average torque", torque, Some(Dimension::Torque))).into_iter().collect()
    }
}

/// Figures that differ.
fn moved(
    before: &[(&'static str, f64, Option<Dimension>)],
    after: &[(&'static str, f64, Option<Dimension>)],
) -> Vec<Moved> {
    let pairs = before.iter().filter_map(|(what, from, dimension)| {
        let (_, to, _) = after.iter().find(|(other, _, _)| other == what)?;
        Some(Moved { what, from: *from, to: *to, dimension: *dimension })
    });
    pairs.filter(|moved| (moved.to - moved.from).abs() > TOLD * moved.from.abs().max(1e-9)).collect()
}

/// Open load of a changed model.
fn model_moves(train: &SideTrain<'_>, before: &[Model], after: &[Model]) -> Vec<Moved> {
    let open = |models: &[Model]| -> Vec<(&'static str, f64, Option<Dimension>)> {
        let of = |model: &Model| model.coils.iter().map(|coil| coil.seat_load + coil.rate * train.full_lift()).sum();
        models.first().map(|model| ("open load", of(model), Some(Dimension::Force))).into_iter().collect()
    };
    moved(&open(before), &open(after))
}
