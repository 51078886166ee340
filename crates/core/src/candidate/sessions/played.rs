//! What an instrument would read of an engine that is as the document says: what stand-ins play, and what tells inches from
//! millimetres in a reading.

use super::asked::{Row, rows};
use super::cells::word;
use super::degree::expected;
use super::head::most;
use super::next::is_of;
use super::session::{Bench, Session};
use super::stack::wanted;
use crate::cam::Flank;
use crate::candidate::blocks::closed_gap;
use crate::document::{Side, of_value};
use crate::quantity::{Angle, Dimension, Flow, Force, INCH, Length, Mass, OfDimension, Volume};
use crate::report::{NextCell, PlayedReading};
use crate::words::{HeadCheck, SessionKind, Word};
use serde_json::Value;

// Sizes that no document says: usual ones, for stand-ins to play (assumed).
const STEM: f64 = 1.900 * INCH;
const PORT: f64 = 180e-6;
const CHAMBER: f64 = 64e-6;
const CUP_SIDE: f64 = 0.024;
const CRANKED: f64 = 1.2e6;
const SUPPLY: f64 = 690e3;
const HELD: f64 = 0.93;

/// Every reading the session asks for, as the document's engine would give it; those it cannot tell are left out.
pub(super) fn played(bench: &Bench<'_>, session: &Session<'_>) -> Vec<PlayedReading> {
    let reading = |row: Row| {
        let cells = cells_of(bench, session, &row)?;
        Some(PlayedReading { says: row.says, dimension: cells.0, si: cells.1 })
    };
    rows(bench, session).into_iter().filter_map(reading).collect()
}

/// What stands in the cells of a row already, as the document would hold it.
struct Given(Vec<Value>);

impl Given {
    fn of(row: &Row) -> Self {
        Self(row.cells.iter().filter_map(|cell| Some(Value::from(cell.given.clone()?))).collect())
    }

    fn si<Q: OfDimension>(&self, column: usize) -> Option<f64> {
        of_value::<Q>(self.0.get(column)?).map(|own| own.to_si())
    }

    fn side(&self, column: usize) -> Option<Side> {
        Side::of_key(word(&self.0, column)?)
    }
}

/// What is asked of one row, SI.
fn cells_of(bench: &Bench<'_>, session: &Session<'_>, row: &Row) -> Option<(Dimension, Vec<f64>)> {
    let given = Given::of(row);
    let inputs = bench.inputs;
    let length = |si: f64| Some((Dimension::Length, vec![si]));
    match session.kind {
        SessionKind::DegreeIn => {
            let flank = if word(&given.0, 1)? == "opening" { Flank::Opening } else { Flank::Closing };
            let deg = expected(bench, session).ok()?.at(given.si::<Length>(0)?, flank)?;
            Some((Dimension::Angle, vec![deg.to_radians()]))
        }
        SessionKind::LobeMap if row.table == "calipers" => {
            let base = inputs.given.cam.base_circle_diameter?.si();
            Some((Dimension::Length, vec![base + inputs.side(given.side(1)?).lobe().ok()?.lift().si(), base]))
        }
        // The nose stands half a turn on.
        SessionKind::LobeMap => {
            let turn = if session.node.word("angles") == Some("crank") { 0.5 } else { 1.0 };
            let deg = turn * given.si::<Angle>(2)?.to_degrees() - 180.0;
            length(inputs.side(session.side).lobe().ok()?.at(deg).lift)
        }
        SessionKind::LiftCheck => {
            let own = inputs.side(session.side);
            let (lobe, lift) = (own.lobe().ok()?, own.lift.as_ref().ok()?);
            let light = lift.ratio * lobe.lift().si();
            let running = own.running.as_ref().ok()?.valve(lobe.lift().si(), own.spring.as_ref().ok());
            length(if word(&given.0, 0)? == "light" { light } else { running })
        }
        SessionKind::Springs => {
            let own = inputs.side(Side::Intake);
            let tall = inputs.train(Side::Intake).spring.installed_height?.si();
            let load = own.spring.as_ref().ok()?.load(Length::from_si(tall - given.si::<Length>(1)?));
            Some((Dimension::Force, vec![load.si()]))
        }
        SessionKind::InstalledHeights => length(inputs.train(given.side(1)?).spring.installed_height?.si()),
        SessionKind::ValveDrop => {
            let at = given.si::<Angle>(0)?.to_degrees();
            length(closed_gap(inputs, session.side).ok()?.at(at).along_stem.si())
        }
        SessionKind::Compression => Some((Dimension::Pressure, vec![CRANKED])),
        SessionKind::LeakDown => Some((Dimension::Pressure, vec![SUPPLY, HELD * SUPPLY])),
        SessionKind::Stems => length(STEM),
        SessionKind::Decks => length(inputs.given.engine.deck_clearance?.si()),
        SessionKind::Pushrods if row.table == "lengths" => length(inputs.train(Side::Intake).pushrod.length?.si()),
        SessionKind::Pushrods => {
            let train = inputs.train(given.side(1)?);
            let own = train.pushrod.checked_length.or(train.pushrod.length)?;
            length(own.si())
        }
        SessionKind::Adjustment => {
            let is_cold = session.node.word("engine_is") != Some("hot");
            length(wanted(bench, given.side(1)?, is_cold).ok()?.planned)
        }
        SessionKind::Clay => {
            let least = bench.closest(given.side(0)?)?;
            length(if word(&given.0, 1)? == "floor" { least.normal.si() } else { least.radial?.si() })
        }
        // Half of what it may be.
        SessionKind::Head => length(0.5 * most(HeadCheck::from_word(word(&given.0, 2)?)?, given.side(1)?)),
        SessionKind::RockerMass => {
            let rocker = &inputs.train(Side::Intake).rocker;
            let tip = rocker.tip_side_mass?.si();
            Some((Dimension::Mass, vec![tip, rocker.mass.map_or(CUP_SIDE, |whole: Mass| whole.si() - tip)]))
        }
        SessionKind::Volumes => {
            let is_chamber = word(&given.0, 1)? == "chamber";
            let chamber = inputs.given.engine.chamber_volume.map_or(CHAMBER, Volume::si);
            Some((Dimension::Volume, vec![if is_chamber { chamber } else { PORT }]))
        }
        SessionKind::CamCard => {
            let lobe = inputs.side(given.side(0)?).lobe().ok()?;
            match given.si::<Length>(1) {
                Some(height) => {
                    let deg = lobe.duration_crank_deg(Length::from_si(height))?;
                    Some((Dimension::Angle, vec![deg.to_radians()]))
                }
                None => length(lobe.lift().si()),
            }
        }
        SessionKind::Flow => {
            let table = inputs.port(given.side(0)?).flow.as_deref()?;
            let lift = given.si::<Length>(1)?;
            let near = table.iter().min_by(|a, b| (a.0.si() - lift).abs().total_cmp(&(b.0.si() - lift).abs()))?;
            Some((Dimension::Flow, vec![Flow::si(near.1)]))
        }
    }
}

/// Readings off by the factor between two systems of units, each in a question. A reading takes its cells in the order in which
/// they are asked. What was not read is not computed.
pub(super) fn other_units(bench: &Bench<'_>, session: &Session<'_>, asked: &[Row]) -> Vec<String> {
    let question = |row: &Row| {
        let all = session.node.cells(row.table);
        let read = all.iter().find(|read| is_of(&row.cells, read))?;
        let (dimension, expected) = cells_of(bench, session, row)?;
        let cells = row.cells.iter().zip(*read).filter(|(cell, _)| cell.given.is_none());
        let is_off = |((_, cell), expected): ((&NextCell, &Value), &f64)| {
            si_of(cell, dimension).is_some_and(|si| is_exchanged(si / expected, dimension))
        };
        let words = || format!("{}: off as if it was read in {}", row.says, units_of(dimension));
        cells.zip(&expected).any(is_off).then(words)
    };
    asked.iter().filter_map(question).collect()
}

fn si_of(cell: &Value, dimension: Dimension) -> Option<f64> {
    match dimension {
        Dimension::Length => of_value::<Length>(cell).map(Length::si),
        Dimension::Force => of_value::<Force>(cell).map(Force::si),
        _ => None,
    }
}

/// Whether a ratio is that between inches and millimetres, or pounds and newtons, give or take what parts differ by.
fn is_exchanged(ratio: f64, dimension: Dimension) -> bool {
    let factor = if dimension == Dimension::Length { 25.4 } else { 4.448 };
    [factor, 1.0 / factor].iter().any(|factor| (ratio / factor - 1.0).abs() < 0.08)
}

const fn units_of(dimension: Dimension) -> &'static str {
    match dimension {
        Dimension::Length => "the other of inches and millimetres",
        _ => "the other of pounds and newtons",
    }
}
