//! A candidate of which some decisions are open: everything else stands, and any choice of them makes a candidate again.

use crate::cam::{Events, Flank, Lobe, LobeSource, Phasing, height_006, height_050, height_200, nose_room, read_lobe};
use crate::candidate::{Gap, Key, Part, Resolved, Stages, key, lack, together};
use crate::document::Side;
use crate::given::{FlankChecks, Given, Price};
use crate::quantity::{Angle, INCH, Length, Volume};
use crate::response::{Choice, Decision};
use crate::table::held;
use std::sync::Arc;

/// Share of the degrees taken off below .050 that come back above it on a quicker lobe (common practice, no source).
const FULLER: f64 = 0.8;
/// Fewest crank degrees in which both flanks of a lobe take up from .006 to .050 in (common practice, no source).
const TAKEN_UP: f64 = 40.0;
/// Steps on the way back to where one stands.
const WAYS_BACK: u32 = 8;
/// Where a quicker lobe begins to differ and where it differs whole, m.
const SEAT: f64 = 0.006 * INCH;
const FIFTY: f64 = 0.050 * INCH;
const HIGH_UP: f64 = 0.200 * INCH;

/// A candidate with open decisions.
#[derive(Debug, Clone)]
pub struct Frame {
    given: Given,
    now: Choice,
    phasing: Phasing,
    /// Durations at .050, crank degrees.
    durations: [f64; 2],
    /// Lobes that were measured and are taken by their card here.
    pub carded: Vec<Side>,
    /// Whether lobes stay on rockers of another ratio.
    keeps_lobes: bool,
}

impl Frame {
    /// The candidate as it stands, its measured lobes taken by the durations they have.
    ///
    /// # Errors
    /// What its cam lacks.
    pub fn of(resolved: &Resolved) -> Part<Self> {
        let lobes = Side::BOTH.map(|side| resolved.side(side).lobe());
        together([lack(&resolved.phasing), lack(&lobes[0]), lack(&lobes[1])])?;
        let [intake, exhaust] = lobes;
        let (phasing, lobes) = (resolved.phasing.clone()?, [intake?, exhaust?]);
        let too_low = || Gap::because("a lobe is below .050 in");
        let at_050 = |lobe: &Lobe| lobe.duration_crank_deg(height_050()).ok_or_else(too_low);
        let durations = [at_050(lobes[0])?, at_050(lobes[1])?];
        let (mut given, mut carded) = (resolved.given.clone(), Vec::new());
        for side in Side::BOTH {
            if given.lobe(side).profile.is_some() {
                by_card(&mut given, side, lobes[side.index()]);
                carded.push(side);
            }
        }
        let mut frame = Self { given, now: Choice::nothing(), phasing, durations, carded, keeps_lobes: false };
        frame.now = frame.read(resolved, lobes);
        Ok(frame)
    }

    /// The same where lobes stay what they are on rockers of another ratio; else it is what the valve does that stays.
    #[must_use]
    pub const fn keeping_lobes(mut self, keeps: bool) -> Self {
        self.keeps_lobes = keeps;
        self
    }

    /// Whether lobes stay on rockers of another ratio.
    pub const fn keeps_lobes(&self) -> bool {
        self.keeps_lobes
    }

    /// How every decision stands.
    pub const fn now(&self) -> &Choice {
        &self.now
    }

    /// How much quicker both lobes may be than their cards before one of them takes up its lift in fewer degrees than lobes are
    /// ground with.
    pub fn quickest(&self) -> Option<f64> {
        let spread = |side: Side| {
            let lobe = self.given.lobe(side);
            let both = |rows: &[(Length, Angle)]| {
                let at = |height: f64| -> Option<f64> {
                    let known: Vec<(f64, f64)> = rows.iter().map(|(own, deg)| (own.si(), deg.as_deg())).collect();
                    (known.len() > 1).then(|| held(&known, height))
                };
                Some(at(SEAT)? - at(FIFTY)?)
            };
            let flank = |flank: &Option<FlankChecks>| flank.as_ref().and_then(|checks| both(&checks.0));
            let checks = lobe.checks.as_ref().and_then(|rows| both(rows));
            checks.or_else(|| Some(flank(&lobe.opening)? + flank(&lobe.closing)?))
        };
        let spreads: Option<Vec<f64>> = Side::BOTH.into_iter().map(spread).collect();
        Some((spreads?.into_iter().fold(f64::INFINITY, f64::min) - TAKEN_UP).max(0.0))
    }

    /// Rocker ratio of each side.
    pub fn ratios(&self) -> [Option<f64>; 2] {
        Side::BOTH.map(|side| self.given.train(side).rocker.ratio)
    }

    /// Stands for everything but the decisions in `open`: two candidates with the same differ in these alone.
    pub fn key(&self, open: &[Decision]) -> Key {
        let mut rest = self.given.clone();
        // What neither moves gas nor is moved by it.
        (rest.prices, rest.own_limits) = (Arc::from(Vec::<Price>::new()), Arc::from(Vec::new()));
        rest.matching.pushrods = None;
        // A pull is one candidate's, and is drawn beside a curve.
        let pull = &mut rest.pull;
        (pull.is_given, pull.level, pull.air, pull.dyno, pull.loss, pull.points) =
            (false, None, None, None, None, None);
        let still = Decision::ALL.into_iter().filter(|decision| !open.contains(decision));
        let still: Vec<_> = still.map(|decision| self.now.get(decision)).collect();
        let shapes = Side::BOTH.map(|side| self.shape(side));
        rest.cam.lobe_separation = None;
        rest.cam.intake_centreline = None;
        let events = &mut rest.events;
        (events.intake_opens_btdc, events.intake_closes_abdc) = (None, None);
        (events.exhaust_opens_bbdc, events.exhaust_closes_atdc) = (None, None);
        for lobe in &mut rest.lobes {
            (lobe.lobe_lift, lobe.checks, lobe.opening, lobe.closing) = (None, None, None, None);
        }
        for decision in open {
            forget(&mut rest, *decision);
        }
        key(&(rest, still, shapes))
    }

    /// How a side's checks lie about each other, crank degrees: what stays while events move.
    fn shape(&self, side: Side) -> Vec<(f64, f64)> {
        let lobe = self.given.lobe(side);
        let rows = |rows: &[(Length, Angle)], share: f64| -> Vec<(f64, f64)> {
            rows.iter().map(|(height, deg)| (height.si(), share * deg.as_deg())).collect()
        };
        let flank = |flank: &Option<FlankChecks>| flank.as_ref().map_or_else(Vec::new, |checks| rows(&checks.0, 1.0));
        let both = lobe.checks.as_ref().map_or_else(Vec::new, |checks| rows(checks, 0.5));
        let flanks = [both, flank(&lobe.opening), flank(&lobe.closing)];
        // All of them move together; a document keeps four decimals of a degree.
        let first: Vec<f64> = flanks.iter().filter_map(|rows| Some(rows.first()?.1)).collect();
        let middle = first.iter().sum::<f64>() / first.len().max(1) as f64;
        let about = |(height, deg): (f64, f64)| (height, (50.0 * (deg - middle)).round() / 50.0 + 0.0);
        flanks.concat().into_iter().map(about).collect()
    }

    /// The four events of a choice at .050; what it does not decide stands as it is.
    pub fn events(&self, choice: &Choice) -> Events {
        let event = |decision: Decision| choice.get(decision).or(self.now.get(decision)).unwrap_or(0.0);
        let earlier = event(Decision::Advance);
        Events {
            intake_opens_btdc: event(Decision::IntakeOpens) + earlier,
            intake_closes_abdc: event(Decision::IntakeCloses) - earlier,
            exhaust_opens_bbdc: event(Decision::ExhaustOpens) + earlier,
            exhaust_closes_atdc: event(Decision::ExhaustCloses) - earlier,
        }
    }

    /// The candidate of a choice; what it does not decide stands as it is.
    pub fn given(&self, choice: &Choice) -> Given {
        let mut given = self.given.clone();
        let changed = |decision: Decision| {
            let (to, now) = (choice.get(decision)?, self.now.get(decision)?);
            (to != now).then_some(to)
        };
        self.put_events(&mut given, self.events(choice));
        if let Some(quicker) = changed(Decision::Quickness) {
            for side in Side::BOTH {
                reshape(&mut given, side, &|height, _| -quicker * quickens(height));
            }
        }
        for (decision, side) in [(Decision::IntakeLift, Side::Intake), (Decision::ExhaustLift, Side::Exhaust)] {
            if let Some(lift) = changed(decision) {
                given.lobes[side.index()].lobe_lift = Some(Length::from_si(lift));
            }
        }
        if let Some(ratio) = changed(Decision::Ratio) {
            for train in &mut given.trains {
                let (before, rocker) = (train.rocker.ratio, &mut train.rocker);
                // The arm to the cup and the ratio are one thing.
                rocker.pivot_to_cup =
                    rocker.pivot_to_cup.zip(before).map(|(arm, was)| Length::from_si(arm.si() * was / ratio));
                rocker.ratio = Some(ratio);
            }
        }
        if let Some(ratio) = changed(Decision::Compression) {
            self.put_compression(&mut given, ratio);
        }
        if let Some(length) = changed(Decision::Runner) {
            given.runner.runner_length = Some(Length::from_si(length));
        }
        if let Some(length) = changed(Decision::Primary) {
            given.primary.primary_length = Some(Length::from_si(length));
        }
        given
    }

    /// How far the blunter nose of a choice's lobes is from too blunt to be ground, see [`nose_room`]; one of measured lobes.
    pub fn nose_room(&self, choice: &Choice) -> f64 {
        let given = self.given(choice);
        let of = |side: Side| match read_lobe(&given, side) {
            Ok(LobeSource::Card(card)) => nose_room(&card),
            _ => 1.0,
        };
        Side::BOTH.map(of).into_iter().fold(1.0, f64::min)
    }

    /// The candidate of a choice, resolved.
    pub fn at(&self, choice: &Choice, stages: &Stages) -> Resolved {
        Resolved::new(self.given(choice), stages)
    }

    /// The nearest choice on the way from where one stands to `choice` that smooth lobes carry.
    pub fn carried(&self, choice: &Choice, stages: &Stages) -> Choice {
        let has_lobes = |choice: &Choice| {
            let resolved = self.at(choice, stages);
            Side::BOTH.into_iter().all(|side| resolved.side(side).lobe().is_ok())
        };
        let part = |share: f64| {
            let mut part = *choice;
            for (decision, to) in choice.values() {
                let now = self.now.get(decision).unwrap_or(to);
                part.set(decision, (to - now).mul_add(share, now));
            }
            part
        };
        let shares = (0..WAYS_BACK).map(|i| 1.0 - f64::from(i) / f64::from(WAYS_BACK));
        shares.map(|share| part(share).made()).find(has_lobes).unwrap_or(self.now)
    }

    fn put_events(&self, given: &mut Given, to: Events) {
        let durations = [to.intake_duration(), to.exhaust_duration()];
        for side in Side::BOTH {
            let longer = durations[side.index()] - self.durations[side.index()];
            if longer.abs() > 1e-9 {
                reshape(given, side, &|_, _| longer);
            }
        }
        let phasing = to.phasing();
        let events = &mut given.events;
        if events.intake_closes_abdc.is_some() {
            events.intake_opens_btdc = Some(Angle::deg(to.intake_opens_btdc));
            events.intake_closes_abdc = Some(Angle::deg(to.intake_closes_abdc));
            events.exhaust_opens_bbdc = Some(Angle::deg(to.exhaust_opens_bbdc));
            events.exhaust_closes_atdc = Some(Angle::deg(to.exhaust_closes_atdc));
        }
        given.cam.lobe_separation = Some(Angle::deg(phasing.separation()));
        given.cam.intake_centreline = Some(Angle::deg(phasing.intake_centreline));
    }

    /// By the chamber; by the bowl of a piston under a flat head.
    fn put_compression(&self, given: &mut Given, ratio: f64) {
        let (Some(now), Some(swept)) = (self.now.get(Decision::Compression), self.swept()) else { return };
        let more = swept / (ratio - 1.0) - swept / (now - 1.0);
        let engine = &mut given.engine;
        let smaller = engine.chamber_volume.map_or(0.0, Volume::si) + more > 0.0;
        let place = if smaller { &mut engine.chamber_volume } else { &mut engine.piston_volume };
        *place = place.map(|volume| Volume::from_si(volume.si() + more));
    }

    /// What one piston sweeps, m3.
    fn swept(&self) -> Option<f64> {
        let engine = &self.given.engine;
        Some(0.25 * std::f64::consts::PI * engine.bore?.si().powi(2) * engine.stroke?.si())
    }

    fn read(&self, resolved: &Resolved, lobes: [&Lobe; 2]) -> Choice {
        let events = self.phasing.events(self.durations[0], self.durations[1]);
        let mut now = Choice::nothing().with(Decision::Advance, 0.0).with_events(events);
        now.set(Decision::IntakeLift, lobes[0].lift().si());
        now.set(Decision::ExhaustLift, lobes[1].lift().si());
        let tells_seat = |side: Side| self.shape(side).iter().any(|(height, _)| *height < FIFTY - 1e-6);
        if Side::BOTH.into_iter().all(tells_seat) {
            now.set(Decision::Quickness, 0.0);
        }
        if let [Some(intake), Some(exhaust)] = self.ratios()
            && intake == exhaust
        {
            now.set(Decision::Ratio, intake);
        }
        if let Some(ratio) = resolved.cylinder.as_ref().ok().and_then(|cylinder| cylinder.compression_ratio()) {
            now.set(Decision::Compression, ratio);
        }
        if let Some(length) = self.given.runner.runner_length.filter(|_| self.given.runner.runner_lengths.is_none()) {
            now.set(Decision::Runner, length.si());
        }
        if let Some(length) = self.given.primary.primary_length.filter(|_| self.given.primary.primary_lengths.is_none())
        {
            now.set(Decision::Primary, length.si());
        }
        now
    }
}

/// How much quicker a lobe is at a checking height, of its whole: one at the seat, none at .050, less than none above.
pub fn quickens(height: f64) -> f64 {
    if height <= FIFTY {
        ((FIFTY - height) / (FIFTY - SEAT)).min(1.0)
    } else {
        -FULLER * ((height - FIFTY) / (HIGH_UP - FIFTY)).min(1.0)
    }
}

/// Adds `longer`(height in m, duration) to every duration of a lobe, half of it to each flank.
fn reshape(given: &mut Given, side: Side, longer: &dyn Fn(f64, f64) -> f64) {
    let lobe = &mut given.lobes[side.index()];
    let moved = |rows: &[(Length, Angle)], share: f64| -> Arc<[(Length, Angle)]> {
        let row = |(height, deg): &(Length, Angle)| {
            (*height, Angle::deg(deg.as_deg() + share * longer(height.si(), deg.as_deg())))
        };
        rows.iter().map(row).collect()
    };
    lobe.checks = lobe.checks.as_ref().map(|rows| moved(rows, 1.0));
    lobe.opening = lobe.opening.as_ref().map(|flank| FlankChecks(moved(&flank.0, 0.5)));
    lobe.closing = lobe.closing.as_ref().map(|flank| FlankChecks(moved(&flank.0, 0.5)));
}

/// What a flank of a measured lobe has at the trade's heights: crank degrees between each and full lift.
pub fn card_rows(measured: &Lobe, flank: Flank) -> impl Iterator<Item = (Length, f64)> {
    let heights = [height_006(), height_050(), height_200()];
    heights.into_iter().filter_map(move |height| Some((height, 2.0 * measured.flank_angle(height, flank)?)))
}

/// A measured lobe by its card.
fn by_card(given: &mut Given, side: Side, measured: &Lobe) {
    let flank = |flank: Flank| {
        let rows = card_rows(measured, flank).map(|(height, deg)| (height, Angle::deg(deg)));
        Some(FlankChecks(rows.collect()))
    };
    let lobe = &mut given.lobes[side.index()];
    lobe.profile = None;
    lobe.checks = None;
    lobe.lobe_lift = Some(measured.lift());
    (lobe.opening, lobe.closing) = (flank(Flank::Opening), flank(Flank::Closing));
}

/// Takes an open decision out of what is left.
fn forget(rest: &mut Given, decision: Decision) {
    match decision {
        Decision::Ratio => {
            for train in &mut rest.trains {
                (train.rocker.ratio, train.rocker.pivot_to_cup) = (None, None);
            }
        }
        Decision::Compression => (rest.engine.chamber_volume, rest.engine.piston_volume) = (None, None),
        Decision::Runner => rest.runner.runner_length = None,
        Decision::Primary => rest.primary.primary_length = None,
        _ => {}
    }
}
