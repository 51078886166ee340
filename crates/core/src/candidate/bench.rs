//! What the bench reads, made into what the document asks for: face recess, depth and diameter of pockets, volumes, each
//! with the doubt that is left. A reading is never a second truth beside its field: it says what the field should be.

use super::blocks::frame_gap;
use super::report::worded;
use super::resolve::{Gap, Part, Resolved, lack, together};
use crate::clearance::{ClosedGap, PistonClearance, ValveTravel, closest, read_crown, read_valve};
use crate::document::{Origin, Side};
use crate::given::{Needs, Place, PocketPart, Port, Source, need};
use crate::quantity::{Angle, Dimension, INCH, Length, Shown, Volume, shown};
use crate::report::{BenchFinding, BenchVerdict, Named};
use crate::root::root_within;
use crate::words::FaceSpot;

// How far each tool may be off, half widths that hold 95 of 100 readings (common practice, no source).
/// Dial on the retainer with a light spring, m.
pub(super) const DIAL: f64 = 0.002 * INCH;
/// Degree wheel, deg.
pub(super) const WHEEL: f64 = 0.5;
/// Depth gauge over a deck, m.
const DEPTH_GAUGE: f64 = 0.002 * INCH;
/// Clay under calipers, m.
pub(super) const CLAY: f64 = 0.005 * INCH;
/// Burette and its plate, m^3.
pub(super) const BURETTE: f64 = 0.3e-6;
/// Deck clearance and crushed gasket together, m.
const DECK: f64 = 0.002 * INCH;
/// Bore, m.
const BORE: f64 = 0.001 * INCH;
/// Tilt of a valve off its drawing, deg.
const TILT: f64 = 0.25;

/// What a reading comes to.
struct Found {
    si: f64,
    doubt: f64,
    how: Shown,
}

/// What a reading stands for, and what it comes to.
struct Said {
    place: Place,
    from: String,
    found: Part<Found>,
}

/// What every reading of the bench says.
pub fn bench(inputs: &Resolved, source: &Source<'_>) -> Vec<BenchFinding> {
    let sides = Side::BOTH.into_iter().flat_map(|side| of_side(inputs, side));
    let said: Vec<Said> = volumes(inputs).into_iter().chain(sides).collect();
    let doubt = |one: &Said| one.found.as_ref().map_or(f64::INFINITY, |found| found.doubt);
    let surest =
        |one: &Said| said.iter().filter(|other| other.place == one.place).all(|other| doubt(one) <= doubt(other));
    said.iter().map(|one| told(one, surest(one), inputs, source)).collect()
}

fn told(one: &Said, surest: bool, inputs: &Resolved, source: &Source<'_>) -> BenchFinding {
    let Named { field, label } = Named::at(source.path(one.place));
    let dimension = match one.place.key {
        "chamber_volume" | "piston_volume" => Dimension::Volume,
        _ => Dimension::Length,
    };
    let held = source.node(one.place.of, one.place.side).input(one.place.key);
    let now = inputs.given.number(one.place).filter(|_| held.origin != Origin::Assumed);
    let (how, needs) = match &one.found {
        Ok(found) => (found.how.clone(), Vec::new()),
        Err(gap) => {
            let (reason, needs) = worded(gap, source);
            (Shown::plain(reason), needs)
        }
    };
    let found = one.found.as_ref().ok();
    let verdict = match (found, now) {
        (None, _) => BenchVerdict::Unclear,
        (Some(_), None) => BenchVerdict::New,
        (Some(found), Some(now)) if (found.si - now).abs() <= found.doubt => BenchVerdict::Agrees,
        (Some(_), Some(_)) => BenchVerdict::Differs,
    };
    BenchFinding {
        field,
        label,
        from: one.from.clone(),
        says: found.map(|found| shown(found.si, dimension)),
        doubt: found.map(|found| shown(found.doubt, dimension)),
        now: now.map(|si| shown(si, dimension)),
        verdict,
        surest: surest && found.is_some(),
        how,
        needs,
    }
}

/// Chamber and piston by burette.
fn volumes(inputs: &Resolved) -> Vec<Said> {
    let engine = &inputs.given.engine;
    let chamber = engine.chamber_fill.map(|fill| Said {
        place: engine.at("chamber_volume"),
        from: "chamber by burette".to_owned(),
        found: Ok(Found { si: fill.si(), doubt: BURETTE, how: Shown::plain("as filled under the plate") }),
    });
    let piston = engine.cylinder_fill.map(|fill| Said {
        place: engine.at("piston_volume"),
        from: "cylinder by burette".to_owned(),
        found: piston_volume(inputs, fill),
    });
    chamber.into_iter().chain(piston).collect()
}

/// What was filled, less the cylinder between deck and the flat of the crown.
fn piston_volume(inputs: &Resolved, fill: Volume) -> Part<Found> {
    let engine = &inputs.given.engine;
    let mut needs = Needs::default();
    let (bore, down) = (need!(needs, engine.bore), need!(needs, engine.piston_down));
    needs.met(())?;
    let solve = |[burette, depth, wide]: [f64; 3]| {
        let bore = bore.si() + wide;
        Some(fill.si() + burette - 0.25 * std::f64::consts::PI * bore * bore * (down.si() + depth))
    };
    let (si, doubt) =
        with_doubt([BURETTE, DEPTH_GAUGE, BORE], solve).ok_or_else(|| Gap::because("no volume is left"))?;
    Ok(Found {
        si,
        doubt,
        how: Shown::plain("what was filled less bore area times depth; the depth is most of the doubt"),
    })
}

/// Everything read of one valve.
fn of_side(inputs: &Resolved, side: Side) -> Vec<Said> {
    let (port, pocket) = (inputs.port(side), inputs.given.pocket(side));
    let clay = inputs.given.clay(side);
    let below = if pocket.is_given { pocket.at("depth") } else { port.at("face_recess") };
    let height = port.valve_height.map(|height| Said {
        place: port.at("face_recess"),
        from: format!("{} valve height", side.key()),
        found: recess(port, height),
    });
    let drops = port.drops_about_top();
    // Under a dome drops stand for themselves: there is no depth below a flat that they could give.
    let is_shapeless = inputs.given.engine.is_domed() && !pocket.is_given;
    let dropped = (!drops.is_empty() && !is_shapeless).then(|| Said {
        place: below,
        from: if let [_] = drops[..] {
            format!("{} drop", side.key())
        } else {
            format!("{} {} drops", drops.len(), side.key())
        },
        found: by_drops(inputs, side, &drops),
    });
    let floor = clay.floor.filter(|_| !is_shapeless).map(|clay| Said {
        place: below,
        from: format!("{} clay, floor", side.key()),
        found: by_floor(inputs, side, clay),
    });
    let depths = [&dropped, &floor].into_iter().flatten().filter_map(|said| said.found.as_ref().ok());
    let depth = depths.min_by(|a, b| a.doubt.total_cmp(&b.doubt)).map(|found| Length::from_si(found.si));
    let wall = clay.wall.map(|clay| Said {
        place: pocket.at("diameter"),
        from: format!("{} clay, wall", side.key()),
        found: by_wall(inputs, side, clay, depth),
    });
    [height, dropped, floor, wall].into_iter().flatten().collect()
}

/// Height of the lowest edge by depth gauge.
fn recess(port: &Port, height: Length) -> Part<Found> {
    if port.valve_height_at != Some(FaceSpot::Centre) {
        return Ok(Found {
            si: height.si(),
            doubt: DEPTH_GAUGE,
            how: Shown::plain("the gauge meets the lowest edge itself"),
        });
    }
    let mut needs = Needs::default();
    let (diameter, tilt) = (need!(needs, port.valve_diameter), need!(needs, port.valve_angle));
    let cant = need!(needs, port.valve_cant);
    needs.met(())?;
    let below = |tilt: f64| {
        let slope = tilt.tan().hypot(cant.si().tan());
        0.5 * diameter.si() * slope / slope.hypot(1.0)
    };
    let solve = |[gauge, off]: [f64; 2]| Some(height.si() + gauge - below(tilt.si() + off));
    let (si, doubt) = with_doubt([DEPTH_GAUGE, TILT.to_radians()], solve).ok_or_else(|| Gap::because("no height"))?;
    Ok(Found {
        si,
        doubt,
        how: Shown::plain("the lowest edge is half the diameter times the sine of the tilt below the middle"),
    })
}

/// How far inputs of a frame may be off.
#[derive(Debug, Clone, Copy, Default)]
struct Off {
    recess: f64,
    deck: f64,
}

/// The frame of one side with one number open: depth of the pocket or, without one, the recess.
struct Open<'a> {
    inputs: &'a Resolved,
    side: Side,
    port: Port,
}

impl<'a> Open<'a> {
    /// With the recess that the valve height says, where it was read.
    fn new(inputs: &'a Resolved, side: Side) -> Self {
        let given = inputs.port(side);
        let read = given.valve_height.and_then(|height| recess(given, height).ok());
        let face_recess = read.map(|found| Length::from_si(found.si)).or(given.face_recess);
        let port = Port { face_recess, ..given.clone() };
        let mut open = Self { inputs, side, port };
        if !open.pocket().is_given {
            // What is asked cannot be missing.
            open.port.face_recess = Some(Length::default());
        }
        open
    }

    fn pocket(&self) -> &PocketPart {
        self.inputs.given.pocket(self.side)
    }

    /// The open number may be from and to this.
    fn range(&self) -> (f64, f64) {
        if self.pocket().is_given { (0.0, 1.0 * INCH) } else { (-0.5 * INCH, 1.5 * INCH) }
    }

    fn depth(&self, depth: f64) -> PocketPart {
        PocketPart { depth: Some(Length::from_si(depth)), ..self.pocket().clone() }
    }

    /// The gap with the open number at `value`.
    fn at(&self, value: f64, off: Off) -> Part<ClosedGap> {
        let more = |recess: Length| Length::from_si(recess.si() + off.recess);
        let (face_recess, pocket) = if self.pocket().is_given {
            (self.port.face_recess.map(more), self.depth(value))
        } else {
            (Some(Length::from_si(value)), self.pocket().clone())
        };
        self.with(&Port { face_recess, ..self.port.clone() }, &pocket, off)
    }

    fn with(&self, port: &Port, pocket: &PocketPart, off: Off) -> Part<ClosedGap> {
        let cylinder = self.inputs.cylinder.clone().map(|mut cylinder| {
            cylinder.deck_clearance = Length::from_si(cylinder.deck_clearance.si() + off.deck);
            cylinder
        });
        let valve = read_valve(port, pocket.is_given).map_err(Gap::from);
        let crown = read_crown(port, pocket).map_err(Gap::from);
        frame_gap(&cylinder, &valve, &crown, self.inputs.given.engine.is_domed())
    }

    fn how(&self) -> Shown {
        match self.port.face_recess.filter(|_| self.pocket().is_given) {
            None => Shown::plain("over a flat crown, deck and gasket as given"),
            Some(recess) => sentence(recess.si(), |recess| {
                format!("with the lowest edge {recess} above the gasket face, deck and gasket as given")
            }),
        }
    }
}

/// A sentence about a length, in both systems.
fn sentence(si: f64, words: impl Fn(&str) -> String) -> Shown {
    let Shown { inch, metric } = shown(si, Dimension::Length);
    Shown { inch: words(&inch), metric: words(&metric) }
}

/// One sentence after the other.
fn joined(one: Shown, more: &Shown) -> Shown {
    Shown { inch: one.inch + &more.inch, metric: one.metric + &more.metric }
}

/// The depth, or the recess, at which the frame reads what the dial read, in the mean of all drops.
fn by_drops(inputs: &Resolved, side: Side, drops: &[(Angle, Length)]) -> Part<Found> {
    let open = Open::new(inputs, side);
    let _ = open.at(open.range().0, Off::default())?;
    let surplus = |value: f64, [dial, wheel, recess, deck]: [f64; 4]| {
        let Ok(gap) = open.at(value, Off { recess, deck }) else { return f64::NAN };
        let each = drops.iter().map(|(at, drop)| gap.at(at.as_deg() + wheel).along_stem.si() - drop.si() - dial);
        each.sum::<f64>() / drops.len() as f64
    };
    let (low, high) = open.range();
    let solve = |off: [f64; 4]| root_within(low, high, |value| surplus(value, off));
    let off_top = drops.iter().any(|(at, _)| at.si() != 0.0);
    let wheel = if off_top { WHEEL } else { 0.0 };
    let recess = if open.pocket().is_given { DEPTH_GAUGE } else { 0.0 };
    let (si, doubt) = with_doubt([DIAL, wheel, recess, DECK], solve)
        .ok_or_else(|| unreachable_drop(&open, surplus(low, [0.0; 4])))?;
    let at = open.at(si, Off::default())?;
    let left = drops.iter().map(|(deg, drop)| drop.si() - at.at(deg.as_deg()).along_stem.si());
    let (least, most) = left.fold((f64::INFINITY, f64::NEG_INFINITY), |(a, b), one| (a.min(one), b.max(one)));
    let spread = most - least;
    Ok(Found { si, doubt: doubt.hypot(0.5 * spread), how: joined(open.how(), &agreement(drops.len(), spread)) })
}

/// How well several drops agree with one another.
fn agreement(count: usize, spread: f64) -> Shown {
    if count < 2 {
        return Shown::plain("");
    }
    sentence(spread, |apart| {
        if spread > 3.0 * DIAL {
            format!(
                "; the drops differ by {apart} from what the crank makes of one depth: look for top dead centre on the wheel"
            )
        } else {
            format!("; the drops agree within {apart}")
        }
    })
}

fn unreachable_drop(open: &Open<'_>, at_least: f64) -> Gap {
    Gap::because(match (open.pocket().is_given, at_least > 0.0) {
        (true, true) => "the drop is less than a crown without any pocket leaves: look at recess, deck and gasket",
        (true, false) => {
            "the drop is more than any depth leaves, since the valve meets crown or rim beside the pocket: look at the pocket's diameter and place, or at the recess"
        }
        (false, _) => "no recess gives this drop: look at deck and gasket",
    })
}

/// The depth, or the recess, at which this cam leaves as much over the crown as the clay is thick.
fn by_floor(inputs: &Resolved, side: Side, clay: Length) -> Part<Found> {
    let open = Open::new(inputs, side);
    let (low, high) = open.range();
    let frame = |value: f64| open.at(value, Off::default());
    let (si, doubt) =
        by_clay(inputs.travel(side), (low, high), frame, |found| Some(found.normal), clay)?.ok_or_else(|| {
            Gap::because("no depth leaves as much with this cam: look at lift, centreline, recess and deck")
        })?;
    Ok(Found { si, doubt, how: joined(open.how(), &Shown::plain(", this cam's lift and centreline")) })
}

/// The pocket's diameter at which this cam leaves as much beside the valve's edge; `depth` as other readings have it.
fn by_wall(inputs: &Resolved, side: Side, clay: Length, depth: Option<Length>) -> Part<Found> {
    let open = Open::new(inputs, side);
    if !open.pocket().is_given {
        return Err(Gap::because("there is no pocket with a wall"));
    }
    let range = open.port.valve_diameter.map_or((0.0, 0.0), |valve| (0.9 * valve.si(), 1.4 * valve.si()));
    let frame = |value: f64| {
        let depth = depth.or(open.pocket().depth);
        let pocket = PocketPart { diameter: Some(Length::from_si(value)), depth, ..open.pocket().clone() };
        open.with(&open.port, &pocket, Off::default())
    };
    let (si, doubt) = by_clay(inputs.travel(side), range, frame, |found| found.radial, clay)?.ok_or_else(|| {
        Gap::because("no diameter leaves as much with this cam: the edge never enters the pocket, or its place is off")
    })?;
    let how = "this cam's lift and centreline, the pocket's middle as given; guide play is in the clay";
    Ok(Found { si, doubt, how: Shown::plain(how) })
}

/// The number of a frame at which `left` of the closest approach is as thick as the clay, and its doubt; `None` when none
/// in the range is.
fn by_clay(
    travel: Part<ValveTravel<'_>>,
    (low, high): (f64, f64),
    frame: impl Fn(f64) -> Part<ClosedGap>,
    left: impl Fn(PistonClearance) -> Option<Length>,
    clay: Length,
) -> Part<Option<(f64, f64)>> {
    together([lack(&frame(low)), lack(&travel)])?;
    let travel = travel?;
    let surplus = |value: f64, off: f64| {
        let gap = frame(value).ok();
        let found = gap.and_then(|gap| left(closest(&gap, &travel, &gap.over_a_turn())));
        found.map_or(f64::NAN, |left| left.si() - clay.si() - off)
    };
    Ok(with_doubt([CLAY], |[off]: [f64; 1]| root_within(low, high, |value| surplus(value, off))))
}

/// What `solve` finds with nothing off, and the root of the summed squares of what each doubt makes of it. `None` where
/// it finds nothing with nothing off.
fn with_doubt<const N: usize>(doubts: [f64; N], solve: impl Fn([f64; N]) -> Option<f64>) -> Option<(f64, f64)> {
    let found = solve([0.0; N])?;
    let shifted = |i: usize, by: f64| {
        let mut off = [0.0; N];
        off[i] = by;
        solve(off).map_or(0.0, |other| (other - found).abs())
    };
    let squares = doubts.iter().enumerate().map(|(i, doubt)| shifted(i, *doubt).max(shifted(i, -doubt)).powi(2));
    Some((found, squares.sum::<f64>().sqrt()))
}
