//! What the valve gets while the engine turns slowly: lobe, less the lifter's give or the lash, through the rocker's true
//! ratio, less what the train gives under the spring.

use super::compliance::{FromReadings, Share, from_readings, of_parts, read_readings};
use super::lift::ValveLift;
use super::rocker::{Pose, Rocker};
use super::spring::Spring;
use crate::cam::Lobe;
use crate::given::Train;
use crate::quantity::Length;
use crate::words::LifterKind;

/// Where ratio and flex come from.
#[derive(Debug, Clone, PartialEq)]
pub enum Origin {
    /// Readings of lift with two springs.
    Readings(FromReadings),
    /// The parts of the train.
    Parts(Vec<Share>),
    /// Nothing is known: rigid.
    Rigid,
}

/// Lost motion, ratio and flex of one side.
#[derive(Debug, Clone, PartialEq)]
pub struct RunningTrain {
    /// Taken up at the lifter before the train moves, m.
    pub give: f64,
    /// Clearance at the valve, m.
    pub lash: f64,
    /// The rocker's sweep, or nothing where its geometry is not known: then the nominal ratio holds all the way.
    pub sweep: Vec<Pose>,
    /// Nominal or measured ratio of the whole lift.
    pub ratio: f64,
    /// At the valve, m/N.
    pub compliance: f64,
    /// Valves the rocker opens, each with its own spring.
    pub valves: f64,
    /// Where it comes from.
    pub origin: Origin,
    /// The geometry, where it is known.
    pub rocker: Option<Rocker>,
    /// Lifter lift at which the rocker locks, where it does.
    pub locks_at: Option<f64>,
}

/// Lift of one valve from the lobe down, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Budget {
    /// At the lobe.
    pub lobe: f64,
    /// Times the nominal ratio.
    pub nominal: f64,
    /// By the true ratio.
    pub geometric: f64,
    /// Less give and lash.
    pub taken_up: f64,
    /// Less flex.
    pub running: f64,
}

impl RunningTrain {
    /// Reads one side, whose rocker opens `valves` valves; `spring` carries the load of each.
    pub fn read(train: &Train, (lift, lobe): (&ValveLift, &Lobe), spring: Option<&Spring>, valves: f64) -> Self {
        let hydraulic = train.lifter.kind.is_some_and(LifterKind::is_hydraulic);
        let give = if hydraulic { train.lifter.give.map_or(0.0, Length::si) } else { 0.0 };
        let full = lobe.lift().si();
        let net = lift.net(lobe);
        let rocker = Rocker::read(&train.rocker, &train.pushrod, net.si()).ok();
        let swept = rocker.map(|rocker| rocker.sweep(full));
        let open_load = spring.map(|spring| valves * spring.load(net).si());
        let measured =
            read_readings(&train.readings, open_load).and_then(|(light, real)| from_readings(full, light, real));
        let parts = spring.and_then(|_| of_parts(train, lift.ratio).ok());
        let origin = measured.map_or_else(|| parts.map_or(Origin::Rigid, Origin::Parts), Origin::Readings);
        let (ratio, compliance) = match &origin {
            Origin::Readings(found) => (found.ratio, found.compliance),
            Origin::Parts(shares) => (lift.ratio, shares.iter().map(|share| share.compliance).sum()),
            Origin::Rigid => (lift.ratio, 0.0),
        };
        let locks_at = swept.as_ref().and_then(|found| found.as_ref().err()).map(|locked| locked.lifter);
        let mut sweep = swept.and_then(Result::ok).unwrap_or_default();
        // Readings know the whole lift better than a drawing: the sweep keeps its shape and takes their ratio.
        if let (Origin::Readings(found), Some(last)) = (&origin, sweep.last().copied())
            && last.valve > 0.0
        {
            let scale = found.ratio * last.lifter / last.valve;
            for pose in &mut sweep {
                pose.valve *= scale;
                pose.ratio *= scale;
            }
        }
        Self { give, lash: lift.lash.si(), sweep, ratio, compliance, valves, origin, rocker, locks_at }
    }

    /// Valve lift of rigid parts at a lift of the lifter, m; beyond the sweep by its last ratio.
    pub fn geometric(&self, lifter: f64) -> f64 {
        let Some(last) = self.sweep.last().filter(|last| last.lifter > 0.0) else { return self.ratio * lifter };
        if lifter > last.lifter {
            return last.valve + (lifter - last.lifter) * last.ratio;
        }
        let place = (lifter / last.lifter).max(0.0) * (self.sweep.len() - 1) as f64;
        let left = (place as usize).min(self.sweep.len() - 2);
        let (a, b) = (&self.sweep[left], &self.sweep[left + 1]);
        a.valve + (place - left as f64) * (b.valve - a.valve)
    }

    /// Valve lift of rigid parts at a lift of the lobe, lash taken off, no give, m.
    pub fn rigid(&self, lobe: f64) -> f64 {
        (self.geometric(lobe) - self.lash).max(0.0)
    }

    /// Valve lift at a lift of the lobe, m: `v = V(s - give) - lash - K F(v)`, not below the seat; the load of the closed
    /// spring must be taken up before the valve leaves it.
    pub fn valve(&self, lobe: f64, spring: Option<&Spring>) -> f64 {
        let rigid = self.geometric((lobe - self.give).max(0.0)) - self.lash;
        let Some(spring) = spring.filter(|_| rigid > 0.0 && self.compliance > 0.0) else { return rigid.max(0.0) };
        // A millimetre of lift changes the load by some per cent of what the train's own stiffness would: it settles at once.
        let mut valve = rigid;
        for _ in 0..6 {
            valve = rigid - self.compliance * self.valves * spring.load(Length::from_si(valve.max(0.0))).si();
        }
        valve.max(0.0)
    }

    /// The lift budget of the whole lobe.
    pub fn budget(&self, lobe: &Lobe, nominal: f64, spring: Option<&Spring>) -> Budget {
        let full = lobe.lift().si();
        let geometric = self.geometric(full);
        Budget {
            lobe: full,
            nominal: full * nominal,
            geometric,
            taken_up: (self.geometric((full - self.give).max(0.0)) - self.lash).max(0.0),
            running: self.valve(full, spring),
        }
    }

    /// Lobe lift at which the valve stands at `valve` while running, by bisection; `None` above its full lift.
    pub fn lobe_at(&self, valve: f64, full: f64, spring: Option<&Spring>) -> Option<f64> {
        (self.valve(full, spring) > valve).then(|| {
            let (mut low, mut high) = (0.0, full);
            for _ in 0..60 {
                let middle = 0.5 * (low + high);
                if self.valve(middle, spring) > valve { high = middle } else { low = middle }
            }
            0.5 * (low + high)
        })
    }
}
