//! What is read on the bench, as figures: readings and their spread, a degree wheel, a map of lobes, springs and where they go,
//! compression and leak-down; lines of instruments and when they rest. Pure arithmetic: what a reading stands for in a build is made of it elsewhere.

mod degree_in;
mod leak;
mod line;
mod lobe_map;
mod repeated;
mod rest;
mod springs;
mod stop;

pub use degree_in::{AtHeight, Degreed, Expected, Misread, Read, degreed, misread};
pub use leak::{compression_spread, leak_area, leak_share};
pub use line::{Heard, LineFormat, Measures, heard};
pub use lobe_map::{Compared, Mapped, caliper_lift, compared, mapped};
pub use repeated::{Repeated, pooled, repeated};
pub use rest::Rest;
pub use springs::{Fitted, Tested, fitted, load_at};
pub use stop::{Cranked, wheel_error};
