//! The lobes of a cam or lobe on the shelf as they look from the front.

use super::kind::PartKind;
use super::part::Part;
use crate::build::Build;
use crate::cam::Lobe;
use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::quantity::Length;
use serde::Serialize;
use serde_json::{Value, json};

/// One lobe.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LobeOutline {
    /// Whose; a lobe sold by itself is shown as an intake's.
    pub side: Side,
    /// Of the base circle.
    pub base_radius_mm: f64,
    /// Cam degrees from full lift.
    pub cam_deg: Vec<f64>,
    /// Follower lift there.
    pub lift_mm: Vec<f64>,
}

/// Cam degrees between points: a drawing of some millimetres shows no more.
const EVERY: f64 = 4.0;

/// The lobes of `part`; none for other kinds of parts, and of cards that no smooth lobe carries.
pub fn outlines(part: &Part, stages: &Stages) -> Vec<LobeOutline> {
    let fields = Value::Object(part.fields.clone());
    let cam = match part.kind {
        PartKind::Cam => fields,
        PartKind::Lobe => json!({ "intake": fields }),
        _ => return Vec::new(),
    };
    let ground_for = part.fields.get("ground_for").and_then(Value::as_str);
    let lifter = if ground_for == Some("flat") { "hydraulic_flat" } else { "hydraulic_roller" };
    let document = json!({
        "format": crate::document::FORMAT, "version": crate::document::VERSION, "name": "shelf",
        "candidates": [{ "id": "a", "name": "a", "cam": cam, "train": { "lifter": { "kind": lifter } } }]
    });
    let Ok(build) = Build::from_value(document) else { return Vec::new() };
    let views = build.candidates();
    let resolved = Resolved::of(&views[0], stages);
    let radius = 0.5 * resolved.given.cam.base_circle_diameter.map_or(0.0, Length::as_mm);
    let outline = |side: Side| resolved.side(side).lobe().ok().map(|lobe| outline(lobe, side, radius));
    Side::BOTH.into_iter().filter_map(outline).collect()
}

fn outline(lobe: &Lobe, side: Side, base_radius_mm: f64) -> LobeOutline {
    let points = lobe.sampled(EVERY).map(|(deg, motion)| (deg, (motion.lift * 1e6).round() * 1e-3));
    let (cam_deg, lift_mm) = points.unzip();
    LobeOutline { side, base_radius_mm, cam_deg, lift_mm }
}
