//! A cam degreed in: angles of a wheel where a flank passes a height, held against where the lobe should pass it.

use super::repeated::repeated;
use crate::cam::{Flank, Lobe};
use crate::quantity::Length;

/// One reading of the wheel, crank degrees from firing top dead centre of the overlap, before it negative.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Read {
    /// Height at which it was read, m: above the base, or below full lift.
    pub height: f64,
    /// Which flank.
    pub flank: Flank,
    /// The wheel.
    pub deg: f64,
}

/// Where a lobe should pass heights.
#[derive(Debug, Clone, Copy)]
pub struct Expected<'a> {
    /// The lobe.
    pub lobe: &'a Lobe,
    /// Crank degrees of full lift.
    pub centre: f64,
    /// Times the lobe's lift where the dial stands: one on the lifter.
    pub ratio: f64,
    /// Lash where the dial stands, m: none on the lifter, or with lash taken out.
    pub lash: f64,
    /// Whether heights count down from full lift.
    pub from_top: bool,
}

impl Expected<'_> {
    /// Crank degrees at which a flank passes a height; `None` where it never does.
    pub fn at(&self, height: f64, flank: Flank) -> Option<f64> {
        let lift =
            if self.from_top { self.lobe.lift().si() - height / self.ratio } else { (height + self.lash) / self.ratio };
        let away = 2.0 * self.lobe.flank_angle(Length::from_si(lift), flank)?;
        Some(match flank {
            Flank::Opening => self.centre - away,
            Flank::Closing => self.centre + away,
        })
    }
}

/// What was read at one height on both flanks, crank degrees.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AtHeight {
    /// The height, m.
    pub height: f64,
    /// Opening and closing, the mean of what was read.
    pub read: (f64, f64),
    /// Later than expected, the mean of both flanks.
    pub late: f64,
    /// Longer than expected.
    pub longer: f64,
}

impl AtHeight {
    /// Crank degrees between both.
    pub fn duration(&self) -> f64 {
        self.read.1 - self.read.0
    }

    /// The middle of both.
    pub fn middle(&self) -> f64 {
        0.5 * (self.read.0 + self.read.1)
    }
}

/// A lobe degreed in.
#[derive(Debug, Clone, PartialEq)]
pub struct Degreed {
    /// Every height that was read on both flanks and that the lobe passes, in the order of reading.
    pub heights: Vec<AtHeight>,
    /// Crank degrees of full lift, as it stands.
    pub centre: f64,
    /// Crank degrees later than expected, the mean over heights; earlier negative.
    pub late: f64,
    /// Largest less smallest of that over the heights.
    pub apart: f64,
    /// Largest difference between two readings of one height and flank.
    pub repeats_within: f64,
}

/// What readings come to; `None` without a height that was read on both flanks and that the lobe passes.
pub fn degreed(readings: &[Read], expected: &Expected<'_>) -> Option<Degreed> {
    let mut heights: Vec<f64> = Vec::new();
    for read in readings {
        if !heights.iter().any(|known| is_same(*known, read.height)) {
            heights.push(read.height);
        }
    }
    let of = |height: f64, flank: Flank| -> Vec<f64> {
        readings.iter().filter(|own| own.flank == flank && is_same(own.height, height)).map(|own| own.deg).collect()
    };
    let at = |height: &f64| {
        let (opens, closes) = (mean(&of(*height, Flank::Opening))?, mean(&of(*height, Flank::Closing))?);
        let wanted = (expected.at(*height, Flank::Opening)?, expected.at(*height, Flank::Closing)?);
        let (early, later) = (opens - wanted.0, closes - wanted.1);
        Some(AtHeight { height: *height, read: (opens, closes), late: 0.5 * (early + later), longer: later - early })
    };
    let found: Vec<AtHeight> = heights.iter().filter_map(at).collect();
    let lates: Vec<f64> = found.iter().map(|own| own.late).collect();
    let late = mean(&lates)?;
    let flanks = heights.iter().flat_map(|height| [Flank::Opening, Flank::Closing].map(|flank| of(*height, flank)));
    Some(Degreed {
        centre: expected.centre + late,
        apart: spread(&lates),
        repeats_within: flanks.map(|own| spread(&own)).fold(0.0, f64::max),
        heights: found,
        late,
    })
}

/// How readings may have been taken that cannot be as they are.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Misread {
    /// Before and after top dead centre exchanged.
    Sides,
    /// The wheel stands on the other top dead centre.
    OtherTop,
    /// Opening typed as closing.
    Flanks,
    /// As events are quoted: from the dead centre each is near, whichever way.
    AsQuoted,
}

/// Readings that are further off than this in the mean are questioned, degrees: more than a tooth of a chain's sprocket.
const QUESTIONED: f64 = 12.0;
/// Read another way they must agree within this.
const EXPLAINED: f64 = 5.0;

/// What explains readings that are far off; `None` where they are not, or nothing does.
pub fn misread(readings: &[Read], expected: &Expected<'_>) -> Option<Misread> {
    let off = |how: Option<Misread>| {
        let read = |own: &Read| how.map_or(*own, |how| how.mended(own, expected));
        let apart = |own: Read| Some((own.deg - expected.at(own.height, own.flank)?).abs());
        mean(&readings.iter().map(read).filter_map(apart).collect::<Vec<f64>>())
    };
    if off(None)? < QUESTIONED {
        return None;
    }
    Misread::ALL.into_iter().find(|how| off(Some(*how)).is_some_and(|off| off < EXPLAINED))
}

impl Misread {
    /// All, in the order in which they are looked for: as events are quoted happens most.
    const ALL: [Self; 4] = [Self::AsQuoted, Self::Sides, Self::Flanks, Self::OtherTop];

    /// The reading as it would be if it was taken that way.
    fn mended(self, read: &Read, expected: &Expected<'_>) -> Read {
        match self {
            Self::AsQuoted => quoted(read, expected.centre),
            Self::Sides => Read { deg: -read.deg, ..*read },
            Self::Flanks => {
                let flank = if read.flank == Flank::Opening { Flank::Closing } else { Flank::Opening };
                Read { flank, ..*read }
            }
            Self::OtherTop => {
                let wanted = expected.at(read.height, read.flank).unwrap_or(read.deg);
                Read { deg: read.deg + 360.0 * ((wanted - read.deg) / 360.0).round(), ..*read }
            }
        }
    }
}

/// A reading as events are quoted, on the wheel: intake opens before top and closes after bottom dead centre, exhaust opens before
/// bottom and closes after top.
fn quoted(read: &Read, centre: f64) -> Read {
    let deg = match (centre > 0.0, read.flank) {
        (true, Flank::Opening) => -read.deg,
        (true, Flank::Closing) => 180.0 + read.deg,
        (false, Flank::Opening) => -180.0 - read.deg,
        (false, Flank::Closing) => read.deg,
    };
    Read { deg, ..*read }
}

/// Whether two heights are one: typed the same.
fn is_same(a: f64, b: f64) -> bool {
    (a - b).abs() < 1e-7
}

fn mean(values: &[f64]) -> Option<f64> {
    Some(repeated(values)?.mean)
}

fn spread(values: &[f64]) -> f64 {
    repeated(values).map_or(0.0, |own| own.spread)
}
