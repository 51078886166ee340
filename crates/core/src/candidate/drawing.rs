//! What a drawing to scale needs, in the frame of the clearances. What is not known is left out; the
//! drawing says so.

use super::blocks::both;
use super::resolve::{Part, Resolved};
use crate::clearance::{CrownFrame, ValveFrame};
use crate::document::Side;
use crate::given::{Missing, Rows};
use crate::quantity::{Angle, Flow, Length};
use crate::report::{DrawingReport, FlowPoint, PocketDrawing, SpringDrawing, ValveDrawing};

/// Outside diameter drawn for a spring that does not say its own, in.
const COMMON_SPRING_OD: f64 = 1.45;

/// One cylinder to scale.
pub fn drawing(inputs: &Resolved) -> Part<DrawingReport> {
    let engine = &inputs.given.engine;
    let bore = engine.bore.ok_or_else(|| Missing(vec![engine.at("bore")]))?;
    let sides = both(|side| valve(inputs, side))?;
    Ok(DrawingReport { bore_mm: bore.as_mm(), intake: sides.intake, exhaust: sides.exhaust })
}

fn valve(inputs: &Resolved, side: Side) -> Part<ValveDrawing> {
    let own = inputs.side(side);
    let (frame, port): (ValveFrame, _) = (own.valve.clone()?, inputs.port(side));
    let length = |length: Option<Length>| length.map(Length::as_mm);
    let (lifter, pushrod) = (&inputs.train(side).lifter, &inputs.train(side).pushrod);
    let roller = lifter.kind.is_some_and(|kind| kind.is_roller());
    let follower = if roller { lifter.roller_diameter } else { lifter.face_diameter };
    let base = inputs.given.cam.base_circle_diameter.unwrap_or_default();
    Ok(ValveDrawing {
        offset_mm: port.valve_offset_x.map(|_| frame.centre[0] * 1e3),
        offset_y_mm: port.valve_offset_y.map(|_| frame.centre[1] * 1e3),
        second_mm: own.second_valve.map(|second| [second.centre[0] * 1e3, second.centre[1] * 1e3]),
        face_mm: frame.centre[2] * 1e3,
        tilt_deg: port.valve_angle.map_or(0.0, Angle::as_deg),
        head_mm: 2e3 * frame.radius,
        stem_mm: length(port.stem_diameter).unwrap_or(8.0),
        margin_mm: length(port.margin_thickness).unwrap_or(1.5),
        length_mm: length(inputs.train(side).valve.length),
        below_tip_mm: length(inputs.train(side).retainer.below_tip).unwrap_or(5.0),
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
        ratio: inputs.train(side).rocker.ratio,
        pushrod_mm: length(pushrod.length),
        pushrod_diameter_mm: length(pushrod.outside_diameter),
        roller,
        follower_mm: length(follower).unwrap_or(20.0),
        base_radius_mm: 0.5 * base.as_mm(),
        flow: flow(port.flow.as_ref()),
        flow_reverse: flow(port.flow_reverse.as_ref()),
    })
}

fn flow(rows: Option<&Rows<Length, Flow>>) -> Vec<FlowPoint> {
    let rows = rows.into_iter().flat_map(|rows| rows.iter());
    rows.map(|(lift, flow)| FlowPoint { lift_mm: lift.as_mm(), flow_l_per_s: flow.si() * 1e3 }).collect()
}

fn spring(inputs: &Resolved, side: Side) -> Option<SpringDrawing> {
    let train = inputs.train(side);
    let installed = train.spring.installed_height?;
    let bind = inputs.side(side).spring.as_ref().ok().and_then(|spring| spring.bind);
    Some(SpringDrawing {
        installed_mm: installed.as_mm(),
        bind_mm: bind.or(train.spring.coil_bind_height).map(Length::as_mm),
        outside_mm: train.spring.outside_diameter.unwrap_or(Length::inches(COMMON_SPRING_OD)).as_mm(),
        retainer_depth_mm: train.retainer.depth.map_or(0.0, Length::as_mm),
        seal_mm: inputs.port(side).seal_height.map(Length::as_mm),
    })
}
