//! Measured valve motion beside the train in motion, and what it says of what nobody measures.

use super::choosing::FittedField;
use crate::document::Side;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// What measured valve motion says of a train.
    pub struct MotionFitReport {
        /// In a sentence or two.
        says: Shown,
        /// Identifier of the candidate whose train it was.
        candidate: String,
        /// Every constant.
        constants: Vec<MotionConstant>,
        /// Every trace that counts.
        traces: Vec<MotionTrace>,
        /// Where every candidate loses control, without it and with it.
        limits: Vec<MotionLimit>,
        /// What a document would keep.
        fields: Vec<FittedField>,
    }

    /// One thing nobody measures.
    pub struct MotionConstant {
        /// What it is called.
        label: String,
        /// What it is most likely, and what is usual, in words.
        found: String,
        /// What is usual.
        usual: String,
        /// Ends of the range it was looked for in.
        range: [String; 2],
        /// Where in that range it lies, 0 to 1 on a scale of ratios, and the ends of what holds it 95 times of 100.
        place: [f64; 3],
        /// Whether motion says anything of it.
        learned: bool,
    }

    /// Lift over the crank at one speed.
    pub struct MotionTrace {
        /// Identifier.
        id: String,
        /// Which valve.
        side: Side,
        /// Speed.
        rpm: f64,
        /// Whether a rig turned it, without gas.
        on_rig: bool,
        /// Root mean square of what measured lift and the usual train are apart.
        before_mm: f64,
        /// The same with the fitted train.
        after_mm: f64,
        /// The same two in words.
        left: [Shown; 2],
        /// Crank degrees from firing top.
        crank_deg: Vec<f64>,
        /// Measured.
        measured_mm: Vec<f64>,
        /// By how much it is more than the usual train's.
        over_usual_mm: Vec<f64>,
        /// By how much it is more than the fitted train's.
        over_fitted_mm: Vec<f64>,
    }

    /// Where a valve of a candidate loses control, by the draws over what nobody measures; none within the speeds looked at where absent.
    pub struct MotionLimit {
        /// Identifier of the candidate.
        candidate: String,
        /// Its name.
        name: String,
        /// Which valve.
        side: Side,
        /// Median and nine of ten without what was measured.
        before_rpm: Option<f64>,
        /// Nine of ten of it.
        before_band_rpm: [f64; 2],
        /// The same with it.
        after_rpm: Option<f64>,
        /// Nine of ten of it.
        after_band_rpm: [f64; 2],
        /// What does not carry over, since its part is of another kind.
        apart: Vec<String>,
    }
}
