//! What a cam card says of one lobe: lift, and where each flank crosses the checking heights.
//!
//! A flank's angle is in crank degrees between the checking height and full lift. A symmetric
//! card's flank angle is half its duration.

use crate::quantity::Length;
use crate::words::LifterKind;

impl LifterKind {
    /// Cam degrees of ramp below .006 in of lobe lift (common practice, no source): a solid lifter
    /// needs the longer ramp to take up its lash gently, a hydraulic one should not bleed on it.
    pub const fn ramp_below_006_cam_deg(self) -> f64 {
        if self.is_solid() { 20.0 } else { 12.0 }
    }

    /// Duration at .006 less duration at .050 in crank degrees when a card gives no seat timing
    /// (common practice, no source).
    pub const fn seat_allowance_crank_deg(self) -> f64 {
        match self {
            Self::HydraulicFlat => 48.0,
            Self::SolidFlat => 44.0,
            Self::HydraulicRoller => 52.0,
            Self::SolidRoller => 58.0,
        }
    }
}

/// Lowest checking height of the trade's seat timing.
pub fn height_006() -> Length {
    Length::inches(0.006)
}

/// The common checking height.
pub fn height_050() -> Length {
    Length::inches(0.050)
}

/// The height that tells how fast a flank is.
pub fn height_200() -> Length {
    Length::inches(0.200)
}

/// A crossing of one flank.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Check {
    /// Checking height in lobe lift.
    pub height: Length,
    /// Crank degrees between the height and full lift.
    pub crank_deg: f64,
}

/// Limits a flat foot puts on the lobe.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FlatFoot {
    /// Diameter of the foot.
    pub face: Length,
    /// Edge the contact stays inside of.
    pub margin: Length,
    /// Diameter of the base circle.
    pub base_circle: Length,
}

impl FlatFoot {
    /// Smallest radius of curvature a flat foot may run on (common practice, no source).
    pub fn least_radius() -> Length {
        Length::inches(0.050)
    }

    /// Greatest velocity whose contact stays on the face, m per cam degree.
    ///
    /// `v_max = (face/2 - margin) pi/180`: contact eccentricity of a flat follower equals its
    /// velocity per radian [Norton, cam design handbook, flat-faced followers; from memory].
    pub fn velocity_cap(&self) -> f64 {
        (0.5 * self.face.si() - self.margin.si()) * std::f64::consts::PI / 180.0
    }
}

/// One lobe by its card.
#[derive(Debug, Clone, PartialEq)]
pub struct LobeCard {
    /// Full lift at the lobe.
    pub lift: Length,
    /// Opening flank, heights rising.
    pub opening: Vec<Check>,
    /// Closing flank, heights rising.
    pub closing: Vec<Check>,
    /// What rides on it.
    pub lifter: LifterKind,
    /// Present for flat lifters.
    pub flat_foot: Option<FlatFoot>,
}

impl LobeCard {
    /// A symmetric lobe from durations in crank degrees, heights rising.
    pub fn symmetric(
        lift: Length,
        durations: &[(Length, f64)],
        lifter: LifterKind,
        flat_foot: Option<FlatFoot>,
    ) -> Self {
        let flank: Vec<Check> =
            durations.iter().map(|(height, deg)| Check { height: *height, crank_deg: 0.5 * deg }).collect();
        Self { lift, opening: flank.clone(), closing: flank, lifter, flat_foot }
    }

    /// Whether both flanks are the same.
    pub fn is_symmetric(&self) -> bool {
        self.opening == self.closing
    }
}
