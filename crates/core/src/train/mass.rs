//! Moving mass of one side, seen from the valve.

use super::compliance::{Metal, Pushrod};
use crate::given::{Missing, Needs, PushrodPart, Train, need};
use crate::quantity::Mass;

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
pub fn read_moving_mass(train: &Train, spring: Option<Mass>, valves: f64) -> Result<MovingMass, Missing> {
    let Train { valve, retainer, rocker, lifter, bridge, .. } = train;
    let mut needs = Needs::default();
    let valve_mass = need!(needs, valve.mass);
    let (retainer_mass, locks) = (need!(needs, retainer.mass), need!(needs, retainer.locks_mass));
    let tip = need!(needs, rocker.tip_side_mass);
    let spring = needs.take(spring, train.spring.at("mass"));
    let lifter = need!(needs, lifter.mass);
    let pushrod = pushrod_mass(&train.pushrod, &mut needs);
    let bridge = if valves > 1.0 { need!(needs, bridge.mass) } else { Mass::from_si(0.0) };
    let cap = valve.lash_cap_mass.map_or(0.0, Mass::si);
    let each = cap + valve_mass.si() + retainer_mass.si() + locks.si() + SPRING_SHARE * spring.si();
    let valve_side = valves * each + tip.si() + bridge.si();
    needs.met(MovingMass { valve_side: Mass::from_si(valve_side), cam_side: Mass::from_si(lifter.si() + pushrod.si()) })
}

fn pushrod_mass(pushrod: &PushrodPart, needs: &mut Needs) -> Mass {
    if let Some(weighed) = pushrod.mass {
        return weighed;
    }
    let (outside, wall) = (need!(needs, pushrod.outside_diameter), need!(needs, pushrod.wall));
    let length = need!(needs, pushrod.length);
    let metal = Metal::of(pushrod.material);
    let tube = Pushrod { metal, length: length.si(), outside: outside.si(), wall: wall.si() };
    Mass::from_si(tube.mass())
}

impl MovingMass {
    /// Mass that, moving with the valve, has the kinetic energy of the whole side:
    /// `m = m_valve side + m_cam side / R^2`, since the cam's side moves R times slower.
    pub fn effective(&self, ratio: f64) -> Mass {
        Mass::from_si(self.valve_side.si() + self.cam_side.si() / (ratio * ratio))
    }
}
