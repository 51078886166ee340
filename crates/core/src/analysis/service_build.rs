//! A build with its service log, and what of it decides when something is due.

use super::service_log::Log;
use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::document::{Fault, Side, candidate_or_first};
use crate::quantity::Length;
use crate::service::{Wear, day};
use crate::words::LifterKind;
use time::Date;

/// A build with its log, and what decides of it.
pub(super) struct Servicing<'a> {
    pub log: Log,
    /// The candidate in the engine.
    pub resolved: Option<Resolved>,
    pub stages: &'a Stages,
    pub today: Option<Date>,
}

impl<'a> Servicing<'a> {
    pub fn new(build: &Build, today: Option<&str>, stages: &'a Stages) -> Result<Self, Fault> {
        let refuse = |text: &str| Fault::new("today", text, "a day of the calendar, as 2026-06-01");
        let today = today.map(|text| day(text).ok_or_else(|| refuse(text))).transpose()?;
        let log = Log::of(build, today);
        let views = build.candidates();
        let view = if views.is_empty() { None } else { Some(candidate_or_first(&views, log.in_engine())?) };
        Ok(Self { log, resolved: view.map(|view| Resolved::of(view, stages)), stages, today })
    }

    /// How far it has run by today, where the log tells; else by its last entry.
    pub fn now(&self) -> f64 {
        self.by_today().or(self.log.now()).unwrap_or(0.0)
    }

    /// How far it has run by today, if it ran on as before.
    pub fn by_today(&self) -> Option<f64> {
        let (day, now) = self.log.last_dated()?;
        Some(now + self.log.per_day()? * (self.today? - day).whole_days().max(0) as f64)
    }

    /// How many cylinders there are to write readings of; eight where nobody says.
    pub fn cylinders(&self) -> usize {
        self.resolved.as_ref().and_then(|own| own.given.engine.cylinders).map_or(8, |count| count as usize)
    }

    pub fn is_flat(&self) -> bool {
        self.lifter().is_some_and(LifterKind::is_flat)
    }

    pub fn lifter(&self) -> Option<LifterKind> {
        self.resolved.as_ref()?.train(Side::Intake).lifter.kind
    }

    pub fn is_raced(&self) -> bool {
        self.resolved.as_ref().is_some_and(|own| own.given.purpose.is_raced())
    }

    /// What a valve had as it was built, where the build says it.
    pub fn new_value(&self, wear: Wear, side: Side) -> Option<f64> {
        let resolved = self.resolved.as_ref()?;
        match wear {
            Wear::SeatLoad => Some(resolved.side(side).spring.as_ref().ok()?.load(Length::from_si(0.0)).si()),
            Wear::LobeLift => Some(resolved.side(side).lobe().ok()?.lift().si()),
            Wear::Lash | Wear::GuidePlay => None,
        }
    }
}
