//! One side's train as a model, from what the document gives.

use super::super::resolve::{Gap, Part, Resolved, ResolvedSide, lack, together};
use super::super::stages::{Key, key};
use super::gas::OnHeads;
use super::learned::learned;
use super::ranges::{Learned, Unmeasured};
use super::springs::chains;
use crate::cam::Lobe;
use crate::document::Side;
use crate::dynamics::measure::Window;
use crate::dynamics::model::{Bridge, Contact, Model};
use crate::dynamics::oil::{HOT_VISCOSITY, OUTSIDE, Oil};
use crate::dynamics::run::RECORDS;
use crate::given::{Lifter, Needs, Train, need};
use crate::quantity::{Length, Mass, Pressure};
use crate::report::TraceReport;
use crate::train::compliance::{Parts, Pushrod, parts};
use crate::train::rocker::Pose;
use crate::train::running::{Origin, RunningTrain};
use std::f64::consts::PI;

/// Share of a hydraulic lifter's mass that is its plunger (assumed).
const PLUNGER: f64 = 0.22;
/// Of a bridge on its stems, N/m, and of a plunger's ring and bottom (assumed).
const BRIDGE: f64 = 60e6;
const STOP: f64 = 40e6;
/// A plunger's spring, N, its clearance on the radius and its length, m, and its check valve's flow area, m2 (assumed:
/// usual sizes).
const PLUNGER_SPRING: f64 = 25.0;
const CLEARANCE: f64 = 3.0e-6;
const SEAL: f64 = 12e-3;
const CHECK: f64 = 5e-6;
/// A leak-down tester: plunger travel, m, and load, N.
const TESTED: (f64, f64) = (0.125 * 0.0254, 50.0 * 4.448_221_6);
/// Travel of a plunger below its preload where it is not known, m (assumed).
const TRAVEL: f64 = 3e-3;
/// Whole rocker over its tip side, where it was not weighed (assumed).
const WHOLE_ROCKER: f64 = 3.0;

/// What a side needs to be turned.
#[derive(Debug, Clone)]
pub struct SideTrain<'a> {
    /// The lobe.
    pub lobe: &'a Lobe,
    /// Where it holds the valve open.
    pub window: Window,
    /// Lift of the valve while it turns slowly, m, at every record.
    pub slow: Vec<f64>,
    /// Lift of rigid parts, m, at every record.
    pub rigid: Vec<f64>,
    /// Force of the gas that opens the valves.
    pub gas: OnHeads,
    /// How far the plunger may rise, m; zero for a solid lifter.
    pub preload: f64,
    /// Crank degree from firing top of the first record.
    pub begins_at: f64,
    /// What measured motion says of what nobody measures, where it was of such parts.
    pub learned: Learned,
    own: &'a ResolvedSide,
    train: &'a Train,
    running: &'a RunningTrain,
    parts: Parts,
    masses: Masses,
    runout: f64,
}

/// A train on its own.
#[derive(Debug, Clone, PartialEq)]
pub struct Turnable {
    /// The lobe.
    pub lobe: Lobe,
    /// The train.
    pub model: Model,
    /// Force of the gas that opens the valves, N, at every record.
    pub gas: Vec<f64>,
    /// Crank degree from firing top of the first record.
    pub begins_at: f64,
    /// Where the lobe holds its valve open.
    pub window: Window,
}

/// What was weighed, kg.
#[derive(Debug, Clone, Copy)]
struct Masses {
    lifter: f64,
    pushrod: f64,
    tip: f64,
    rocker: f64,
    bridge: f64,
    valve: f64,
}

/// The train of one side.
///
/// # Errors
/// Everything it lacks at once.
pub fn side_train(inputs: &Resolved, side: Side) -> Part<SideTrain<'_>> {
    let own = inputs.side(side);
    let train = inputs.train(side);
    let (masses, parts) = (weighed(own, train), parts(train).map_err(Gap::from));
    let heavy = own
        .spring
        .as_ref()
        .map_or(Ok(()), |spring| spring.mass.map(|_| ()).ok_or_else(|| Gap::needing(vec![train.spring.at("mass")])));
    together([
        lack(&own.lobe()),
        lack(&own.spring),
        lack(&own.running),
        lack(&inputs.phasing),
        lack(&masses),
        lack(&parts),
        lack(&heavy),
    ])?;
    let (lobe, running, spring) = (own.lobe()?, own.running.as_ref().map_err(Clone::clone)?, own.spring.as_ref().ok());
    let cam_deg = |record: usize| 0.5 * (record as f64 - 0.5 * RECORDS as f64);
    let lifts: Vec<f64> = (0..RECORDS).map(|record| lobe.at(cam_deg(record)).lift).collect();
    let slow: Vec<f64> = lifts.iter().map(|lift| running.valve(*lift, spring)).collect();
    let begins_at = super::super::full_lift_at(side, &inputs.phasing.clone()?, lobe) - 0.5 * RECORDS as f64;
    let window = Window::of(|record| slow[record], |record| lifts[record])
        .ok_or_else(|| Gap::because(format!("the {} valve does not open", side.key())))?;
    Ok(SideTrain {
        window,
        rigid: lifts.iter().map(|lift| running.rigid(*lift)).collect(),
        gas: OnHeads::estimated(inputs, side, begins_at),
        preload: preload(&train.lifter),
        slow,
        begins_at,
        learned: learned(&inputs.given.train_fit, train),
        lobe,
        own,
        train,
        running,
        parts: parts?,
        masses: masses?,
        runout: inputs.given.cam.base_runout.map_or(0.0, Length::si),
    })
}

/// Masses of one side; two valves of one rocker as one.
fn weighed(own: &ResolvedSide, train: &Train) -> Part<Masses> {
    let Train { valve: own_valve, retainer, rocker, lifter, bridge, .. } = train;
    let mut needs = Needs::default();
    let valve = need!(needs, own_valve.mass);
    let (retainer, locks) = (need!(needs, retainer.mass), need!(needs, retainer.locks_mass));
    let tip = need!(needs, rocker.tip_side_mass);
    let lifter = need!(needs, lifter.mass);
    let tube = Pushrod::read(&train.pushrod).map(|tube| tube.mass()).ok();
    let pushrod = train.pushrod.mass.map(Mass::si).or(tube);
    let pushrod = needs.take(pushrod, train.pushrod.at("mass"));
    let bridge = if own.valves > 1.0 { need!(needs, bridge.mass) } else { Mass::from_si(0.0) };
    let cap = own_valve.lash_cap_mass.map_or(0.0, Mass::si);
    Ok(needs.met(Masses {
        lifter: lifter.si(),
        pushrod,
        tip: tip.si(),
        rocker: rocker.mass.map_or(WHOLE_ROCKER * tip.si(), Mass::si),
        bridge: bridge.si(),
        valve: own.valves * (valve.si() + retainer.si() + locks.si() + cap),
    })?)
}

fn preload(lifter: &Lifter) -> f64 {
    let hydraulic = lifter.kind.is_some_and(crate::words::LifterKind::is_hydraulic);
    if hydraulic { lifter.preload.map_or(0.0, Length::si).max(0.0) } else { 0.0 }
}

impl SideTrain<'_> {
    /// The same under the gas that breathing found.
    #[must_use]
    pub fn breathing(mut self, inputs: &Resolved, side: Side, traces: &[TraceReport]) -> Self {
        self.gas.breathing(inputs, side, self.begins_at, traces);
        self
    }

    /// The same as a rig turns it, without gas on the heads.
    #[must_use]
    pub fn without_gas(&self) -> Self {
        Self { gas: OnHeads::none(), ..self.clone() }
    }

    /// The model with one set of what nobody measures; `None` where the springs have no mass.
    pub fn model(&self, unmeasured: &Unmeasured) -> Option<Model> {
        let masses = &self.masses;
        let spring = self.own.spring.as_ref().ok()?;
        let part = &self.train.spring;
        let coils = chains(spring, part.form, part.friction, (self.full_lift(), self.own.valves), unmeasured)?;
        let (cup, tip) = self.linkage();
        let ratio = tip[0] / cup[0];
        // Readings know the whole; the parts how it may be split.
        let known = ratio * ratio * (self.parts.pushrod + self.parts.lifter_and_cam)
            + (1.0 + ratio).powi(2) * self.parts.pivot
            + self.parts.body;
        let scale = if matches!(self.running.origin, Origin::Readings(_)) && self.running.compliance > 0.0 {
            self.running.compliance / known
        } else {
            1.0
        };
        let swinging = masses.valve
            + masses.bridge
            + masses.tip
            + coils.iter().map(|coil| coil.mass / 3.0).sum::<f64>()
            + (masses.lifter + masses.pushrod) / (ratio * ratio);
        // What is damped in proportion to its stiffness: c = 2 zeta k/w of the train's own swing.
        let time = 2.0 * unmeasured.train_damping * (known * scale * swinging).sqrt();
        let contact = |compliance: f64, over: f64| {
            let stiffness = over / (compliance * scale);
            Contact { stiffness, damping: time * stiffness }
        };
        let oil = self.oil(unmeasured);
        let half = 0.5 * masses.pushrod;
        let plunger = oil.map(|oil| (PLUNGER * masses.lifter + half, oil));
        let lifter = if plunger.is_some() { (1.0 - PLUNGER) * masses.lifter } else { masses.lifter + half };
        let seat = self.own.valves * unmeasured.seat_stiffness;
        Some(Model {
            lifter,
            plunger,
            cam: contact(self.parts.lifter_and_cam, unmeasured.cam_stiffness),
            pushrod: contact(self.parts.pushrod, 1.0),
            inertia: unmeasured.inertia * masses.tip * tip[0] * tip[0] + half * cup[0] * cup[0],
            pivot: (masses.rocker + half, contact(self.parts.pivot, unmeasured.pivot_stiffness)),
            stem: contact(self.parts.body, unmeasured.body_stiffness),
            cup,
            tip,
            lash: self.running.lash,
            bridge: (self.own.valves > 1.0).then_some(Bridge {
                mass: masses.bridge,
                stems: Contact { stiffness: BRIDGE, damping: time * BRIDGE },
            }),
            valve: masses.valve,
            seat: Contact::damped(seat, unmeasured.seat_damping, masses.valve),
            coils,
            runout: self.runout,
        })
    }

    /// What of it is turned alone, with the likeliest of what nobody measures.
    pub fn turnable(&self) -> Option<Turnable> {
        let model = self.model(&self.learned.usual())?;
        let (gas, begins_at) = (self.gas.at(0.0).to_vec(), self.begins_at);
        Some(Turnable { lobe: self.lobe.clone(), model, gas, begins_at, window: self.window })
    }

    /// The side it is of.
    pub const fn own(&self) -> &ResolvedSide {
        self.own
    }

    /// Stands for everything it is turned with under the estimated gas.
    pub fn key(&self) -> Key {
        key(&(
            self.model(&self.learned.usual()),
            self.own.lobe_key,
            self.gas.at(0.0),
            &self.slow,
            self.preload,
            &self.learned,
        ))
    }

    /// The models of several sets, for those that have one.
    pub fn models(&self, sets: &[Unmeasured]) -> Vec<Model> {
        sets.iter().filter_map(|set| self.model(set)).collect()
    }

    /// Full lift of rigid parts, m.
    pub fn full_lift(&self) -> f64 {
        self.rigid.iter().copied().fold(0.0, f64::max)
    }

    /// Every part with its share of what the train gives under load and of what moves, both as they count at the valve.
    pub fn shares(&self) -> Vec<(&'static str, f64, f64)> {
        let Some(model) = self.model(&self.learned.usual()) else { return Vec::new() };
        let (square, masses) = (model.ratio().powi(2), &self.masses);
        let coils = model.coils.iter().map(|coil| coil.mass / 3.0).sum::<f64>();
        let all = [
            ("lifter and cam", square / model.cam.stiffness, masses.lifter / square),
            ("pushrod", square / model.pushrod.stiffness, masses.pushrod / square),
            ("pivot", (1.0 + model.ratio()).powi(2) / model.pivot.1.stiffness, 0.0),
            ("rocker", 1.0 / model.stem.stiffness, masses.tip),
            ("valve and retainer", 0.0, masses.valve + masses.bridge),
            ("springs", 0.0, coils),
        ];
        let whole = |of: fn(&(&str, f64, f64)) -> f64| all.iter().map(of).sum::<f64>();
        let (gives, moves) = (whole(|part| part.1), whole(|part| part.2));
        all.into_iter().map(|(part, give, mass)| (part, give / gives, mass / moves)).collect()
    }

    /// Load of all its springs at full lift of rigid parts, N.
    pub fn open_load(&self) -> f64 {
        let lift = Length::from_si(self.full_lift());
        let load = |spring: &crate::train::Spring| self.own.valves * spring.load(lift).si();
        self.own.spring.as_ref().map_or(0.0, load)
    }

    /// The oil of a hydraulic lifter.
    fn oil(&self, unmeasured: &Unmeasured) -> Option<Oil> {
        let lifter = &self.train.lifter;
        lifter.kind.filter(|kind| kind.is_hydraulic())?;
        let metres = |length: Option<Length>, usual: f64| length.map_or(usual, Length::si);
        let diameter = metres(lifter.plunger_diameter, 14.27e-3);
        let area = 0.25 * PI * diameter * diameter;
        // A tester presses its load's pressure; what goes down per second leaks.
        let tested = lifter.bleed_seconds.map(|seconds| TESTED.0 / seconds * area * area / TESTED.1);
        let usual = Oil::slit(diameter, CLEARANCE, SEAL, HOT_VISCOSITY);
        Some(Oil {
            area,
            height: metres(lifter.oil_height, 5.08e-3),
            up: self.preload,
            down: lifter.travel.map_or(TRAVEL, |travel| (travel.si() - self.preload).max(0.0)),
            stop: STOP,
            spring: PLUNGER_SPRING,
            air: lifter.air_fraction.unwrap_or(unmeasured.air),
            supply: lifter.oil_pressure.map_or(3.8e5, Pressure::si) + OUTSIDE,
            leak: tested.unwrap_or(usual) * unmeasured.leak,
            check: CHECK,
        })
    }

    /// Travels of cup and tip over the rocker's turn. Without geometry the turn is the cup's own travel on an arm of one.
    fn linkage(&self) -> ([f64; 4], [f64; 4]) {
        let sweep = &self.running.sweep;
        let Some(poses) = nodes(sweep) else { return ([1.0, 0.0, 0.0, 0.0], [self.running.ratio, 0.0, 0.0, 0.0]) };
        let turns = poses.map(|pose| pose.turn);
        (through(turns, poses.map(|pose| pose.lifter)), through(turns, poses.map(|pose| pose.valve)))
    }
}

/// Four poses of a sweep, its last among them; `None` without a sweep.
fn nodes(sweep: &[Pose]) -> Option<[Pose; 4]> {
    let last = sweep.len().checked_sub(1).filter(|last| *last >= 4)?;
    Some([1, 2, 3, 4].map(|quarter| sweep[last * quarter / 4]))
}

/// `x (c0 + x (c1 + x (c2 + x c3)))` through four points and the origin, by Newton's divided differences.
fn through(xs: [f64; 4], ys: [f64; 4]) -> [f64; 4] {
    let mut d: [f64; 4] = std::array::from_fn(|i| ys[i] / xs[i]);
    for order in 1..4 {
        for i in (order..4).rev() {
            d[i] = (d[i] - d[i - 1]) / (xs[i] - xs[i - order]);
        }
    }
    // From Newton's form to powers, the innermost bracket first.
    let mut c = [d[3], 0.0, 0.0, 0.0];
    for i in (0..3).rev() {
        let mut next = [0.0; 4];
        for k in 0..3 {
            next[k + 1] += c[k];
            next[k] -= xs[i] * c[k];
        }
        next[0] += d[i];
        c = next;
    }
    c
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn four_points_give_their_polynomial_back() {
        let poly = |x: f64| x * (2.0 + x * (-0.5 + x * (0.3 + x * 0.1)));
        let xs = [0.1, 0.2, 0.35, 0.5];
        let c = through(xs, xs.map(poly));
        for (found, wanted) in c.iter().zip([2.0, -0.5, 0.3, 0.1]) {
            assert!((found - wanted).abs() < 1e-9, "{c:?}");
        }
    }
}
