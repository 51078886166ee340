//! One decision after another: what each gives and takes over its range with the others held, what is proposed and what binds
//! it; and the way through all of them that the school of the four events goes.

use super::aim::Aim;
use super::ground::{Margins, Predicted, predicted};
use super::standing::{Bound, Margin};
use crate::response::{Axis, Choice, Decision, Figures, Response, evenly};

/// Most values of a sweep.
const VALUES: f64 = 32.0;
/// Gain given away for a milder value: what nobody feels, and less than any band.
const AS_GOOD: f64 = 0.001;
/// A value within this of the best is as good a choice.
const RANGE: f64 = 0.002;
/// What breaking a limit by as much as makes it tight takes off a gain: more than any cam gives.
const PENALTY: f64 = 0.05;
/// Differences of what is broken, in scales, that are no more than the noise of predictions.
const NOISE: f64 = 0.02;
/// Places that are looked at, the best of which are climbed from; and the finest step, of an axis' reach.
const SPREAD: usize = 512;
const CLIMBED: usize = 8;
const FINEST: f64 = 0.01;
/// Of the places.
const SEED: u32 = 11;

/// How good a gain is that breaks so much.
pub fn score(gain: f64, broken: f64) -> f64 {
    PENALTY.mul_add(-broken, gain)
}

/// The ground with what one wants on it.
pub struct Guide<'a> {
    /// What torque does.
    pub response: &'a Response,
    /// What margins do.
    pub margins: &'a Margins,
    /// What is wanted.
    pub aim: Aim,
}

/// A choice on the ground.
#[derive(Debug, Clone, PartialEq)]
pub struct Stood {
    /// What its curve comes to.
    pub figures: Figures,
    /// How much better it is than where one stands.
    pub gain: f64,
    /// By how much limits are broken, each in its scale.
    pub broken: f64,
    /// Every margin.
    pub margins: Vec<Predicted>,
}

/// One decision over its range.
#[derive(Debug, Clone, PartialEq)]
pub struct Sweep {
    /// Which.
    pub decision: Decision,
    /// Values as they are made, rising.
    pub values: Vec<f64>,
    /// What comes of each.
    pub stood: Vec<Stood>,
}

/// What is proposed of a decision.
#[derive(Debug, Clone, PartialEq)]
pub struct Proposal {
    /// The value.
    pub value: f64,
    /// Values that are as good a choice.
    pub range: (f64, f64),
    /// Limits that keep it from going on, below and above.
    pub binds: [Option<Bound>; 2],
    /// Whether the best of all lies at an end of what was looked at.
    pub is_at_the_end: bool,
    /// The best of all, where a milder value is proposed that does as much.
    pub best: Option<f64>,
}

impl Guide<'_> {
    /// How a choice stands.
    pub fn at(&self, choice: &Choice) -> Stood {
        let figures = self.response.figures(choice);
        let margins = self.margins.at(self.response, choice);
        let broken = margins.iter().map(Predicted::broken).sum();
        Stood { gain: self.aim.gain(&figures), figures, broken, margins }
    }

    /// One decision over the region, the others as in `choice`.
    pub fn sweep(&self, axis: &Axis, choice: &Choice) -> Sweep {
        let decision = axis.decision;
        let step = decision.counting().step;
        let every = (2.0 * axis.reach / step / VALUES).ceil().max(1.0) * step;
        let first = decision.made(axis.middle - axis.reach);
        let count = (2.0 * axis.reach / every).floor() as usize + 1;
        let mut values: Vec<f64> = (0..count).map(|i| first + every * i as f64).collect();
        values.retain(|value| (value - axis.middle).abs() <= axis.reach + 0.5 * step);
        if Decision::CARD.contains(&decision) {
            // It moves several events: none of them out of the region.
            values.retain(|value| self.response.holds(&choice.with(decision, *value)));
        }
        let stood = values.iter().map(|value| self.at(&choice.with(decision, *value))).collect();
        Sweep { decision, values, stood }
    }

    /// How good a choice is by what is climbed by, what it breaks taken off.
    fn score(&self, choice: &Choice) -> f64 {
        let stood = self.at(choice);
        score(stood.gain, stood.broken)
    }

    /// The best choice of the region, beginning at `choice` and at places spread over it: closing first, then exhaust opening,
    /// then the overlap pair, then lift, again with smaller steps until nothing moves; then as little lift as does it.
    pub fn decided(&self, choice: &Choice) -> Choice {
        let axes = &self.response.axes;
        let spread = (0..SPREAD).map(|i| {
            let mut spread = *choice;
            for (axis, share) in axes.iter().zip(evenly(i, axes.len(), SEED)) {
                spread.set(axis.decision, (2.0 * share - 1.0).mul_add(axis.reach, axis.middle));
            }
            spread
        });
        let mut begun: Vec<(f64, Choice)> = spread.map(|spread| (self.score(&spread), spread)).collect();
        begun.sort_by(|a, b| b.0.total_cmp(&a.0));
        begun.truncate(CLIMBED - 1);
        begun.push((self.score(choice), *choice));
        let climbed = begun.into_iter().map(|from| self.climbed(from));
        let best = climbed.reduce(|a, b| if b.0 > a.0 { b } else { a });
        best.map_or(*choice, |best| self.milder(best))
    }

    /// Uphill from a choice by one decision, or two of a lobe together, at a time.
    fn climbed(&self, (mut score, mut choice): (f64, Choice)) -> (f64, Choice) {
        let axes = &self.response.axes;
        let mut moves: Vec<Vec<(usize, f64)>> = (0..axes.len()).map(|i| vec![(i, 1.0)]).collect();
        for (i, one) in axes.iter().enumerate() {
            let others = axes.iter().enumerate().skip(i + 1);
            moves.extend(
                others
                    .filter(|(_, two)| one.decision.side() == two.decision.side())
                    .flat_map(|(j, _)| [vec![(i, 1.0), (j, 1.0)], vec![(i, 1.0), (j, -1.0)]]),
            );
        }
        let mut share = 0.5;
        while share > FINEST {
            let mut moved = false;
            for (step, sign) in moves.iter().flat_map(|step| [(step, share), (step, -share)]) {
                let mut next = choice;
                for (place, by) in step {
                    let axis = &axes[*place];
                    let now = choice.get(axis.decision).unwrap_or(axis.middle);
                    let to = (by * sign).mul_add(axis.reach, now);
                    next.set(axis.decision, to.clamp(axis.middle - axis.reach, axis.middle + axis.reach));
                }
                let found = self.score(&next);
                if found > score + 1e-7 {
                    (score, choice, moved) = (found, next, true);
                }
            }
            if !moved {
                share *= 0.5;
            }
        }
        let made = choice.made();
        (self.score(&made), made)
    }

    /// The same with as little lift as gives nothing away.
    fn milder(&self, (score, mut choice): (f64, Choice)) -> Choice {
        for axis in self.response.axes.iter().filter(|axis| axis.decision.is_milder_below()) {
            let step = axis.decision.counting().step;
            loop {
                let now = choice.get(axis.decision).unwrap_or(axis.middle);
                let next = choice.with(axis.decision, now - step);
                if now - step < axis.middle - axis.reach || self.score(&next) < score - AS_GOOD {
                    break;
                }
                choice = next;
            }
        }
        choice
    }
}

impl Sweep {
    /// What is proposed: of the values that break least, the best; of as good ones the mildest lift, of events the middle.
    pub fn proposal(&self) -> Proposal {
        let least = self.stood.iter().map(|stood| stood.broken).fold(f64::INFINITY, f64::min);
        let allowed = |stood: &Stood| stood.broken <= least + NOISE;
        let best =
            self.stood.iter().filter(|stood| allowed(stood)).map(|stood| stood.gain).fold(f64::NEG_INFINITY, f64::max);
        let good = |by: f64| move |stood: &Stood| allowed(stood) && stood.gain >= best - by;
        let top = self.stood.iter().position(good(0.0)).unwrap_or(0);
        let range = self.around(top, good(RANGE));
        let at = if self.decision.is_milder_below() { self.around(top, good(AS_GOOD)).0 } else { top };
        Proposal {
            is_at_the_end: top == 0 || top + 1 == self.values.len(),
            best: (at != top).then(|| self.values[top]),
            value: self.values[at],
            range: (self.values[range.0], self.values[range.1]),
            binds: [range.0.checked_sub(1), Some(range.1 + 1)].map(|beyond| self.bound(beyond?, range)),
        }
    }

    /// The stretch about `top` in which every value is good.
    fn around(&self, top: usize, good: impl Fn(&Stood) -> bool) -> (usize, usize) {
        let below = self.stood[..top].iter().rev().take_while(|stood| good(stood)).count();
        let above = self.stood[top + 1..].iter().take_while(|stood| good(stood)).count();
        (top - below, top + above)
    }

    /// The limit that first breaks at `beyond`, where that is what ends the range.
    fn bound(&self, beyond: usize, range: (usize, usize)) -> Option<Bound> {
        let (out, inside) = (self.stood.get(beyond)?, &self.stood[range.0]);
        let newly = |predicted: &&Predicted| {
            let before = inside.predicted(predicted.margin.bound);
            predicted.broken() > before.map_or(0.0, Predicted::broken) + NOISE
        };
        let worst = out.margins.iter().filter(newly).max_by(|a, b| a.broken().total_cmp(&b.broken()));
        worst.map(|predicted| predicted.margin.bound)
    }
}

impl Stood {
    /// Limits it breaks.
    pub fn fails(&self) -> impl Iterator<Item = &Margin> {
        self.margins.iter().filter(|predicted| predicted.broken() > 0.0).map(|predicted| &predicted.margin)
    }

    /// What is predicted of one limit.
    pub fn predicted(&self, bound: Bound) -> Option<&Predicted> {
        predicted(&self.margins, bound)
    }
}
