//! How far a field usually is off by where it comes from, and who shares that: one table.
//!
//! Common practice, no source; spreads of makers' cards and of assumed values are assumed. A document may say its own.

use crate::document::Origin;
use crate::given::{Of, Place};
use crate::quantity::INCH;
use crate::words::SharedCause;

/// A width, SI or as a share of the value.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Half {
    /// So much.
    Of(f64),
    /// So much of the value.
    Share(f64),
}

/// The usual plus-minus of one kind of field: measured, from a card, assumed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Usual {
    measured: Half,
    card: Half,
    assumed: Half,
    /// Who shares the deviation, for the larger part.
    pub shared: SharedCause,
}

/// Share of the variance in common where parts of one casting, batch or programme share a cause (assumed): the rest differs
/// from cylinder to cylinder all the same.
const IN_COMMON: f64 = 0.7;

/// Share of the variance of the field at `place` that is in common where its cause is shared: an engine has one cam, and its
/// lifter bore is the smallest of all.
pub fn in_common(place: Place) -> f64 {
    let is_one = matches!(place.of, Of::Cam | Of::Events | Of::Growth) || place.key == "lifter_bore";
    if is_one { 1.0 } else { IN_COMMON }
}

impl Usual {
    /// Of a value of this size by its origin, SI; one that was typed without a mark counts as from a card.
    pub fn half(&self, origin: Origin, size: f64) -> f64 {
        let half = match origin {
            Origin::Measured | Origin::Computed => self.measured,
            Origin::Card | Origin::Unmarked => self.card,
            Origin::Assumed => self.assumed,
        };
        match half {
            Half::Of(si) => si,
            Half::Share(share) => share * size.abs(),
        }
    }
}

const fn thousandths(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    const T: f64 = 1e-3 * INCH;
    Usual { measured: Half::Of(measured * T), card: Half::Of(card * T), assumed: Half::Of(assumed * T), shared }
}

const fn plain(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    Usual { measured: Half::Of(measured), card: Half::Of(card), assumed: Half::Of(assumed), shared }
}

const fn degrees(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    const D: f64 = std::f64::consts::PI / 180.0;
    plain(measured * D, card * D, assumed * D, shared)
}

const fn millilitres(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    plain(measured * 1e-6, card * 1e-6, assumed * 1e-6, shared)
}

const fn grams(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    plain(measured * 1e-3, card * 1e-3, assumed * 1e-3, shared)
}

const fn shares(measured: f64, card: f64, assumed: f64, shared: SharedCause) -> Usual {
    Usual { measured: Half::Share(measured), card: Half::Share(card), assumed: Half::Share(assumed), shared }
}

use SharedCause::{Bank, Cylinder, Engine};

/// The table: measured, card, assumed.
const TABLE: &[(Of, &[&str], Usual)] = &[
    // Of the block: a deck is cut bank by bank, a gasket crushes alike in one engine.
    (Of::Engine, &["deck_clearance"], thousandths(1.0, 3.0, 5.0, Bank)),
    (Of::Engine, &["gasket_thickness"], thousandths(1.0, 2.0, 3.0, Engine)),
    (Of::Engine, &["stroke", "gasket_bore"], thousandths(1.0, 3.0, 5.0, Engine)),
    (Of::Engine, &["rod_length", "bore", "pin_offset"], thousandths(0.5, 1.0, 3.0, Cylinder)),
    (Of::Engine, &["chamber_volume", "piston_volume"], millilitres(0.3, 1.0, 2.0, Cylinder)),
    (Of::Engine, &["rod_to_cam", "rod_to_block"], thousandths(3.0, 10.0, 15.0, Cylinder)),
    (Of::Engine, &["lifter_bore"], thousandths(0.2, 0.5, 1.0, Engine)),
    (Of::Engine, &["rod_mass", "piston_assembly_mass"], grams(1.0, 5.0, 20.0, Engine)),
    // Of the head: seats are cut one by one, offsets and angles are the casting's and its fixture's.
    (Of::Port, &["face_recess"], thousandths(3.0, 8.0, 12.0, Cylinder)),
    (Of::Port, &["valve_diameter"], thousandths(1.0, 2.0, 5.0, Engine)),
    (Of::Port, &["valve_angle", "valve_cant"], degrees(0.2, 0.3, 0.5, Engine)),
    (Of::Port, &["valve_offset_x", "valve_offset_y"], thousandths(8.0, 10.0, 20.0, Engine)),
    (Of::Port, &["seal_height", "piston_drop"], thousandths(3.0, 10.0, 20.0, Cylinder)),
    (Of::Port, &["cover_room"], thousandths(20.0, 40.0, 60.0, Engine)),
    // Pockets are milled by one programme.
    (Of::Pocket, &["depth"], thousandths(3.0, 5.0, 12.0, Engine)),
    (Of::Pocket, &["diameter", "offset_x", "offset_y"], thousandths(5.0, 10.0, 20.0, Engine)),
    (Of::Pocket, &["floor_angle"], degrees(0.2, 0.3, 0.5, Engine)),
    // One cam in one engine; lobes of one grinding.
    (Of::Cam, &["intake_centreline"], degrees(0.5, 1.0, 2.0, Engine)),
    (Of::Cam, &["lobe_separation"], degrees(0.3, 0.5, 1.0, Engine)),
    (Of::Cam, &["base_circle_diameter"], thousandths(0.5, 1.0, 3.0, Engine)),
    (
        Of::Events,
        &["intake_opens_btdc", "intake_closes_abdc", "exhaust_opens_bbdc", "exhaust_closes_atdc"],
        degrees(0.5, 1.0, 2.0, Engine),
    ),
    (Of::Lobe, &["lobe_lift"], thousandths(0.5, 1.0, 2.0, Engine)),
    (Of::Lobe, &["checks", "opening", "closing"], degrees(0.5, 1.0, 2.0, Engine)),
    (Of::Lifter, &["lash"], thousandths(1.0, 2.0, 3.0, Cylinder)),
    (Of::Lifter, &["preload"], thousandths(3.0, 6.0, 10.0, Cylinder)),
    (Of::Lifter, &["mass"], grams(0.3, 1.0, 3.0, Engine)),
    (Of::Pushrod, &["length"], thousandths(2.0, 5.0, 10.0, Cylinder)),
    (Of::Rocker, &["ratio"], plain(0.005, 0.02, 0.03, Engine)),
    (Of::Rocker, &["pivot_height", "stem_offset"], thousandths(5.0, 10.0, 20.0, Cylinder)),
    (Of::Rocker, &["tip_side_mass"], grams(0.2, 0.5, 2.0, Engine)),
    (Of::Valve, &["mass"], grams(0.2, 1.0, 3.0, Engine)),
    (Of::Retainer, &["mass"], grams(0.2, 0.5, 1.0, Engine)),
    (Of::Retainer, &["depth"], thousandths(2.0, 5.0, 10.0, Engine)),
    (Of::Readings, &["light_spring_lift", "running_lift"], thousandths(1.0, 2.0, 4.0, Cylinder)),
    // Springs are set up one by one; a batch differs from its sheet by some per cent together.
    (Of::Spring, &["installed_height"], thousandths(5.0, 10.0, 20.0, Cylinder)),
    (Of::Spring, &["coil_bind_height"], thousandths(5.0, 10.0, 20.0, Engine)),
    (Of::Spring, &["mass"], grams(0.5, 2.0, 5.0, Engine)),
    (Of::Spring, &["points"], shares(0.02, 0.05, 0.08, Engine)),
    // What nobody can measure at a standstill is known by a third at best.
    (
        Of::Growth,
        &[
            "rod_stretch",
            "crank_bending",
            "bearing_and_pin",
            "piston_heat",
            "piston_rock",
            "block_heat",
            "gasket_creep",
            "valve_stretch",
            "valve_sway",
            "piston_sway",
            "cam_lag_per_1000_rpm",
            "beyond",
        ],
        shares(0.3, 0.4, 0.6, Engine),
    ),
];

/// The usual spread of the field at `place`; `None` for a decision of the plan and for what no rule of ours reads.
pub fn usual(place: Place) -> Option<&'static Usual> {
    let own = TABLE.iter().find(|(of, keys, _)| *of == place.of && keys.contains(&place.key));
    own.map(|(_, _, usual)| usual)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::Side;

    #[test]
    fn what_is_measured_is_known_best() {
        for (of, keys, usual) in TABLE {
            let [measured, card, assumed] =
                [Origin::Measured, Origin::Card, Origin::Assumed].map(|origin| usual.half(origin, 1.0));
            assert!(0.0 < measured && measured <= card && card <= assumed, "{of:?} {keys:?}");
        }
        assert!(usual(Place::new(Of::Target, "shift_at", Side::Intake)).is_none());
    }
}
