//! What a running engine does to gaps, as far as it is no plain field: marks that were seen, what stands in by the cam's
//! drive, and whether all of it is a budget.

use super::objects::GrowthPart;
use crate::document::{Node, Origin, Side};
use crate::quantity::{Angle, Length, Speed};
use crate::words::{CamDrive, WitnessKind, Word};
use std::sync::Arc;

/// Crank degrees by which a cam runs late for a thousand rpm where nobody says: by chain, gears, belt (assumed).
const LAG: [(CamDrive, f64); 3] = [(CamDrive::Chain, 0.4), (CamDrive::Gear, 0.1), (CamDrive::Belt, 0.3)];
/// Terms of a growth that nobody can compute.
const BUDGETED: [&str; 4] = ["crank_bending", "bearing_and_pin", "piston_heat", "piston_rock"];

/// What a running engine showed of one gap between valve and piston.
#[derive(Debug, Clone, PartialEq)]
pub struct WitnessMark {
    /// Its identifier.
    pub id: Arc<str>,
    /// The candidate that was run.
    pub candidate: Arc<str>,
    /// Which valve.
    pub side: Side,
    /// The speed it was turned to.
    pub at: Speed,
    /// What was found.
    pub kind: WitnessKind,
    /// What was left.
    pub gap: Option<Length>,
}

impl WitnessMark {
    /// Reads one; `None` where it is not whole.
    fn read(node: &Node<'_>) -> Option<Self> {
        Some(Self {
            id: node.word("id")?.into(),
            candidate: node.word("candidate")?.into(),
            side: Side::of_key(node.word("side")?)?,
            at: node.quantity("at")?,
            kind: WitnessKind::from_word(node.word("kind")?)?,
            gap: node.quantity("gap"),
        })
    }
}

/// Every mark of a growth.
pub fn read_marks(growth: &Node<'_>) -> Arc<[WitnessMark]> {
    growth.children("witness").iter().filter_map(WitnessMark::read).collect()
}

/// Whether every term that nobody can compute is given and not by assumption, or a running engine showed what there is.
pub fn has_budget(growth: &Node<'_>) -> bool {
    let is_known = |key: &str| growth.has(key) && growth.input(key).origin != Origin::Assumed;
    is_known("beyond") || BUDGETED.iter().all(|key| is_known(key))
}

/// The growth, with the lag of the cam's drive where nobody gives one.
pub fn read_growth(growth: &Node<'_>, drive: Option<CamDrive>) -> GrowthPart {
    let mut part = GrowthPart::read(growth, Side::Intake);
    let usual = LAG.iter().find(|(own, _)| Some(*own) == drive).map_or(LAG[0].1, |(_, deg)| *deg);
    part.cam_lag_per_1000_rpm.get_or_insert(Angle::deg(usual));
    part
}
