//! What a plan wants of a curve, as one figure to climb by: torque over the band, and power where its peak is wanted, each
//! against how one stands. The weights are a choice of ours that the builder can change; what they stand for is said.

use crate::given::Given;
use crate::response::Figures;

/// How much power at the wanted speed counts beside average torque, by what the engine is for (assumed): a race is won on
/// top, a load is pulled over the band.
const POWER_RACED: f64 = 0.5;
const POWER_DRIVEN: f64 = 0.25;
/// A governed diesel pulls; its power is set by fuel.
const POWER_DIESEL: f64 = 0.1;

/// What is climbed by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aim {
    /// Share of power at the wanted speed; the rest is average torque over the band.
    pub power: f64,
    /// How one stands.
    pub from: Figures,
}

impl Aim {
    /// By the plan's use, from where one stands.
    pub fn of(given: &Given, from: Figures) -> Self {
        let power = match () {
            () if given.is_diesel() => POWER_DIESEL,
            () if given.purpose.is_raced() => POWER_RACED,
            () => POWER_DRIVEN,
        };
        Self { power, from }
    }

    /// How much better than where one stands, as a share.
    pub fn gain(&self, figures: &Figures) -> f64 {
        let share = |of: fn(&Figures) -> f64| of(figures) / of(&self.from) - 1.0;
        self.power * share(|figures| figures.power_wanted)
            + (1.0 - self.power) * share(|figures| figures.average_torque)
    }

    /// In words.
    pub fn words(&self) -> String {
        format!(
            "{:.0} % average torque over the band, {:.0} % power where its peak is wanted",
            100.0 * (1.0 - self.power),
            100.0 * self.power
        )
    }
}
