//! What is left between valve and piston at speed: a gap measured cold and by hand, less every term that a running engine takes
//! off or gives back, one after another.

use super::blocks::{closed_gap, closed_gaps};
use super::dynamics::{TurnedLift, lifts_over, side_train};
use super::resolve::{Gap, Part, Resolved, lack, together};
use super::stages::Stages;
use crate::clearance::growth::{ALUMINIUM_ROD, Reciprocating, STEEL_ROD, TITANIUM_ROD, block_warmed, rod_warmed};
use crate::clearance::{ClosedGap, ValveTravel, least_gap};
use crate::document::{Origin, Side};
use crate::given::{Of, Source};
use crate::quantity::{Angle, INCH, Length, Mass, Speed};
use crate::report::{AtSpeedReport, AtSpeedSide, GrowthTerm};
use crate::train::compliance::Metal;
use crate::words::{CamDrive, Casting, RodMaterial};
use std::ops::Range;
use std::sync::Arc;

/// Speeds looked at, the slowest of them as a share of the fastest.
const SPEEDS: usize = 8;
const FIRST: f64 = 0.25;
/// Crank degrees by which a cam runs late for a thousand rpm where nobody says: by chain, gears, belt (assumed).
const LAG: [(CamDrive, f64); 3] = [(CamDrive::Chain, 0.4), (CamDrive::Gear, 0.1), (CamDrive::Belt, 0.3)];
/// Crank degrees of the overlap in which a valve can meet a piston.
const ABOUT: Range<usize> = 260..461;
/// What stands in where nobody says, and that it is assumed.
const USUAL: (&str, bool) = ("usual, assumed", true);

/// A term that raises the piston.
struct Rise {
    key: &'static str,
    name: &'static str,
    /// At the fastest speed, m.
    most: f64,
    grows: Grows,
    from: TermSource,
}

/// How a term follows speed.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Grows {
    /// With the square of speed.
    Squared,
    /// Not at all: it is there once the engine is warm.
    Warm,
}

impl Rise {
    /// At a share of the fastest speed, m.
    fn at(&self, share: f64) -> f64 {
        match self.grows {
            Grows::Squared => self.most * share * share,
            Grows::Warm => self.most,
        }
    }
}

/// Gaps at speed with their terms.
///
/// # Errors
/// What the gaps at rest lack, the highest speed, and of what is computed of rod and block.
pub fn at_speed(inputs: &Resolved, source: &Source<'_>, stages: &Stages) -> Part<AtSpeedReport> {
    let target = &inputs.given.target;
    let top = inputs.top_speed().ok_or_else(|| Gap::needing(vec![target.at("shift_at")]));
    let [intake, exhaust] = Side::BOTH.map(|side| of_side(inputs, side));
    together([lack(&top), lack(&intake), lack(&exhaust), lack(&inputs.cylinder)])?;
    let top = top?.as_rpm();
    let speeds: Vec<f64> =
        (0..SPEEDS).map(|i| (top * (FIRST + (1.0 - FIRST) * i as f64 / (SPEEDS - 1) as f64)).round()).collect();
    let (rises, lag) = (rises(inputs, top, source), lag(inputs, source));
    let side = |side: Side, (closed, travel): (ClosedGap, ValveTravel<'_>)| {
        let train = side_train(inputs, side).ok().and_then(|train| train.turnable());
        let moved = train.map(|train| lifts_over(&train, &speeds, &|| false));
        let at_rest = closed_gaps(&closed, stages);
        Way { closed, at_rest, travel, rises: &rises, lag: lag.0, top }.report(&speeds, moved.as_deref(), &lag.1)
    };
    let (intake, exhaust) = (side(Side::Intake, intake?), side(Side::Exhaust, exhaust?));
    let quench = inputs.cylinder.clone()?.piston_to_head().si();
    let up = |rpm: &f64| rises.iter().map(|rise| rise.at(rpm / top)).sum::<f64>();
    Ok(AtSpeedReport {
        lag_deg: speeds.iter().map(|rpm| lag.0 * rpm * 1e-3).collect(),
        piston_to_head_mm: speeds.iter().map(|rpm| 1e3 * (quench - up(rpm))).collect(),
        speed_rpm: speeds,
        intake,
        exhaust,
    })
}

fn of_side(inputs: &Resolved, side: Side) -> Part<(ClosedGap, ValveTravel<'_>)> {
    let (closed, travel) = (closed_gap(inputs, side), inputs.travel(side));
    together([lack(&closed), lack(&travel)])?;
    Ok((closed?, travel?))
}

/// One valve on its way from rest to speed.
struct Way<'a> {
    closed: ClosedGap,
    /// Its gaps at rest at every crank degree of a turn.
    at_rest: Arc<Vec<Length>>,
    travel: ValveTravel<'a>,
    rises: &'a [Rise],
    /// Crank degrees for a thousand rpm.
    lag: f64,
    top: f64,
}

impl Way<'_> {
    /// Every term at every speed, each with those before it taken off.
    fn report(&self, speeds: &[f64], moved: Option<&[TurnedLift]>, lag_from: &TermSource) -> AtSpeedSide {
        let rest = self.least(0.0, 0.0, None);
        let mut terms: Vec<GrowthTerm> = self.rises.iter().map(|rise| rise.from.term(rise.key, rise.name)).collect();
        terms.push(lag_from.term("cam_lag", "Cam running late"));
        if moved.is_some() {
            let how = "computed: flex, loft and bounce of the train in motion".to_owned();
            terms.push(TermSource { field: None, how, is_assumed: false }.term("lift_in_motion", "Lift in motion"));
        }
        let (mut minimum_mm, mut at_deg) = (Vec::with_capacity(speeds.len()), Vec::with_capacity(speeds.len()));
        for (place, rpm) in speeds.iter().enumerate() {
            let late = self.lag * rpm * 1e-3;
            let mut found = vec![rest];
            let mut up = 0.0;
            for rise in self.rises {
                up += rise.at(rpm / self.top);
                found.push(self.least(up, 0.0, None));
            }
            found.push(self.least(up, late, None));
            found.extend(moved.and_then(|moved| moved.get(place)).map(|moved| self.least(up, late, Some(moved))));
            for (term, pair) in terms.iter_mut().zip(found.windows(2)) {
                term.mm.push(1e3 * (pair[1].1 - pair[0].1));
            }
            let (deg, gap) = found.last().copied().unwrap_or(rest);
            minimum_mm.push(1e3 * gap);
            at_deg.push(deg);
        }
        AtSpeedSide { at_rest_mm: 1e3 * rest.1, minimum_mm, at_deg, terms }
    }

    /// Where the gap is least, crank degrees, and how much it is, m: the piston `up` higher, the cam `late` by so many crank
    /// degrees, the valve by its lobe or as it is moved.
    fn least(&self, up: f64, late: f64, moved: Option<&TurnedLift>) -> (f64, f64) {
        let closed = self.closed.raised(Length::from_si(up));
        let lift = |deg: f64| moved.map_or_else(|| self.travel.lift_at(deg - late).si(), |moved| moved.at(deg - late));
        // A piston that comes up takes as much from every place, nearly: gaps at rest tell where to look.
        least_gap(&closed, &self.at_rest, &lift, ABOUT)
    }
}

/// Where a term comes from.
struct TermSource {
    field: Option<String>,
    how: String,
    is_assumed: bool,
}

impl TermSource {
    /// Of the field `key` of the growth; where the document does not give it, `otherwise` in words, and whether that is assumed.
    fn of(source: &Source<'_>, key: &str, otherwise: (&str, bool)) -> Self {
        let node = source.node(Of::Growth, Side::Intake);
        let input = node.input(key);
        let (how, is_assumed) = match (node.has(key), input.origin) {
            (false, _) => otherwise,
            (true, Origin::Measured) => ("measured", false),
            (true, Origin::Card) => ("from its card", false),
            (true, Origin::Assumed) => ("assumed", true),
            (true, Origin::Unmarked | Origin::Computed) => ("given", false),
        };
        Self { field: Some(input.field), how: how.to_owned(), is_assumed }
    }

    fn term(&self, id: &str, name: &str) -> GrowthTerm {
        GrowthTerm {
            id: id.to_owned(),
            name: name.to_owned(),
            mm: Vec::new(),
            field: self.field.clone(),
            how: self.how.clone(),
            is_assumed: self.is_assumed,
        }
    }
}

/// What raises the piston, in the order of a running engine: what inertia does, then what heat does.
fn rises(inputs: &Resolved, top: f64, source: &Source<'_>) -> Vec<Rise> {
    let (growth, engine) = (&inputs.given.growth, &inputs.given.engine);
    let si = |length: Option<Length>| length.map_or(0.0, Length::si);
    let rise = |key, name, most: f64, grows, otherwise: (&str, bool)| Rise {
        key,
        name,
        most,
        grows,
        from: TermSource::of(source, key, otherwise),
    };
    let warm = |key, name, length| rise(key, name, si(length), Grows::Warm, USUAL);
    let (metal, usual_stretch) = rod_of(engine.rod_material);
    let (stretch, by) = match rod(inputs, metal) {
        Some(rod) => (rod.stretch(Speed::rpm(top).si()), ("computed from masses, length and metal", false)),
        None => (usual_stretch, USUAL),
    };
    let (heat, heat_by) = match (engine.stroke, engine.rod_length, engine.bore) {
        (Some(stroke), Some(length), Some(bore)) => {
            let throw = 0.5 * stroke.si();
            let block = block_warmed(throw, length.si(), bore.si(), engine.block_material == Some(Casting::Aluminium));
            (rod_warmed(throw, length.si(), metal) - block, ("computed from heights and metals", false))
        }
        _ => (0.0, USUAL),
    };
    vec![
        rise("rod_stretch", "Rod stretch", growth.rod_stretch.map_or(stretch, Length::si), Grows::Squared, by),
        rise("crank_bending", "Crank bending", si(growth.crank_bending), Grows::Squared, USUAL),
        warm("bearing_and_pin", "Bearings and pin", growth.bearing_and_pin),
        warm("piston_heat", "Piston heat", growth.piston_heat),
        warm("piston_rock", "Piston rock", growth.piston_rock),
        rise("block_heat", "Block and rod heat", growth.block_heat.map_or(heat, Length::si), Grows::Warm, heat_by),
        warm("gasket_creep", "Gasket creep", growth.gasket_creep),
    ]
}

/// Crank degrees the cam runs late for a thousand rpm, and where that is from.
fn lag(inputs: &Resolved, source: &Source<'_>) -> (f64, TermSource) {
    let drive = inputs.given.engine.cam_drive.unwrap_or(CamDrive::Chain);
    let usual = LAG.iter().find(|(own, _)| *own == drive).map_or(0.0, |(_, deg)| *deg);
    let given = inputs.given.growth.cam_lag_per_1000_rpm.map(Angle::as_deg);
    (given.unwrap_or(usual), TermSource::of(source, "cam_lag_per_1000_rpm", ("usual of its drive, assumed", true)))
}

fn rod(inputs: &Resolved, metal: Metal) -> Option<Reciprocating> {
    let engine = &inputs.given.engine;
    Some(Reciprocating {
        throw: 0.5 * engine.stroke?.si(),
        rod_length: engine.rod_length?.si(),
        rod_mass: engine.rod_mass.map(Mass::si)?,
        piston_mass: engine.piston_assembly_mass.map(Mass::si)?,
        metal,
    })
}

/// What a rod is made of, and what it stretches by at race speeds where masses are not known, m (common practice, no source).
fn rod_of(material: Option<RodMaterial>) -> (Metal, f64) {
    match material {
        Some(RodMaterial::Aluminium) => (ALUMINIUM_ROD, 0.008 * INCH),
        Some(RodMaterial::Titanium) => (TITANIUM_ROD, 0.006 * INCH),
        _ => (STEEL_ROD, 0.004 * INCH),
    }
}
