//! The limits a shop may set its own figure for.

use crate::quantity::Dimension;

/// The limits a shop may set its own figure for: identifier of the rule, and what a figure for it is written in.
macro_rules! limits {
    ($($id:literal: $dimension:expr,)+) => {
        /// A limit a shop may set its own figure for: the identifiers of the rules.
        pub const LIMIT_IDS: &[&str] = &[$($id,)+];

        /// What a figure for the limit `id` is written in; `None` for a plain number.
        pub fn limit_dimension(id: &str) -> Option<Dimension> {
            match id {
                $($id => $dimension,)+
                _ => None,
            }
        }
    };
}

limits! {
    "piston_clearance": Some(Dimension::Length),
    "radial": Some(Dimension::Length),
    "bore_wall": Some(Dimension::Length),
    "valve_to_valve": Some(Dimension::Length),
    "piston_to_head": Some(Dimension::Length),
    "retainer_to_seal": Some(Dimension::Length),
    "piston_at_speed": Some(Dimension::Length),
    "head_at_speed": Some(Dimension::Length),
    "valves_at_speed": Some(Dimension::Length),
    "radial_at_speed": Some(Dimension::Length),
    "retainer_at_speed": Some(Dimension::Length),
    "bind_at_speed": Some(Dimension::Length),
    "rocker_at_speed": Some(Dimension::Length),
    "rod_room": Some(Dimension::Length),
    "rod_at_speed": Some(Dimension::Length),
    "coil_bind": Some(Dimension::Length),
    "seat_load": Some(Dimension::Force),
    "open_load": Some(Dimension::Force),
    "seat_reserve": Some(Dimension::Force),
    "exhaust_opening": Some(Dimension::Force),
    "limiting_speed": Some(Dimension::Speed),
    "piston_in_motion": Some(Dimension::Length),
    "pushrod_in_motion": None,
    "lobe_in_motion": Some(Dimension::Pressure),
    "wire_in_motion": None,
    "hand_check": Some(Dimension::Speed),
    "wire_stress": None,
    "wire_life": None,
    "wire_fatigue": None,
    "surge_order": None,
    "lifter_speed": Some(Dimension::Speed),
    "rocker_lift": Some(Dimension::Length),
    "class_lift": Some(Dimension::Length),
    "class_ratio": None,
    "contact_stress": Some(Dimension::Pressure),
    "pressure_angle": Some(Dimension::Angle),
    "hollow_flank": Some(Dimension::Length),
    "nose_radius": Some(Dimension::Length),
    "nose_acceleration": Some(Dimension::LobeAcceleration),
    "lifter_load": Some(Dimension::Force),
    "foot_contact": Some(Dimension::Length),
    "preload": Some(Dimension::Length),
    "preload_school": Some(Dimension::Length),
    "cold_lash": Some(Dimension::Length),
    "tip_pattern": Some(Dimension::Length),
    "pushrod_buckling": None,
    "lifter_clearance": Some(Dimension::Length),
    "lash_ramp": Some(Dimension::Length),
    "lobe_through_bearing": Some(Dimension::Length),
    "regrind_depth": Some(Dimension::Length),
    "guide_pressure": Some(Dimension::Pressure),
    "rocker_to_retainer": Some(Dimension::Length),
    "stud_slot": Some(Dimension::Length),
    "cover_room": Some(Dimension::Length),
    "pushrod_hole": Some(Dimension::Length),
    "spring_pocket": Some(Dimension::Length),
    "cost": Some(Dimension::Money),
    "trapped_compression": None,
    "idle_overlap": Some(Dimension::Angle),
    "water_reversion": Some(Dimension::Angle),
    "lift_against_head": None,
    "octane": Some(Dimension::Octane),
    "peak_pressure": Some(Dimension::Pressure),
    "idle_vacuum": Some(Dimension::Pressure),
}
