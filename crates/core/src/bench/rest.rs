//! When a live reading has come to rest: it stays within a little for a while, and moves away before it can rest again.

use std::collections::VecDeque;

/// A reading has to stay for so long, s.
const STAYS: f64 = 0.6;
/// So many of the readings have to lie together: a line that was broken off reads less.
const MOST: f64 = 0.75;
/// It has moved away when it goes further than so many times what rest allows.
const AWAY: f64 = 6.0;

/// Watches readings of one instrument.
#[derive(Debug, Clone)]
pub struct Rest {
    within: f64,
    recent: VecDeque<(f64, f64)>,
    last: Option<f64>,
    moved: bool,
    was_held: bool,
    /// Whether the last reading jumped: one alone is a broken line, two are a move.
    jumped: bool,
}

impl Rest {
    /// Rest is to stay within `within`, SI.
    pub const fn new(within: f64) -> Self {
        Self { within, recent: VecDeque::new(), last: None, moved: true, was_held: false, jumped: false }
    }

    /// A reading at `at` seconds. `Some` where it has just come to rest anew: the mean of what was read meanwhile, or what a line
    /// that is held says.
    pub fn hear(&mut self, at: f64, value: f64, held: bool) -> Option<f64> {
        let first_held = held && !self.was_held;
        self.was_held = held;
        if first_held {
            return Some(self.rested(value));
        }
        let jumps = self.middle().is_some_and(|middle| (value - middle).abs() > self.within);
        if jumps && !self.jumped {
            self.jumped = true;
            return None;
        }
        self.jumped = false;
        if self.last.is_some_and(|last| (value - last).abs() > AWAY * self.within) {
            self.moved = true;
        }
        // What was heard before it moved says nothing of where it stands now.
        if jumps {
            self.recent.clear();
        }
        self.recent.push_back((at, value));
        while self.recent.front().is_some_and(|(then, _)| at - then > STAYS + 0.4) {
            self.recent.pop_front();
        }
        let middle = self.middle()?;
        let near = || self.recent.iter().map(|own| own.1).filter(|own| (own - middle).abs() <= 0.5 * self.within);
        let count = near().count();
        let stayed = self.recent.front().map_or(0.0, |(then, _)| at - then) >= STAYS;
        if !self.moved || !stayed || (count as f64) < MOST * self.recent.len() as f64 {
            return None;
        }
        let mean = near().sum::<f64>() / count as f64;
        Some(self.rested(mean))
    }

    /// The one in the middle of what was heard lately.
    fn middle(&self) -> Option<f64> {
        let mut sorted: Vec<f64> = self.recent.iter().map(|own| own.1).collect();
        sorted.sort_by(f64::total_cmp);
        sorted.get(sorted.len() / 2).copied()
    }

    fn rested(&mut self, value: f64) -> f64 {
        self.last = Some(value);
        self.moved = false;
        self.recent.clear();
        value
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Rests found while values come twenty times a second.
    fn rests(values: impl IntoIterator<Item = f64>) -> Vec<f64> {
        let mut watch = Rest::new(0.001);
        values.into_iter().enumerate().filter_map(|(i, value)| watch.hear(0.05 * i as f64, value, false)).collect()
    }

    #[test]
    fn each_place_is_taken_once() {
        let noise = |i: usize| 0.0003 * (i as f64).sin();
        let up = |from: f64, to: f64| (0..20).map(move |i| from + (to - from) * f64::from(i) / 20.0);
        let at = |value: f64| (0..60).map(move |i| value + noise(i));
        let found = rests(at(0.0).chain(up(0.0, 0.3)).chain(at(0.3)).chain(up(0.3, 0.1)).chain(at(0.1)));
        assert_eq!(found.len(), 3, "{found:?}");
        assert!((found[1] - 0.3).abs() < 0.0003 && (found[2] - 0.1).abs() < 0.0003);
    }

    #[test]
    fn what_creeps_trembles_or_stays_is_not_taken_again() {
        assert!(rests((0..100).map(|i| 0.002 * f64::from(i))).is_empty());
        assert!(rests((0..100).map(|i| if i % 4 < 2 { 0.0 } else { 0.003 })).is_empty());
        assert_eq!(rests(std::iter::repeat_n(0.2, 400)).len(), 1);
        // A knock of five times what rest allows is no new place.
        let knocked = std::iter::repeat_n(0.2, 40).chain([0.205, 0.205]).chain(std::iter::repeat_n(0.2, 40));
        assert_eq!(rests(knocked).len(), 1);
        // Lines broken off in the middle, one in five, keep nothing from resting.
        let broken = rests((0..60).map(|i| if i % 5 == 4 { 0.0 } else { 0.2 }));
        assert!(broken.len() == 1 && (broken[0] - 0.2).abs() < 1e-9, "{broken:?}");
    }

    #[test]
    fn a_held_line_is_taken_at_once_and_a_held_key_once() {
        let mut watch = Rest::new(0.001);
        assert_eq!(watch.hear(0.0, 0.25, true), Some(0.25));
        assert_eq!(watch.hear(0.05, 0.25, true), None);
        assert_eq!(watch.hear(0.10, 0.25, false), None);
        assert_eq!(watch.hear(0.15, 0.2502, true), Some(0.2502));
    }
}
