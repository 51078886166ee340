//! Results of stages by their own resolved inputs, so that an edit recomputes what it touches.
//!
//! A key is a hash of 128 bits of the inputs' `Debug` text: floats print so that they read back to the same bits, so equal
//! keys mean equal inputs (two of a million different ones are equal with a chance of about 1 in 10^27). The core's
//! version is the life of the process.

use super::dynamics::TurnedLift;
use crate::cam::Lobe;
use crate::clearance::PistonClearance;
use crate::quantity::Length;
use crate::report::{
    CalibrationReport, ChooseReport, Curve, DiagnosisReport, DynamicsReport, Effect, MotionFitReport, OrderReport,
    PhasingReport, ScoreReport, SearchReport, ToleranceReport,
};
use crate::response::{Choice, Columns, Response};
use quick_cache::sync::Cache;
use siphasher::sip128::{Hasher128, SipHasher13};
use std::fmt::{self, Debug, Write};
use std::hash::Hasher;
use std::sync::Arc;

/// Stands for the inputs of a result.
pub type Key = u128;

/// The key of `inputs`.
pub fn key(inputs: &impl Debug) -> Key {
    let mut hashed = Hashed(SipHasher13::new());
    // Hashing takes every text.
    let _ = write!(hashed, "{inputs:?}");
    hashed.0.finish128().as_u128()
}

/// Text that is hashed as it is written.
struct Hashed(SipHasher13);

impl Write for Hashed {
    fn write_str(&mut self, text: &str) -> fmt::Result {
        self.0.write(text.as_bytes());
        Ok(())
    }
}

/// Entries a stage keeps; those used least make room. A session of dragging fills a few hundred.
const CAPACITY: usize = 1024;
/// Points that are kept: a search makes some thousand of them.
const POINTS: usize = 8 * CAPACITY;

/// Cached results of one stage.
#[derive(Debug)]
pub struct Stage<T, const MOST: usize = CAPACITY>(Cache<Key, Arc<T>>);

impl<T, const MOST: usize> Default for Stage<T, MOST> {
    fn default() -> Self {
        Self(Cache::new(MOST))
    }
}

impl<T, const MOST: usize> Stage<T, MOST> {
    /// The result for `key`, computed while it is not kept. Two that ask at once both compute it, to the same bits: in a pool
    /// of threads, one that waited for another could be holding the thread that the other needs.
    pub fn get(&self, key: Key, compute: impl FnOnce() -> T) -> Arc<T> {
        self.kept(key).unwrap_or_else(|| {
            let result = Arc::new(compute());
            self.keep(key, Arc::clone(&result));
            result
        })
    }

    /// The result for `key`, where it is kept.
    pub fn kept(&self, key: Key) -> Option<Arc<T>> {
        self.0.get(&key)
    }

    /// Whether nothing is kept.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// Everything that is kept, in no order.
    pub fn all(&self) -> Vec<(Key, Arc<T>)> {
        self.0.iter().collect()
    }

    /// Keeps a result.
    pub fn keep(&self, key: Key, result: Arc<T>) {
        self.0.insert(key, result);
    }
}

/// A lobe, or why there is none.
pub type LobeResult = Result<Lobe, String>;

/// Keeps points longer than a process lives.
pub trait Keeper: Debug + Send + Sync {
    /// One more.
    fn keep(&self, key: Key, point: &Option<Columns>);
}

/// Every cached stage. One of these may serve many analyses, also at once.
#[derive(Debug, Default)]
pub struct Stages {
    /// Lobes by card or points.
    pub lobes: Stage<LobeResult>,
    /// Closest approaches.
    pub clearances: Stage<PistonClearance>,
    /// Gaps between the heads.
    pub valve_gaps: Stage<Length>,
    /// What to grind.
    pub orders: Stage<Option<OrderReport>>,
    /// Whole curves of torque.
    pub curves: Stage<Curve>,
    /// What single cams came to, none where a cam has no curve; without speeds, figures of single trains and of engines at idle.
    pub points: Stage<Option<Columns>, POINTS>,
    /// Who is told of every such point, to keep it longer than this process lives.
    pub keeper: Option<Box<dyn Keeper>>,
    /// Responses of a curve to decisions.
    pub responses: Stage<Response>,
    /// The same over a wide region.
    pub wide: Stage<Response>,
    /// The same along one decision beside the cam.
    pub along: Stage<Response>,
    /// What the events come to.
    pub decided: Stage<Choice>,
    /// What there is to choose.
    pub choosing: Stage<ChooseReport>,
    /// What searches came to.
    pub searches: Stage<SearchReport>,
    /// Score boards.
    pub scores: Stage<ScoreReport>,
    /// Effects of decisions on a curve.
    pub effects: Stage<Vec<Effect>>,
    /// Limits under tolerances.
    pub tolerances: Stage<ToleranceReport>,
    /// What gas and trains stray by with one field off, the one way and the other, as figures; none where it moves nothing.
    pub strays: Stage<Option<[Vec<f64>; 2]>>,
    /// Cams turned.
    pub phasings: Stage<PhasingReport>,
    /// Fits to a pull.
    pub fits: Stage<CalibrationReport>,
    /// Fits to measured valve motion.
    pub train_fits: Stage<MotionFitReport>,
    /// What is wrong with measured curves.
    pub diagnoses: Stage<DiagnosisReport>,
    /// Valve trains in motion.
    pub motions: Stage<DynamicsReport>,
    /// How valves move over speed.
    pub lifts: Stage<Vec<TurnedLift>>,
    /// Gaps of a closed valve over the crank.
    pub closed_gaps: Stage<Vec<Length>>,
}

impl Stages {
    /// Keeps a point that was computed just now.
    pub fn keep_point(&self, key: Key, point: &Arc<Option<Columns>>) {
        self.points.keep(key, Arc::clone(point));
        if let Some(keeper) = &self.keeper {
            keeper.keep(key, point);
        }
    }

    /// Figures kept as points are; computed where nobody has them, and not kept where there are none.
    pub fn figures(&self, key: Key, compute: impl FnOnce() -> Option<Vec<f64>>) -> Option<Vec<f64>> {
        if let Some(kept) = self.points.kept(key) {
            return kept.as_ref().as_ref().map(|own| own.values.clone());
        }
        let values = compute()?;
        self.keep_point(key, &Arc::new(Some(Columns { speeds: Vec::new(), values: values.clone() })));
        Some(values)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rayon::prelude::*;

    #[test]
    fn equal_inputs_have_equal_keys_to_the_last_bit() {
        assert_eq!(key(&(0.1 + 0.2)), key(&0.300_000_000_000_000_04));
        assert_ne!(key(&(0.1 + 0.2)), key(&0.3));
    }

    #[test]
    fn what_was_used_last_stays_when_much_else_comes() {
        let stage: Stage<u128> = Stage::default();
        stage.get(7, || 7);
        for i in 100..(100 + 4 * CAPACITY as u128) {
            assert_eq!(*stage.get(7, || unreachable!("dropped after {i}")), 7);
            stage.get(i, || i);
        }
        let kept = (100..(100 + 4 * CAPACITY as u128)).filter(|i| stage.kept(*i).is_some()).count();
        assert!(kept <= CAPACITY, "{kept}");
    }

    #[test]
    fn nobody_waits_for_another_of_the_same_pool() {
        let pool = rayon::ThreadPoolBuilder::new().num_threads(2).build().unwrap();
        let (done, heard) = std::sync::mpsc::channel();
        pool.spawn(move || {
            let stage: Stage<u64> = Stage::default();
            // A result that itself runs on the pool: while it waits for its parts its thread takes up another that asks for it.
            let part = |i: u64| (0..200_000).fold(i, |sum, j| std::hint::black_box(sum ^ j));
            let asked = |_: u64| *stage.get(7, || (0..64).into_par_iter().map(part).sum());
            let _ = done.send((0..64).into_par_iter().map(asked).collect::<Vec<u64>>());
        });
        let all = heard.recv_timeout(std::time::Duration::from_secs(100)).expect("an answer");
        assert!(all.iter().all(|own| *own == all[0]));
    }
}
