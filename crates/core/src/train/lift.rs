//! Lift at the valve from lift at the lobe, for a rigid train with a constant ratio.

use crate::cam::{Lobe, Motion};
use crate::given::{Missing, Needs, Train, need};
use crate::quantity::Length;
use crate::words::LifterKind;

/// Ratio and lash of one side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ValveLift {
    /// Nominal ratio of valve lift to lobe lift.
    pub ratio: f64,
    /// Hot clearance at the valve; zero for hydraulic lifters.
    pub lash: Length,
}

/// Reads ratio and lash of one side.
///
/// # Errors
/// The ratio, or the lash of a solid lifter.
pub fn read_valve_lift(train: &Train) -> Result<ValveLift, Missing> {
    let (lifter, rocker) = (&train.lifter, &train.rocker);
    let mut needs = Needs::default();
    let ratio = need!(needs, rocker.ratio);
    let solid = lifter.kind.is_some_and(LifterKind::is_solid);
    let lash = if solid { need!(needs, lifter.lash) } else { Length::from_si(0.0) };
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
