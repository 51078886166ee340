//! One speed of a train as a film: where its parts stand through the cycle, for the drawing that moves.

use super::train::SideTrain;
use crate::dynamics::model::{MASSES, Model};
use crate::dynamics::run::{Case, RECORDS, Still, film};
use crate::report::FilmSide;

/// Records between two pictures.
const EVERY: usize = 4;

/// The train of one side at a speed; `None` where its springs have no mass.
pub fn film_of(side: &SideTrain<'_>, rpm: f64) -> Option<FilmSide> {
    let model = side.model(&side.learned.usual())?;
    let all = film(side.lobe, &Case { model: &model, rpm, gas: side.gas.at(rpm) });
    let stills = || all.iter().enumerate().step_by(EVERY);
    let column = |of: &dyn Fn(usize, &Still) -> f64| stills().map(|(i, still)| rounded(1e3 * of(i, still))).collect();
    let lobe = |record: usize| side.lobe.at(0.5 * (record as f64 + 1.0 - 0.5 * RECORDS as f64)).lift;
    let tip = |still: &Still| travel(&model.tip, still.turn) - still.pivot - model.lash;
    let cup = |still: &Still| travel(&model.cup, still.turn) + still.pivot;
    Some(FilmSide {
        crank_deg: stills().map(|(i, _)| (side.begins_at + i as f64 + 1.0).rem_euclid(720.0)).collect(),
        valve_mm: column(&|_, still| still.valve),
        tip_mm: column(&|_, still| tip(still)),
        lifter_mm: column(&|_, still| still.lifter),
        lobe_gap_mm: column(&|i, still| (still.lifter - lobe(i)).max(0.0)),
        cup_gap_mm: column(&|_, still| (cup(still) - still.foot).max(0.0)),
        stem_gap_mm: column(&|_, still| gap(&model, still, tip(still))),
        coil_mm: stills().map(|(_, still)| still.coil.map(|down| rounded(1e3 * down)).to_vec()).collect(),
        coil_masses: MASSES,
    })
}

/// Between tip and stem; the bridge of two valves goes with the stems.
fn gap(model: &Model, still: &Still, tip: f64) -> f64 {
    // At rest a lash is no lost contact.
    let resting = if model.lash > 0.0 && still.valve < 1e-5 { model.lash } else { 0.0 };
    (still.valve - tip - resting).max(0.0)
}

/// `turn (c0 + turn (c1 + turn (c2 + turn c3)))`.
fn travel(of: &[f64; 4], turn: f64) -> f64 {
    turn * (of[0] + turn * (of[1] + turn * (of[2] + turn * of[3])))
}

/// To a micrometre: what a picture shows.
fn rounded(mm: f64) -> f64 {
    (mm * 1e3).round() / 1e3
}
