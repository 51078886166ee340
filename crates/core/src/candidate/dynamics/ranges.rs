//! What nobody measures on a valve train, each with its usual value and the range in which most trains lie (common
//! practice, no source, where nothing else is said), and draws over those ranges.

use statrs::distribution::{ContinuousCDF, Normal};

/// Draws a band is made of.
pub const DRAWS: usize = 16;
/// Standard deviation of a place anywhere in its range alike, of which nothing is known.
pub const OPEN: f64 = 0.288_675_134_594_812_9;

/// The table of them: each with its doc, low and high end.
macro_rules! unmeasured {
    ($($(#[$doc:meta])* $key:ident: $low:literal to $high:literal,)+) => {
        /// One set of what nobody measures.
        #[derive(Debug, Clone, Copy, PartialEq)]
        pub struct Unmeasured {
            $($(#[$doc])* pub $key: f64,)+
        }

        const LOW: Unmeasured = Unmeasured { $($key: $low,)+ };
        const HIGH: Unmeasured = Unmeasured { $($key: $high,)+ };

        /// How many there are.
        pub const COUNT: usize = [$($low,)+].len();

        impl Unmeasured {
            /// Each of them, in the order of their places.
            pub const fn values(&self) -> [f64; COUNT] {
                [$(self.$key,)+]
            }

            /// The set of these values.
            const fn of([$($key,)+]: [f64; COUNT]) -> Self {
                Self { $($key,)+ }
            }
        }
    };
}

unmeasured! {
    /// Damping of the train's own swing, share of critical: joints, oil films, the metal itself.
    train_damping: 0.025 to 0.08,
    /// Damping of the seat's contact, share of critical with the valve on it: a valve comes back with half to three
    /// quarters of its speed.
    seat_damping: 0.08 to 0.20,
    /// Stiffness of a seat with the head on it, N/m.
    seat_stiffness: 30e6 to 90e6,
    /// Damping of a coil's first mode over what its form has.
    spring_damping: 0.6 to 1.7,
    /// Stiffness of lifter, cam and contacts over the usual.
    cam_stiffness: 0.75 to 1.33,
    /// Stiffness of the pivot over the usual.
    pivot_stiffness: 0.8 to 1.25,
    /// Stiffness of the rocker's body over the usual.
    body_stiffness: 0.85 to 1.18,
    /// Inertia of the rocker over that of its tip-side mass at the tip.
    inertia: 0.88 to 1.14,
    /// Air in the oil of a hydraulic lifter, share of volume.
    air: 0.005 to 0.04,
    /// Leak of its plunger over the usual.
    leak: 0.6 to 1.7,
    /// Share of a spring's mass that moves, where its coils are not known: the end coils lie still.
    moving_coils: 0.80 to 0.96,
}

impl Unmeasured {
    /// Each a share of the way from low to high, on a scale of ratios.
    pub fn between(share: [f64; COUNT]) -> Self {
        let (low, high) = (LOW.values(), HIGH.values());
        Self::of(std::array::from_fn(|i| low[i] * (high[i] / low[i]).powf(share[i])))
    }

    /// Where each lies between its low and its high end, on a scale of ratios.
    pub fn places(&self) -> [f64; COUNT] {
        let (own, low, high) = (self.values(), LOW.values(), HIGH.values());
        std::array::from_fn(|i| (own[i] / low[i]).ln() / (high[i] / low[i]).ln())
    }

    /// The usual of each: the middle of its range.
    pub fn usual() -> Self {
        Learned::nothing().usual()
    }

    /// The draws over all ranges; see [`Learned::draws`].
    pub fn draws() -> Vec<Self> {
        Learned::nothing().draws()
    }
}

/// What measured motion says of them: normal about a place in each range, cut off at its ends.
#[derive(Debug, Clone, PartialEq)]
pub struct Learned {
    /// Places between low and high end.
    pub place: [f64; COUNT],
    /// Root of their covariance: lower triangle.
    pub root: [[f64; COUNT]; COUNT],
    /// Of which anything is known; the others lie anywhere in their range alike.
    pub known: [bool; COUNT],
}

impl Learned {
    /// Standard deviation of a place from which on nothing was learned of it: nine tenths of what it is with nothing known.
    const LEAVES_OPEN: f64 = 0.9 * OPEN;

    /// Nothing was measured.
    pub const fn nothing() -> Self {
        Self { place: [0.5; COUNT], root: [[0.0; COUNT]; COUNT], known: [false; COUNT] }
    }

    /// Whether anything is known.
    pub fn is_any(&self) -> bool {
        self.known.contains(&true)
    }

    /// Standard deviation of each place.
    pub fn deviations(&self) -> [f64; COUNT] {
        std::array::from_fn(
            |i| if self.known[i] { self.root[i].iter().map(|r| r * r).sum::<f64>().sqrt() } else { OPEN },
        )
    }

    /// Of which something was learned, by how far it leaves their places open.
    pub fn seen(&self) -> [bool; COUNT] {
        self.deviations().map(|deviation| deviation <= Self::LEAVES_OPEN)
    }

    /// The likeliest of each; the middle of its range where nothing is known of it.
    pub fn usual(&self) -> Unmeasured {
        Unmeasured::between(std::array::from_fn(|i| if self.known[i] { self.place[i] } else { 0.5 }))
    }

    /// The draws: evenly spread in every pair of them by the fractional parts of multiples of square roots of primes
    /// [Kronecker's sequence: Niederreiter 1992; from memory]. The same for every train, so that two trains are compared
    /// on the same draws.
    pub fn draws(&self) -> Vec<Unmeasured> {
        const PRIMES: [f64; COUNT] = [2.0, 3.0, 5.0, 7.0, 11.0, 13.0, 17.0, 19.0, 23.0, 29.0, 31.0];
        let normal = Normal::standard();
        let draw = |n: usize| {
            let even = PRIMES.map(|prime| (0.5 + (n + 1) as f64 * prime.sqrt()).fract());
            let steps = even.map(|own| normal.inverse_cdf(own));
            let at =
                |i: usize| self.root[i].iter().zip(steps).map(|(root, step)| root * step).sum::<f64>() + self.place[i];
            Unmeasured::between(std::array::from_fn(|i| if self.known[i] { at(i).clamp(0.0, 1.0) } else { even[i] }))
        };
        (0..DRAWS).map(draw).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn draws_lie_in_their_ranges_and_on_both_sides_of_the_usual() {
        let (draws, usual) = (Unmeasured::draws(), Unmeasured::usual());
        for of in [(|u: &Unmeasured| u.air) as fn(&Unmeasured) -> f64, |u| u.train_damping, |u| u.pivot_stiffness] {
            let below = draws.iter().filter(|draw| of(draw) < of(&usual)).count();
            assert!((5..=11).contains(&below), "{below}");
            assert!(draws.iter().all(|draw| (of(&LOW)..=of(&HIGH)).contains(&of(draw))));
        }
    }
}
