//! The analysis as it is answered: one fixed unit per quantity, named in its key. Every event key
//! names its reference; crank angle of curves counts from firing top dead centre, 0..720.

/// Derives what every part of the report has.
macro_rules! report {
    ($($(#[$doc:meta])* pub struct $name:ident { $($(#[$field_doc:meta])* $field:ident: $kind:ty,)+ })+) => {
        $($(#[$doc])*
        #[derive(Debug, Clone, PartialEq, Serialize)]
        #[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
        pub struct $name { $($(#[$field_doc])* pub $field: $kind,)+ })+
    };
}

mod assembly;
mod at_speed;
mod bench;
mod block;
mod breathing;
mod choosing;
mod diagnosis;
mod drawing;
mod dynamics;
mod history;
mod limit;
mod measured_motion;
mod order;
mod owner;
mod parts;
mod phasing;
mod pulls;
mod scoring;
mod searching;
mod service;
mod session;
mod shop;
mod spring;
mod timing;
mod tolerance;
mod train;

pub use assembly::{AssemblyLine, AssemblyReport, LineState};
pub use at_speed::{AtSpeedReport, AtSpeedSide, GrowthTerm, MarkReport};
pub use bench::{BenchFinding, BenchVerdict};
pub use block::{Block, Named, Sides};
pub use breathing::{
    BreathingReport, Curve, DipReport, EnergyReport, FigureReport, FrictionReport, IdleQuality, IdleReport, PeakReport,
    StandardAirReport, TraceReport,
};
pub use choosing::{
    BecauseReport, BrokenReport, CalibratedOn, CalibrationReport, ChooseReport, DecisionReport, DifferReport, Effect,
    ExplainsReport, FieldTexts, FiguresReport, FittedField, FollowReport, HardwareReport, OffReport, ProposalReport,
    ReserveReport, ShortReport, StandsAt,
};
pub use diagnosis::{CauseReport, DiagnosisReport, SymptomReport};
pub use drawing::{DrawingReport, FlowPoint, PocketDrawing, SpringDrawing, ValveDrawing};
pub use dynamics::{
    ChoiceReport, DynamicsReport, DynamicsSide, FilmReport, FilmSide, LimitedBy, MovedReport, SpeedBought, Topic,
    TrainShare, WornReport,
};
pub use history::{HistoryEvent, HistoryKind, HistoryReport};
pub use limit::{
    LimitReport, LimitShown, MeasureNext, NeedReport, Place, Remedy, RemedyChange, RemedyPart, Sense, Verdict, Worsened,
};
pub use measured_motion::{MotionConstant, MotionFitReport, MotionLimit, MotionTrace};
pub use order::{Bill, Machining, NeverTogether, OrderCard, OrderFact, OrderLine, OrderPart, PartState};
pub use owner::{OwnerReport, OwnerTorque, TorqueCurve};
pub use parts::{
    ClearanceReport, ControlReport, EngineReport, LiftReport, LobeReport, SpringsStay, StripReport, ValveClearance,
};
pub use phasing::{PhasingReport, PhasingTorque, TimingStep};
pub use pulls::{
    Believed, CombinationReport, DifferenceReport, DriftReport, DynoReport, FlagKind, HeldWindows, MeanFigure,
    MeasuredRank, OverSpeedReport, PlannedPull, PointIs, PullColumn, PullFileReport, PullFlag, PullReport, PullRun,
    PullsReport, RepeatsReport, TestPlanReport,
};
pub use scoring::{PowerCosts, ScoreColumn, ScoreReport, ScoreRow};
pub use searching::{
    BesideDiffer, BindReport, BoundReport, Decided, DecidedShown, Evaluations, FinalistReport, GoalReport,
    ImpossibleReport, KitPart, KitReport, KnownBy, MoreReport, PriceReport, SearchPoint, SearchReport,
};
pub use service::{DueReport, FailureReport, ServiceEntry, ServiceReport, ValveTrend, WearTrend};
pub use session::{
    ExpectedFigure, ExpectedReport, FigureNumbers, Gauge, LobeFile, NextCell, NextReading, PlayedReading,
    SessionFigure, SessionReport, SessionSheet, SessionVerdict, SheetRow, SheetTable, Suggestion, Suspect,
};
pub use shop::{ShopBuild, ShopConstant, ShopGain, ShopLevel, ShopNext, ShopReport, ShrunkConstant};
pub use spring::{CoilReport, HeightAt, HeightPlan, HeightSheet, SpringReport, SurgeMeets};
pub use timing::{DurationAt, SideTiming, TimingReport};
pub use tolerance::{
    Chance, Driver, GapBand, MeasureFirst, OverlapBands, ToleranceLimit, ToleranceRemedy, ToleranceReport,
    TolerancedField,
};
pub use train::{
    BleedReport, BudgetStep, FlexShare, LashReport, MatchReport, OrderCheck, OrderReport, PreloadReport, PreloadSchool,
    PushrodReport, RockerReport, RunningDurations, TrainReport, WorkReport,
};

use crate::document::Assumed;
use crate::quantity::Scale;
use serde::Serialize;

report! {
    /// The answer to a build.
    pub struct Analysis {
        /// What all candidates share.
        engine: Block<EngineReport>,
        /// One entry for each candidate asked for.
        candidates: Vec<CandidateReport>,
        /// Every default that was used.
        assumed: Vec<Assumed>,
        /// Sentences a builder should read.
        warnings: Vec<String>,
        /// How lengths and angles of curves are shown.
        scales: Scales,
    }

    /// Factors that show the curves in either system.
    pub struct Scales {
        /// Lengths in inches.
        length_inch: Scale,
        /// Lengths in millimetres.
        length_metric: Scale,
        /// Forces in pounds.
        force_inch: Scale,
        /// Forces in newtons.
        force_metric: Scale,
        /// Crank angles.
        angle: Scale,
        /// Flows in cubic feet a minute.
        flow_inch: Scale,
        /// Flows in litres a second.
        flow_metric: Scale,
        /// Torques in pound-feet.
        torque_inch: Scale,
        /// Torques in newton metres.
        torque_metric: Scale,
        /// Powers in horsepower.
        power_inch: Scale,
        /// Powers in kilowatts.
        power_metric: Scale,
        /// Pressures in psi.
        pressure_inch: Scale,
        /// Pressures in kilopascals.
        pressure_metric: Scale,
        /// Temperatures in Fahrenheit.
        temperature_inch: Scale,
        /// Temperatures in Celsius.
        temperature_metric: Scale,
    }

    /// One candidate.
    pub struct CandidateReport {
        /// Stable identifier.
        id: String,
        /// Name.
        name: String,
        /// The engine as this candidate has it, its changes made.
        engine: Block<EngineReport>,
        /// Events and durations.
        timing: Block<TimingReport>,
        /// Curves over the crank.
        strip: Block<StripReport>,
        /// Lift at lobe and valve.
        lift: Block<Sides<LiftReport>>,
        /// Follower motion.
        lobe: Block<Sides<LobeReport>>,
        /// From lobe to valve, turning slowly.
        train: Block<Sides<TrainReport>>,
        /// Spring package.
        spring: Block<Sides<SpringReport>>,
        /// The hand check.
        control: Block<Sides<ControlReport>>,
        /// What must not touch.
        clearance: Block<ClearanceReport>,
        /// The same at speed, term by term.
        at_speed: Block<AtSpeedReport>,
        /// How the cam may be turned.
        phasing: Block<PhasingReport>,
        /// How likely limits fail under the tolerances.
        tolerance: Block<ToleranceReport>,
        /// To scale, for the drawing.
        drawing: Block<DrawingReport>,
        /// Torque and power over speed; seconds of work, only when asked for.
        breathing: Block<BreathingReport>,
        /// Torque by cams computed around this one, where they were.
        following: Block<FollowReport>,
        /// Both valves in motion; seconds of work, only when asked for.
        dynamics: Block<DynamicsReport>,
        /// Every rule with need, have and margin.
        limits: Vec<LimitReport>,
        /// What readings of the bench say of the fields they stand for; empty while none was entered.
        bench: Vec<BenchFinding>,
        /// Sessions at the bench; empty while there is none.
        sessions: Vec<SessionReport>,
        /// Putting it together; absent where it was not asked for.
        assembly: Option<AssemblyReport>,
        /// Whether the springs can stay, in a sentence; with limits.
        springs_stay: Option<SpringsStay>,
        /// What to measure next, what settles most first; with limits.
        measure_next: Vec<MeasureNext>,
    }
}
