//! What a builder asks of a cycle: does the valve follow, how does it land, what do the parts bear meanwhile.

/// Trains that run at once; a multiple of every register's lanes.
pub const GROUP: usize = 4;
/// Records of a cycle, one each crank degree.
pub const RECORDS: usize = 720;

/// What was seen in one crank degree of four trains.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Seen {
    pub valve: [f64; GROUP],
    pub gap: [f64; GROUP],
    pub least_contact: [f64; GROUP],
    pub most_contact: [f64; GROUP],
    pub pushrod: [f64; GROUP],
    pub pivot: [f64; GROUP],
    pub least_spring: [f64; GROUP],
    pub most_spring: [f64; GROUP],
    pub clash: [f64; GROUP],
    pub stress: [f64; GROUP],
    pub arrival: [f64; GROUP],
    pub plunger: [f64; GROUP],
}

/// One cycle of one train, every crank degree from 360 before full lift; least and most are those of the degree.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Cycle {
    /// Lift of the valve, m.
    pub valve: Vec<f64>,
    /// All gaps between lobe and stem, seen at the valve, m; of a closed valve with lash its lash.
    pub gap: Vec<f64>,
    /// Load of the lifter on the lobe, N.
    pub least_contact: Vec<f64>,
    /// The same at its most.
    pub most_contact: Vec<f64>,
    /// Load of the pushrod, N.
    pub pushrod: Vec<f64>,
    /// Load on the rocker's pivot, N.
    pub pivot: Vec<f64>,
    /// Load of all coils on the valve, N.
    pub least_spring: Vec<f64>,
    /// The same at its most.
    pub most_spring: Vec<f64>,
    /// What closed coils press on each other with, N.
    pub clash: Vec<f64>,
    /// Greatest share of its strength that any wire bears; zero where the wire is not known.
    pub stress: Vec<f64>,
    /// Speed of the valve where it meets its seat, m/s.
    pub arrival: Vec<f64>,
    /// Rise of the plunger in its lifter from rest, m.
    pub plunger: Vec<f64>,
}

impl Cycle {
    pub(super) fn of(seen: &[Seen], lane: usize) -> Self {
        let column = |of: fn(&Seen) -> &[f64; GROUP]| seen.iter().map(|record| of(record)[lane]).collect::<Vec<f64>>();
        Self {
            valve: column(|s| &s.valve),
            gap: column(|s| &s.gap),
            least_contact: column(|s| &s.least_contact),
            most_contact: column(|s| &s.most_contact),
            pushrod: column(|s| &s.pushrod),
            pivot: column(|s| &s.pivot),
            least_spring: column(|s| &s.least_spring),
            most_spring: column(|s| &s.most_spring),
            clash: column(|s| &s.clash),
            stress: column(|s| &s.stress),
            arrival: column(|s| &s.arrival),
            plunger: column(|s| &s.plunger),
        }
    }
}

/// Where the lobe holds the valve open, in records of a cycle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Window {
    /// First and last record in which a slow valve stands [`OFF_SEAT`] or more off its seat.
    pub open: (usize, usize),
    /// First and last record with any lift of the lobe.
    pub lobe: (usize, usize),
}

/// Lift from which a valve counts as held open by its lobe, m: ramps and lash are behind it.
pub const OFF_SEAT: f64 = 0.15e-3;
/// Lift a valve must leave its seat by to count as a bounce, m.
const COUNTS: f64 = 0.025e-3;
/// Crank degrees behind the lobe in which a valve that closes has closed; later the gas presses a hanging one shut.
const HANGS: usize = 60;
/// Lift below which it stands on its seat, m.
const SEATED: f64 = 2e-6;

impl Window {
    /// Of a slow valve lift at every record and the lobe's lift; `None` where it never opens.
    pub fn of(slow: impl Fn(usize) -> f64, lobe: impl Fn(usize) -> f64) -> Option<Self> {
        let span = |of: &dyn Fn(usize) -> bool| {
            let first = (0..RECORDS).find(|i| of(*i))?;
            Some((first, (0..RECORDS).rev().find(|i| of(*i))?))
        };
        Some(Self { open: span(&|i| slow(i) >= OFF_SEAT)?, lobe: span(&|i| lobe(i) > 0.0)? })
    }
}

/// What is asked of a cycle.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Figures {
    /// Largest gap between lobe and stem while the lobe holds the valve open or until it lands, seen at the valve, m.
    pub loft: f64,
    /// Record of it.
    pub loft_at: usize,
    /// Largest lift after the first landing, m, and how often it leaves its seat.
    pub bounce: f64,
    /// Bounces of a fortieth of a millimetre and more.
    pub bounces: usize,
    /// Least lift in the [`HANGS`] degrees behind the lobe, m: the valve stays open until the gas presses it shut.
    pub hang_open: f64,
    /// Speed at the first landing, m/s.
    pub seating: f64,
    /// Largest lift, m.
    pub lift: f64,
    /// Least load on the lobe while it holds the valve open, N, and its record.
    pub least_contact: (f64, usize),
    /// Largest load on the lobe, N.
    pub most_contact: f64,
    /// Largest load in the pushrod, N.
    pub pushrod: f64,
    /// Largest load on the pivot, N.
    pub pivot: f64,
    /// Least and most load of the coils while the valve is closed, N: their swing by surge.
    pub spring: (f64, f64),
    /// What closed coils press on each other with, N.
    pub clash: f64,
    /// Greatest share of its strength that any wire bears, waves of the coils included; zero where the wire is not known.
    pub stress: f64,
    /// Highest and lowest place of the plunger from rest, m.
    pub plunger: (f64, f64),
}

impl Figures {
    /// Of one cycle.
    pub fn of(cycle: &Cycle, window: &Window) -> Self {
        let (first, last) = window.open;
        let nose = RECORDS / 2;
        let most = |values: &[f64]| values.iter().copied().fold(0.0, f64::max);
        let least = |values: &[f64]| values.iter().copied().fold(f64::INFINITY, f64::min);
        // The landing: the first time after the nose that it stands on its seat, in this cycle or, late, in the next.
        let around = |i: usize| i % RECORDS;
        let landing = (nose..RECORDS + first).find(|i| cycle.valve[around(*i)] <= SEATED);
        let end = landing.unwrap_or(last).clamp(last, RECORDS + first);
        let (mut loft, mut loft_at) = (0.0, first);
        for i in first..=end {
            if cycle.gap[around(i)] > loft && (i <= last || landing.is_none_or(|landing| i < landing)) {
                (loft, loft_at) = (cycle.gap[around(i)], around(i));
            }
        }
        // What opens it again is a bounce only until the lobe does.
        let opens = RECORDS + window.lobe.0;
        let after = landing.unwrap_or(opens)..opens;
        let bounce = after.clone().map(|i| cycle.valve[around(i)]).fold(0.0, f64::max);
        let mut bounces = 0;
        let mut up = false;
        for i in after.clone() {
            let now = cycle.valve[around(i)] > if up { SEATED } else { COUNTS };
            bounces += usize::from(now && !up);
            up = now;
        }
        let base = window.lobe.1 + 1..RECORDS + window.lobe.0;
        let hanging = window.lobe.1 + 1..window.lobe.1 + HANGS;
        let hang_open = hanging.map(|i| cycle.valve[around(i)]).fold(f64::INFINITY, f64::min).max(0.0);
        let seating = landing.map_or(0.0, |at| (at - 1..at + 4).map(|i| cycle.arrival[around(i)]).fold(0.0, f64::max));
        let at = (first..=last).min_by(|a, b| cycle.least_contact[*a].total_cmp(&cycle.least_contact[*b]));
        let at = at.unwrap_or(nose);
        let closed = |values: &[f64]| base.clone().map(|i| values[around(i)]).collect::<Vec<f64>>();
        Self {
            loft,
            loft_at,
            bounce: if landing.is_some() { bounce } else { 0.0 },
            bounces,
            hang_open: if hang_open > SEATED { hang_open } else { 0.0 },
            seating,
            lift: most(&cycle.valve),
            least_contact: (cycle.least_contact[at], at),
            most_contact: most(&cycle.most_contact),
            pushrod: most(&cycle.pushrod),
            pivot: most(&cycle.pivot),
            spring: (least(&closed(&cycle.least_spring)), most(&closed(&cycle.most_spring))),
            clash: most(&cycle.clash),
            stress: most(&cycle.stress),
            plunger: (most(&cycle.plunger), least(&cycle.plunger)),
        }
    }

    /// The worse of two cycles in each.
    pub fn worse(self, other: Self) -> Self {
        let (loft, loft_at) =
            if other.loft > self.loft { (other.loft, other.loft_at) } else { (self.loft, self.loft_at) };
        Self {
            loft,
            loft_at,
            bounce: self.bounce.max(other.bounce),
            bounces: self.bounces.max(other.bounces),
            hang_open: self.hang_open.max(other.hang_open),
            seating: self.seating.max(other.seating),
            lift: self.lift.max(other.lift),
            least_contact: if other.least_contact.0 < self.least_contact.0 {
                other.least_contact
            } else {
                self.least_contact
            },
            most_contact: self.most_contact.max(other.most_contact),
            pushrod: self.pushrod.max(other.pushrod),
            pivot: self.pivot.max(other.pivot),
            spring: (self.spring.0.min(other.spring.0), self.spring.1.max(other.spring.1)),
            clash: self.clash.max(other.clash),
            stress: self.stress.max(other.stress),
            plunger: (self.plunger.0.max(other.plunger.0), self.plunger.1.min(other.plunger.1)),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A valve that opens from record 200 to 520 as a half sine, with what `after` adds behind it.
    fn cycle(after: impl Fn(usize) -> f64) -> Cycle {
        let lift = |i: usize| {
            let open = (200..520).contains(&i);
            if open { 0.01 * ((i - 200) as f64 / 320.0 * std::f64::consts::PI).sin() } else { after(i) }
        };
        let still = || vec![0.0; RECORDS];
        Cycle {
            valve: (0..RECORDS).map(lift).collect(),
            least_contact: (0..RECORDS).map(|i| if i == 300 { 40.0 } else { 900.0 }).collect(),
            most_contact: vec![1000.0; RECORDS],
            gap: still(),
            pushrod: still(),
            pivot: still(),
            least_spring: vec![500.0; RECORDS],
            most_spring: vec![700.0; RECORDS],
            clash: still(),
            stress: still(),
            arrival: (0..RECORDS).map(|i| if i == 520 { 0.8 } else { 0.0 }).collect(),
            plunger: still(),
        }
    }

    fn figures(cycle: &Cycle) -> Figures {
        let lift = |i: usize| if (200..520).contains(&i) { 0.01 } else { 0.0 };
        Figures::of(cycle, &Window::of(lift, lift).unwrap())
    }

    #[test]
    fn a_valve_that_lands_and_stays_has_lost_nothing() {
        let found = figures(&cycle(|_| 0.0));
        assert_eq!((found.bounce, found.bounces, found.hang_open, found.loft), (0.0, 0, 0.0, 0.0));
        assert_eq!((found.seating, found.least_contact), (0.8, (40.0, 300)));
        assert_eq!((found.lift, found.spring), (0.01, (500.0, 700.0)));
    }

    #[test]
    fn bounces_are_counted_after_the_first_landing() {
        let hop = |i: usize| if (540..560).contains(&i) || (600..610).contains(&i) { 0.4e-3 } else { 0.0 };
        let found = figures(&cycle(hop));
        assert_eq!((found.bounce, found.bounces, found.hang_open), (0.4e-3, 2, 0.0));
    }

    #[test]
    fn a_valve_that_the_gas_presses_shut_has_hung_before() {
        let found = figures(&cycle(|i| if (520..620).contains(&i) { 0.3e-3 } else { 0.0 }));
        assert_eq!(found.hang_open, 0.3e-3);
    }

    #[test]
    fn gaps_count_until_the_valve_has_landed_and_no_longer() {
        let mut held = cycle(|_| 0.0);
        held.gap[400] = 0.2e-3;
        held.gap[650] = 5e-3;
        let found = figures(&held);
        assert_eq!((found.loft, found.loft_at), (0.2e-3, 400));
        let worse = found.worse(Figures { loft: 0.3e-3, loft_at: 7, ..Figures::default() });
        assert_eq!((worse.loft, worse.loft_at, worse.lift), (0.3e-3, 7, 0.01));
    }
}
