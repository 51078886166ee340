//! The lobe against its follower: curvature, pressure angle, where the contact stands, and the stress in it.

use super::lobe::{Lobe, Motion};
use std::f64::consts::PI;

/// What runs on the lobe, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Follower {
    /// A flat foot (its crown of a metre and more left out).
    Flat,
    /// A roller of this radius.
    Roller(f64),
}

/// The contact at one cam angle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contact {
    /// Radius of the cam's surface, m; negative where it is hollow, infinite where it is flat.
    pub radius: f64,
    /// Between the follower's way and the common normal, rad; zero under a flat foot.
    pub pressure_angle: f64,
    /// From the lifter's axis across the foot, m; zero under a roller.
    pub offset: f64,
}

/// Derivatives per radian from those per cam degree.
const PER_RADIAN: f64 = 180.0 / PI;

impl Follower {
    /// The contact of a lobe on a base circle of this radius (m).
    ///
    /// Flat: radius `Rb + s + s''`, offset `s'`. Roller without offset: `tan phi = s'/(Rb + Rr + s)`; the roller's centre
    /// runs on a curve of radius `(R^2 + s'^2)^1.5 / (R^2 + 2 s'^2 - R s'')`, the surface lies a roller's radius inside
    /// [Norton, *Cam Design and Manufacturing Handbook*, ch. 7; from memory].
    pub fn contact(self, base: f64, motion: &Motion) -> Contact {
        let (first, second) = (motion.velocity * PER_RADIAN, motion.acceleration * PER_RADIAN * PER_RADIAN);
        match self {
            Self::Flat => Contact { radius: base + motion.lift + second, pressure_angle: 0.0, offset: first },
            Self::Roller(roller) => {
                let r = base + roller + motion.lift;
                let below = r * r + 2.0 * first * first - r * second;
                let pitch = (r * r + first * first).powf(1.5) / below;
                Contact { radius: pitch - roller, pressure_angle: (first / r).atan(), offset: 0.0 }
            }
        }
    }

    /// Curvature of the follower's own surface, 1/m.
    fn curvature(self) -> f64 {
        match self {
            Self::Flat => 0.0,
            Self::Roller(radius) => 1.0 / radius,
        }
    }

    /// Greatest stress of a line contact, Pa: `sqrt(F/w E* (1/R1 + 1/R2)/pi)` [Hertz; Johnson, *Contact Mechanics*, ch. 4;
    /// from memory] under `load` (N) on `width` (m) with the pair's modulus `e_star` (Pa).
    pub fn stress(self, radius: f64, load: f64, width: f64, e_star: f64) -> f64 {
        let curvature = (1.0 / radius + self.curvature()).max(0.0);
        (load / width * e_star * curvature / PI).sqrt()
    }
}

/// `1/E* = sum (1 - nu^2)/E` of two bodies with Poisson's ratio .3, Pa.
pub fn pair_modulus(one: f64, other: f64) -> f64 {
    1.0 / (0.91 / one + 0.91 / other)
}

/// Extremes of the contact over a lobe.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ContactExtremes {
    /// Smallest radius where the surface bulges, m.
    pub convex: f64,
    /// Smallest radius where it is hollow, m; `None` where it nowhere is.
    pub hollow: Option<f64>,
    /// Greatest pressure angle, rad.
    pub pressure_angle: f64,
    /// Greatest offset on a flat foot, m.
    pub offset: f64,
}

/// The extremes over `lobe`, a quarter of a cam degree apart.
pub fn extremes(lobe: &Lobe, follower: Follower, base: f64) -> ContactExtremes {
    let mut found = ContactExtremes { convex: base, hollow: None, pressure_angle: 0.0, offset: 0.0 };
    for (_, motion) in lobe.sampled(0.25) {
        let contact = follower.contact(base, &motion);
        if contact.radius >= 0.0 {
            found.convex = found.convex.min(contact.radius);
        } else {
            let radius = -contact.radius;
            found.hollow = Some(found.hollow.map_or(radius, |least: f64| least.min(radius)));
        }
        found.pressure_angle = found.pressure_angle.max(contact.pressure_angle.abs());
        found.offset = found.offset.max(contact.offset.abs());
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A round cam of radius `a` turning about a point `e` from its centre, as a follower of `follower`'s kind sees it at
    /// `t` rad from full lift; closed form.
    fn round(a: f64, e: f64, t: f64, follower: Follower) -> (f64, Motion) {
        let deg = PI / 180.0;
        let base = a - e;
        let (lift, first, second) = match follower {
            Follower::Flat => (e * t.cos() + e, -e * t.sin(), -e * t.cos()),
            Follower::Roller(r) => {
                let arm = a + r;
                let height = |t: f64| e * t.cos() + (arm * arm - (e * t.sin()).powi(2)).sqrt();
                let h = 1e-4;
                let (low, at, high) = (height(t - h), height(t), height(t + h));
                (at - (base + r), (high - low) / (2.0 * h), (high - 2.0 * at + low) / (h * h))
            }
        };
        (base, Motion { lift, velocity: first * deg, acceleration: second * deg * deg, jerk: 0.0 })
    }

    #[test]
    fn a_round_cam_has_its_own_radius_all_the_way() {
        for follower in [Follower::Flat, Follower::Roller(0.0095)] {
            for i in -20..20 {
                let (base, motion) = round(0.02, 0.004, f64::from(i) * 0.15, follower);
                let contact = follower.contact(base, &motion);
                assert!((contact.radius / 0.02 - 1.0).abs() < 1e-5, "{follower:?} {i}: {contact:?}");
            }
        }
    }

    #[test]
    fn a_published_line_contact_has_its_stress() {
        // Two steel cylinders of 25 mm radius (E 207 GPa, nu .3) under 100 kN/m: b = sqrt(4 x 1e5 x .0125/(pi 113.7e9))
        // = 118 um, p = 2 F/(pi b) = 538 MPa [formulas of Shigley, ch. 3, eq. 3-73 and 3-74 from memory; by hand].
        let found = Follower::Roller(0.025).stress(0.025, 1e5, 1.0, pair_modulus(207e9, 207e9));
        assert!((found / 538e6 - 1.0).abs() < 0.005, "{found}");
    }
}
