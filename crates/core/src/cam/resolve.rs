//! From the document's cam to lobes and phasing the kernel trusts.

use super::card::{Check, FlatFoot, LifterKind, LobeCard, height_006, height_050};
use super::phasing::{Events, Phasing};
use crate::document::{Missing, Needs, Node, Side};
use crate::quantity::{Angle, Length};

/// Highest first check that still tells the seat timing.
const SEAT_CHECK_IN: f64 = 0.0205;

/// What a lobe is made from.
#[derive(Debug, Clone, PartialEq)]
pub enum LobeSource {
    /// A card: the lobe is synthesised.
    Card(LobeCard),
    /// Measured lift over cam degrees: the lobe is fitted.
    Measured(Vec<(f64, Length)>),
}

/// A resolved cam; each part lacks what it lacks by itself.
#[derive(Debug, Clone, PartialEq)]
pub struct CamDocument {
    /// The intake lobe.
    pub intake: Result<LobeSource, Missing>,
    /// The exhaust lobe.
    pub exhaust: Result<LobeSource, Missing>,
    /// Where they stand.
    pub phasing: Result<Phasing, Missing>,
}

/// Reads `cam`, with the lifter that rides on each side from `train`.
pub fn read_cam(cam: &Node<'_>, train: &Node<'_>) -> CamDocument {
    let events = read_events(cam);
    CamDocument {
        intake: read_lobe(cam, train, Side::Intake, events.as_ref()),
        exhaust: read_lobe(cam, train, Side::Exhaust, events.as_ref()),
        phasing: read_phasing(cam, events.as_ref()),
    }
}

/// The four events when the document gives them.
pub fn read_events(cam: &Node<'_>) -> Option<Events> {
    let events = cam.child("events_050");
    let deg = |key| events.quantity::<Angle>(key).map(Angle::as_deg);
    Some(Events {
        intake_opens_btdc: deg("intake_opens_btdc")?,
        intake_closes_abdc: deg("intake_closes_abdc")?,
        exhaust_opens_bbdc: deg("exhaust_opens_bbdc")?,
        exhaust_closes_atdc: deg("exhaust_closes_atdc")?,
    })
}

fn read_phasing(cam: &Node<'_>, events: Option<&Events>) -> Result<Phasing, Missing> {
    if let Some(events) = events {
        return Ok(events.phasing());
    }
    let mut needs = Needs::default();
    let separation = needs.quantity::<Angle>(cam, "lobe_separation");
    let centreline = needs.quantity::<Angle>(cam, "intake_centreline");
    needs.met(Phasing::from_card(separation.as_deg(), centreline.as_deg()))
}

fn read_lobe(cam: &Node<'_>, train: &Node<'_>, side: Side, events: Option<&Events>) -> Result<LobeSource, Missing> {
    let lobe = cam.child(side.key());
    let profile = lobe.child("profile");
    if let (Some(angles), Some(lifts)) = (profile.numbers("cam_deg"), profile.quantities("lift")) {
        return Ok(LobeSource::Measured(angles.into_iter().zip(lifts).collect()));
    }
    let lifter = train.child("lifter").side(side);
    let mut needs = Needs::default();
    let lift = needs.quantity::<Length>(&lobe, "lobe_lift");
    let kind = needs.or_missing(&lifter, "kind", lifter.word("kind").and_then(LifterKind::from_word));
    let flanks = needs.or_missing(&lobe, "checks", read_flanks(&lobe, side, events));
    needs.met(())?;
    // Both are present once nothing was missing.
    let (Some(kind), Some((opening, closing))) = (kind, flanks) else {
        return Err(Missing(vec![lobe.path_of("checks")]));
    };
    let seat = |flank| with_seat_timing(flank, kind, &lobe, side, cam);
    let flat_foot = kind.is_flat().then(|| read_foot(cam, &lifter)).flatten();
    Ok(LobeSource::Card(LobeCard { lift, opening: seat(opening), closing: seat(closing), lifter: kind, flat_foot }))
}

fn read_foot(cam: &Node<'_>, lifter: &Node<'_>) -> Option<FlatFoot> {
    Some(FlatFoot {
        face: lifter.quantity("face_diameter")?,
        margin: lifter.quantity("face_margin")?,
        base_circle: cam.quantity("base_circle_diameter")?,
    })
}

/// Opening and closing flank by whichever way the document describes them.
fn read_flanks(lobe: &Node<'_>, side: Side, events: Option<&Events>) -> Option<(Vec<Check>, Vec<Check>)> {
    let rows = |node: &Node<'_>, factor: f64| -> Option<Vec<Check>> {
        let rows = node.rows::<Length, Angle>("checks")?;
        Some(rows.into_iter().map(|(height, angle)| Check { height, crank_deg: factor * angle.as_deg() }).collect())
    };
    if lobe.has("opening") || lobe.has("closing") {
        let opening = rows(&lobe.child("opening"), 1.0)?;
        return Some((opening, rows(&lobe.child("closing"), 1.0)?));
    }
    let mut flank = rows(lobe, 0.5).unwrap_or_default();
    if let Some(events) = events {
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

/// Adds the assumed seat timing when the lowest check is too high to tell it.
fn with_seat_timing(
    mut flank: Vec<Check>,
    kind: LifterKind,
    lobe: &Node<'_>,
    side: Side,
    cam: &Node<'_>,
) -> Vec<Check> {
    let lowest = flank[0];
    if lowest.height.as_inches() <= SEAT_CHECK_IN {
        return flank;
    }
    // The allowance is from .050; a card that starts higher is carried down at the same pace.
    let heights = (lowest.height.si() - height_006().si()) / (height_050().si() - height_006().si());
    let crank_deg = lowest.crank_deg + 0.5 * kind.seat_allowance_crank_deg() * heights.max(0.5);
    flank.insert(0, Check { height: height_006(), crank_deg });
    cam.assume(
        format!("{}.006", lobe.path_of("checks")),
        &format!("{} duration at .006 in of about {:.0} deg", side.key(), 2.0 * crank_deg),
        "the card gives no seat timing: common allowance for this lifter kind, no source",
    );
    flank
}
