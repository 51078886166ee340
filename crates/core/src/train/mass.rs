//! Moving mass of one side, seen from the valve.

use super::compliance::{Metal, Pushrod};
use crate::document::{Missing, Needs, Node, Side};
use crate::quantity::{Length, Mass};

/// Share of a spring's mass that moves with the valve when its own waves are left out [Shigley
/// ch. 10 and vibration texts; from memory]. Surge is not in it.
const SPRING_SHARE: f64 = 1.0 / 3.0;

/// What moves on the valve's side of the rocker and on the cam's.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MovingMass {
    /// Valve, retainer, locks and a third of the spring, of each valve the rocker opens; rocker tip and
    /// bridge.
    pub valve_side: Mass,
    /// Lifter and pushrod.
    pub cam_side: Mass,
}

/// Reads the masses of one side from `train`, whose rocker opens `valves` valves. A pushrod without a
/// mass is a tube of its sizes. Two valves are opened through a bridge, which must be weighed.
pub fn read_moving_mass(
    train: &Node<'_>,
    side: Side,
    spring: Option<Mass>,
    valves: f64,
) -> Result<MovingMass, Missing> {
    let part = |key: &str| train.child(key).side(side);
    let (valve, retainer, rocker) = (part("valve"), part("retainer"), part("rocker"));
    let mut needs = Needs::default();
    let valve_mass: Mass = needs.quantity(&valve, "mass");
    let retainer_mass: Mass = needs.quantity(&retainer, "mass");
    let locks: Mass = needs.quantity(&retainer, "locks_mass");
    let tip: Mass = needs.quantity(&rocker, "tip_side_mass");
    let spring = needs.or_missing(&part("spring"), "mass", spring).unwrap_or_default();
    let lifter: Mass = needs.quantity(&part("lifter"), "mass");
    let pushrod = pushrod_mass(&part("pushrod"), &mut needs);
    let bridge: Mass = if valves > 1.0 { needs.quantity(&part("bridge"), "mass") } else { Mass::from_si(0.0) };
    let cap = valve.quantity::<Mass>("lash_cap_mass").map_or(0.0, Mass::si);
    let each = cap + valve_mass.si() + retainer_mass.si() + locks.si() + SPRING_SHARE * spring.si();
    let valve_side = valves * each + tip.si() + bridge.si();
    needs.met(MovingMass { valve_side: Mass::from_si(valve_side), cam_side: Mass::from_si(lifter.si() + pushrod.si()) })
}

fn pushrod_mass(pushrod: &Node<'_>, needs: &mut Needs) -> Mass {
    if let Some(weighed) = pushrod.quantity("mass") {
        return weighed;
    }
    let mut metres = |key: &str| needs.quantity::<Length>(pushrod, key).si();
    let (outside, wall, length) = (metres("outside_diameter"), metres("wall"), metres("length"));
    Mass::from_si(Pushrod { metal: Metal::of(pushrod.word("material")), length, outside, wall }.mass())
}

impl MovingMass {
    /// Mass that, moving with the valve, has the kinetic energy of the whole side:
    /// `m = m_valve side + m_cam side / R^2`, since the cam's side moves R times slower.
    pub fn effective(&self, ratio: f64) -> Mass {
        Mass::from_si(self.valve_side.si() + self.cam_side.si() / (ratio * ratio))
    }
}
