//! One decision after another: what each gives and takes over its range with the others held, what is proposed and what binds
//! it; and the way through all of them that the school of the four events goes.

use super::aim::Aim;
use super::ground::{Margins, Predicted};
use super::standing::{Bound, Margin};
use crate::response::Figures;
use crate::response::{Axis, Response};
use crate::response::{Choice, Decision};

/// Most values of a sweep.
const VALUES: f64 = 32.0;
/// Gain given away for a milder value: what nobody feels, and less than any band.
const AS_GOOD: f64 = 0.001;
/// A value within this of the best is as good a choice.
const RANGE: f64 = 0.002;
/// Passes over the decisions: the third changes nothing any more.
const PASSES: usize = 3;

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
}

impl Guide<'_> {
    /// How a choice stands.
    pub fn at(&self, choice: &Choice) -> Stood {
        let figures = self.response.figures(choice);
        let margins = self.margins.at(self.response, choice);
        let broken = margins.iter().map(|predicted| predicted.margin.broken()).sum();
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
        let stood = values.iter().map(|value| self.at(&choice.with(decision, *value))).collect();
        Sweep { decision, values, stood }
    }

    /// The choice that the school of the four events comes to from `choice`: closing first, then exhaust opening, then the
    /// overlap pair, then lift; again until nothing moves.
    pub fn decided(&self, choice: &Choice) -> Choice {
        let mut choice = *choice;
        for _ in 0..PASSES {
            for axis in &self.response.axes {
                let sweep = self.sweep(axis, &choice);
                choice.set(axis.decision, sweep.proposal().value);
            }
        }
        choice
    }
}

impl Sweep {
    /// What is proposed: of the values that break least, the best; of as good ones the mildest lift, of events the middle.
    pub fn proposal(&self) -> Proposal {
        let least = self.stood.iter().map(|stood| stood.broken).fold(f64::INFINITY, f64::min);
        let allowed = |stood: &Stood| stood.broken <= least + 1e-6;
        let best =
            self.stood.iter().filter(|stood| allowed(stood)).map(|stood| stood.gain).fold(f64::NEG_INFINITY, f64::max);
        let good = |by: f64| move |stood: &Stood| allowed(stood) && stood.gain >= best - by;
        let top = self.stood.iter().position(good(0.0)).unwrap_or(0);
        let range = self.around(top, good(RANGE));
        let at = match self.decision {
            Decision::IntakeLift | Decision::ExhaustLift | Decision::Quickness => self.around(top, good(AS_GOOD)).0,
            _ => top,
        };
        Proposal {
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
            let before = inside.margins.iter().find(|other| other.margin.bound == predicted.margin.bound);
            predicted.margin.broken() > before.map_or(0.0, |before| before.margin.broken()) + 1e-6
        };
        let worst = out.margins.iter().filter(newly).max_by(|a, b| a.margin.broken().total_cmp(&b.margin.broken()));
        worst.map(|predicted| predicted.margin.bound)
    }
}

impl Stood {
    /// Limits it breaks.
    pub fn fails(&self) -> impl Iterator<Item = &Margin> {
        self.margins.iter().map(|predicted| &predicted.margin).filter(|margin| margin.broken() > 0.0)
    }

    /// One margin.
    pub fn margin(&self, id: &str) -> Option<&Margin> {
        self.margins.iter().map(|predicted| &predicted.margin).find(|margin| margin.bound.rule.id == id)
    }
}
