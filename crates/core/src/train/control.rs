//! The hand check of limiting speed: where a rigid train's inertia overcomes the spring.

use super::lift::ValveLift;
use super::spring::Spring;
use crate::cam::Lobe;
use crate::quantity::{Length, Mass, Speed};

/// Share of the hand check a real, elastic train reaches: the rigid answer is 20 to 25 % too high
/// (common practice, no source).
pub const ELASTIC_SHARE: f64 = 0.775;

/// The hand check of one side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HandCheck {
    /// Crank speed at which contact would first be lost.
    pub speed: Speed,
    /// Cam degree from full lift where it would be.
    pub cam_deg: f64,
}

/// Lowest speed at which `m |a| = F` anywhere on the lobe's negative acceleration.
///
/// `a = R s'' (w_cam 180/pi)^2` with `s''` per cam degree squared and the cam at half the crank's
/// speed; `F` is the load of all `springs` springs at that lift. Rigid parts: an upper bound, see
/// [`ELASTIC_SHARE`].
pub fn hand_check(lobe: &Lobe, lift: &ValveLift, spring: &Spring, springs: f64, mass: Mass) -> Option<HandCheck> {
    let checks = lobe.sampled(0.5).filter_map(|(cam_deg, follower)| {
        let valve = lift.motion(follower);
        if valve.acceleration >= 0.0 {
            return None;
        }
        let per_radian = -valve.acceleration * (180.0 / std::f64::consts::PI).powi(2);
        let force = springs * spring.load(Length::from_si(valve.lift)).si();
        let cam_speed = (force / (mass.si() * per_radian)).sqrt();
        Some(HandCheck { speed: Speed::from_si(2.0 * cam_speed), cam_deg })
    });
    checks.min_by(|a, b| a.speed.si().total_cmp(&b.speed.si()))
}
