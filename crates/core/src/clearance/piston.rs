//! Valve to piston over the cycle: the smallest gap, where it is, and what a degree of cam timing
//! does to it. The cam turns with the crank without lag; everything is rigid and cold.

use super::frame::{CrownFrame, Gap, ValveFrame, dot, minus};
use crate::cam::{Lobe, Motion};
use crate::engine::Cylinder;
use crate::quantity::{Angle, Length};
use crate::train::running::RunningTrain;
use crate::train::{Spring, ValveLift};
use std::ops::Range;

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

/// A closed valve over the piston: by the frame, and where drops were measured moved so that it reads what the dial read.
///
/// Opening the valve takes exactly its lift from every distance along the stem, so that one curve of closed gaps serves
/// every cam.
#[derive(Debug, Clone, Copy)]
pub struct ClosedGap {
    cylinder: Cylinder,
    valve: ValveFrame,
    crown: CrownFrame,
    /// Whether the crown stands above its own flat, in a shape that nobody gave.
    is_domed: bool,
    /// What the readings add to the frame, m.
    shift: f64,
    /// How much higher the piston stands than cold and by hand, m.
    raised: f64,
}

impl ClosedGap {
    /// The gap as the frame has it. `is_domed`: the crown stands above its own flat.
    pub fn by_frame(cylinder: Cylinder, valve: ValveFrame, crown: CrownFrame, is_domed: bool) -> Self {
        Self { cylinder, valve, crown, is_domed, shift: 0.0, raised: 0.0 }
    }

    /// The same, moved as these drops say: each a distance along the stem by dial at so many crank degrees after overlap top
    /// dead centre. They stand above the frame: a dome's height is in them. Of several the one counts that leaves least.
    #[must_use]
    pub fn measured(self, drops: &[(Angle, Length)]) -> Self {
        if drops.is_empty() {
            return self;
        }
        let by_frame = Self { shift: 0.0, ..self };
        let shifts = drops.iter().map(|(at, drop)| drop.si() - by_frame.at(at.as_deg()).along_stem.si());
        Self { shift: shifts.fold(f64::INFINITY, f64::min), ..self }
    }

    /// The same with the piston so much higher.
    #[must_use]
    pub fn raised(self, by: Length) -> Self {
        Self { raised: self.raised + by.si(), ..self }
    }

    /// How far the crown is below the head at a crank angle.
    fn crown_at(&self, crank_deg: f64) -> Length {
        Length::from_si(self.cylinder.crown(Angle::deg(crank_deg)).si() - self.raised)
    }

    /// The gap at a crank angle.
    pub fn at(&self, crank_deg: f64) -> Gap {
        let shape = self.shape(&self.valve, self.crown_at(crank_deg));
        Gap { along_stem: Length::from_si(shape.along_stem.si() + self.shift), ..shape }
    }

    /// The gap of the frame. Of a dome without a pocket it knows no height, which the readings then give; under the valve the
    /// dome is taken to lie parallel to the valve's face, from which a falling piston draws away more slowly than a flat.
    fn shape(&self, valve: &ValveFrame, height: Length) -> Gap {
        if self.is_domed && !self.crown.has_pocket() {
            let down = dot(minus([0.0, 0.0, height.si()], valve.centre), valve.axis);
            return Gap { along_stem: Length::from_si(down), facing: 1.0, level: valve.axis[2] };
        }
        self.crown.gap(valve, height)
    }

    /// The gap with the valve `lift` open.
    fn opened(&self, lift: Length, crank_deg: f64) -> (Gap, Length) {
        let (open, height) = (self.valve.opened(lift), self.crown_at(crank_deg));
        let shape = self.shape(&open, height);
        let met = Gap { along_stem: Length::from_si(shape.along_stem.si() + self.shift), ..shape };
        let by_frame = self.shift == 0.0 && !self.is_domed;
        (met, if by_frame { self.crown.vertical_gap(&open, height) } else { met.vertical() })
    }

    /// The gap along the stem at every crank degree of one turn, both ends included.
    pub fn over_a_turn(&self) -> Vec<Length> {
        (0..=360).map(|deg| self.at(f64::from(deg)).along_stem).collect()
    }
}

/// The closest approach of the valve to the piston over the cycle; `table` is its [`ClosedGap::over_a_turn`].
pub fn closest(closed: &ClosedGap, travel: &ValveTravel<'_>, table: &[Length]) -> PistonClearance {
    let least = |travel: &ValveTravel<'_>| least_gap(closed, table, &|deg| travel.lift_at(deg).si(), 0..720);
    let at_deg = least(travel).0.rem_euclid(720.0);
    let advanced = |deg: f64| least(&travel.advanced(deg)).1;
    let per_degree = 0.5 * (advanced(1.0) - advanced(-1.0));
    let lift = travel.lift_at(at_deg);
    let (met, vertical) = closed.opened(lift, at_deg);
    PistonClearance {
        along_stem: met.along_stem,
        vertical,
        normal: met.normal(),
        at_deg,
        per_degree_of_advance: Length::from_si(per_degree),
        radial: radial(closed, travel),
    }
}

/// Where a valve that is open by `lift` (m over crank degrees) comes nearest, crank degrees, and how near, m: looked for at the
/// whole `degrees` by its gaps of a turn, closed, then between them.
pub fn least_gap(closed: &ClosedGap, table: &[Length], lift: &dyn Fn(f64) -> f64, degrees: Range<usize>) -> (f64, f64) {
    let near = |deg: usize| table[deg % 360].si() - lift(deg as f64);
    let looked = degrees.map(|deg| (near(deg), deg));
    let start = looked.min_by(|a, b| a.0.total_cmp(&b.0)).map_or(360.0, |(_, deg)| deg as f64);
    let gap = |deg: f64| closed.at(deg).along_stem.si() - lift(deg);
    let deg = refine(&gap, start - 1.0, start + 1.0);
    (deg, gap(deg))
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
fn radial(closed: &ClosedGap, travel: &ValveTravel<'_>) -> Option<Length> {
    let at = |half_deg: i32| {
        let crank_deg = 360.0 + 0.5 * f64::from(half_deg);
        let height = closed.crown_at(crank_deg);
        closed.crown.radial_gap(&closed.valve.opened(travel.lift_at(crank_deg)), height).map(Length::si)
    };
    (-160..=160).filter_map(at).reduce(f64::min).map(Length::from_si)
}
