//! The lobe against what rides on it.

use super::inputs::{Gap, Inputs, Part};
use crate::cam::contact::{ContactExtremes, Follower, extremes, pair_modulus};
use crate::document::{Missing, Node, Side};
use crate::limits::figures::{PRELOAD_DEEP, PRELOAD_LIGHT, PRELOAD_SERIES};
use crate::quantity::Length;

/// Young's moduli of followers and cores, Pa [Shigley, table A-5; from memory].
const STEEL: f64 = 2.07e11;
const CAST_IRON: f64 = 1.1e11;
const DUCTILE_IRON: f64 = 1.65e11;
/// An inch, m.
const INCH: f64 = 0.0254;
/// Width of the line a flat foot touches a lobe on, m: the width of common lobes (assumed).
const FLAT_WIDTH: f64 = 0.5 * INCH;

/// Extremes of the contact of one side, and its greatest stress where the spring is known, Pa.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LobeContact {
    /// Curvature, angle, offset.
    pub extremes: ContactExtremes,
    /// Under the spring, turning slowly.
    pub stress: Option<f64>,
    /// Whether the foot is flat.
    pub flat: bool,
}

/// The contact of one side.
pub fn lobe_contact(inputs: &Inputs<'_>, side: Side) -> Part<LobeContact> {
    let own = inputs.side(side);
    let (lobe, lifter) = (own.lobe()?, inputs.train(side, "lifter"));
    let cam = inputs.candidate.child("cam");
    let kind = lifter.word("kind").ok_or_else(|| Gap::from(Missing(vec![lifter.path_of("kind")])))?;
    let flat = kind.ends_with("flat");
    let metres = |node: &Node<'_>, key: &str, usual: f64| node.quantity::<Length>(key).map_or(usual, Length::si);
    let base = 0.5 * metres(&cam, "base_circle_diameter", 1.45 * INCH);
    let follower =
        if flat { Follower::Flat } else { Follower::Roller(0.5 * metres(&lifter, "roller_diameter", 0.75 * INCH)) };
    let width = if flat { FLAT_WIDTH } else { metres(&lifter, "roller_width", 0.45 * INCH) };
    let core = match cam.word("core_material") {
        Some("cast_iron") => CAST_IRON,
        Some("ductile_iron") => DUCTILE_IRON,
        _ => STEEL,
    };
    // Flat feet are iron, rollers steel.
    let e_star = pair_modulus(if flat { CAST_IRON } else { STEEL }, core);
    let stress = own.spring.as_ref().ok().zip(own.lift.as_ref().ok()).map(|(spring, lift)| {
        let at = |motion: &crate::cam::Motion| {
            let contact = follower.contact(base, motion);
            let valve = Length::from_si(lift.motion(*motion).lift);
            // The spring bears on the lobe only while the valve is open.
            let load = if valve.si() > 0.0 { own.valves * lift.ratio * spring.load(valve).si() } else { 0.0 };
            follower.stress(contact.radius, load / contact.pressure_angle.cos(), width, e_star)
        };
        lobe.sampled(1.0).map(|(_, motion)| at(&motion)).fold(0.0, f64::max)
    });
    Ok(LobeContact { extremes: extremes(lobe, follower, base), stress, flat })
}

/// Least and most preload by the school of the lifter, m; `None` where a deep one's travel is not known.
pub fn preload_band(lifter: &Node<'_>) -> Option<(f64, f64)> {
    let inches = |(low, high): (f64, f64)| (low * INCH, high * INCH);
    Some(match lifter.word("preload_school") {
        Some("light") => inches(PRELOAD_LIGHT),
        Some("deep") => {
            let travel: Length = lifter.quantity("travel")?;
            (travel.si() - PRELOAD_DEEP.0 * INCH, travel.si() - PRELOAD_DEEP.1 * INCH)
        }
        _ => inches(PRELOAD_SERIES),
    })
}
