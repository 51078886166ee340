//! One candidate as the stages see it: its document resolved once, and each block of its report from
//! those inputs. Expensive stages are kept by the inputs they were computed from.

mod bench_work;
mod blocks;
pub mod breathing;
mod drawing;
mod follower;
mod inputs;
mod motion;
mod order;
mod stages;
mod strip;

pub use bench_work::cold_growth;
pub use blocks::{
    clearance, control, engine, lift, lobe, piston_clearance, retainer_gap, seat_reserve, spring, spring_at_lift,
    timing, valves_apart,
};
pub use drawing::drawing;
pub use follower::{LobeContact, lobe_contact, preload_band};
pub use inputs::{Computed, Gap, Inputs, Part, SideInputs, full_lift_at};
pub use motion::{tip_friction, train};
pub use stages::{LobeResult, Stage, Stages};
pub use strip::strip;
