//! What single choices of a frame come to: a curve by one effort, computed once and kept. Regions and searches are made of
//! these, so a search that is begun again, or shared among machines, only computes what nobody has.

use super::columns::columns_of;
use super::frame::Frame;
use crate::candidate::breathing::{Breathing, Effort, Ended, breathing_of, report};
use crate::candidate::{Key, Stages, key};
use crate::response::{Choice, Columns};
use rayon::prelude::*;
use std::sync::Arc;

/// One machine's share of what is to be computed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Share {
    /// Which, from zero.
    pub index: usize,
    /// Of how many.
    pub of: usize,
}

impl Share {
    /// All of it.
    pub const WHOLE: Self = Self { index: 0, of: 1 };

    /// Whether the piece of work at `place` is its own.
    pub const fn has(self, place: usize) -> bool {
        place % self.of == self.index
    }
}

/// By what a point is computed, and at which speeds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct By {
    /// How deep.
    pub effort: Effort,
    /// At the speeds this effort begins with, so that columns of one depth can be held against those of another.
    pub speeds_of: Effort,
}

impl By {
    /// At the speeds of `speeds_of`.
    pub const fn at(effort: Effort, speeds_of: Effort) -> Self {
        Self { effort, speeds_of }
    }
}

/// Choices of one frame and what they came to.
pub struct Points<'a> {
    frame: &'a Frame,
    key: Key,
    stages: &'a Stages,
}

impl<'a> Points<'a> {
    /// Of `frame`.
    pub fn of(frame: &'a Frame, stages: &'a Stages) -> Self {
        Self { frame, key: frame.key(&[]), stages }
    }

    /// Stands for one point.
    fn key(&self, choice: &Choice, by: By) -> Key {
        key(&(self.key, choice, by))
    }

    /// What is known of a choice; inside, `None` where it has no curve.
    pub fn kept(&self, choice: &Choice, by: By) -> Option<Arc<Option<Columns>>> {
        self.stages.points.kept(self.key(choice, by))
    }

    /// The curve of a choice. `None` where no smooth lobe carries it or the gas does not settle.
    ///
    /// # Errors
    /// That it was stopped.
    pub fn computed(
        &self,
        choice: &Choice,
        by: By,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Arc<Option<Columns>>, Ended> {
        if let Some(kept) = self.kept(choice, by) {
            return Ok(kept);
        }
        let columns = match breathing_of(&self.frame.at(choice, self.stages)) {
            Ok(breathing) => columns(&breathing, by, stop)?,
            Err(_) => None,
        };
        let columns = Arc::new(columns);
        self.stages.keep_point(self.key(choice, by), &columns);
        Ok(columns)
    }
}

/// Columns of a curve; `None` where the gas does not settle.
///
/// # Errors
/// That it was stopped.
pub fn columns(breathing: &Breathing, by: By, stop: &(dyn Fn() -> bool + Sync)) -> Result<Option<Columns>, Ended> {
    let (level, effort) = (breathing.strongest(), by.effort);
    let speeds = breathing.speeds(by.speeds_of);
    let setup = breathing.turned(effort, &speeds, stop);
    let sample = |rpm: &f64| breathing.sample(&setup, (effort, level), *rpm, stop).map_err(Ended::from);
    let found: Result<Vec<_>, Ended> = speeds.par_iter().map(sample).collect();
    match found {
        Ok(found) => {
            let curve = report(breathing, effort, level, &found, None);
            Ok(Some(Columns { values: columns_of(&curve), speeds: curve.speed_rpm }))
        }
        Err(Ended::Stopped) => Err(Ended::Stopped),
        Err(Ended::Gap(_)) => Ok(None),
    }
}
