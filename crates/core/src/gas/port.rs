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
    /// Lift as the train in motion makes it, m, by crank speed, rad/s, rising; empty where it was not turned.
    pub turned: Vec<(f64, Vec<f64>)>,
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
        let Motion { forward, reverse, .. } = &self.motion;
        let lifts = self.motion.lifts_at(speed);
        let over = |curve: &[(f64, f64)]| lifts.iter().map(|lift| self.flow * held(curve, *lift)).collect();
        Areas { forward: over(forward), reverse: over(reverse) }
    }
}

/// Lift below which a seat counts as closed, m: it gives by as much itself.
const SEATED: f64 = 5e-6;

impl Motion {
    /// Lift over the cycle at a crank speed, rad/s, m: as the train in motion makes it, between two speeds that were turned
    /// linear; where it was not, the slow lift with what inertia gives back.
    fn lifts_at(&self, speed: f64) -> Vec<f64> {
        let Self { lifts, gains, most, turned, .. } = self;
        let above = turned.partition_point(|(at, _)| *at <= speed);
        let on_seat = |lift: f64| if lift > SEATED { lift } else { 0.0 };
        match (above.checked_sub(1).map(|i| &turned[i]), turned.get(above)) {
            (Some((low, before)), Some((high, after))) => {
                let share = (speed - low) / (high - low);
                before.iter().zip(after).map(|(a, b)| on_seat(a + share * (b - a))).collect()
            }
            (Some((_, only)), None) | (None, Some((_, only))) => only.iter().map(|lift| on_seat(*lift)).collect(),
            (None, None) => {
                (0..lifts.len()).map(|i| (lifts[i] + (gains[i] * speed * speed).min(most[i])).max(0.0)).collect()
            }
        }
    }

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

#[cfg(test)]
mod tests {
    use super::*;

    fn port(inner: Option<Inner>) -> Port {
        let motion = Motion {
            lifts: vec![0.0, 5e-3, 10e-3],
            gains: vec![0.0, -1e-9, 2e-9],
            most: vec![0.0, 2e-4, 3e-4],
            turned: Vec::new(),
            forward: vec![(0.0, 0.0), (10e-3, 1e-3), (11e-3, 1.05e-3)],
            reverse: vec![(0.0, 0.0), (11e-3, 0.9e-3)],
        };
        Port { lengths: vec![0.3, 0.4], area: 1.5e-3, inner, loss: 0.9, motion, flow: 1.0 }
    }

    #[test]
    fn a_pipe_has_the_sections_of_port_and_runner() {
        let port = port(Some(Inner { length: 0.12, area: 1.2e-3, smallest: Some(1.0e-3) }));
        assert_eq!([port.section(0.0), port.section(0.2)], [1.2e-3, 1.5e-3]);
        assert!((port.section(0.06) - 1.0e-3).abs() < 1e-12);
        assert_eq!([port.length(0), port.length(1), port.length(7)], [0.3, 0.4, 0.4]);
    }

    #[test]
    fn what_a_manifold_takes_is_spread_over_its_pipe() {
        // 4 f L/D of the added friction is the loss itself.
        let port = port(None);
        let wall = port.wall(1, Wall { friction: 0.006, heat: None });
        let diameter = (4.0 * 1.5e-3 / PI).sqrt();
        assert!((4.0 * (wall.friction - 0.006) * 0.4 / diameter - 0.9).abs() < 1e-12);
    }

    #[test]
    fn a_train_that_was_turned_gives_its_own_lift() {
        let mut port = port(None);
        port.motion.turned = vec![(300.0, vec![1e-6, 5e-3, 10e-3]), (500.0, vec![2e-4, 6e-3, 11e-3])];
        // Half way between, on the seat below five microns, and held beyond the ends.
        let middle = port.areas_at(400.0).forward;
        assert!((middle[1] - 0.55e-3).abs() < 1e-9 && (middle[2] - 1.025e-3).abs() < 1e-9, "{middle:?}");
        assert_eq!(port.areas_at(100.0).forward[0], 0.0);
        assert!(port.areas_at(900.0).forward[0] > 0.0, "a valve that bounces leaks");
    }

    #[test]
    fn inertia_moves_lift_as_far_as_the_train_had_given() {
        let port = port(None);
        let slow = port.areas_at(0.0);
        assert_eq!(slow.forward, vec![0.0, 0.5e-3, 1e-3]);
        // 2e-9 (300 rad/s)^2 is .18 mm more on the nose, .09 less on the flank; far beyond, .3 mm at most.
        let fast = port.areas_at(300.0);
        assert!((fast.forward[2] - (1e-3 + 0.18e-3 * 0.05)).abs() < 1e-9, "{fast:?}");
        assert!((fast.forward[1] - 0.491e-3).abs() < 1e-9, "{fast:?}");
        assert!((port.motion.largest(1e5) - 10.3e-3).abs() < 1e-12);
    }
}
