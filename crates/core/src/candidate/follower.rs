//! The lobe against what rides on it.

use super::resolve::{Gap, Part, Resolved, ResolvedSide};
use crate::cam::contact::{ContactExtremes, Follower, extremes, pair_modulus};
use crate::cam::{Lobe, Motion};
use crate::document::Side;
use crate::given::Lifter;
use crate::quantity::Length;
use crate::train::compliance::STEEL;
use crate::train::preload::preload_of_school;
use crate::words::{Core, PreloadSchool};

/// Young's moduli of iron followers and cores, Pa [Shigley, table A-5; from memory].
const CAST_IRON: f64 = 1.1e11;
const DUCTILE_IRON: f64 = 1.65e11;
/// An inch, m.
const INCH: f64 = 0.0254;
/// Width of the line a flat foot touches a lobe on, m: the width of common lobes (assumed).
const FLAT_WIDTH: f64 = 0.5 * INCH;

/// The lobe of one side with what rides on it; what is asked of it is worked out when it is asked.
pub struct LobeContact<'a> {
    own: &'a ResolvedSide,
    lobe: &'a Lobe,
    follower: Follower,
    /// Radius of the base circle and width of the contact, m.
    base: f64,
    width: f64,
    /// Of the pair of materials, Pa; `None` while the core is not known.
    e_star: Option<f64>,
}

/// The contact of one side.
pub fn lobe_contact<'a>(inputs: &'a Resolved, side: Side) -> Part<LobeContact<'a>> {
    let own = inputs.side(side);
    let (lobe, lifter, cam) = (own.lobe()?, &inputs.train(side).lifter, &inputs.given.cam);
    let kind = lifter.kind.ok_or_else(|| Gap::needing(vec![lifter.at("kind")]))?;
    let flat = kind.is_flat();
    let metres = |length: Option<Length>, usual: f64| length.map_or(usual, Length::si);
    let core = cam.core_material.map(|core| match core {
        Core::CastIron => CAST_IRON,
        Core::DuctileIron => DUCTILE_IRON,
        Core::Steel => STEEL,
    });
    Ok(LobeContact {
        own,
        lobe,
        follower: if flat {
            Follower::Flat
        } else {
            Follower::Roller(0.5 * metres(lifter.roller_diameter, 0.75 * INCH))
        },
        base: 0.5 * metres(cam.base_circle_diameter, 1.45 * INCH),
        width: if flat { FLAT_WIDTH } else { metres(lifter.roller_width, 0.45 * INCH) },
        // Flat feet are iron, rollers steel.
        e_star: core.map(|core| pair_modulus(if flat { CAST_IRON } else { STEEL }, core)),
    })
}

impl LobeContact<'_> {
    /// Whether the foot is flat.
    pub fn is_flat(&self) -> bool {
        self.follower == Follower::Flat
    }

    /// Curvature, angle and offset.
    pub fn extremes(&self) -> ContactExtremes {
        extremes(self.lobe, self.follower, self.base)
    }

    /// Greatest stress under the spring, turning slowly, Pa; `None` while spring, ratio or core is not known.
    pub fn stress(&self) -> Option<f64> {
        let (spring, lift) = self.own.spring.as_ref().ok().zip(self.own.lift.as_ref().ok())?;
        let e_star = self.e_star?;
        let at = |motion: &Motion| {
            let valve = Length::from_si(lift.motion(*motion).lift);
            // The spring bears on the lobe only while the valve is open.
            let load = if valve.si() > 0.0 { self.own.valves * lift.ratio * spring.load(valve).si() } else { 0.0 };
            self.stressed(motion, load, e_star)
        };
        Some(self.lobe.sampled(1.0).map(|(_, motion)| at(&motion)).fold(0.0, f64::max))
    }

    /// Stress under a load along the lifter, N, at a cam degree from full lift, Pa; `None` while the core is not known.
    pub fn stress_at(&self, cam_deg: f64, load: f64) -> Option<f64> {
        Some(self.stressed(&self.lobe.at(cam_deg), load, self.e_star?))
    }

    fn stressed(&self, motion: &Motion, load: f64, e_star: f64) -> f64 {
        let contact = self.follower.contact(self.base, motion);
        self.follower.stress(contact.radius, load / contact.pressure_angle.cos(), self.width, e_star)
    }
}

/// Least and most preload by the school of the lifter, m; `None` where a deep one's travel is not known.
pub fn preload_band(lifter: &Lifter) -> Option<(f64, f64)> {
    preload_of_school(lifter.preload_school.unwrap_or(PreloadSchool::Series), lifter.travel.map(Length::si))
}
