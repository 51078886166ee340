//! Lift at the valve from lift at the lobe, for a rigid train with a constant ratio.

use crate::cam::{Lobe, Motion};
use crate::document::{Missing, Needs, Node, Side};
use crate::quantity::Length;

/// Ratio and lash of one side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ValveLift {
    /// Nominal ratio of valve lift to lobe lift.
    pub ratio: f64,
    /// Hot clearance at the valve; zero for hydraulic lifters.
    pub lash: Length,
}

/// Reads ratio and lash of one side from `train`.
pub fn read_valve_lift(train: &Node<'_>, side: Side) -> Result<ValveLift, Missing> {
    let lifter = train.child("lifter").side(side);
    let mut needs = Needs::default();
    let ratio = needs.number(&train.child("rocker").side(side), "ratio");
    let solid = lifter.word("kind").is_some_and(|kind| kind.starts_with("solid"));
    let lash = if solid { needs.quantity(&lifter, "lash") } else { Length::from_si(0.0) };
    needs.met(ValveLift { ratio, lash })
}

impl ValveLift {
    /// Full valve lift without lash.
    pub fn gross(&self, lobe: &Lobe) -> Length {
        Length::from_si(lobe.lift().si() * self.ratio)
    }

    /// Full valve lift: lobe x ratio - lash.
    pub fn net(&self, lobe: &Lobe) -> Length {
        Length::from_si((self.gross(lobe).si() - self.lash.si()).max(0.0))
    }

    /// Valve motion when the follower moves by `lobe`; at rest until the lash is taken up.
    pub fn motion(&self, lobe: Motion) -> Motion {
        let lift = lobe.lift * self.ratio - self.lash.si();
        if lift <= 0.0 {
            return Motion::default();
        }
        Motion {
            lift,
            velocity: lobe.velocity * self.ratio,
            acceleration: lobe.acceleration * self.ratio,
            jerk: lobe.jerk * self.ratio,
        }
    }
}
