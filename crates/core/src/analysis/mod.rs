//! The one entrance: from a checked build to its report.
//!
//! [`analyze`](fn@analyze) computes the parts asked for, each cheap part at once. Results start cold in a fixed
//! order: the same document gives the same bits.

mod analyze;
mod beginning;
mod bill;
mod calibration;
mod causes;
mod cautions;
mod choose_hardware;
mod choose_words;
mod choosing;
mod compare;
mod control;
mod curve;
mod diagnosing;
mod drafting;
mod drawing;
mod dyno;
mod expecting;
mod findings;
mod following;
mod history;
mod lobes_apart;
mod order_card;
mod phasing;
mod phasing_curves;
mod phasing_words;
mod pull_file;
mod pulled;
mod pulling;
mod pulling_flags;
mod pulling_words;
mod readings;
mod rules_page;
mod score_columns;
mod scoring;
mod search_beside;
mod search_chances;
mod search_finals;
mod search_ground;
mod search_setup;
mod search_told;
mod search_words;
mod searching;
mod sensitivity;
mod service_build;
mod service_due;
mod service_failed;
mod service_log;
mod service_wear;
mod service_words;
mod servicing;
mod session_sheet;
mod shop;
mod speed_bought;
mod speed_choices;
mod springs_stay;
mod taught;
mod test_plan;
mod tolerance_words;
mod tolerating;
mod turning;
mod unknowns;
mod weighing;

pub use crate::begin::{Beginning, Known};
pub use crate::bench::{Heard, LineFormat, Measures, Rest, heard};
pub use crate::build::Build;
pub use crate::candidate::breathing::Effort;
pub use crate::candidate::{Keeper, Key, Stages};
pub use crate::choose::{Goal, Share, Start};
pub use crate::document::{
    Conflict, Difference, Fault, Faults, FormColumn, FormField, FormTable, Kind, MAX_BYTES, Merge, Side, adopt,
    differences, form_fields, json_schema, merge, pull_fields, service_fields, session_fields,
};
pub use crate::edit::{CardNumber, Edit, Event, SharedOfPulls, apply, apply_all};
pub use crate::glossary::{GLOSSARY, Term};
pub use crate::parts::{
    FitReport, LobeOutline, Part as ShelfPart, PartFigure, PartKind, fit, outlines, part_of, read_sheet, write_sheet,
};
pub use crate::pulls::file::{Holds, Mapped};
pub use crate::pulls::live::{Line as DynoLine, Live as LiveDyno};
pub use crate::quantity::{Dimension, Shown, UnitSystem, restate_finer, shown};
pub use crate::report::*;
pub use crate::response::Columns;
pub use crate::work::{Class, Halted, Job, Watch};
pub use analyze::{PartName, Request, analyze};
pub use beginning::{Asked, BeginningReport, CardCamReport, FamilyReport, beginning, card_cam_report, families};
pub use bill::money;
pub use calibration::{CalibrationJob, CalibrationStep};
pub use choosing::{ChooseJob, ChooseStep, CloudPoint};
pub use compare::{Comparison, compare};
pub use control::{ControlJob, film};
pub use curve::{CurveJob, CurveStep};
pub use diagnosing::{DiagnosisJob, DiagnosisStep};
pub use dyno::{dyno_of, pulls_of};
pub use expecting::expected_of;
pub use history::{Revision, history_of};
pub use lobes_apart::{LobesApart, lobes_apart};
pub use order_card::{ORDER_COLUMNS, order_card, order_cells, order_csv};
pub use phasing::{PhasingJob, PhasingStep};
pub use pull_file::pull_file;
pub use readings::{EventHandle, Reading, event_handles, readings};
pub use rules_page::rules_page;
pub use scoring::{ScoreJob, ScoreStep};
pub use search_setup::{BesideSetup, SearchSetup, SearchStep};
pub use searching::SearchJob;
pub use sensitivity::{Decision, SensitivityJob, SensitivityStep, decisions, effect};
pub use service_wear::WearOf;
pub use servicing::{service_of, wear_of};
pub use session_sheet::{ahead_of, played_of, sheet_csv, sheet_of};
pub use shop::{foretold, shop_of};
pub use taught::{Taught, taught_by};
pub use tolerating::{ToleranceJob, ToleranceStep};
pub use turning::ControlStep;
pub use weighing::{MarginMoved, TorqueMoved, WeighJob, WeighStep, Weighed};
