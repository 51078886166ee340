//! What a running engine takes off a gap measured cold and by hand, and what it gives back: every term by itself, with its
//! size at the highest speed and how it follows speed.

use crate::candidate::resolve::{Gap, Part, Resolved};
use crate::clearance::growth::{ALUMINIUM_ROD, Reciprocating, STEEL_ROD, TITANIUM_ROD, block_warmed, rod_warmed};
use crate::given::Target;
use crate::quantity::{Angle, INCH, Length, Mass, Speed};
use crate::train::compliance::Metal;
use crate::words::{Casting, RodMaterial};

/// Speeds looked at, the slowest of them as a share of the fastest.
const SPEEDS: usize = 8;
const FIRST: f64 = 0.25;
/// What stands in where nobody says, and that it is assumed.
const USUAL: Otherwise = ("usual, assumed", true);

/// Words for where a term is from when the document does not give it, and whether that is assumed.
pub type Otherwise = (&'static str, bool);

/// How a term follows speed.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Grows {
    /// With the square of speed.
    Squared,
    /// Not at all: it is there once the engine is warm.
    Warm,
}

/// A term that raises the piston.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rise {
    /// Its field of the growth.
    pub key: &'static str,
    /// In words.
    pub name: &'static str,
    /// Where it is from when nobody says.
    pub otherwise: Otherwise,
    /// At the fastest speed, m.
    most: f64,
    grows: Grows,
}

impl Rise {
    /// At a share of the fastest speed, m.
    pub fn at(&self, share: f64) -> f64 {
        match self.grows {
            Grows::Squared => self.most * share * share,
            Grows::Warm => self.most,
        }
    }
}

/// Everything that moves between rest and speed, the valves' own motion apart.
#[derive(Debug, Clone, PartialEq)]
pub struct Growing {
    /// What raises the piston, in the order of a running engine: what inertia does, then what heat does, then the rest.
    pub rises: Vec<Rise>,
    /// Crank degrees the cam runs late for a thousand rpm.
    lag: f64,
    /// Shift plus overspeed, rpm.
    pub top: f64,
}

impl Growing {
    /// Of a candidate.
    ///
    /// # Errors
    /// The highest speed, where the plan does not say it.
    pub fn of(inputs: &Resolved) -> Part<Self> {
        let top = inputs.top_speed().ok_or_else(|| no_speed(&inputs.given.target))?.as_rpm();
        let lag = inputs.given.growth.cam_lag_per_1000_rpm.map_or(0.0, Angle::as_deg);
        Ok(Self { rises: rises(inputs, top), lag, top })
    }

    /// How much higher the piston stands at a speed, m.
    pub fn up(&self, rpm: f64) -> f64 {
        self.rises.iter().map(|rise| rise.at(rpm / self.top)).sum()
    }

    /// Crank degrees by which the cam runs late.
    pub fn late(&self, rpm: f64) -> f64 {
        self.lag * rpm * 1e-3
    }

    /// Speeds looked at, rising to the highest, rpm.
    pub fn speeds(&self) -> Vec<f64> {
        let share = |i: usize| FIRST + (1.0 - FIRST) * i as f64 / (SPEEDS - 1) as f64;
        (0..SPEEDS).map(|i| (self.top * share(i)).round()).collect()
    }

    /// What of [`Self::up`] is of the piston: all but what valves themselves stretch, m.
    pub fn of_piston(&self, rpm: f64) -> f64 {
        let own = self.rises.iter().filter(|rise| rise.key != "valve_stretch");
        own.map(|rise| rise.at(rpm / self.top)).sum()
    }

    fn most_of(&self, key: &str) -> f64 {
        self.rises.iter().find(|rise| rise.key == key).map_or(0.0, |rise| rise.at(1.0))
    }

    /// What brings a rod's big end nearer to cam and block at the highest speed: stretch, bending and play, m.
    pub fn of_the_big_end(&self) -> f64 {
        ["rod_stretch", "crank_bending", "bearing_and_pin"].into_iter().map(|key| self.most_of(key)).sum()
    }
}

/// What lacks without a highest speed.
fn no_speed(target: &Target) -> Gap {
    Gap::needing(vec![target.at("shift_at")])
}

fn rises(inputs: &Resolved, top: f64) -> Vec<Rise> {
    let (growth, engine) = (&inputs.given.growth, &inputs.given.engine);
    let si = |length: Option<Length>| length.map_or(0.0, Length::si);
    let rise = |key, name, most, grows, otherwise| Rise { key, name, otherwise, most, grows };
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
    let seen = ("no running engine showed any", false);
    vec![
        rise("rod_stretch", "Rod stretch", growth.rod_stretch.map_or(stretch, Length::si), Grows::Squared, by),
        rise("crank_bending", "Crank bending", si(growth.crank_bending), Grows::Squared, USUAL),
        warm("bearing_and_pin", "Bearings and pin", growth.bearing_and_pin),
        warm("piston_heat", "Piston heat", growth.piston_heat),
        warm("piston_rock", "Piston rock", growth.piston_rock),
        rise("block_heat", "Block and rod heat", growth.block_heat.map_or(heat, Length::si), Grows::Warm, heat_by),
        warm("gasket_creep", "Gasket creep", growth.gasket_creep),
        rise("valve_stretch", "Valve stretch", si(growth.valve_stretch), Grows::Squared, USUAL),
        rise("beyond", "Shown by a running engine", si(growth.beyond), Grows::Squared, seen),
    ]
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
