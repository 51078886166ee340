//! Instruments of the bench: how they are reached, what they send, and stand-ins for them.

mod hub;
mod reached;
pub mod stand_in;
pub mod stand_in_dyno;
mod watched;

pub use hub::{Hub, Listening};
pub use reached::{Reached, Trouble};
pub use watched::{LiveLine, LiveState};

use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::LineFormat;
use utoipa::ToSchema;

/// An instrument as the shop set it up.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Instrument {
    /// What the shop calls it.
    pub name: String,
    /// Where it is: `tcp 127.0.0.1:4001`, or `serial /dev/ttyUSB0 9600`.
    pub at: String,
    /// How it writes.
    pub format: LineFormat,
}

/// Longest name, and texts of a format.
const LONGEST: usize = 60;

impl Instrument {
    /// The same, checked.
    ///
    /// # Errors
    /// Which of its texts cannot be, and what it needs.
    pub fn checked(self) -> Result<Self, Trouble> {
        let too_long = |text: &String| text.len() > LONGEST || text.chars().any(char::is_control);
        if self.name.trim().is_empty() || too_long(&self.name) || self.name.contains('/') {
            return Err(Trouble("an instrument needs a name of at most 60 letters, without a slash".to_owned()));
        }
        if [&self.format.unit, &self.format.before, &self.format.hold].into_iter().any(too_long) {
            return Err(Trouble("texts of a format have at most 60 letters".to_owned()));
        }
        if self.format.decimals > 9 {
            return Err(Trouble("a number leaves out at most 9 digits behind its point".to_owned()));
        }
        Reached::of(&self.at)?;
        Ok(self)
    }
}
