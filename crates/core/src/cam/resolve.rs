//! From the cam as it is given to lobes and phasing the kernel trusts.

use super::card::{Check, FlatFoot, LobeCard, height_006, height_050};
use super::phasing::{Events, Phasing};
use crate::document::Side;
use crate::given::{EventsPart, FlankChecks, Given, Missing, Needs, Profile, Rows, need};
use crate::quantity::{Angle, Length};
use crate::words::LifterKind;

/// Highest first check that still tells the seat timing.
const SEAT_CHECK_IN: f64 = 0.0205;

/// What a lobe is made from.
#[derive(Debug, Clone, PartialEq)]
pub enum LobeSource {
    /// A card: the lobe is synthesised.
    Card(LobeCard),
    /// Measured lift over cam degrees: the lobe is fitted.
    Measured(Profile),
}

/// Where the lobes stand on the crank.
///
/// # Errors
/// Separation or centreline, where no events are given.
pub fn read_phasing(given: &Given) -> Result<Phasing, Missing> {
    if let Some(events) = read_events(&given.events) {
        return Ok(events.phasing());
    }
    let cam = &given.cam;
    let mut needs = Needs::default();
    let (separation, centreline) = (need!(needs, cam.lobe_separation), need!(needs, cam.intake_centreline));
    needs.met(Phasing::from_card(separation.as_deg(), centreline.as_deg()))
}

/// The four events, when all are given.
pub fn read_events(events: &EventsPart) -> Option<Events> {
    Some(Events {
        intake_opens_btdc: events.intake_opens_btdc?.as_deg(),
        intake_closes_abdc: events.intake_closes_abdc?.as_deg(),
        exhaust_opens_bbdc: events.exhaust_opens_bbdc?.as_deg(),
        exhaust_closes_atdc: events.exhaust_closes_atdc?.as_deg(),
    })
}

/// What the lobe of `side` is made from, for the lifter that rides on it.
///
/// # Errors
/// Lift, checks or lifter, where no profile was measured.
pub fn read_lobe(given: &Given, side: Side) -> Result<LobeSource, Missing> {
    let (lobe, lifter) = (given.lobe(side), &given.train(side).lifter);
    if let Some(profile) = &lobe.profile {
        return Ok(LobeSource::Measured(profile.clone()));
    }
    let mut needs = Needs::default();
    let lift = need!(needs, lobe.lobe_lift);
    let kind = needs.note(lifter.kind, lifter.at("kind"));
    let flanks = needs.note(read_flanks(given, side), lobe.at("checks"));
    needs.met(())?;
    // Both are present once nothing was missing.
    let (Some(kind), Some((opening, closing))) = (kind, flanks) else {
        return Err(Missing(vec![lobe.at("checks")]));
    };
    let seat = |flank: Vec<Check>| with_seat_timing(flank, kind).0;
    let flat_foot = kind.is_flat().then(|| read_foot(given, side)).flatten();
    Ok(LobeSource::Card(LobeCard { lift, opening: seat(opening), closing: seat(closing), lifter: kind, flat_foot }))
}

/// Seat timing that stands in for a card which gives none, crank degrees at .006 in; `None` when the card gives it.
pub fn assumed_seat_timing(given: &Given, side: Side) -> Option<f64> {
    let kind = given.train(side).lifter.kind?;
    if given.lobe(side).profile.is_some() {
        return None;
    }
    let (opening, closing) = read_flanks(given, side)?;
    let assumed = |flank: Vec<Check>| with_seat_timing(flank, kind).1;
    Some(assumed(opening)? + assumed(closing)?)
}

fn read_foot(given: &Given, side: Side) -> Option<FlatFoot> {
    let lifter = &given.train(side).lifter;
    Some(FlatFoot {
        face: lifter.face_diameter?,
        margin: lifter.face_margin?,
        base_circle: given.cam.base_circle_diameter?,
    })
}

/// Opening and closing flank by whichever way the document describes them.
fn read_flanks(given: &Given, side: Side) -> Option<(Vec<Check>, Vec<Check>)> {
    let lobe = given.lobe(side);
    let rows = |rows: &Rows<Length, Angle>, factor: f64| -> Vec<Check> {
        rows.iter().map(|(height, angle)| Check { height: *height, crank_deg: factor * angle.as_deg() }).collect()
    };
    if lobe.opening.is_some() || lobe.closing.is_some() {
        let flank = |flank: &Option<FlankChecks>| flank.as_ref().map(|flank| rows(&flank.0, 1.0));
        return Some((flank(&lobe.opening)?, flank(&lobe.closing)?));
    }
    let mut flank = lobe.checks.as_ref().map_or_else(Vec::new, |checks| rows(checks, 0.5));
    if let Some(events) = read_events(&given.events) {
        let duration = match side {
            Side::Intake => events.intake_duration(),
            Side::Exhaust => events.exhaust_duration(),
        };
        insert(&mut flank, Check { height: height_050(), crank_deg: 0.5 * duration });
    }
    (!flank.is_empty()).then(|| (flank.clone(), flank))
}

/// Puts `check` in its place by height, replacing one at the same height.
fn insert(flank: &mut Vec<Check>, check: Check) {
    flank.retain(|c| (c.height.as_inches() - check.height.as_inches()).abs() > 1e-6);
    let place = flank.partition_point(|c| c.height < check.height);
    flank.insert(place, check);
}

/// The flank with the assumed seat timing added where its lowest check is too high to tell it, and the crank degrees
/// that were assumed.
fn with_seat_timing(mut flank: Vec<Check>, kind: LifterKind) -> (Vec<Check>, Option<f64>) {
    let lowest = flank[0];
    if lowest.height.as_inches() <= SEAT_CHECK_IN {
        return (flank, None);
    }
    // The allowance is from .050; a card that starts higher is carried down at the same pace.
    let heights = (lowest.height.si() - height_006().si()) / (height_050().si() - height_006().si());
    let crank_deg = lowest.crank_deg + 0.5 * kind.seat_allowance_crank_deg() * heights.max(0.5);
    flank.insert(0, Check { height: height_006(), crank_deg });
    (flank, Some(crank_deg))
}
