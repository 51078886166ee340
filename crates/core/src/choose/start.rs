//! Where a search begins and what it leaves as it is: a whole new cam with its hardware, or only a part of that.

use super::frame::Frame;
use crate::parts::PartKind;
use crate::response::Decision;
use serde::{Deserialize, Serialize};

/// What may be changed; everything else is held.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Start {
    /// The cam and what runs on it.
    #[default]
    NewCam,
    /// Only the rockers' ratio.
    Ratio,
    /// Only springs and retainers.
    Springs,
    /// Only when the whole cam runs: a key, a gear, a bushing.
    Timing,
    /// Compression, runner and primary instead of a cam.
    Breathing,
}

/// What goes with a new cam.
const HARDWARE: [PartKind; 5] =
    [PartKind::Lifter, PartKind::Pushrod, PartKind::Rocker, PartKind::Retainer, PartKind::Spring];

impl Start {
    /// Every one.
    pub const ALL: [Self; 5] = [Self::NewCam, Self::Ratio, Self::Springs, Self::Timing, Self::Breathing];

    /// Its word.
    pub const fn word(self) -> &'static str {
        match self {
            Self::NewCam => "new_cam",
            Self::Ratio => "ratio",
            Self::Springs => "springs",
            Self::Timing => "timing",
            Self::Breathing => "breathing",
        }
    }

    /// The one of that word.
    pub fn from_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|start| start.word() == word)
    }

    /// Decisions that are open: those that the candidate has.
    pub fn decisions(self, frame: &Frame) -> Vec<Decision> {
        let open: &[Decision] = match self {
            Self::NewCam => &Decision::LOBES,
            Self::Ratio => &[Decision::Ratio],
            Self::Springs => &[],
            Self::Timing => &[Decision::Advance],
            Self::Breathing => &[Decision::Compression, Decision::Runner, Decision::Primary],
        };
        open.iter().copied().filter(|decision| frame.now().get(*decision).is_some()).collect()
    }

    /// Kinds of parts that may be exchanged.
    pub const fn kinds(self) -> &'static [PartKind] {
        match self {
            Self::NewCam => &HARDWARE,
            Self::Ratio => &[PartKind::Rocker, PartKind::Pushrod],
            Self::Springs => &[PartKind::Retainer, PartKind::Spring],
            Self::Timing | Self::Breathing => &[],
        }
    }
}
