//! Events and card numbers moved in the document, whichever way it writes them.
//!
//! Moving one event holds the other three and the differences between the checking heights: every
//! duration of that lobe changes by the same crank degrees, and its centreline by half of them.

use super::{CardNumber, Event};
use crate::build::Build;
use crate::cam::{Events, Phasing};
use crate::candidate::{Gap, Resolved, Stages, timing, worded};
use crate::document::{Fault, Faults, Ledger, Side, get, set_field};
use crate::given::{Given, Source};
use crate::quantity::{Angle, Dimension, UnitSystem, parse, with_unit};
use serde_json::Value;

/// A candidate's cam with the change wanted.
#[derive(Debug, Clone, Copy)]
pub struct CamEdit {
    index: usize,
    phasing: Phasing,
    /// Durations at .050 before the change.
    durations: [f64; 2],
    /// Change of every duration of a side.
    longer: [f64; 2],
}

/// The document's key of a card number.
pub const fn key_of(number: CardNumber) -> &'static str {
    match number {
        CardNumber::IntakeDuration => "intake",
        CardNumber::ExhaustDuration => "exhaust",
        CardNumber::LobeSeparation => "lobe_separation",
        CardNumber::IntakeCentreline => "intake_centreline",
    }
}

/// Degrees as typed, with or without the unit.
pub fn degrees(field: &str, text: &str) -> Result<f64, Fault> {
    let full = with_unit(text, Dimension::Angle, "deg")
        .map_err(|reason| Fault::new(field, text, "an angle, such as 36 or 36 deg").cure(reason.to_string()))?;
    // The text was just made to carry its unit.
    parse(&full, Dimension::Angle)
        .map(|si| Angle::from_si(si).as_deg())
        .map_err(|reason| Fault::new(field, text, "an angle").cure(reason.to_string()))
}

impl CamEdit {
    /// The cam of the candidate with this id as it stands.
    pub fn begin(build: &Build, candidate: &str, stages: &Stages) -> Result<Self, Faults> {
        let views = build.candidates();
        let unknown = || Fault::new("candidate", candidate, "the id of a candidate");
        let view = views.iter().find(|v| v.id == candidate).ok_or_else(unknown)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let inputs = Resolved::new(Given::read(&source), stages);
        let path = format!("candidates[{}].cam", view.index);
        let incomplete = |gap: Gap| Fault::new(path.clone(), "an incomplete cam", worded(&gap, &source).0);
        let phasing = inputs.phasing.clone().map_err(incomplete)?;
        let now = timing(&inputs).map_err(incomplete)?;
        let durations = [now.intake.duration_050_deg, now.exhaust.duration_050_deg];
        Ok(Self { index: view.index, phasing, durations, longer: [0.0; 2] })
    }

    /// The same change, written into the candidate at `index`, a copy of this one.
    pub const fn of_index(mut self, index: usize) -> Self {
        self.index = index;
        self
    }

    /// Path of a key of this cam.
    pub fn path(&self, key: &str) -> String {
        format!("candidates[{}].cam.{key}", self.index)
    }

    /// Moves one event to `quoted`, the other three held.
    pub fn move_event(mut self, event: Event, quoted: f64) -> Self {
        let now = self.phasing.events(self.durations[0], self.durations[1]);
        let (from, half) = match event {
            Event::IntakeOpens => (now.intake_opens_btdc, -0.5),
            Event::IntakeCloses => (now.intake_closes_abdc, 0.5),
            Event::ExhaustOpens => (now.exhaust_opens_bbdc, 0.5),
            Event::ExhaustCloses => (now.exhaust_closes_atdc, -0.5),
        };
        let longer = quoted - from;
        match event.side() {
            Side::Intake => {
                self.longer[0] = longer;
                self.phasing.intake_centreline += half * longer;
            }
            Side::Exhaust => {
                self.longer[1] = longer;
                self.phasing.exhaust_centreline += half * longer;
            }
        }
        self
    }

    /// Moves all four events at once.
    pub fn set_events(mut self, to: Events) -> Self {
        self.longer = [to.intake_duration() - self.durations[0], to.exhaust_duration() - self.durations[1]];
        self.phasing = to.phasing();
        self
    }

    /// Sets one number of the card.
    pub fn set_card(mut self, number: CardNumber, to: f64) -> Self {
        match number {
            CardNumber::IntakeDuration => self.longer[0] = to - self.durations[0],
            CardNumber::ExhaustDuration => self.longer[1] = to - self.durations[1],
            CardNumber::LobeSeparation => self.phasing = Phasing::from_card(to, self.phasing.intake_centreline),
            CardNumber::IntakeCentreline => self.phasing = Phasing::from_card(self.phasing.separation(), to),
        }
        self
    }

    /// Writes the change into the document, touching only what it names.
    pub fn write(&self, document: &mut Value) -> Result<(), Faults> {
        for (side, longer) in Side::BOTH.into_iter().zip(self.longer) {
            if longer.abs() > 1e-9 {
                self.lengthen(document, side, longer)?;
            }
        }
        if get(document, &self.path("events_050")).is_some() {
            self.write_events(document)?;
            for (key, deg) in
                [("lobe_separation", self.phasing.separation()), ("intake_centreline", self.phasing.intake_centreline)]
            {
                if get(document, &self.path(key)).is_some() {
                    put(document, &self.path(key), deg)?;
                }
            }
            return Ok(());
        }
        put_if_moved(document, &self.path("lobe_separation"), self.phasing.separation())?;
        put_if_moved(document, &self.path("intake_centreline"), self.phasing.intake_centreline)
    }

    fn write_events(&self, document: &mut Value) -> Result<(), Faults> {
        let [intake, exhaust] = [0, 1].map(|i| self.durations[i] + self.longer[i]);
        let events = self.phasing.events(intake, exhaust);
        for (key, deg) in [
            ("intake_opens_btdc", events.intake_opens_btdc),
            ("intake_closes_abdc", events.intake_closes_abdc),
            ("exhaust_opens_bbdc", events.exhaust_opens_bbdc),
            ("exhaust_closes_atdc", events.exhaust_closes_atdc),
        ] {
            put_if_moved(document, &self.path(&format!("events_050.{key}")), deg)?;
        }
        Ok(())
    }

    /// Adds `longer` to every duration of a lobe, half of it to each flank of an asymmetric one.
    fn lengthen(&self, document: &mut Value, side: Side, longer: f64) -> Result<(), Faults> {
        let lobe = self.path(side.key());
        if get(document, &format!("{lobe}.profile")).is_some() {
            let fault = Fault::new(format!("{lobe}.profile"), "a measured lobe", "a card, to change its duration");
            return Err(fault.cure("move the lobe as a whole: change separation or centreline").into());
        }
        for (checks, share) in [("checks", 1.0), ("opening.checks", 0.5), ("closing.checks", 0.5)] {
            let path = format!("{lobe}.{checks}");
            let rows = get(document, &path).and_then(Value::as_array).map_or(0, Vec::len);
            for row in 0..rows {
                let place = format!("{path}[{row}][1]");
                let text = get(document, &place).and_then(Value::as_str).unwrap_or_default();
                let now = degrees(&place, text)?;
                put(document, &place, now + share * longer)?;
            }
        }
        Ok(())
    }
}

fn put_if_moved(document: &mut Value, path: &str, deg: f64) -> Result<(), Faults> {
    let now = get(document, path).and_then(Value::as_str).and_then(|text| degrees(path, text).ok());
    // What did not move keeps its text as typed.
    if now.is_some_and(|now| (now - deg).abs() < 5e-5) { Ok(()) } else { put(document, path, deg) }
}

/// Writes degrees with at most four decimals: half a degree of one event is an eighth of separation.
fn put(document: &mut Value, path: &str, deg: f64) -> Result<(), Faults> {
    let rounded = (deg * 1e4).round() / 1e4 + 0.0;
    Ok(set_field(document, path, &format!("{rounded} deg"), UnitSystem::Inch)?)
}
