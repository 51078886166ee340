//! Valve to piston over the cycle: the smallest gap, where it is, and what a degree of cam timing
//! does to it. The cam turns with the crank without lag; everything is rigid and cold.

use super::frame::{CrownFrame, ValveFrame};
use crate::cam::{Lobe, Motion};
use crate::engine::Cylinder;
use crate::quantity::{Angle, Length};
use crate::train::running::RunningTrain;
use crate::train::{Spring, ValveLift};

/// Valve motion of one side on the crank.
#[derive(Debug, Clone, Copy)]
pub struct ValveTravel<'a> {
    /// The lobe.
    pub lobe: &'a Lobe,
    /// Ratio and lash.
    pub lift: ValveLift,
    /// Crank degrees from firing top dead centre to full lift.
    pub full_lift_at: f64,
    /// The train as its geometry or readings have it, which may lift more than the nominal ratio says.
    pub real: Option<&'a RunningTrain>,
}

impl ValveTravel<'_> {
    /// Follower angle in cam degrees at a crank angle, folded into one cycle about full lift.
    pub fn cam_deg(&self, crank_deg: f64) -> f64 {
        0.5 * ((crank_deg - self.full_lift_at + 360.0).rem_euclid(720.0) - 360.0)
    }

    /// Follower motion at a crank angle.
    pub fn lobe_at(&self, crank_deg: f64) -> Motion {
        self.lobe.at(self.cam_deg(crank_deg))
    }

    /// Most lift of rigid parts at a crank angle, by the nominal or the true ratio: what must not touch is judged by it.
    pub fn lift_at(&self, crank_deg: f64) -> Length {
        let motion = self.lobe_at(crank_deg);
        let nominal = self.lift.motion(motion).lift;
        Length::from_si(self.real.map_or(nominal, |real| nominal.max(real.rigid(motion.lift))))
    }

    /// Lift the valve gets at a crank angle, turning slowly under `spring`; `None` for a train of which no more is known
    /// than its nominal ratio.
    pub fn running_at(&self, crank_deg: f64, spring: Option<&Spring>) -> Option<Length> {
        let lift = self.lobe_at(crank_deg).lift;
        self.real.map(|real| Length::from_si(real.valve(lift, spring)))
    }

    /// Valve velocity at a crank angle, metres per crank degree.
    pub fn velocity_at(&self, crank_deg: f64) -> f64 {
        0.5 * self.lift.motion(self.lobe.at(self.cam_deg(crank_deg))).velocity
    }

    /// The same valve with the cam advanced.
    #[must_use]
    pub fn advanced(self, deg: f64) -> Self {
        Self { full_lift_at: self.full_lift_at - deg, ..self }
    }
}

/// The closest approach of one valve to the piston.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PistonClearance {
    /// Smallest gap along the stem.
    pub along_stem: Length,
    /// Straight down the bore at the same crank angle.
    pub vertical: Length,
    /// Square to the surface at the same crank angle.
    pub normal: Length,
    /// Crank degrees from firing top dead centre.
    pub at_deg: f64,
    /// Change of the smallest gap for a degree of cam advance.
    pub per_degree_of_advance: Length,
    /// Smallest distance from the valve's edge to the pocket's wall, where the valve is in the
    /// pocket or would be when pushed down at the closest approach; `None` without a pocket.
    pub radial: Option<Length>,
}

/// Width at which the refinement stops, crank degrees; the gap is flat there to some nanometres.
const REFINED: f64 = 1e-3;

/// Gap along the stem of the closed valve at every crank degree of one turn, both ends included.
///
/// Opening the valve takes exactly its lift from every distance along the stem, so this curve
/// serves every cam.
pub fn closed_gaps(cylinder: &Cylinder, valve: &ValveFrame, crown: &CrownFrame) -> Vec<Length> {
    let at = |deg: i32| crown.gap(valve, cylinder.crown(Angle::deg(f64::from(deg)))).along_stem;
    (0..=360).map(at).collect()
}

/// The closest approach of the valve to the piston over the cycle; `closed` are its
/// [`closed_gaps`].
pub fn closest(
    cylinder: &Cylinder,
    valve: &ValveFrame,
    crown: &CrownFrame,
    travel: &ValveTravel<'_>,
    closed: &[Length],
) -> PistonClearance {
    let gap_at = |travel: &ValveTravel<'_>, crank_deg: f64| {
        let closed = crown.gap(valve, cylinder.crown(Angle::deg(crank_deg))).along_stem;
        closed.si() - travel.lift_at(crank_deg).si()
    };
    let least = |travel: &ValveTravel<'_>| {
        let start = lowest_degree(closed, travel);
        refine(&|deg| gap_at(travel, deg), start - 1.0, start + 1.0)
    };
    let at_deg = least(travel).rem_euclid(720.0);
    let advanced = |deg: f64| {
        let travel = travel.advanced(deg);
        gap_at(&travel, least(&travel))
    };
    let height = cylinder.crown(Angle::deg(at_deg));
    let open = valve.opened(travel.lift_at(at_deg));
    let met = crown.gap(&open, height);
    PistonClearance {
        along_stem: met.along_stem,
        vertical: crown.vertical_gap(&open, height),
        normal: met.normal,
        at_deg,
        per_degree_of_advance: Length::from_si(0.5 * (advanced(1.0) - advanced(-1.0))),
        radial: radial(cylinder, valve, crown, travel, at_deg),
    }
}

/// The whole crank degree of the cycle with the smallest gap.
fn lowest_degree(closed: &[Length], travel: &ValveTravel<'_>) -> f64 {
    let gap = |deg: usize| closed[deg % 360].si() - travel.lift_at(deg as f64).si();
    let gaps = (0..720).map(|deg| (gap(deg), deg));
    gaps.min_by(|a, b| a.0.total_cmp(&b.0)).map_or(360.0, |(_, deg)| deg as f64)
}

/// Golden-section search between two angles.
fn refine(gap: &dyn Fn(f64) -> f64, mut low: f64, mut high: f64) -> f64 {
    let ratio = 0.5 * (5_f64.sqrt() - 1.0);
    let (mut a, mut b) = (high - ratio * (high - low), low + ratio * (high - low));
    let (mut at_a, mut at_b) = (gap(a), gap(b));
    while high - low > REFINED {
        if at_a < at_b {
            (high, b, at_b) = (b, a, at_a);
            a = high - ratio * (high - low);
            at_a = gap(a);
        } else {
            (low, a, at_a) = (a, b, at_b);
            b = low + ratio * (high - low);
            at_b = gap(b);
        }
    }
    0.5 * (low + high)
}

fn radial(
    cylinder: &Cylinder,
    valve: &ValveFrame,
    crown: &CrownFrame,
    travel: &ValveTravel<'_>,
    at_deg: f64,
) -> Option<Length> {
    let at = |crank_deg: f64| {
        let height = cylinder.crown(Angle::deg(crank_deg));
        let open = valve.opened(travel.lift_at(crank_deg));
        (crown.radial_gap(&open, height), crown.is_entered(&open, height))
    };
    let nearest = at(at_deg).0?;
    let entered = (-30..=30).filter_map(|i| {
        let (gap, entered) = at(360.0 + 2.0 * f64::from(i));
        gap.filter(|_| entered).map(Length::si)
    });
    Some(Length::from_si(entered.fold(nearest.si(), f64::min)))
}
