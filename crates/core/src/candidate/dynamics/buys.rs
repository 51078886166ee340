//! What buys limiting speed: changes of the train, each turned on the same draws as the train itself.

use super::super::resolve::Resolved;
use super::super::stages::Stages;
use super::ranges::Unmeasured;
use super::report::quantile;
use super::train::{SideTrain, side_train};
use super::work::lost_at;
use crate::document::Side;
use crate::dynamics::model::Model;
use crate::given::{Of, Place};
use crate::quantity::INCH;
use crate::words::{LifterKind, Mount};

/// Speeds looked at on both sides of the train's own limit, rpm, and how far apart.
const NEAR: (f64, f64, f64) = (800.0, 1600.0, 200.0);
/// A gram, kg.
const GRAM: f64 = 1e-3;
/// Pivots on one shaft are so much stiffer than on a stud, on a pedestal (see `train::compliance`).
const SHAFT: f64 = 2.4;

/// How a change is made.
enum How {
    /// A field that is a number, changed by so much, SI.
    Field(fn(Side) -> Place, f64),
    /// A part of the model, for trains that are so.
    Part(fn(&mut Model), fn(&Resolved, Side) -> bool),
}

/// A change worth trying.
struct Change {
    what: &'static str,
    how: How,
    costs: &'static str,
}

macro_rules! place {
    ($of:ident, $key:literal) => {
        |side: Side| Place::new(Of::$of, $key, side)
    };
}

fn on_studs(resolved: &Resolved, side: Side) -> bool {
    matches!(resolved.train(side).rocker.mount, Some(Mount::Stud | Mount::Pedestal) | None)
}

fn hydraulic(resolved: &Resolved, side: Side) -> bool {
    resolved.train(side).lifter.kind.is_some_and(LifterKind::is_hydraulic)
}

fn solid(model: &mut Model) {
    if let Some((mass, _)) = model.plunger.take() {
        model.lifter += mass;
    }
}

/// Everything that is tried, in no order.
static CHANGES: [Change; 11] = [
    Change {
        what: "lighter valve",
        how: How::Field(place!(Valve, "mass"), -10.0 * GRAM),
        costs: "hollow stems, titanium: price, and heat on the exhaust",
    },
    Change {
        what: "lighter retainer",
        how: How::Field(place!(Retainer, "mass"), -8.0 * GRAM),
        costs: "titanium wants looking at more often",
    },
    Change {
        what: "lighter rocker tip",
        how: How::Field(place!(Rocker, "tip_side_mass"), -5.0 * GRAM),
        costs: "a plain tip loads the guide at high lift",
    },
    Change {
        what: "fatter pushrod",
        how: How::Field(place!(Pushrod, "outside_diameter"), INCH / 16.0),
        costs: "heavier, and wants room in the head",
    },
    Change {
        what: "thicker wall of the pushrod",
        how: How::Field(place!(Pushrod, "wall"), 0.040 * INCH),
        costs: "heavier",
    },
    Change {
        what: "one shaft for the rockers instead of studs",
        how: How::Part(|model| model.pivot.1.stiffness *= SHAFT, on_studs),
        costs: "price, and room below the cover",
    },
    Change {
        what: "springs installed shorter",
        how: How::Field(place!(Spring, "installed_height"), -0.030 * INCH),
        costs: "travel to bind, stress, lobe and lifter life",
    },
    Change {
        what: "a tenth more rate, same seat load",
        how: How::Part(|model| model.coils.iter_mut().for_each(|coil| coil.rate *= 1.1), |_, _| true),
        costs: "lobe and lifter life, flex, heat in the spring",
    },
    Change {
        what: "coils a tenth lighter at the same loads",
        how: How::Part(|model| model.coils.iter_mut().for_each(|coil| coil.mass *= 0.9), |_, _| true),
        costs: "a beehive or finer wire: stress",
    },
    Change {
        what: "a tenth less ratio",
        how: How::Part(
            |model| {
                let less = (model.ratio() - 0.1) / model.ratio();
                model.tip.iter_mut().for_each(|c| *c *= less);
                model.inertia *= less * less;
            },
            |_, _| true,
        ),
        costs: "lift: flow on top",
    },
    Change {
        what: "solid lifter at zero lash in place of the hydraulic one",
        how: How::Part(solid, hydraulic),
        costs: "lash to be set and looked at; a lobe ground for it",
    },
];

/// A change that was turned.
#[derive(Debug, Clone, PartialEq)]
pub struct Bought {
    /// What is done.
    pub what: &'static str,
    /// The field with its old and new value, SI.
    pub field: Option<(Place, f64, f64)>,
    /// Median over the draws, rpm.
    pub gain: f64,
    /// Nine of ten lie between, rpm.
    pub band: [f64; 2],
    /// What it costs.
    pub costs: &'static str,
    /// Why it does less than the trade expects, where it does.
    pub why: Option<String>,
}

/// Gains below which a stiffer pushrod surprises, rpm.
const SURPRISES: f64 = 60.0;

/// Why a change does so little or so uncertainly, where the trade expects more of it.
fn why(what: &str, gain: f64, band: [f64; 2], model: &Model) -> Option<String> {
    if what.contains("pushrod") && gain < SURPRISES {
        let share = model.ratio().powi(2) / model.pushrod.stiffness / model.compliance();
        return Some(format!(
            "the pushrod is {:.0} % of what this train gives, and more of it is more mass",
            100.0 * share
        ));
    }
    let uncertain = band[0] < 0.0 && band[1] > 0.0;
    if uncertain && what.contains("rate") {
        return Some(
            "more rate moves the coils' own waves to another speed: whether that helps hangs on what nobody measures"
                .to_owned(),
        );
    }
    if uncertain && what.starts_with("coils") {
        return Some(
            "lighter coils ring at another speed: whether that helps hangs on what nobody measures".to_owned(),
        );
    }
    None
}

/// What every change does to the limit of `side`, which lies near `limit`, what buys most first; empty when stopped.
pub fn bought(
    resolved: &Resolved,
    side: Side,
    (limit, threshold): (f64, f64),
    stages: &Stages,
    stop: &(dyn Fn() -> bool + Sync),
) -> Vec<Bought> {
    let draws = Unmeasured::draws();
    let steps = ((NEAR.0 + NEAR.1) / NEAR.2) as usize;
    let speeds: Vec<f64> = (0..=steps).map(|i| (limit - NEAR.0 + NEAR.2 * i as f64).max(500.0)).collect();
    let top = speeds[steps];
    let limits = |train: &SideTrain<'_>, models: &[Model]| -> Vec<f64> {
        let lost = lost_at(train, models, &speeds, threshold, stop);
        lost.into_iter().map(|lost| lost.map_or(top, |(rpm, _)| rpm)).collect()
    };
    let Ok(own) = side_train(resolved, side) else { return Vec::new() };
    let models = own.models(&draws);
    let base = limits(&own, &models);
    let mut all = Vec::new();
    for change in &CHANGES {
        let (after, field) = match change.how {
            How::Part(make, applies) => {
                if !applies(resolved, side) {
                    continue;
                }
                let mut changed = models.clone();
                changed.iter_mut().for_each(make);
                (limits(&own, &changed), None)
            }
            How::Field(place, by) => {
                let place = place(side);
                let Some(from) = resolved.given.number(place) else { continue };
                let Some(changed) = resolved.with(&[(place, from + by)], stages) else { continue };
                let Ok(train) = side_train(&changed, side) else { continue };
                (limits(&train, &train.models(&draws)), Some((place, from, from + by)))
            }
        };
        if stop() || after.len() != base.len() {
            return Vec::new();
        }
        let mut gains: Vec<f64> = after.iter().zip(&base).map(|(after, before)| after - before).collect();
        gains.sort_by(f64::total_cmp);
        let (gain, band) = (quantile(&gains, 0.5), [quantile(&gains, 0.05), quantile(&gains, 0.95)]);
        let why = models.first().and_then(|model| why(change.what, gain, band, model));
        all.push(Bought { what: change.what, field, gain, band, costs: change.costs, why });
    }
    all.sort_by(|a, b| b.gain.total_cmp(&a.gain));
    all
}
