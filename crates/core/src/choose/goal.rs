//! What one may want of a candidate, several things at once.

use crate::quantity::{Dimension, Shown, shown};
use crate::response::Figures;
use serde::{Deserialize, Serialize};

/// A goal; of each more is better, of money less.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Goal {
    /// Average torque over the band.
    AverageTorque,
    /// Power where its peak is wanted.
    PeakPower,
    /// Average torque over the lowest third of the band.
    LowTorque,
    /// How far beyond a missed shift control is kept.
    Control,
    /// How long springs go between two looks.
    Life,
    /// What the parts cost.
    Money,
}

/// What a candidate comes to beside its curve.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Beside {
    /// Rpm of control beyond a missed shift, the lower of both valves.
    pub control: Option<f64>,
    /// Interval between two looks at the springs, in what it is counted.
    pub interval: Option<f64>,
    /// What the parts cost.
    pub money: f64,
}

/// What a goal that is not known counts as: nothing moves it.
const UNKNOWN: f64 = 0.0;
/// Control beyond this is no better, rpm.
const ENOUGH: f64 = 1500.0;

impl Goal {
    /// Every goal.
    pub const ALL: [Self; 6] =
        [Self::AverageTorque, Self::PeakPower, Self::LowTorque, Self::Control, Self::Life, Self::Money];

    /// What is searched for where nobody says.
    pub const USUAL: [Self; 3] = [Self::AverageTorque, Self::PeakPower, Self::LowTorque];

    /// Its word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::AverageTorque => "average_torque",
            Self::PeakPower => "peak_power",
            Self::LowTorque => "low_torque",
            Self::Control => "control",
            Self::Life => "life",
            Self::Money => "money",
        }
    }

    /// As a heading.
    pub const fn title(self) -> &'static str {
        match self {
            Self::AverageTorque => "Average torque",
            Self::PeakPower => "Power where wanted",
            Self::LowTorque => "Low-speed torque",
            Self::Control => "Reserve of control",
            Self::Life => "Spring interval",
            Self::Money => "Parts",
        }
    }

    /// The goal of that word.
    pub fn from_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|goal| goal.word() == word)
    }

    /// How much of it there is: N m, W, rpm, an interval, money.
    pub fn figure(self, figures: &Figures, beside: &Beside) -> Option<f64> {
        match self {
            Self::AverageTorque => Some(figures.average_torque),
            Self::PeakPower => Some(figures.power_wanted),
            Self::LowTorque => Some(figures.thirds[0]),
            Self::Control => beside.control,
            Self::Life => beside.interval,
            Self::Money => Some(beside.money),
        }
    }

    /// As it is searched by: the more the better.
    pub fn worth(self, figures: &Figures, beside: &Beside) -> f64 {
        let figure = self.figure(figures, beside);
        match self {
            Self::Control => figure.map_or(UNKNOWN, |rpm| rpm.min(ENOUGH)),
            Self::Life => figure.map_or(UNKNOWN, |count| count.max(1e-6).ln()),
            Self::Money => figure.map_or(UNKNOWN, |money| -money),
            _ => figure.unwrap_or(UNKNOWN),
        }
    }

    /// As it is read; `counted_in` for what intervals are counted in.
    pub fn shown(self, figure: f64, counted_in: &str) -> Shown {
        match self {
            Self::AverageTorque | Self::LowTorque => shown(figure, Dimension::Torque),
            Self::PeakPower => shown(figure, Dimension::Power),
            Self::Control => Shown::plain(format!("{figure:+.0} rpm").replace('-', "\u{2212}")),
            Self::Life => Shown::plain(format!("{} {counted_in}", roughly(figure))),
            Self::Money => shown(figure, Dimension::Money),
        }
    }
}

/// Two figures are more than is known of an interval.
fn roughly(count: f64) -> String {
    if count < 1.0 {
        return "less than one".to_owned();
    }
    let tens = 10f64.powf(count.log10().floor() - 1.0).max(1.0);
    format!("{:.0}", (count / tens).round() * tens)
}
