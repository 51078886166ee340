//! What a drawing to scale needs, in the frame of the clearances. What is not known is left out; the
//! drawing says so.

use super::blocks::both;
use super::inputs::{Inputs, Part};
use crate::clearance::{CrownFrame, ValveFrame};
use crate::document::{Missing, Node, Side};
use crate::quantity::{Angle, Flow, Length};
use crate::report::{DrawingReport, FlowPoint, PocketDrawing, SpringDrawing, ValveDrawing};

/// Outside diameter drawn for a spring that does not say its own, in.
const COMMON_SPRING_OD: f64 = 1.45;

/// One cylinder to scale.
pub fn drawing(inputs: &Inputs<'_>) -> Part<DrawingReport> {
    let bore: Option<Length> = inputs.engine.quantity("bore");
    let bore = bore.ok_or_else(|| Missing(vec![inputs.engine.path_of("bore")]))?;
    let sides = both(|side| valve(inputs, side))?;
    Ok(DrawingReport { bore_mm: bore.as_mm(), intake: sides.intake, exhaust: sides.exhaust })
}

fn valve(inputs: &Inputs<'_>, side: Side) -> Part<ValveDrawing> {
    let own = inputs.side(side);
    let (frame, port): (ValveFrame, _) = (own.valve.clone()?, inputs.port(side));
    let length = |text: Option<Length>| text.map(Length::as_mm);
    let (lifter, pushrod) = (inputs.train(side, "lifter"), inputs.train(side, "pushrod"));
    let roller = lifter.word("kind").is_some_and(|kind| kind.ends_with("roller"));
    let follower = lifter.quantity::<Length>(if roller { "roller_diameter" } else { "face_diameter" });
    let base: Length = inputs.candidate.child("cam").quantity("base_circle_diameter").unwrap_or_default();
    Ok(ValveDrawing {
        offset_mm: port.has("valve_offset_x").then_some(frame.centre[0] * 1e3),
        offset_y_mm: port.has("valve_offset_y").then_some(frame.centre[1] * 1e3),
        second_mm: own.second_valve.map(|second| [second.centre[0] * 1e3, second.centre[1] * 1e3]),
        face_mm: frame.centre[2] * 1e3,
        tilt_deg: port.quantity("valve_angle").map_or(0.0, Angle::as_deg),
        head_mm: 2e3 * frame.radius,
        stem_mm: length(port.quantity("stem_diameter")).unwrap_or(8.0),
        margin_mm: length(port.quantity("margin_thickness")).unwrap_or(1.5),
        pocket: own.crown.as_ref().ok().and_then(CrownFrame::pocket_shape).map(|(place, diameter, tilt)| {
            PocketDrawing {
                offset_mm: place[0] * 1e3,
                offset_y_mm: place[1] * 1e3,
                floor_mm: place[2] * 1e3,
                diameter_mm: diameter.as_mm(),
                tilt_deg: tilt.as_deg(),
            }
        }),
        spring: spring(inputs, side),
        ratio: inputs.train(side, "rocker").number("ratio"),
        pushrod_mm: length(pushrod.quantity("length")),
        pushrod_diameter_mm: length(pushrod.quantity("outside_diameter")),
        roller,
        follower_mm: length(follower).unwrap_or(20.0),
        base_radius_mm: 0.5 * base.as_mm(),
        flow: flow(&port, "flow"),
        flow_reverse: flow(&port, "flow_reverse"),
    })
}

fn flow(port: &Node<'_>, key: &str) -> Vec<FlowPoint> {
    let rows = port.rows::<Length, Flow>(key).unwrap_or_default();
    rows.into_iter().map(|(lift, flow)| FlowPoint { lift_mm: lift.as_mm(), flow_l_per_s: flow.si() * 1e3 }).collect()
}

fn spring(inputs: &Inputs<'_>, side: Side) -> Option<SpringDrawing> {
    let node = inputs.train(side, "spring");
    let installed: Length = node.quantity("installed_height")?;
    let bind = inputs.side(side).spring.as_ref().ok().and_then(|spring| spring.bind);
    Some(SpringDrawing {
        installed_mm: installed.as_mm(),
        bind_mm: bind.or_else(|| node.quantity("coil_bind_height")).map(Length::as_mm),
        outside_mm: node.quantity("outside_diameter").unwrap_or(Length::inches(COMMON_SPRING_OD)).as_mm(),
        retainer_depth_mm: inputs.train(side, "retainer").quantity("depth").map_or(0.0, Length::as_mm),
        seal_mm: inputs.port(side).quantity("seal_height").map(Length::as_mm),
    })
}
