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
    /// Intake duration at .050 about its centreline, crank degrees.
    IntakeDuration,
    /// Exhaust duration at .050 about its centreline, crank degrees.
    ExhaustDuration,
    /// Lobe separation with the intake held, cam degrees.
    LobeSeparation,
    /// Intake centreline with separation held, crank degrees after top dead centre: the whole cam turned.
    IntakeCentreline,
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
    /// How many a choice keeps: the numbers of the card are read from the events.
    pub const COUNT: usize = 12;

    /// All that a choice keeps, in the builder's order.
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

    /// The cam as its card says it: other words for the four events.
    pub const CARD: [Self; 4] =
        [Self::IntakeDuration, Self::ExhaustDuration, Self::LobeSeparation, Self::IntakeCentreline];

    /// Its place among all that a choice keeps.
    pub(super) const fn index(self) -> usize {
        self as usize
    }

    /// Whether it is read from the events.
    pub(super) const fn is_of_the_card(self) -> bool {
        self.index() >= Self::COUNT
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
        let halved = |full: Counting| Counting { near: Reach::By(4.0), far: Reach::By(8.0), ..full };
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
            Self::IntakeDuration => event("Intake duration at .050"),
            Self::ExhaustDuration => event("Exhaust duration at .050"),
            // With the intake held, the exhaust moves by twice as much.
            Self::LobeSeparation => halved(event("Lobe separation")),
            Self::IntakeCentreline => event("Intake centreline"),
        }
    }

    /// `value` as it is made: a whole number of steps.
    pub fn made(self, value: f64) -> f64 {
        let step = self.counting().step;
        (value / step).round() * step
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
