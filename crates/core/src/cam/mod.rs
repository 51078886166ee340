//! The cam: events and card numbers, the lobe each card describes, and where it stands on the crank.

mod bspline;
mod card;
pub mod contact;
mod fit;
mod lobe;
mod measured;
mod phasing;
mod refusal;
mod resolve;
mod shape;
mod synth;

pub use card::{Check, FlatFoot, LobeCard, height_006, height_050, height_200};
pub use lobe::{Flank, Lobe, Motion};
pub use measured::{ProfileRefusal, lobe_of_points};
pub use phasing::{Events, Phasing};
pub use refusal::{LobeRefusal, nose_room};
pub use resolve::{LobeSource, assumed_seat_timing, read_lobe, read_phasing};
pub use synth::lobe_of_card;
