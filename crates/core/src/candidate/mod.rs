//! One candidate as the stages see it: its document resolved once, and each block of its report from
//! those inputs. Expensive stages are kept by the inputs they were computed from.

mod assembly;
mod at_speed;
mod bench;
mod bench_work;
mod blocks;
pub mod breathing;
mod drawing;
pub mod dynamics;
mod follower;
mod motion;
mod opening_pressure;
mod order;
mod report;
mod resolve;
mod sessions;
mod spring;
mod stages;
mod strip;

pub use assembly::assembly;
pub use at_speed::{Growing, Moved, at_speed, motion_of_valves, quiet_gap, radial_at_speed};
pub use bench::bench;
pub use bench_work::{after_work, cold_growth};
pub use blocks::{
    bore_wall, clearance, closed_gap, control, engine, lift, lobe, piston_clearance, retainer_gap, rigid_control,
    seat_reserve, spring_at_lift, timing, valves_apart,
};
pub use drawing::drawing;
pub use follower::{LobeContact, lobe_contact, preload_band};
pub use motion::{tip_friction, train};
pub use opening_pressure::{estimated_pressure, outside};
pub use report::{block, note_assumed, worded};
pub use resolve::{Gap, Part, Resolved, ResolvedSide, full_lift_at, lack, together};
pub use sessions::{
    Came, cam_as_it_came, measured_by, most_play, session, session_ahead, session_played, session_sheet, sessions,
};
pub use spring::spring;
pub use stages::{Keeper, Key, LobeResult, Stage, Stages, key};
pub use strip::strip;
