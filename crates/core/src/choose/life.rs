//! How quickly guides wear beside each other; and how long springs go between two looks at them, by use, lift, start of opening, stress and load: **common practice, no
//! source**, an order of magnitude that tells two packages apart, never a promise. A part that was looked at tells more.

use crate::cam::{Flank, height_006, height_050};
use crate::candidate::{Resolved, spring_at_lift};
use crate::document::Side;
use crate::limits::Judgement;
use crate::limits::figures::{WIRE_INTERVAL, WIRE_LIFE, spring_band};
use crate::quantity::{Force, INCH, Length, Speed};
use crate::service::CountedIn;
use crate::table::held;

/// Miles by valve lift, in: any other spring is looked at by thirty thousand, with high lift by twenty to twenty-five.
const MILES: [(f64, f64); 2] = [(0.500, 30_000.0), (0.600, 22_500.0)];
/// Passes by how gently a raced lobe begins: crank degrees of the opening flank from .006 to .050 in. Six to eight with a
/// hard start, twenty to thirty with a gentle one; where hard and gentle lie is assumed.
const PASSES: [(f64, f64); 2] = [(20.0, 7.0), (28.0, 25.0)];
/// Running hours: of an engine that pulls all day, and of one that is raced on a circuit (assumed).
const HOURS: f64 = 1000.0;
const RACED_HOURS: f64 = 12.0;
/// Share of the wire's strength above what its life is rated for that takes it to a tenth (assumed), and how far below and
/// above one it counts.
const TENTH: f64 = 0.18;
const STRESS_COUNTS: (f64, f64) = (0.1, 1.5);
/// Share of open load beyond the usual band's upper end at which lifters and lobes live half as long (assumed).
const HALF_BY_LOAD: f64 = 0.5;

/// How often the springs of a candidate are looked at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Interval {
    /// How many.
    pub count: f64,
    /// Of what.
    pub counted_in: CountedIn,
    /// The side that sets it.
    pub side: Side,
    /// Share of its strength that the most stressed wire bears; absent where springs are known by loads alone.
    pub stress: Option<f64>,
}

/// The shorter interval of both sides; `None` where lift or springs are not known.
pub fn interval(resolved: &Resolved) -> Option<Interval> {
    let sides: Option<Vec<Interval>> = Side::BOTH.into_iter().map(|side| of_side(resolved, side)).collect();
    sides?.into_iter().reduce(|a, b| if b.count < a.count { b } else { a })
}

fn of_side(resolved: &Resolved, side: Side) -> Option<Interval> {
    let own = resolved.side(side);
    let (spring, net) = spring_at_lift(own).ok()?;
    let counted_in = CountedIn::of(resolved.given.purpose.used_for);
    let is_raced = resolved.given.purpose.is_raced();
    let base = match counted_in {
        CountedIn::Miles => held(&MILES, net.si() / INCH),
        CountedIn::Passes => held(&PASSES, start(resolved, side)?),
        CountedIn::Hours if is_raced => RACED_HOURS,
        CountedIn::Hours => HOURS,
    };
    let stress = spring.stress_share(net);
    let rated = if is_raced { WIRE_INTERVAL.0 } else { WIRE_LIFE.0 };
    let by_stress =
        stress.map_or(1.0, |share| 10f64.powf((rated - share) / TENTH).clamp(STRESS_COUNTS.0, STRESS_COUNTS.1));
    let count = base * by_stress * by_load(resolved, side, spring.load(net).si());
    Some(Interval { count, counted_in, side, stress })
}

/// What load above the usual takes off; one where there is no usual.
fn by_load(resolved: &Resolved, side: Side, open: f64) -> f64 {
    let kind = resolved.train(side).lifter.kind;
    let usual = kind.zip(resolved.top_speed().map(Speed::as_rpm)).map(|(kind, rpm)| spring_band(kind, rpm).open.1);
    let usual = usual.filter(|_| !resolved.given.is_diesel());
    usual.map_or(1.0, |usual| 0.5f64.powf((open / Force::lbf(usual).si() - 1.0).max(0.0) / HALF_BY_LOAD))
}

/// Crank degrees of the opening flank from .006 to .050 in.
fn start(resolved: &Resolved, side: Side) -> Option<f64> {
    let lobe = resolved.side(side).lobe().ok()?;
    let at = |height: Length| lobe.flank_angle(height, Flank::Opening);
    Some(2.0 * (at(height_006())? - at(height_050())?))
}

/// Lift at which a guide that bears what its material stands wears by one.
const WEARS_BY_ONE: f64 = 0.5 * INCH;

/// How quickly the guide that wears most does so, for telling candidates apart: depth worn in a turn goes with pressure times
/// travel (Archard, J. Appl. Phys. 24, 1953; from memory). One is the pressure its material stands through half an inch of lift;
/// how many hours that is nobody says without measuring. `None` where guides are not known.
pub fn guide_wear(resolved: &Resolved, judgement: &Judgement) -> Option<f64> {
    let guides = judgement.figures.iter().filter(|judged| judged.rule.id == "guide_pressure");
    let wear = guides.filter_map(|judged| {
        let (found, lift) = (judged.found.as_ref().ok()?, resolved.side(judged.side?).most_lift().ok()?);
        Some(found.have / found.max? * lift.si() / WEARS_BY_ONE)
    });
    wear.reduce(f64::max)
}
