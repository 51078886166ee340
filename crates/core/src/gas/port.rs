//! A port with its pipe: the sections waves run through, and what the open valve lets through at a speed.

use super::duct::{Heat, Wall};
use crate::table::held;
use std::f64::consts::PI;

/// A port with its pipe.
#[derive(Debug, Clone, PartialEq)]
pub struct Port {
    /// Acoustic length of the pipe of each cylinder, the stretch in the head with it, m: one for all, or one for each.
    pub lengths: Vec<f64>,
    /// Pipe area, m2.
    pub area: f64,
    /// The stretch next to the valve, where its sections are known.
    pub inner: Option<Inner>,
    /// Loss of manifold or bends, in velocity heads of the pipe.
    pub loss: f64,
    /// What the valve does.
    pub motion: Motion,
    /// Flow over the bench's; 1 unless it was fitted to a dyno pull.
    pub flow: f64,
}

/// The stretch of a pipe next to the valve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Inner {
    /// m.
    pub length: f64,
    /// Mean section, m2.
    pub area: f64,
    /// Smallest section, in its middle, m2.
    pub smallest: Option<f64>,
}

/// Motion of the valves over one cycle, every [`super::over_cycle::TABLE_STEP`] from firing top, and what they let through.
#[derive(Debug, Clone, PartialEq)]
pub struct Motion {
    /// Lift while the engine turns slowly, m.
    pub lifts: Vec<f64>,
    /// What inertia adds to it through the train's give, m for the square of the crank's rad/s.
    pub gains: Vec<f64>,
    /// Most that it may add, m: all that the spring had taken.
    pub most: Vec<f64>,
    /// Effective area for flow in the usual direction over lift, m2 over m, rising from nothing.
    pub forward: Vec<(f64, f64)>,
    /// The same in the other direction.
    pub reverse: Vec<(f64, f64)>,
}

/// Effective areas of the open valves over one cycle, m2.
#[derive(Debug, Clone, PartialEq)]
pub struct Areas {
    /// For flow in the usual direction.
    pub forward: Vec<f64>,
    /// In the other.
    pub reverse: Vec<f64>,
}

impl Port {
    /// Length of the pipe of one cylinder, m.
    pub fn length(&self, cylinder: usize) -> f64 {
        self.lengths.get(cylinder).or(self.lengths.last()).copied().unwrap_or(0.0)
    }

    /// Section of the pipe `beyond` its valve, m2, at a distance in m.
    pub fn section(&self, beyond: f64) -> f64 {
        let Some(inner) = self.inner.filter(|inner| beyond < inner.length) else { return self.area };
        let narrowed = inner.smallest.map_or(0.0, |smallest| (inner.area - smallest).max(0.0));
        inner.area - narrowed * (PI * beyond / inner.length).sin().powi(2)
    }

    /// The wall of one cylinder's pipe: friction of `wall` and the port's own loss, spread over the pipe as
    /// `4 f L/D = loss`; heat as `wall` has it.
    pub fn wall(&self, cylinder: usize, wall: Wall) -> Wall {
        let diameter = (4.0 * self.area / PI).sqrt();
        let spread = self.loss * diameter / (4.0 * self.length(cylinder)).max(1e-6);
        Wall { friction: wall.friction + spread, ..wall }
    }

    /// What the valves let through at a crank speed, rad/s.
    pub fn areas_at(&self, speed: f64) -> Areas {
        let Motion { lifts, gains, most, forward, reverse } = &self.motion;
        let lift = |i: usize| (lifts[i] + (gains[i] * speed * speed).min(most[i])).max(0.0);
        let over = |curve: &[(f64, f64)]| (0..lifts.len()).map(|i| self.flow * held(curve, lift(i))).collect();
        Areas { forward: over(forward), reverse: over(reverse) }
    }
}

impl Motion {
    /// Largest lift at a crank speed, rad/s, m.
    pub fn largest(&self, speed: f64) -> f64 {
        let at = |i: usize| self.lifts[i] + (self.gains[i] * speed * speed).min(self.most[i]);
        (0..self.lifts.len()).map(at).fold(0.0, f64::max)
    }
}

/// Heat between gas and the wall of a pipe: `Nu = .07 Re^.75` [Depcik and Assanis, SAE 2002-01-0372; from memory], with
/// conductivity (W/(m K)) and viscosity (Pa s) of the gas in that pipe; `temperature` of the wall, K.
pub const fn heat(temperature: f64, conductivity: f64, by_viscosity: f64) -> Heat {
    Heat { temperature, conveyed: 0.07 * conductivity * by_viscosity }
}
