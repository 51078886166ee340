//! The rocker as a linkage: pivot, cup on the pushrod, tip on the stem; every lift by exact loop closure.
//!
//! The plane across the engine, origin in the pivot, y along the stem away from the valve's head, x towards the valve.
//! The lifter moves along the pushrod's direction with the valve closed.

use crate::given::{Missing, Needs, PushrodPart, RockerPart, need};
use crate::quantity::{Angle, Length};
use crate::words::RockerGeometry;

/// Where a rocker's points stand with the valve closed, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Rocker {
    /// Pushrod's end.
    pub cup: [f64; 2],
    /// Centre of the roller or of the pad's radius.
    pub tip: [f64; 2],
    /// Radius of the roller or the pad.
    pub tip_radius: f64,
    /// Pivot to the stem's axis, along x.
    pub stem: f64,
    /// Length of the pushrod.
    pub pushrod: f64,
    /// Direction of the pushrod and the lifter, a unit vector.
    pub towards_cup: [f64; 2],
}

/// The rocker at one lift of the lifter.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// Lift of the lifter, m.
    pub lifter: f64,
    /// Turn of the rocker from the closed valve, rad.
    pub turn: f64,
    /// Lift of the valve, m.
    pub valve: f64,
    /// Valve lift for a unit of lifter lift, at this lift.
    pub ratio: f64,
    /// Pushrod's end, m.
    pub cup: [f64; 2],
    /// Contact on the tip of the stem from its axis, away from the pivot, m.
    pub contact: f64,
}

/// The rocker cannot follow the lifter any further.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Locked {
    /// Lift of the lifter at which the linkage stands stretched or folded, m.
    pub lifter: f64,
}

/// Steps from the closed valve; Newton's method begins each at the last one.
const STEPS: usize = 48;

impl Rocker {
    /// Reads the geometry of one side; `lift` is full valve lift, which a pivot height that is not given goes by.
    ///
    /// # Errors
    /// The fields without which there is no geometry.
    pub fn read(rocker: &RockerPart, pushrod: &PushrodPart, lift: f64) -> Result<Self, Missing> {
        let mut needs = Needs::default();
        let (arm, cup) = (need!(needs, rocker.pivot_to_tip), need!(needs, rocker.pivot_to_cup));
        let length = need!(needs, pushrod.length);
        needs.met(())?;
        let metres = |length: Option<Length>, usual: f64| length.map_or(usual, Length::si);
        let tip_radius = metres(rocker.tip_radius, 6.35e-3);
        // Square at half lift the tip's centre passes the pivot's height there; square at full lift, only then.
        let height = metres(rocker.pivot_height, school_height(rocker, tip_radius, lift));
        let rise = (tip_radius - height).clamp(-0.98 * arm.si(), 0.98 * arm.si());
        let tip = [(arm.si().powi(2) - rise * rise).sqrt(), rise];
        let drop = metres(rocker.cup_drop, 2.54e-3).clamp(-0.98 * cup.si(), 0.98 * cup.si());
        let angle = rocker.pushrod_angle.map_or(0.0, Angle::si);
        let mut found = Self {
            cup: [-(cup.si().powi(2) - drop * drop).sqrt(), -drop],
            tip,
            tip_radius,
            stem: tip[0],
            pushrod: length.si(),
            towards_cup: [angle.sin(), angle.cos()],
        };
        let given = rocker.stem_offset.map(Length::si);
        found.stem = given.unwrap_or_else(|| found.centred(lift));
        Ok(found)
    }

    /// The place of a stem on whose tip the pattern of this lift is centred.
    fn centred(&self, lift: f64) -> f64 {
        let reach = |valve: f64| {
            let y = self.tip[1] - valve;
            (self.arm().powi(2) - y * y).max(0.0).sqrt()
        };
        let path: Vec<f64> = (0..=16).map(|i| reach(lift * f64::from(i) / 16.0)).collect();
        let most = path.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let least = path.iter().copied().fold(f64::INFINITY, f64::min);
        0.5 * (most + least)
    }

    /// Pivot to the tip's centre, m.
    pub fn arm(&self) -> f64 {
        self.tip[0].hypot(self.tip[1])
    }

    /// The poses up to `lifter` of lifter lift, evenly spaced from the closed valve.
    ///
    /// # Errors
    /// The lift at which the linkage locks.
    pub fn sweep(&self, lifter: f64) -> Result<Vec<Pose>, Locked> {
        let mut turn = 0.0;
        let mut poses = Vec::with_capacity(STEPS + 1);
        for i in 0..=STEPS {
            let lift = lifter * i as f64 / STEPS as f64;
            turn = self.close(lift, turn).ok_or(Locked { lifter: lift })?;
            poses.push(self.pose(lift, turn));
        }
        Ok(poses)
    }

    /// Turn of the rocker that closes the loop at a lifter lift, from a turn near it.
    fn close(&self, lift: f64, near: f64) -> Option<f64> {
        let mut turn = near;
        for _ in 0..40 {
            let (error, slope) = self.gap(lift, turn);
            // Past the dead point the pushrod cannot turn the rocker on.
            if slope.abs() < 1e-3 * self.pushrod * self.cup[0].hypot(self.cup[1]) {
                return None;
            }
            let step = (error / slope).clamp(-0.1, 0.1);
            turn -= step;
            if step.abs() < 1e-11 {
                return (turn.abs() < 1.2).then_some(turn);
            }
        }
        None
    }

    /// Half the square of the distance from lifter to cup less that of the pushrod, and its slope over the turn.
    fn gap(&self, lift: f64, turn: f64) -> (f64, f64) {
        let cup = turned(self.cup, turn);
        let foot = self.foot(lift);
        let d = [cup[0] - foot[0], cup[1] - foot[1]];
        // A turn moves a point at right angles to its arm: (x, y) by (y, -x).
        (0.5 * (d[0] * d[0] + d[1] * d[1] - self.pushrod * self.pushrod), d[0] * cup[1] - d[1] * cup[0])
    }

    /// How much longer the pushrod must be for the pivot to stand higher by `by` (m), the valve closed and the lifter where
    /// it is: the pivot carries the cup up, and the rocker leans back to its stem. `None` beyond the arm's reach.
    pub fn longer_for_pivot(&self, by: f64) -> Option<f64> {
        // Seen from the pivot the stem goes down by as much: the tip's centre turns to that height.
        let (now, then) = ((self.tip[1] / self.arm()).asin(), ((self.tip[1] - by) / self.arm()).asin());
        let cup = turned(self.cup, now - then);
        let foot = self.foot(0.0);
        let length = (cup[0] - foot[0]).hypot(cup[1] + by - foot[1]);
        length.is_finite().then_some(length - self.pushrod)
    }

    /// The tip's centre in a pose, m.
    pub fn tip_at(&self, pose: &Pose) -> [f64; 2] {
        turned(self.tip, pose.turn)
    }

    /// Lower end of the pushrod at a lift of the lifter, m.
    pub fn foot(&self, lift: f64) -> [f64; 2] {
        let back = self.pushrod - lift;
        [self.cup[0] - back * self.towards_cup[0], self.cup[1] - back * self.towards_cup[1]]
    }

    fn pose(&self, lift: f64, turn: f64) -> Pose {
        let tip = turned(self.tip, turn);
        let (cup, foot) = (turned(self.cup, turn), self.foot(lift));
        let d = [cup[0] - foot[0], cup[1] - foot[1]];
        let along = d[0] * self.towards_cup[0] + d[1] * self.towards_cup[1];
        let lever = d[0] * cup[1] - d[1] * cup[0];
        Pose {
            lifter: lift,
            turn,
            cup,
            valve: self.tip[1] - tip[1],
            // dv/dturn is the tip's reach; dturn/ds from the closed loop.
            ratio: tip[0] * along / lever,
            contact: tip[0] - self.stem,
        }
    }
}

/// Pivot above the stem's tip that the school of a rocker asks for at a full valve lift, m.
pub fn school_height(rocker: &RockerPart, tip_radius: f64, lift: f64) -> f64 {
    let share = if rocker.geometry == Some(RockerGeometry::FullLift) { 1.0 } else { 0.5 };
    tip_radius - share * lift
}

/// A point turned with the rocker: the cup rises, the tip goes down.
fn turned(point: [f64; 2], turn: f64) -> [f64; 2] {
    let (sin, cos) = turn.sin_cos();
    [point[0] * cos + point[1] * sin, point[1] * cos - point[0] * sin]
}

#[cfg(test)]
mod tests {
    use super::*;

    fn square(cup: f64, tip: f64) -> Rocker {
        Rocker { cup: [-cup, 0.0], tip: [tip, 0.0], tip_radius: 0.0, stem: tip, pushrod: 30.0, towards_cup: [0.0, 1.0] }
    }

    #[test]
    fn with_an_endless_pushrod_both_arms_follow_sines() {
        // s = c sin(turn), v = t sin(turn): the ratio is t/c all the way, contact t (1 - cos) inwards.
        let rocker = square(0.022, 0.0352);
        for pose in rocker.sweep(0.009).unwrap() {
            assert!((pose.valve - 1.6 * pose.lifter).abs() < 2e-7, "{pose:?}");
            assert!((pose.ratio - 1.6).abs() < 2e-4, "{pose:?}");
            let turn = (pose.lifter / 0.022).asin();
            assert!((pose.contact + 0.0352 * (1.0 - turn.cos())).abs() < 2e-7, "{pose:?}");
        }
    }

    #[test]
    fn the_ratio_is_the_slope_of_the_lift() {
        let rocker = Rocker {
            cup: [-0.0215, -0.004],
            tip: [0.0349, 0.0069],
            pushrod: 0.196,
            towards_cup: [0.1, 0.99499],
            ..square(0.0, 0.0)
        };
        let poses = rocker.sweep(0.0085).unwrap();
        for three in poses.windows(3) {
            let slope = (three[2].valve - three[0].valve) / (three[2].lifter - three[0].lifter);
            assert!((slope / three[1].ratio - 1.0).abs() < 1e-5, "{three:?}");
        }
    }

    #[test]
    fn a_linkage_that_cannot_follow_says_where_it_locks() {
        let locked = square(0.008, 0.0128).sweep(0.0095).unwrap_err();
        assert!((0.0075..0.0083).contains(&locked.lifter), "{locked:?}");
    }

    #[test]
    fn a_higher_pivot_wants_a_pushrod_longer_by_more_than_its_height() {
        // A level rocker with an endless pushrod: the pivot's rise and the cup's, t (1 + 1/R), but for cosines.
        let found = square(0.022, 0.0352).longer_for_pivot(1e-4).unwrap();
        assert!((found / (1e-4 * (1.0 + 0.022 / 0.0352)) - 1.0).abs() < 1e-4, "{found}");
        assert!((square(0.022, 0.0352).longer_for_pivot(-1e-4).unwrap() + found).abs() < 1e-8);
        assert_eq!(square(0.022, 0.0352).longer_for_pivot(0.1), None);
    }

    #[test]
    fn square_at_half_lift_the_pattern_is_shortest() {
        // From half a lift above square to half below, the contact moves t (1 - cos) out and back; from square on, four
        // times as far [by hand: (v/2)^2/(2t) against v^2/(2t)].
        let span = |rise: f64| {
            let rocker = Rocker { tip: [(0.0352_f64.powi(2) - rise * rise).sqrt(), rise], ..square(0.022, 0.0) };
            let contacts: Vec<f64> = rocker.sweep(0.009).unwrap().iter().map(|pose| pose.contact).collect();
            contacts.iter().copied().fold(f64::NEG_INFINITY, f64::max)
                - contacts.iter().copied().fold(f64::INFINITY, f64::min)
        };
        let lift = 1.6 * 0.009;
        assert!((span(0.0) / span(0.5 * lift) - 4.0).abs() < 0.25, "{}", span(0.0) / span(0.5 * lift));
    }
}
