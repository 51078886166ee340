//! The build document: JSON as people exchange it, checked against one table, read into typed parts.
//!
//! What each field may hold is checked here; whether fields agree with each other is a matter of [`crate::build`]. The text
//! stays as typed; edits change only the keys they name.

mod check;
mod difference;
mod edit;
mod fault;
mod field;
mod form;
mod merge;
mod node;
mod path;
mod print;
mod rows;
mod schema;
mod strict_json;
mod table;
mod tabular;
mod tolerated;
mod view;

pub use difference::{Difference, differences};
pub use edit::{set_field, set_source};
pub use fault::{Fault, Faults};
pub use field::{Field, Kind, Object};
pub use form::{FormColumn, FormField, FormTable, form_fields, pull_fields, service_fields, session_fields};
pub use merge::{Conflict, Merge, Take, adopt, merge};
pub use node::{Assumed, InputUsed, Ledger, Node, Origin, Side, of_value};
pub use path::{Step, get, join, steps};
pub use print::print;
pub use rows::{in_a_sentence, kind_of, spoken_label};
pub use schema::json_schema;
pub use strict_json::MAX_BYTES;
pub(crate) use strict_json::read as read_json;
pub use table::{
    BUILD, CALIBRATION, CAM, CANDIDATE, DYNO_TEST, ENGINE, EXHAUST_PORT, FORMAT, INTAKE_PORT, LIFTER, LIMIT_IDS, LOBE,
    MOST_OF_TRACE, MOST_POINTS, PULL, PUSHROD, READINGS, RETAINER, ROCKER, SERVICE_ENTRY, SESSION, SHELF_VALVE,
    SHOP_LIMIT, SOURCES, SPRING, TARGET, TRAIN, TRAIN_FIT, VERSION, limit_dimension, limit_figure,
};
pub use tabular::{cells, paste, set_rows};
pub use tolerated::{Tolerated, by_id, by_place, is_of};
pub use view::{CandidateView, candidates, shared};
pub(crate) use view::{candidate_or_first, unknown_candidate};

pub(crate) use check::{check_object, check_patch_keys};
pub(crate) use difference::text_of;
pub(crate) use edit::{put_value, value_of};
pub(crate) use path::get_mut;
pub(crate) use tabular::{columns_of, table_of};
