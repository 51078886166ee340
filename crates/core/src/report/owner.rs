//! The report for an owner: what was planned, built, measured and is due, in words and figures for paper.

use super::history::HistoryReport;
use super::limit::LimitReport;
use super::order::{OrderCard, OrderFact};
use super::parts::StripReport;
use super::service::ServiceReport;
use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Everything an owner takes along of a build.
    pub struct OwnerReport {
        /// Name of the build.
        name: String,
        /// Name of the candidate that it is of.
        candidate: String,
        /// The day it was made, as 2026-06-01; empty where nobody said.
        day: String,
        /// What it comes to, sentence by sentence: the engine, its margins, the dyno, the road.
        says: Vec<Shown>,
        /// What was asked of it and what it is.
        about: Vec<OrderFact>,
        /// The cam as asked, as ground, as running, with its train.
        card: OrderCard,
        /// Both valves and the piston; absent where the lobe is not known.
        strip: Option<StripReport>,
        /// Torque as predicted and as measured.
        torque: OwnerTorque,
        /// Limits that are not met with room, then those that are.
        margins: Vec<LimitReport>,
        /// The service log: what wears and what is due.
        service: ServiceReport,
        /// What became of it.
        history: HistoryReport,
        /// What can hurt, each once.
        cautions: Vec<String>,
    }

    /// Torque over speed.
    pub struct OwnerTorque {
        /// What the model predicts of this candidate; absent where it cannot, or the gas does not settle.
        predicted: Option<TorqueCurve>,
        /// How far that is to be trusted, or why there is none.
        trust: String,
        /// Mean of its pulls; absent of none.
        measured: Option<TorqueCurve>,
        /// What its pulls are, in a sentence; absent of none.
        pulled: Option<Shown>,
        /// How far the two lie apart, in a sentence; absent where one of them is missing.
        apart: Option<Shown>,
        /// Name of what everything on the dyno was held against; empty where nothing was.
        against: String,
        /// How it differs from that, or that from others, figure by figure, where it is to be believed.
        believed: Vec<Shown>,
    }

    /// One curve.
    pub struct TorqueCurve {
        /// Speeds.
        speed_rpm: Vec<f64>,
        /// Torque at each.
        torque_nm: Vec<f64>,
        /// Power at each.
        power_kw: Vec<f64>,
        /// Half the width of its band; empty where nothing tells.
        doubt_nm: Vec<f64>,
    }
}
