//! What is wrong with a measured curve, and what may be behind it.

use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// A measured curve beside what it is held against.
    pub struct DiagnosisReport {
        /// In a sentence.
        says: Shown,
        /// Candidate that was on the dyno.
        candidate: String,
        /// What it is held against, in words.
        against: String,
        /// Speeds.
        speed_rpm: Vec<f64>,
        /// Torque measured.
        measured_nm: Vec<f64>,
        /// Torque it is held against.
        reference_nm: Vec<f64>,
        /// What is wrong, the first to look at first.
        symptoms: Vec<SymptomReport>,
        /// What may be behind it, in the order they are best looked into.
        causes: Vec<CauseReport>,
        /// Causes still to be run in the model.
        to_run: usize,
    }

    /// Something wrong.
    pub struct SymptomReport {
        /// `nose_over`, `flat`, `fades`, `sag`, `low` or `scatter`.
        kind: String,
        /// Speed it begins at, where it has one.
        from_rpm: Option<f64>,
        /// In a sentence.
        says: String,
    }

    /// A cause.
    pub struct CauseReport {
        /// Identifier.
        id: String,
        /// What it is.
        title: String,
        /// Why it makes that.
        because: String,
        /// The test that tells it from the others.
        test: String,
        /// Minutes that takes.
        minutes: u32,
        /// Money that takes.
        usd: u32,
        /// How likely it is among all of them, 0 to 1: how often it is behind such symptoms, and how much of them it explains where it
        /// was run.
        share: f64,
        /// What was tried of it in the model; empty where it cannot be.
        tried: String,
        /// Share of what is off that it explains, made as strong as it has to be; absent where it was not run.
        explains: Option<f64>,
        /// How many times as strong as it was tried that is.
        times: Option<f64>,
        /// Torque with it, as it was tried, beside the reference.
        torque_nm: Option<Vec<f64>>,
    }
}
