//! The card that came with a cam, as its maker says it was ground: against what was asked, and against what was to be ground.

use super::cells::{si, word};
use super::session::{Bench, Session};
use super::told::{Said, Told, beside, is_nought, text};
use crate::candidate::order::order;
use crate::document::Side;
use crate::given::{Of, Place};
use crate::quantity::{Angle, Dimension, INCH, Length, Shown, shown};
use crate::report::SessionFigure;
use serde_json::Value;

/// Cams come within this of their order (common practice, no source: up to about a degree), crank deg.
const COMES: f64 = 1.0;
/// Lobe lifts come within this, m (common practice, no source).
const LIFTS: f64 = 0.002 * INCH;

/// One figure of a card that came.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Came {
    /// Which lobe.
    pub side: Side,
    /// Checking height, m; `None` of the lobe's lift.
    pub height: Option<f64>,
    /// Duration in rad, or lift in m.
    pub si: f64,
}

/// Every figure of the card.
pub(super) fn came(session: &Session<'_>) -> Vec<Came> {
    let side = |row: &[Value]| Side::of_key(word(row, 0)?);
    let duration =
        |row: &&[Value]| Some(Came { side: side(row)?, height: Some(si::<Length>(row, 1)?), si: si::<Angle>(row, 2)? });
    let lift = |row: &&[Value]| Some(Came { side: side(row)?, height: None, si: si::<Length>(row, 1)? });
    let (durations, lifts) = (session.node.cells("durations"), session.node.cells("lobe_lifts"));
    durations.iter().filter_map(duration).chain(lifts.iter().filter_map(lift)).collect()
}

pub(super) fn told(bench: &Bench<'_>, session: &Session<'_>) -> Told {
    let all = came(session);
    let mut told =
        Told::unclear(all.len(), "durations at lift and lobe lift of both lobes, as the maker's card has them");
    if all.is_empty() {
        return told;
    }
    let figures: Vec<(Came, SessionFigure)> = all.iter().filter_map(|own| Some((*own, figure(bench, own)?))).collect();
    told.figures = figures.iter().map(|own| own.1.clone()).collect();
    told.says = Shown::plain(match as_ground(bench, &all) {
        Some(true) => "it came as it was to be ground, with what the train takes up",
        Some(false) => "it came as the document asks, without what the train takes up",
        None => "",
    });
    told.said = Side::BOTH.into_iter().flat_map(|side| said(bench, side, &figures)).collect();
    let told = told.judged();
    if told.says.inch.is_empty() {
        let off = told.figures.iter().filter(|own| own.stands_out).count();
        let says = if off == 0 {
            "it came as asked".to_owned()
        } else {
            format!("{off} figures are further off than a grinder usually is")
        };
        return Told { says: Shown::plain(says), ..told };
    }
    told
}

/// A figure of the card beside what the document asks for.
fn figure(bench: &Bench<'_>, own: &Came) -> Option<SessionFigure> {
    let lobe = bench.inputs.side(own.side).lobe().ok()?;
    let name = if own.side == Side::Intake { "Intake" } else { "Exhaust" };
    Some(match own.height {
        Some(height) => {
            let asked = lobe.duration_crank_deg(Length::from_si(height))?.to_radians();
            let label = format!("{name}, duration at {}", shown(height, Dimension::Length).inch);
            beside(label, (own.si, asked), COMES.to_radians(), Dimension::Angle)
        }
        None => beside(format!("{name}, lobe lift"), (own.si, lobe.lift().si()), LIFTS, Dimension::Length),
    })
}

/// Whether it came as it was to be ground rather than as asked; `None` where nothing was added, or neither is near.
fn as_ground(bench: &Bench<'_>, all: &[Came]) -> Option<bool> {
    let off = |own: &Came| -> Option<(f64, f64)> {
        let side = bench.inputs.side(own.side);
        let (card, lobe, lift) = (side.card.as_ref()?, side.lobe().ok()?, side.lift.as_ref().ok()?);
        let order = order(card, lobe, side.running.as_ref().ok()?, lift, side.spring.as_ref().ok())?;
        let height = shown(own.height?, Dimension::Length).inch;
        let check = order.checks.iter().find(|check| check.height.inch == height)?;
        let came = own.si.to_degrees();
        Some((came - check.card_deg, came - check.order_deg))
    };
    let offs: Vec<(f64, f64)> = all.iter().filter_map(off).collect();
    let mean = |of: fn(&(f64, f64)) -> f64| offs.iter().map(|own| of(own).abs()).sum::<f64>() / offs.len() as f64;
    let (asked, ground) = (mean(|own| own.0), mean(|own| own.1));
    let apart = offs.iter().any(|own| (own.0 - own.1).abs() > COMES);
    (!offs.is_empty() && apart && asked.min(ground) < COMES).then_some(ground < asked)
}

/// What the document would have of a lobe, where the card differs from it: its durations, and its lift.
fn said(bench: &Bench<'_>, side: Side, figures: &[(Came, SessionFigure)]) -> Vec<Said> {
    let own: Vec<&(Came, SessionFigure)> = figures.iter().filter(|own| own.0.side == side).collect();
    let differs = |own: &&&(Came, SessionFigure)| own.1.off.as_ref().is_some_and(|off| !is_nought(&off.inch));
    let why = || Shown::plain("as its maker's card says it was ground");
    let mut said = Vec::new();
    let durations: Vec<_> = own.iter().filter(|own| own.0.height.is_some()).collect();
    if bench.source.node(Of::Lobe, side).has("checks") && durations.iter().any(&differs) {
        let row = |own: &&&(Came, SessionFigure)| {
            let height = own.0.height.unwrap_or_default();
            vec![text(height, Dimension::Length), text(own.0.si, Dimension::Angle)]
        };
        said.push(Said::rows(Place::new(Of::Lobe, "checks", side), durations.iter().map(row).collect(), why()));
    }
    let lift = own.iter().find(|own| own.0.height.is_none() && differs(own));
    said.extend(lift.map(|own| {
        Said::quantity(Place::new(Of::Lobe, "lobe_lift", side), (own.0.si, LIFTS), Dimension::Length, why())
    }));
    said
}
