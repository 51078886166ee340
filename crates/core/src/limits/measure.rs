//! What a limit is measured in, and how it reads.

use crate::quantity::{Dimension, Shown, UnitSystem, format_si, shown_fine, shown_stress, shown_vacuum};

/// What need, have and margin are measured in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Measure {
    /// Lengths, reported in mm.
    Length,
    /// Lengths of some ten-thousandths of an inch, reported in mm.
    Fine,
    /// Loads, reported in N.
    Force,
    /// Crank speeds, reported in rpm.
    Speed,
    /// Crank angles, reported in degrees.
    Angle,
    /// Ratios to one, with two decimals.
    Ratio,
    /// Shares, reported in per cent.
    Share,
    /// Pressures, reported in kPa.
    Pressure,
    /// Stresses, reported in MPa and read in ksi.
    Stress,
    /// Pressures below outside air, reported in kPa and read in inches of mercury.
    Vacuum,
    /// Money, never converted.
    Money,
    /// Octane numbers, reported as research octane.
    Octane,
    /// Second derivatives of a lobe's lift, reported in mm for each square of a cam degree.
    LobeAcceleration,
}

impl Measure {
    /// What a bound is written in; `None` for plain numbers.
    pub fn dimension(self) -> Option<Dimension> {
        match self {
            Self::Length | Self::Fine => Some(Dimension::Length),
            Self::Force => Some(Dimension::Force),
            Self::Speed => Some(Dimension::Speed),
            Self::Angle => Some(Dimension::Angle),
            Self::Pressure | Self::Vacuum | Self::Stress => Some(Dimension::Pressure),
            Self::Money => Some(Dimension::Money),
            Self::Octane => Some(Dimension::Octane),
            Self::LobeAcceleration => Some(Dimension::LobeAcceleration),
            Self::Ratio | Self::Share => None,
        }
    }

    /// Unit and SI value of one unit in the report.
    pub fn reported(self) -> (&'static str, f64) {
        match self {
            Self::Length | Self::Fine => ("mm", 1e-3),
            Self::Force => ("N", 1.0),
            Self::Speed => ("rpm", std::f64::consts::PI / 30.0),
            Self::Angle => ("deg", std::f64::consts::PI / 180.0),
            Self::Ratio => (":1", 1.0),
            Self::Share => ("%", 0.01),
            Self::Pressure | Self::Vacuum => ("kPa", 1e3),
            Self::Stress => ("MPa", 1e6),
            Self::Money => ("USD", 1.0),
            Self::Octane => ("RON", 1.0),
            Self::LobeAcceleration => ("mm/deg2", 1e-3),
        }
    }

    /// SI value of one unit in the report.
    pub fn one(self) -> f64 {
        self.reported().1
    }

    /// `si` in the report's unit.
    pub fn to_report(self, si: f64) -> f64 {
        si / self.reported().1
    }

    /// `si` as read in both systems.
    pub fn shown(self, si: f64) -> Shown {
        if self == Self::Vacuum {
            return shown_vacuum(si);
        }
        if self == Self::Stress {
            return shown_stress(si);
        }
        if self == Self::Fine {
            return shown_fine(si);
        }
        let one = |system: UnitSystem| match self.dimension() {
            Some(dimension) => format_si(si, dimension, system),
            None if self == Self::Share => format!("{:.1} %", si * 100.0),
            None => format!("{si:.2}"),
        };
        Shown { inch: one(UnitSystem::Inch), metric: one(UnitSystem::Metric) }
    }

    /// `si` as read, with its sign.
    pub fn shown_signed(self, si: f64) -> Shown {
        let Shown { inch, metric } = self.shown(si);
        let sign = |text: String| if text.starts_with('-') { text } else { format!("+{text}") };
        Shown { inch: sign(inch), metric: sign(metric) }
    }
}
