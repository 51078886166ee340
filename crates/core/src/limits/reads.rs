//! What rules read, declared once: from these lists come the inputs in "why", the field to go to, and which rules a change
//! can touch at all. A test perturbs every number of the demo builds and finds what is missing here.

use crate::document::Side;
use crate::given::{Of, Place};

/// Whose field it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Whose {
    /// Of the side the rule is held against; of both for a rule of the whole engine.
    Own,
    /// Always this side's.
    The(Side),
}

/// One field a rule reads.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Read {
    /// The object.
    pub of: Of,
    /// The key.
    pub key: &'static str,
    /// Whose.
    pub whose: Whose,
}

impl Read {
    /// The places it stands for when the rule is held against `side`.
    pub fn places(self, side: Option<Side>) -> impl Iterator<Item = Place> {
        let sides = match (self.whose, side) {
            (Whose::The(side), _) | (Whose::Own, Some(side)) => [Some(side), None],
            (Whose::Own, None) if self.of.is_sided() => Side::BOTH.map(Some),
            (Whose::Own, None) => [Some(Side::Intake), None],
        };
        sides.into_iter().flatten().map(move |side| Place::new(self.of, self.key, side))
    }
}

/// `reads![Spring: "points", "coils"; Port: "seal_height"]`, each of the rule's own side; `reads![@Exhaust Spring: ...]`
/// always of that side.
macro_rules! reads {
    ($($of:ident: $($key:literal),+);+ $(;)?) => {
        &[$($($crate::limits::reads::Read {
            of: $crate::given::Of::$of, key: $key, whose: $crate::limits::reads::Whose::Own,
        },)+)+]
    };
    (@$side:ident $($of:ident: $($key:literal),+);+ $(;)?) => {
        &[$($($crate::limits::reads::Read {
            of: $crate::given::Of::$of, key: $key,
            whose: $crate::limits::reads::Whose::The($crate::document::Side::$side),
        },)+)+]
    };
}
pub(super) use reads;

/// A list of reads.
pub type Reads = &'static [Read];

/// Declares one list for the rule's own side and the same for each side by name.
macro_rules! both_ways {
    ($($(#[$doc:meta])* [$own:ident, $intake:ident, $exhaust:ident] = [$($of:ident: $($key:literal),+);+])+) => {$(
        $(#[$doc])*
        pub const $own: Reads = reads![$($of: $($key),+);+];
        $(#[$doc])*
        pub const $intake: Reads = reads![@Intake $($of: $($key),+);+];
        $(#[$doc])*
        pub const $exhaust: Reads = reads![@Exhaust $($of: $($key),+);+];
    )+};
}

both_ways! {
    /// What a lobe is made from.
    [LOBE, INTAKE_LOBE, EXHAUST_LOBE] = [
        Lobe: "lobe_lift", "checks", "opening", "closing", "profile";
        Lifter: "kind", "face_diameter", "face_margin";
        Cam: "base_circle_diameter";
        Events: "intake_opens_btdc", "intake_closes_abdc", "exhaust_opens_bbdc", "exhaust_closes_atdc"]
    /// Where the lobes stand.
    [PHASING, INTAKE_PHASING, EXHAUST_PHASING] = [
        Cam: "intake_centreline", "lobe_separation";
        Events: "intake_opens_btdc", "intake_closes_abdc", "exhaust_opens_bbdc", "exhaust_closes_atdc"]
    /// What makes lift at the valve of lift at the lobe, rigid parts.
    [RATIO, INTAKE_RATIO, EXHAUST_RATIO] = [
        Rocker: "ratio", "pivot_to_tip", "pivot_to_cup", "tip_radius", "pivot_height", "cup_drop", "pushrod_angle", "geometry";
        Lifter: "kind", "lash";
        Pushrod: "length";
        Readings: "light_spring_lift", "light_spring_load", "running_lift", "running_load";
        Port: "valves";
        Spring: "installed_height", "points", "coils"]
    /// A closed valve in the frame.
    [VALVE, INTAKE_VALVE, EXHAUST_VALVE] = [
        Port: "valve_diameter", "valve_angle", "valve_cant", "valve_offset_x", "valve_offset_y", "face_recess"]
}

/// Load over lift of the package.
pub const SPRING: Reads = reads![Spring: "installed_height", "points", "coils"];
/// The same of the exhaust's.
pub const EXHAUST_SPRING: Reads = reads![@Exhaust Spring: "installed_height", "points", "coils"];
/// What gives under load.
pub const FLEX: Reads = reads![
    Pushrod: "length", "outside_diameter", "wall", "material";
    Rocker: "material", "mount", "stud_diameter", "ratio";
    Readings: "light_spring_lift", "light_spring_load", "running_lift", "running_load"
];
/// The crown under a valve.
pub const CROWN: Reads = reads![Pocket: "depth", "diameter", "offset_x", "offset_y", "floor_angle"];

/// Where the piston is over the crank.
pub const PISTON: Reads = reads![
    Engine: "deck_clearance", "gasket_thickness", "stroke", "rod_length", "pin_offset", "bore", "cylinders", "piston_volume"
];
/// Volumes above the piston.
pub const VOLUMES: Reads = reads![
    Engine: "chamber_volume", "piston_volume", "gasket_thickness", "gasket_bore", "deck_clearance", "bore", "stroke",
        "rod_length", "pin_offset", "cylinders"
];
/// Shift and missed shift.
pub const TOP_SPEED: Reads = reads![Target: "shift_at", "overspeed_by"];
/// What moves with a valve.
pub const MASSES: Reads = reads![
    Valve: "mass", "lash_cap_mass"; Retainer: "mass", "locks_mass"; Rocker: "tip_side_mass"; Lifter: "mass"; Spring: "mass";
    Bridge: "mass"; Port: "valves"; Pushrod: "mass", "length", "outside_diameter", "wall", "material"
];
/// What a running engine takes off the gap over a piston.
pub const GROWTH: Reads = reads![
    Growth: "rod_stretch", "crank_bending", "bearing_and_pin", "piston_heat", "piston_rock", "block_heat", "gasket_creep",
        "valve_stretch", "beyond";
    Engine: "rod_material", "rod_mass", "piston_assembly_mass", "rod_length", "stroke", "bore", "block_material"
];
