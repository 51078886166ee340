//! Trains side by side: the numbers of four models as the lanes of a register take them, and the lobe at every step.

use super::measure::{GROUP, RECORDS};
use super::model::{Coil, Contact, LINKS, MASSES, Model};
use super::oil::Oil;
use crate::cam::Lobe;
use std::f64::consts::PI;

/// A number of each of four trains.
pub(super) type Four = [f64; GROUP];

/// Speed below which friction grows with it, m/s.
pub(super) const STICKS: f64 = 0.02;

/// One train at one speed.
#[derive(Debug, Clone, Copy)]
pub struct Case<'a> {
    /// The train.
    pub model: &'a Model,
    /// Of the crank.
    pub rpm: f64,
    /// Force of the gas that opens the valves, N, every crank degree from 360 before full lift; empty without.
    pub gas: &'a [f64],
}

/// The lobe at every step of a cycle.
pub(super) struct Path {
    /// m.
    pub lift: Vec<f64>,
    /// m per radian of cam.
    pub slope: Vec<f64>,
    /// Share of the base circle's run-out and its slope over the cam's angle: least on the nose.
    pub tilt: Vec<(f64, f64)>,
}

impl Path {
    pub fn of(lobe: &Lobe, steps: usize) -> Self {
        let angles = || (0..RECORDS * steps).map(|i| 0.5 * (i as f64 / steps as f64 - 360.0));
        let motions: Vec<_> = angles().map(|cam_deg| lobe.at(cam_deg)).collect();
        Self {
            lift: motions.iter().map(|motion| motion.lift).collect(),
            slope: motions.iter().map(|motion| motion.velocity * 180.0 / PI).collect(),
            tilt: angles()
                .map(|deg| {
                    let (sin, cos) = (deg * PI / 180.0).sin_cos();
                    (0.5 * (1.0 - cos), 0.5 * sin)
                })
                .collect(),
        }
    }
}

/// A contact of four trains.
#[derive(Clone, Copy)]
pub(super) struct Contacts {
    pub stiffness: Four,
    pub damping: Four,
}

/// A coil of four trains.
pub(super) struct Coils {
    pub by_mass: Four,
    pub rate: Four,
    pub damping: Four,
    pub seat_load: Four,
    pub slack: Four,
    pub friction: Four,
    pub stress: Four,
    pub closes: [Four; LINKS],
}

/// The numbers of four trains side by side.
pub(super) struct Packed {
    pub time: Four,
    pub cam_speed: Four,
    pub lifter: Four,
    pub lower: Four,
    pub hydraulic: bool,
    pub area: Four,
    pub height: Four,
    pub up: Four,
    pub down: Four,
    pub stop: Four,
    pub plunger_spring: Four,
    pub air: Four,
    pub supply: Four,
    pub leak: Four,
    pub check: Four,
    pub cam: Contacts,
    pub pushrod: Contacts,
    pub cup: [Four; 4],
    pub tip: [Four; 4],
    pub ratio: Four,
    pub inertia: Four,
    pub pivot_mass: Four,
    pub pivot: Contacts,
    pub stem: Contacts,
    pub lash: Four,
    pub bridged: bool,
    pub bridge: Four,
    pub bridge_stems: Contacts,
    pub valve: Four,
    pub seat: Contacts,
    pub runout: Four,
    pub coils: Vec<Coils>,
    pub gas: Vec<Four>,
}

impl Packed {
    pub fn of(cases: &[Case<'_>], steps: usize) -> Self {
        let case = |lane: usize| cases[lane.min(cases.len() - 1)];
        let four = |of: &dyn Fn(&Model) -> f64| -> Four { std::array::from_fn(|lane| of(case(lane).model)) };
        let contacts = |of: &dyn Fn(&Model) -> Contact| Contacts {
            stiffness: four(&|m| of(m).stiffness),
            damping: four(&|m| of(m).damping),
        };
        let oil = |of: fn(&Oil) -> f64| four(&|m| m.plunger.as_ref().map_or(1.0, |(_, oil)| of(oil)));
        let first = cases[0].model;
        let coils = 0..first.coils.len();
        Self {
            time: std::array::from_fn(|lane| 1.0 / (6.0 * case(lane).rpm) / steps as f64),
            cam_speed: std::array::from_fn(|lane| case(lane).rpm * PI / 60.0),
            lifter: four(&|m| 1.0 / m.lifter),
            lower: four(&|m| m.plunger.as_ref().map_or(0.0, |(mass, _)| 1.0 / mass)),
            hydraulic: first.plunger.is_some(),
            area: oil(|o| o.area),
            height: oil(|o| o.height),
            up: oil(|o| o.up),
            down: oil(|o| o.down),
            stop: oil(|o| o.stop),
            plunger_spring: oil(|o| o.spring),
            air: oil(|o| o.air),
            supply: oil(|o| o.supply),
            leak: oil(|o| o.leak),
            check: oil(|o| o.check),
            cam: contacts(&|m| m.cam),
            pushrod: contacts(&|m| m.pushrod),
            cup: std::array::from_fn(|k| four(&|m| m.cup[k])),
            tip: std::array::from_fn(|k| four(&|m| m.tip[k])),
            ratio: four(&Model::ratio),
            inertia: four(&|m| 1.0 / m.inertia),
            pivot_mass: four(&|m| 1.0 / m.pivot.0),
            pivot: contacts(&|m| m.pivot.1),
            stem: contacts(&|m| m.stem),
            lash: four(&|m| m.lash),
            bridged: first.bridge.is_some(),
            bridge: four(&|m| m.bridge.map_or(0.0, |bridge| 1.0 / bridge.mass)),
            bridge_stems: contacts(&|m| m.bridge.map_or(Contact::default(), |bridge| bridge.stems)),
            valve: four(&|m| 1.0 / (m.valve + m.coils.iter().map(|coil| 0.5 * coil.mass / LINKS as f64).sum::<f64>())),
            seat: contacts(&|m| m.seat),
            runout: four(&|m| m.runout),
            coils: coils.map(|i| Coils::of(&|of| four(&|m| of(&m.coils[i])))).collect(),
            gas: (0..RECORDS)
                .map(|deg| std::array::from_fn(|lane| case(lane).gas.get(deg).copied().unwrap_or(0.0)))
                .collect(),
        }
    }
}

/// A number of a coil.
type OfCoil<'a> = &'a dyn Fn(&Coil) -> f64;

impl Coils {
    pub fn of(four: &dyn Fn(OfCoil<'_>) -> Four) -> Self {
        let links = LINKS as f64;
        Self {
            by_mass: four(&|coil| links / coil.mass),
            rate: four(&|coil| links * coil.rate),
            // A chain whose links are damped in proportion to their stiffness has this share in its first mode:
            // zeta = c w1 / (2 k), w1 = pi sqrt(rate/mass).
            damping: four(&|coil| 2.0 * coil.damping * links * (coil.rate * coil.mass).sqrt() / PI),
            seat_load: four(&|coil| coil.seat_load),
            slack: four(&|coil| coil.slack),
            friction: four(&|coil| coil.friction / MASSES as f64 / STICKS),
            stress: four(&|coil| coil.stress),
            closes: std::array::from_fn(|link| four(&|coil| coil.closes[link])),
        }
    }
}
