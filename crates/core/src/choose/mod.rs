//! What to choose and what to change: remedies of limits that are not met, and what changes torque most.

mod advisor;
mod aim;
mod change;
mod columns;
mod field;
mod frame;
mod goal;
mod ground;
mod guide;
mod idling;
mod kit;
mod life;
mod motion;
mod phasing;
mod points;
mod polish;
mod price;
mod region;
mod remedies;
mod schools;
mod score;
mod search;
mod shelf_parts;
mod spreads;
mod standing;
mod start;
mod write;

pub use advisor::Advisor;
pub use aim::Aim;
pub use change::titanium_valve;
pub use field::{Field, Foreseen};
pub use frame::Frame;
pub use goal::{Beside, Goal};
pub use ground::{Margins, Predicted, counts, standing};
pub use guide::{Guide, Proposal, Stood, Sweep, score};
pub use idling::{Idling, idle_vacuum};
pub use kit::{Kit, Workbench, on_ratio, open_kinds};
pub use life::{Interval, guide_wear, interval};
pub use motion::{Motion, in_motion, limiting_speeds};
pub use phasing::{Stand, Window, free, stands, window};
pub use points::{By, Points, Share, columns};
pub use polish::{Exact, NO_LOBE};
pub use price::{Priced, prices};
pub use region::{Region, Told, axes, figures_of, gas_of, plan_of};
pub use remedies::remedies;
pub use schools::{apart, by_card, differ, shown_value, why};
pub use score::{Better, points_of, ranks};
pub use search::{Pick, bests, fronts, nearest_made, pick, spread};
pub use shelf_parts::parts_that_fit;
pub use spreads::{
    Agreement, Band, Field as Toleranced, InFull, Responded, Responses, Run, Strays, angles, cast_of,
    fields as toleranced, found_quickly, model_of, reserves, respond, run_in_full,
};
pub use standing::{Bound, Kept, Margin, Reserves, Standing};
pub use start::Start;
pub use write::{Called, texts, written};
