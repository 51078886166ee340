//! Why work on the gas ended without a result.

use super::super::resolve::Gap;
use crate::gas::cycle::Halt;

/// Why there is no result.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Ended {
    /// Whoever asked does not want it any more: no fault of the build.
    Stopped,
    /// Something is missing, or the numbers lead nowhere.
    Gap(Gap),
}

impl From<Gap> for Ended {
    fn from(gap: Gap) -> Self {
        Self::Gap(gap)
    }
}

impl From<Halt> for Ended {
    fn from(halt: Halt) -> Self {
        match halt {
            Halt::Stopped => Self::Stopped,
            Halt::NoPipe => Self::Gap(Gap::because("runner or primary has no length or no area")),
            Halt::Diverged => Self::Gap(Gap::because(
                "the gas does not settle at these sizes: look at runner, primary, collector and plenum",
            )),
        }
    }
}

impl Ended {
    /// The gap of work that nobody stops.
    pub fn gap(self) -> Gap {
        match self {
            Self::Stopped => Gap::because("stopped"),
            Self::Gap(gap) => gap,
        }
    }
}
