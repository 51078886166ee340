//! What a search tells on the way: what it does, and every candidate as it comes.

use super::search_setup::SearchStep;
use crate::candidate::breathing::Effort;
use crate::choose::Told as Point;
use crate::report::{Evaluations, KnownBy, SearchPoint};
use crate::response::Figures;
use crate::work::{Watch, held};
use std::sync::Mutex;
use std::sync::atomic::{AtomicUsize, Ordering};

/// Candidates between two lines that tell of them.
const EVERY: usize = 4;

/// Who is told, and what has been.
pub(super) struct Told<'a, 'w> {
    pub watch: &'a Watch<'w, SearchStep>,
    points: Mutex<Vec<SearchPoint>>,
    screened: AtomicUsize,
    drafted: AtomicUsize,
    full: AtomicUsize,
}

impl<'a, 'w> Told<'a, 'w> {
    /// Nothing yet.
    pub fn new(watch: &'a Watch<'w, SearchStep>) -> Self {
        let none = AtomicUsize::default;
        Self { watch, points: Mutex::default(), screened: none(), drafted: none(), full: none() }
    }

    /// Something else is done now.
    pub fn doing(&self, doing: &str) {
        self.tell((0, 0), doing);
    }

    /// A point of a region.
    pub fn point(&self, doing: &str, point: &Point<'_>) {
        let (count, by) = match point.by {
            Effort::Screening => (&self.screened, KnownBy::Screened),
            _ => (&self.drafted, KnownBy::Drafted),
        };
        count.fetch_add(1, Ordering::Relaxed);
        held(&self.points).push(plain(point.figures, by));
        if point.done.is_multiple_of(EVERY) {
            self.tell((point.done, point.of), doing);
        }
    }

    /// A candidate in full, where it has a curve.
    pub fn full(&self, (done, of): (usize, usize), figures: Option<&Figures>) {
        self.full.fetch_add(1, Ordering::Relaxed);
        held(&self.points).extend(figures.map(|figures| plain(figures, KnownBy::Full)));
        self.tell((done, of), "computing finalists in full");
    }

    /// Candidates looked at.
    pub fn counts(&self) -> Evaluations {
        let count = |of: &AtomicUsize| of.load(Ordering::Relaxed);
        Evaluations { screened: count(&self.screened), drafted: count(&self.drafted), full: count(&self.full) }
    }

    fn tell(&self, (done, of): (usize, usize), doing: &str) {
        let points = held(&self.points).clone();
        (self.watch.report)(SearchStep { done, of, doing: doing.to_owned(), points });
    }
}

/// A point of which only the curve is known yet.
fn plain(figures: &Figures, by: KnownBy) -> SearchPoint {
    SearchPoint {
        kit: 0,
        by,
        choice: Vec::new(),
        decisions: Vec::new(),
        average_torque_nm: figures.average_torque,
        low_torque_nm: figures.thirds[0],
        power_wanted_kw: figures.power_wanted * 1e-3,
        peak_power_kw: figures.peak_power * 1e-3,
        control_rpm: None,
        interval: None,
        money_usd: 0.0,
        left: Vec::new(),
        holds: true,
        candidate: None,
    }
}
