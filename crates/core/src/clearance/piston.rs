//! Valve to piston over the cycle: the smallest gap, where it is, and what a degree of cam timing
//! does to it. The cam turns with the crank without lag; everything is rigid and cold.

use super::frame::{CrownFrame, Gap, ValveFrame};
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
    /// Smallest distance from that part of the valve's edge which is in the pocket to its wall; `None` where none of it
    /// ever is.
    pub radial: Option<Length>,
}

/// Width at which the refinement stops, crank degrees; the gap is flat there to some nanometres.
const REFINED: f64 = 1e-3;

/// A closed valve over the piston: by the frame, or by a drop that was measured.
///
/// Opening the valve takes exactly its lift from every distance along the stem, so that one curve of closed gaps serves
/// every cam.
#[derive(Debug, Clone, Copy)]
pub struct ClosedGap<'a> {
    /// Where the piston is.
    pub cylinder: &'a Cylinder,
    /// The closed valve.
    pub valve: &'a ValveFrame,
    /// What is below it.
    pub crown: &'a CrownFrame,
    /// Drop of the valve to the piston at top dead centre by dial, which stands above the frame: a dome's shape is in it.
    pub drop: Option<Length>,
}

impl ClosedGap<'_> {
    /// The gap at a crank angle.
    pub fn at(&self, crank_deg: f64) -> Gap {
        let height = self.cylinder.crown(Angle::deg(crank_deg));
        match self.drop {
            None => self.crown.gap(self.valve, height),
            Some(drop) => {
                let down = height.si() - self.cylinder.crown(Angle::deg(0.0)).si();
                let along_stem = drop.si() + down / self.valve.axis[2];
                Gap {
                    along_stem: Length::from_si(along_stem),
                    normal: Length::from_si(along_stem * self.valve.axis[2]),
                }
            }
        }
    }

    /// The gap along the stem at every crank degree of one turn, both ends included.
    pub fn over_a_turn(&self) -> Vec<Length> {
        (0..=360).map(|deg| self.at(f64::from(deg)).along_stem).collect()
    }
}

/// The closest approach of the valve to the piston over the cycle; `table` is its [`ClosedGap::over_a_turn`].
pub fn closest(closed: &ClosedGap<'_>, travel: &ValveTravel<'_>, table: &[Length]) -> PistonClearance {
    let gap_at = |travel: &ValveTravel<'_>, crank_deg: f64| {
        closed.at(crank_deg).along_stem.si() - travel.lift_at(crank_deg).si()
    };
    let least = |travel: &ValveTravel<'_>| {
        let start = lowest_degree(table, travel);
        refine(&|deg| gap_at(travel, deg), start - 1.0, start + 1.0)
    };
    let at_deg = least(travel).rem_euclid(720.0);
    let advanced = |deg: f64| {
        let travel = travel.advanced(deg);
        gap_at(&travel, least(&travel))
    };
    let per_degree = 0.5 * (advanced(1.0) - advanced(-1.0));
    let lift = travel.lift_at(at_deg);
    let (along_stem, vertical, normal) = match closed.drop {
        Some(_) => {
            let left = gap_at(travel, at_deg);
            let upright = left * closed.valve.axis[2];
            (Length::from_si(left), Length::from_si(upright), Length::from_si(upright))
        }
        None => {
            let (open, height) = (closed.valve.opened(lift), closed.cylinder.crown(Angle::deg(at_deg)));
            let met = closed.crown.gap(&open, height);
            (met.along_stem, closed.crown.vertical_gap(&open, height), met.normal)
        }
    };
    PistonClearance {
        along_stem,
        vertical,
        normal,
        at_deg,
        per_degree_of_advance: Length::from_si(per_degree),
        radial: radial(closed, travel),
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

/// The smallest gap to the pocket's wall about overlap top dead centre, while part of the edge is in the pocket.
fn radial(closed: &ClosedGap<'_>, travel: &ValveTravel<'_>) -> Option<Length> {
    let at = |half_deg: i32| {
        let crank_deg = 360.0 + 0.5 * f64::from(half_deg);
        let height = closed.cylinder.crown(Angle::deg(crank_deg));
        closed.crown.radial_gap(&closed.valve.opened(travel.lift_at(crank_deg)), height).map(Length::si)
    };
    (-160..=160).filter_map(at).reduce(f64::min).map(Length::from_si)
}
