//! A lobe as the follower sees it: lift over cam angle, piecewise quintic.
//!
//! Cam angle is in cam degrees from full lift, negative on the opening flank. Velocity,
//! acceleration and jerk are per cam degree, its square and its cube.

use crate::quantity::Length;

/// Follower motion at one cam angle, metres and cam degrees.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Motion {
    /// Lift, m.
    pub lift: f64,
    /// Velocity, m per cam degree; positive while opening.
    pub velocity: f64,
    /// Acceleration, m per cam degree squared.
    pub acceleration: f64,
    /// Jerk, m per cam degree cubed.
    pub jerk: f64,
}

/// Which flank of a lobe.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Flank {
    /// Before full lift.
    Opening,
    /// After full lift.
    Closing,
}

/// Follower lift over cam angle.
#[derive(Debug, Clone, PartialEq)]
pub struct Lobe {
    /// Left end of each piece and the right end of the last, cam degrees from full lift.
    breaks: Vec<f64>,
    /// Powers of the distance from the piece's left end.
    pieces: Vec<[f64; 6]>,
    lift: f64,
    /// Largest distance from the points it was fitted to; `None` for a lobe made from its card.
    residual: Option<f64>,
}

impl Lobe {
    /// A lobe of `pieces` between `breaks`; the caller keeps lengths in step and zero at full lift.
    pub(super) fn new(breaks: Vec<f64>, pieces: Vec<[f64; 6]>, residual: Option<f64>) -> Self {
        let mut lobe = Self { breaks, pieces, lift: 0.0, residual };
        lobe.lift = lobe.at(0.0).lift;
        lobe
    }

    /// Largest follower lift.
    pub fn lift(&self) -> Length {
        Length::from_si(self.lift)
    }

    /// Largest distance between the lobe and the measured points it was fitted to.
    pub fn residual(&self) -> Option<Length> {
        self.residual.map(Length::from_si)
    }

    /// First and last cam degree with lift.
    pub fn extent(&self) -> (f64, f64) {
        (self.breaks[0], self.breaks[self.breaks.len() - 1])
    }

    /// Follower motion `cam_deg` after full lift; at rest outside [`Self::extent`].
    pub fn at(&self, cam_deg: f64) -> Motion {
        let (start, end) = self.extent();
        if !(start..=end).contains(&cam_deg) {
            return Motion::default();
        }
        let piece = self.breaks.partition_point(|b| *b <= cam_deg).clamp(1, self.pieces.len()) - 1;
        let u = cam_deg - self.breaks[piece];
        let c = &self.pieces[piece];
        Motion {
            lift: c[0] + u * (c[1] + u * (c[2] + u * (c[3] + u * (c[4] + u * c[5])))),
            velocity: c[1] + u * (2.0 * c[2] + u * (3.0 * c[3] + u * (4.0 * c[4] + u * 5.0 * c[5]))),
            acceleration: 2.0 * c[2] + u * (6.0 * c[3] + u * (12.0 * c[4] + u * 20.0 * c[5])),
            jerk: 6.0 * c[3] + u * (24.0 * c[4] + u * 60.0 * c[5]),
        }
    }

    /// Cam degrees between full lift and `height` on one flank, or `None` above full lift.
    ///
    /// Bisection to 1e-10 cam degree; lift is monotone on a flank by construction.
    pub fn flank_angle(&self, height: Length, flank: Flank) -> Option<f64> {
        let height = height.si();
        if height <= 0.0 || height > self.lift {
            return None;
        }
        let (start, end) = self.extent();
        let (sign, mut outside) = match flank {
            Flank::Opening => (-1.0, -start),
            Flank::Closing => (1.0, end),
        };
        let mut inside = 0.0;
        while outside - inside > 1e-10 {
            let middle = 0.5 * (inside + outside);
            if self.at(sign * middle).lift >= height {
                inside = middle;
            } else {
                outside = middle;
            }
        }
        Some(0.5 * (inside + outside))
    }

    /// Duration at `height` in crank degrees.
    pub fn duration_crank_deg(&self, height: Length) -> Option<f64> {
        let opening = self.flank_angle(height, Flank::Opening)?;
        let closing = self.flank_angle(height, Flank::Closing)?;
        Some(2.0 * (opening + closing))
    }

    /// Cam degree of the centre of the events at `height`; zero for a symmetric lobe.
    pub fn centre_of_events(&self, height: Length) -> Option<f64> {
        let opening = self.flank_angle(height, Flank::Opening)?;
        let closing = self.flank_angle(height, Flank::Closing)?;
        Some(0.5 * (closing - opening))
    }

    /// The lobe over a whole number of steps, `step` cam degrees apart, both ends included.
    pub fn sampled(&self, step: f64) -> impl Iterator<Item = (f64, Motion)> + '_ {
        let (start, end) = self.extent();
        let (first, last) = ((start / step).floor() as i64, (end / step).ceil() as i64);
        (first..=last).map(move |i| {
            let angle = i as f64 * step;
            (angle, self.at(angle))
        })
    }
}
