//! The service log of a document as figures: entries by their days, and the readings of every valve as lines between two renewals.

use crate::build::Build;
use crate::document::{Ledger, Node, Side, of_value};
use crate::quantity::{Force, Length};
use crate::service::{CountedIn, Line, Used, Wear, day, in_order, used};
use crate::words::{ServiceEvent, ServicePart, Warmth, Word};
use serde_json::Value;
use time::Date;

/// A valve: its cylinder and side.
pub(super) type Valve = (usize, Side);

/// One entry.
pub(super) struct Entry {
    pub id: String,
    pub field: String,
    pub date: String,
    pub day: Option<Date>,
    pub at: String,
    pub used: Option<Used>,
    pub event: ServiceEvent,
    pub candidate: Option<String>,
    pub changed: Vec<ServicePart>,
    /// What was read of each kind of wear, SI, in the order of [`Wear::ALL`].
    read: [Vec<(Valve, f64)>; 4],
    pub why: String,
    pub finding: String,
    pub limit: Option<String>,
    pub note: String,
    /// Why it is not counted with; empty where it is.
    pub problem: String,
}

/// The log, by its days.
pub(super) struct Log {
    pub entries: Vec<Entry>,
    /// What use is counted in.
    pub counted_in: CountedIn,
}

/// What was read of one valve between two renewals; the last of a valve is the one that goes on.
pub(super) struct Run {
    pub valve: Valve,
    pub line: Line,
    pub goes_on: bool,
    /// Places of the entries it was read in; none for what it had as it was built.
    read_at: Vec<usize>,
    /// Why it begins where no renewal is written down.
    mended: Option<Mended>,
}

/// A valve that reads by more than chance what wear cannot bring about.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Mended {
    /// Places of the entry it was read in, and of the one before it.
    pub entries: (usize, usize),
    pub valve: Valve,
    /// By how much it reads better, SI.
    pub by: f64,
}

impl Run {
    /// What a reading of this valve, taken in the entry at `place`, has gone against all wear since the last one.
    fn mended(&self, wear: Wear, place: usize, value: f64) -> Option<Mended> {
        let (way, _) = wear.cannot()?;
        let by = way * (value - self.line.points.last()?.1);
        (by > wear.no_chance()).then_some(Mended { entries: (place, *self.read_at.last()?), valve: self.valve, by })
    }
}

impl Log {
    /// Of a document; use is counted in what most entries say, or by what the engine is for. An entry after `today` does not count,
    /// but for a day by which clocks of the world differ.
    pub(super) fn of(build: &Build, today: Option<Date>) -> Self {
        let ledger = Ledger::default();
        let shared = build.shared();
        let nodes = shared.build(&ledger).children("service");
        let mut entries: Vec<Entry> = nodes.iter().filter_map(read).collect();
        // Entries of one day stand as they are written.
        entries.sort_by_key(|own| own.day);
        if let Some(last) = today.and_then(Date::next_day) {
            for own in entries.iter_mut().filter(|own| own.day.is_some_and(|day| day > last)) {
                own.problem = "its day is still to come: another year?".into();
            }
        }
        let said = |of: CountedIn| entries.iter().filter(|own| own.used.is_some_and(|used| used.of == of)).count();
        let used_for = crate::words::Use::from_word(shared.build(&ledger).word("use").unwrap_or_default());
        let usual = CountedIn::of(used_for);
        let all = [CountedIn::Miles, CountedIn::Hours, CountedIn::Passes];
        let counted_in = all.into_iter().fold(usual, |best, own| if said(own) > said(best) { own } else { best });
        let mut log = Self { entries, counted_in };
        log.question();
        log
    }

    /// Entries that cannot be counted with, and why.
    fn question(&mut self) {
        let unit = self.counted_in.word();
        for own in &mut self.entries {
            if let Some(used) = own.used.filter(|used| used.of != self.counted_in) {
                own.problem = format!("counted in {}, most entries in {unit}", used.of.word());
            }
        }
        let counted: Vec<usize> =
            (0..self.entries.len()).filter(|place| self.entries[*place].amount().is_some()).collect();
        let amounts: Vec<f64> = counted.iter().filter_map(|place| self.entries[*place].amount()).collect();
        for (place, is_kept) in counted.into_iter().zip(in_order(&amounts)) {
            if !is_kept {
                self.entries[place].problem =
                    "out of order: less use on a later day, or more on an earlier one; a slip, or another engine?"
                        .into();
            }
        }
    }

    /// Entries that count, with their use.
    pub(super) fn counted(&self) -> impl Iterator<Item = (&Entry, f64)> {
        self.entries.iter().filter_map(|own| Some((own, own.amount()?)))
    }

    /// The candidate that is in the engine, by the last entry that names one.
    pub(super) fn in_engine(&self) -> Option<&str> {
        self.entries.iter().rev().find_map(|own| own.candidate.as_deref())
    }

    /// How far it has run.
    pub(super) fn now(&self) -> Option<f64> {
        self.counted().last().map(|own| own.1)
    }

    /// Days with the use they had.
    fn dated(&self) -> impl Iterator<Item = (Date, f64)> {
        self.counted().filter_map(|(own, at)| Some((own.day?, at)))
    }

    /// The last of them.
    pub(super) fn last_dated(&self) -> Option<(Date, f64)> {
        self.dated().last()
    }

    /// By how much it runs in a day, from the first entry to the last.
    pub(super) fn per_day(&self) -> Option<f64> {
        let ((first, from), (last, to)) = (self.dated().next()?, self.last_dated()?);
        let days = (last - first).whole_days();
        (days >= LEAST_DAYS && to > from).then(|| (to - from) / days as f64)
    }

    /// The day a use is expected on.
    pub(super) fn day_of(&self, at: f64) -> Option<Date> {
        let (last, now) = self.last_dated()?;
        let days = (at - now) / self.per_day()?;
        let days = days.is_finite().then_some(days.clamp(-MOST_DAYS, MOST_DAYS))?;
        last.checked_add(time::Duration::days(days.round() as i64))
    }

    /// Readings of one kind of wear as lines, which end where something was renewed or reads as if it had been. `new`: what a valve had
    /// when it was put together, where the build says it.
    pub(super) fn runs(&self, wear: Wear, new: impl Fn(Side) -> Option<f64>) -> (Vec<Run>, bool) {
        let mut runs: Vec<Run> = Vec::new();
        let mut as_built = false;
        let mut is_first = true;
        for (place, entry) in self.entries.iter().enumerate() {
            let Some(at) = entry.amount() else { continue };
            for (valve, value) in entry.read_of(wear) {
                let own = runs.iter().position(|run| run.valve == *valve && run.goes_on);
                let mended = own.and_then(|own| runs[own].mended(wear, place, *value));
                let own = match own.filter(|_| mended.is_none()) {
                    Some(own) => own,
                    None => {
                        own.into_iter().for_each(|own| runs[own].goes_on = false);
                        // Nothing renewed yet and nothing read at the start: it began as it was built.
                        let start = new(valve.1).filter(|_| is_first && at > 0.0 && mended.is_none());
                        as_built |= start.is_some();
                        let points = start.map(|value| (0.0, value)).into_iter().collect();
                        let line = Line { points };
                        runs.push(Run { valve: *valve, line, goes_on: true, read_at: Vec::new(), mended });
                        runs.len() - 1
                    }
                };
                runs[own].line.points.push((at, *value));
                runs[own].read_at.push(place);
            }
            if wear.is_renewed(entry.event, &entry.changed) {
                runs.iter_mut().for_each(|run| run.goes_on = false);
                is_first = false;
            }
        }
        (runs, as_built)
    }

    /// Readings that wear cannot bring about.
    pub(super) fn mended(&self, wear: Wear) -> Vec<Mended> {
        self.runs(wear, |_| None).0.iter().filter_map(|run| run.mended).collect()
    }
}

/// Fewest days that tell how much an engine runs, and most that are looked ahead.
const LEAST_DAYS: i64 = 14;
const MOST_DAYS: f64 = 36_500.0;

impl Entry {
    /// What was read of one kind of wear, SI.
    pub(super) fn read_of(&self, wear: Wear) -> &[(Valve, f64)] {
        // Readings stand in the order of the kinds.
        &self.read[wear as usize]
    }

    /// Use where it counts.
    pub(super) fn amount(&self) -> Option<f64> {
        self.used.filter(|_| self.problem.is_empty()).map(|own| own.amount)
    }
}

fn read(node: &Node<'_>) -> Option<Entry> {
    let readings = node.child("readings");
    let is_warm = readings.word("engine_is").and_then(Warmth::from_word).is_some_and(|own| own != Warmth::Cold);
    let counts = |wear: Wear| wear != Wear::Lash || !is_warm;
    let of = |wear: Wear| {
        readings.cells(wear.key()).into_iter().filter(|_| counts(wear)).filter_map(|row| reading(wear, row)).collect()
    };
    let text = |key: &str| node.word(key).unwrap_or_default().to_owned();
    Some(Entry {
        id: text("id"),
        field: node.path().to_owned(),
        day: day(&text("date")),
        date: text("date"),
        used: used(&text("at")),
        at: text("at"),
        event: ServiceEvent::from_word(node.word("event")?)?,
        candidate: node.word("candidate").map(str::to_owned),
        changed: node.words("changed").into_iter().filter_map(ServicePart::from_word).collect(),
        read: Wear::ALL.map(of),
        why: text("why"),
        finding: text("finding"),
        limit: node.word("limit").map(str::to_owned),
        note: text("note"),
        problem: String::new(),
    })
}

fn reading(wear: Wear, row: &[Value]) -> Option<(Valve, f64)> {
    let valve = (row.first()?.as_u64()? as usize, Side::of_key(row.get(1)?.as_str()?)?);
    let value = row.get(2)?;
    let si = match wear {
        Wear::SeatLoad => of_value::<Force>(value)?.si(),
        _ => of_value::<Length>(value)?.si(),
    };
    Some((valve, si))
}
