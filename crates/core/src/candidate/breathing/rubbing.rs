//! What rubs in a candidate's engine, read from its document.

use super::super::resolve::Resolved;
use crate::document::Side;
use crate::engine::Cylinder;
use crate::gas::friction::{Friction, Rubbing, USUAL_OPEN_LOAD};
use crate::gas::port::Motion;
use crate::quantity::Length;
use crate::words::{Accessories, Layout};

/// Bearings nobody measured, in bores: mains' diameter and length, rods' diameter and length [Patton, Nitschke and Heywood,
/// SAE 890836, for V engines; from memory].
pub const BEARINGS_OF_BORE: [f64; 4] = [0.64, 0.23, 0.53, 0.22];

/// Friction of a candidate; a diesel's is not told by parts.
pub fn read_friction(inputs: &Resolved, cylinder: &Cylinder, motions: [&Motion; 2]) -> Friction {
    if inputs.given.is_diesel() {
        return Friction::ByPressure;
    }
    let engine = &inputs.given.engine;
    let bore = cylinder.bore.si();
    let sized = |given: Option<Length>, share: f64| given.map_or(share * bore, Length::si);
    let [main, main_length, rod, rod_length] = BEARINGS_OF_BORE;
    let sides = Side::BOTH.map(|side| inputs.side(side));
    let lifts = motions.map(|motion| motion.largest(0.0));
    let loads: Vec<f64> = sides
        .iter()
        .zip(lifts)
        .filter_map(|(side, lift)| side.spring.as_ref().ok().map(|spring| spring.load(Length::from_si(lift)).si()))
        .collect();
    let count = cylinder.count;
    Friction::Parts(Rubbing {
        bore,
        stroke: cylinder.crank.true_stroke().si(),
        compression: cylinder.compression_ratio().unwrap_or(9.0),
        cylinders: count,
        mains: (
            engine.main_bearings.unwrap_or_else(|| mains_of(engine.layout, count)),
            sized(engine.main_bearing_diameter, main),
            sized(engine.main_bearing_length, main_length),
        ),
        rods: (sized(engine.rod_bearing_diameter, rod), sized(engine.rod_bearing_length, rod_length)),
        valves: count * sides.iter().map(|side| side.valves).sum::<f64>(),
        valve_lift: 0.5 * (lifts[0] + lifts[1]),
        spring: if loads.is_empty() { 1.0 } else { loads.iter().sum::<f64>() / loads.len() as f64 / USUAL_OPEN_LOAD },
        roller: Side::BOTH.into_iter().any(|side| inputs.train(side).lifter.kind.is_some_and(|kind| kind.is_roller())),
        accessories: match engine.accessories {
            Some(Accessories::None) => 0.0,
            Some(Accessories::All) => 1.0,
            Some(Accessories::OilPump) | None => 0.5,
        },
    })
}

/// Main bearings of a layout: between all cylinders in line, between all pairs in a V.
pub fn mains_of(layout: Option<Layout>, cylinders: f64) -> f64 {
    match layout {
        Some(Layout::InlineSix | Layout::InlineFour) => cylinders + 1.0,
        Some(Layout::V8 | Layout::V6) | None => (0.5 * cylinders).ceil() + 1.0,
    }
}
