//! The parts shelf: cams, lobes, lifters, pushrods, rockers, valves, retainers and springs as one buys them, with prices;
//! as a sheet, put into a candidate, checked for fit, and kept under a name of their own.

mod drags;
mod edited;
mod fit;
mod fitting;
mod keep_part;
mod kind;
mod outline;
mod part;
mod sheet;

pub use drags::{Drag, drags_between};
pub use edited::mark_edited;
pub use fit::{FitMargin, FitReport, FitVerdict, fit};
pub use fitting::fit_part;
pub use keep_part::part_of;
pub use kind::PartKind;
pub use outline::{LobeOutline, outlines};
pub use part::{Part, PartFigure};
pub use sheet::{read_sheet, write_sheet};
