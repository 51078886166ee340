//! The shop twin: the model's constants over all builds of a shop that were on the dyno.

use super::choosing::FittedField;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// What the shop's own pulls say of the model's constants.
    pub struct ShopReport {
        /// In a sentence or two.
        says: String,
        /// What is done with them, stated.
        model: String,
        /// Over all families, then each family that was on the dyno.
        levels: Vec<ShopLevel>,
        /// Every build that was on the dyno, by its family.
        builds: Vec<ShopBuild>,
        /// What the others leave of the error, over all builds; absent of fewer than three.
        gain: Option<ShopGain>,
        /// What the build that is looked at may take; absent where too few were on the dyno.
        next: Option<ShopNext>,
    }

    /// A family, or the whole shop.
    pub struct ShopLevel {
        /// Its name.
        title: String,
        /// How many of its builds were on the dyno.
        builds: usize,
        /// Whether the build that is looked at is one of it.
        own: bool,
        /// Each constant its next build is expected to have, in the order of the fit.
        constants: Vec<ShopConstant>,
    }

    /// One constant.
    pub struct ShopConstant {
        /// What it is called.
        label: String,
        /// What it is expected to be; a share, or metres.
        at: f64,
        /// How far it may be off that, 95 of 100.
        width: f64,
        /// What it is expected to be.
        value: Shown,
        /// How far it may be off that, 95 of 100.
        doubt: Shown,
    }

    /// One build that was on the dyno.
    pub struct ShopBuild {
        /// Its name.
        name: String,
        /// Its family.
        family: String,
        /// Speeds that it was fitted at.
        points: usize,
        /// Root mean square of the torque's relative error with the usual constants.
        usual_error: f64,
        /// The same with what all other builds would have foretold; absent of fewer than three builds.
        others_error: Option<f64>,
        /// The same with its own, drawn to its family.
        own_error: f64,
        /// Each constant by its own pulls, and as drawn to its family.
        constants: Vec<ShrunkConstant>,
    }

    /// A constant of a build.
    pub struct ShrunkConstant {
        /// What it is called.
        label: String,
        /// By its own pulls alone, and drawn to its family; shares, or metres.
        at: [f64; 2],
        /// By its own pulls alone.
        alone: Shown,
        /// Drawn to its family as far as its own pulls leave it open.
        drawn: Shown,
    }

    /// Root mean squares over all builds of the torque's relative error.
    pub struct ShopGain {
        /// With the usual constants.
        usual: f64,
        /// With what all others foretold of each.
        others: f64,
        /// With its own.
        own: f64,
    }

    /// What a build may take of the shop.
    pub struct ShopNext {
        /// In a sentence.
        says: String,
        /// What would be written.
        fields: Vec<FittedField>,
        /// Root mean square of the relative error to expect.
        error: f64,
    }
}
