//! Changes of a train that may buy limiting speed, what each costs, and why one does less than the trade expects.

use super::super::resolve::Resolved;
use crate::document::Side;
use crate::dynamics::model::Model;
use crate::given::{Of, Place};
use crate::quantity::INCH;
use crate::report::Topic;
use crate::words::{LifterKind, Mount};

/// A gram, kg.
const GRAM: f64 = 1e-3;
/// Pivots on one shaft are so much stiffer than on a stud, on a pedestal (see `train::compliance`).
const SHAFT: f64 = 2.4;
/// How a change is made.
pub(super) enum How {
    /// A field that is a number, changed by so much, SI.
    Field(fn(Side) -> Place, f64),
    /// A part of the model, for trains that are so.
    Part(fn(&mut Model), fn(&Resolved, Side) -> bool),
}

/// A change worth trying.
pub(super) struct Change {
    /// What it is about.
    pub topic: Topic,
    /// In words.
    pub what: &'static str,
    /// How it is made.
    pub how: How,
    /// What it costs beside money.
    pub costs: &'static str,
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
pub(super) static CHANGES: [Change; 12] = [
    Change {
        topic: Topic::Valve,
        what: "lighter valve",
        how: How::Field(place!(Valve, "mass"), -10.0 * GRAM),
        costs: "hollow stems, titanium: price, and heat on the exhaust",
    },
    Change {
        topic: Topic::Retainer,
        what: "lighter retainer",
        how: How::Field(place!(Retainer, "mass"), -8.0 * GRAM),
        costs: "titanium wants looking at more often",
    },
    Change {
        topic: Topic::Tip,
        what: "lighter rocker tip",
        how: How::Field(place!(Rocker, "tip_side_mass"), -5.0 * GRAM),
        costs: "a plain tip loads the guide at high lift",
    },
    Change {
        topic: Topic::Pushrod,
        what: "fatter pushrod",
        how: How::Field(place!(Pushrod, "outside_diameter"), INCH / 16.0),
        costs: "heavier, and wants room in the head",
    },
    Change {
        topic: Topic::Pushrod,
        what: "thicker wall of the pushrod",
        how: How::Field(place!(Pushrod, "wall"), 0.040 * INCH),
        costs: "heavier",
    },
    Change {
        topic: Topic::Lifter,
        what: "lighter lifter",
        how: How::Field(place!(Lifter, "mass"), -20.0 * GRAM),
        costs: "price; a smaller body or roller bears less",
    },
    Change {
        topic: Topic::Pivot,
        what: "one shaft for the rockers instead of studs",
        how: How::Part(|model| model.pivot.1.stiffness *= SHAFT, on_studs),
        costs: "price, and room below the cover",
    },
    Change {
        topic: Topic::Spring,
        what: "springs installed shorter",
        how: How::Field(place!(Spring, "installed_height"), -0.030 * INCH),
        costs: "travel to bind, stress, lobe and lifter life",
    },
    Change {
        topic: Topic::Spring,
        what: "a tenth more rate, same seat load",
        how: How::Part(|model| model.coils.iter_mut().for_each(|coil| coil.rate *= 1.1), |_, _| true),
        costs: "lobe and lifter life, flex, heat in the spring",
    },
    Change {
        topic: Topic::Spring,
        what: "coils a tenth lighter at the same loads",
        how: How::Part(|model| model.coils.iter_mut().for_each(|coil| coil.mass *= 0.9), |_, _| true),
        costs: "a beehive or finer wire: stress",
    },
    Change {
        topic: Topic::Lift,
        what: "a tenth less ratio",
        how: How::Field(place!(Rocker, "ratio"), -0.1),
        costs: "lift: flow on top",
    },
    Change {
        topic: Topic::Lifter,
        what: "solid lifter at zero lash in place of the hydraulic one",
        how: How::Part(solid, hydraulic),
        costs: "lash to be set and looked at; a lobe ground for it",
    },
];

/// Gains below which a stiffer pushrod, or a lighter lifter, surprises, rpm.
const SURPRISES: f64 = 60.0;

/// Why a change does so little or so uncertainly, where the trade expects more of it.
pub(super) fn why(topic: Topic, what: &str, gain: f64, band: [f64; 2], model: &Model) -> Option<String> {
    let ratio = model.ratio();
    if topic == Topic::Pushrod && gain < SURPRISES {
        let share = ratio.powi(2) / model.pushrod.stiffness / model.compliance();
        return Some(format!(
            "the pushrod is {:.0} % of what this train gives, and more of it is more mass",
            100.0 * share
        ));
    }
    if what == "lighter lifter" && gain < SURPRISES {
        return Some(format!(
            "a gram at the lifter counts as {:.2} g at the valve, and the spring holds it through the rocker's whole ratio",
            1.0 / ratio.powi(2)
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
