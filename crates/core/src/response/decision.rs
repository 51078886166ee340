//! What is decided about a cam and what goes with it, each as one number, in the builder's order.

use crate::document::Side;
use crate::quantity::{Dimension, INCH};

/// One decision.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, serde::Serialize, serde::Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Decision {
    /// Intake closing at .050, crank degrees after bottom dead centre.
    IntakeCloses,
    /// Exhaust opening at .050, crank degrees before bottom dead centre.
    ExhaustOpens,
    /// Intake opening at .050, crank degrees before top dead centre.
    IntakeOpens,
    /// Exhaust closing at .050, crank degrees after top dead centre.
    ExhaustCloses,
    /// Lift of the intake lobe, m.
    IntakeLift,
    /// Lift of the exhaust lobe, m.
    ExhaustLift,
    /// How much quicker both lobes are than the card they began from: crank degrees taken off the durations below .050,
    /// and four fifths of them added above it.
    Quickness,
    /// Ratio of both rockers.
    Ratio,
    /// Compression ratio, by the chamber or the bowl.
    Compression,
    /// Length of the runner, m.
    Runner,
    /// Length of the primary, m.
    Primary,
    /// How much earlier the whole cam runs than it is set, crank degrees.
    Advance,
}

/// How a decision is counted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Counting {
    /// As people say it.
    pub title: &'static str,
    /// What it is measured in; `None` for a plain number.
    pub dimension: Option<Dimension>,
    /// Smallest difference that is ground, cut or bought.
    pub step: f64,
    /// How far on each side of where one stands it is looked at first.
    pub near: Reach,
    /// How far a search may go.
    pub far: Reach,
}

/// A reach on both sides of a value.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Reach {
    /// So much in its own unit.
    By(f64),
    /// A share of the value.
    Share(f64),
}

impl Reach {
    /// Around `value`.
    pub fn around(self, value: f64) -> f64 {
        match self {
            Self::By(by) => by,
            Self::Share(share) => share * value.abs(),
        }
    }
}

impl Decision {
    /// How many there are.
    pub const COUNT: usize = 12;

    /// All of them, in the builder's order.
    pub const ALL: [Self; Self::COUNT] = [
        Self::IntakeCloses,
        Self::ExhaustOpens,
        Self::IntakeOpens,
        Self::ExhaustCloses,
        Self::IntakeLift,
        Self::ExhaustLift,
        Self::Quickness,
        Self::Ratio,
        Self::Compression,
        Self::Runner,
        Self::Primary,
        Self::Advance,
    ];

    /// What makes a cam: the four events and both lifts.
    pub const CAM: [Self; 6] = [
        Self::IntakeCloses,
        Self::ExhaustOpens,
        Self::IntakeOpens,
        Self::ExhaustCloses,
        Self::IntakeLift,
        Self::ExhaustLift,
    ];

    /// The same and how quick its lobes are.
    pub const LOBES: [Self; 7] = [
        Self::IntakeCloses,
        Self::ExhaustOpens,
        Self::IntakeOpens,
        Self::ExhaustCloses,
        Self::IntakeLift,
        Self::ExhaustLift,
        Self::Quickness,
    ];

    /// What is beside the cam: rockers, and what the engine breathes through.
    pub const HARDWARE: [Self; 4] = [Self::Ratio, Self::Compression, Self::Runner, Self::Primary];

    /// Its place among all.
    pub const fn index(self) -> usize {
        self as usize
    }

    /// Whose lobe it moves alone, where it moves one.
    pub const fn side(self) -> Option<Side> {
        match self {
            Self::IntakeCloses | Self::IntakeOpens | Self::IntakeLift => Some(Side::Intake),
            Self::ExhaustOpens | Self::ExhaustCloses | Self::ExhaustLift => Some(Side::Exhaust),
            _ => None,
        }
    }

    /// Whether less of it is easier on everything.
    pub const fn is_milder_below(self) -> bool {
        matches!(self, Self::IntakeLift | Self::ExhaustLift | Self::Quickness | Self::Ratio)
    }

    /// How it is counted. Eight degrees and eight hundredths are what a quadratic follows to a few thousandths.
    pub fn counting(self) -> Counting {
        const MIL: f64 = 1e-3 * INCH;
        let event = |title| Counting {
            title,
            dimension: Some(Dimension::Angle),
            step: 0.5,
            near: Reach::By(8.0),
            far: Reach::By(16.0),
        };
        let length = |title, step, near, far| Counting {
            title,
            dimension: Some(Dimension::Length),
            step,
            near: Reach::Share(near),
            far: Reach::Share(far),
        };
        let plain = |title, step, near, far| Counting { title, dimension: None, step, near, far };
        match self {
            Self::IntakeCloses => event("Intake closing"),
            Self::ExhaustOpens => event("Exhaust opening"),
            Self::IntakeOpens => event("Intake opening"),
            Self::ExhaustCloses => event("Exhaust closing"),
            Self::IntakeLift => length("Intake lobe lift", MIL, 0.08, 0.16),
            Self::ExhaustLift => length("Exhaust lobe lift", MIL, 0.08, 0.16),
            Self::Quickness => Counting {
                title: "Flank intensity",
                dimension: Some(Dimension::Angle),
                step: 1.0,
                near: Reach::By(4.0),
                far: Reach::By(8.0),
            },
            Self::Ratio => plain("Rocker ratio", 0.05, Reach::By(0.1), Reach::By(0.2)),
            Self::Compression => plain("Compression", 0.1, Reach::By(0.75), Reach::By(1.5)),
            Self::Runner => length("Runner length", 0.25 * INCH, 0.2, 0.4),
            Self::Primary => length("Primary length", INCH, 0.2, 0.4),
            Self::Advance => event("Whole cam earlier"),
        }
    }

    /// `value` as it is made: a whole number of steps.
    pub fn made(self, value: f64) -> f64 {
        let step = self.counting().step;
        (value / step).round() * step
    }
}

/// A value for every decision that a candidate has; angles in crank degrees, lengths in m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice([Option<f64>; Decision::COUNT]);

impl Choice {
    /// Nothing is decided.
    pub const fn nothing() -> Self {
        Self([None; Decision::COUNT])
    }

    /// The value of a decision; `None` where the candidate does not have it.
    pub const fn get(&self, decision: Decision) -> Option<f64> {
        self.0[decision.index()]
    }

    /// Decides.
    pub const fn set(&mut self, decision: Decision, value: f64) {
        self.0[decision.index()] = Some(value);
    }

    /// The same with one decision made otherwise.
    #[must_use]
    pub const fn with(mut self, decision: Decision, value: f64) -> Self {
        self.set(decision, value);
        self
    }

    /// Every value there is.
    pub fn values(&self) -> impl Iterator<Item = (Decision, f64)> {
        Decision::ALL.into_iter().zip(self.0).filter_map(|(decision, value)| Some((decision, value?)))
    }

    /// Every value as it is made.
    #[must_use]
    pub fn made(&self) -> Self {
        let mut made = *self;
        for (decision, value) in self.values() {
            made.set(decision, decision.made(value));
        }
        made
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_decision_knows_its_place_and_what_is_made() {
        for (place, decision) in Decision::ALL.into_iter().enumerate() {
            assert_eq!(decision.index(), place);
        }
        assert_eq!(Decision::IntakeCloses.made(48.3), 48.5);
        assert!((Decision::IntakeLift.made(0.3604 * INCH) / INCH - 0.360).abs() < 1e-12);
        assert!((Decision::Ratio.made(1.63) - 1.65).abs() < 1e-12);
    }
}
