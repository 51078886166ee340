//! The constants a pull can settle, as the document keeps them, and the pull itself.

use super::stated::Stated;
use crate::gas::setup::Setup;
use crate::given::{CalibrationPart, PullPart};
use crate::quantity::{Length, Speed};
use crate::words::CalibratedBy;

/// What is fitted.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Constants {
    /// Flow of both ports over the bench's.
    pub port_flow: f64,
    /// Friction over the correlation's.
    pub friction: f64,
    /// Heat released over the usual.
    pub burning: f64,
    /// Acoustic length of the intake over what the document gives, m.
    pub intake_length: f64,
}

impl Default for Constants {
    fn default() -> Self {
        Self::from([1.0, 1.0, 1.0, 0.0])
    }
}

impl From<[f64; 4]> for Constants {
    fn from([port_flow, friction, burning, intake_length]: [f64; 4]) -> Self {
        Self { port_flow, friction, burning, intake_length }
    }
}

impl From<Constants> for [f64; 4] {
    fn from(c: Constants) -> Self {
        [c.port_flow, c.friction, c.burning, c.intake_length]
    }
}

impl Constants {
    /// A set-up with these constants in it.
    pub fn put_into(&self, setup: &mut Setup) {
        setup.friction = self.friction;
        setup.burning = self.burning;
        for port in [&mut setup.intake, &mut setup.exhaust] {
            port.flow = self.port_flow;
        }
        let least = 0.5 * setup.mesh.cells.0;
        setup.intake.lengths.iter_mut().for_each(|length| *length = (*length + self.intake_length).max(least));
    }
}

/// What a fit left behind, as the document keeps it.
#[derive(Debug, Clone, PartialEq)]
pub struct Calibrated {
    /// The constants.
    pub constants: Constants,
    /// Root mean square of the error that is left, as a share.
    pub remaining: f64,
    /// Speeds of the pull, rpm.
    pub speeds: (f64, f64),
    /// Whose pull it was.
    pub pulled: String,
    /// What it was learned from.
    pub by: CalibratedBy,
}

/// Reads what the document kept of a fit; `None` when there was none.
pub fn read_calibration(part: &CalibrationPart) -> Option<Calibrated> {
    let fitted = [part.port_flow, part.friction, part.burning];
    (fitted.iter().any(Option::is_some) || part.intake_length.is_some()).then(|| Calibrated {
        constants: Constants {
            port_flow: part.port_flow.unwrap_or(1.0),
            friction: part.friction.unwrap_or(1.0),
            burning: part.burning.unwrap_or(1.0),
            intake_length: part.intake_length.map_or(0.0, Length::si),
        },
        remaining: part.remaining.unwrap_or(0.05),
        speeds: (part.from.map_or(0.0, Speed::as_rpm), part.to.map_or(0.0, Speed::as_rpm)),
        pulled: part.pulled.as_deref().unwrap_or("a pull").to_owned(),
        by: part.by.unwrap_or(CalibratedBy::Pull),
    })
}

/// The points of a pull in rising speed, rpm, with the torque in the plan's air, N m; none without a pull.
pub fn pulled(pull: &PullPart, stated: &Stated) -> Vec<(f64, f64)> {
    let over = stated.over_plan(pull);
    let rows = pull.points.iter().flat_map(|points| points.iter());
    let mut points: Vec<(f64, f64)> = rows.map(|(speed, torque)| (speed.as_rpm(), torque.si() / over)).collect();
    points.sort_by(|a, b| a.0.total_cmp(&b.0));
    points
}
