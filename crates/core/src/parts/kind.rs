//! Kinds of parts, what the shelf knows of each, and what belongs to the engine it is fitted to.

use crate::document::{
    CAM, Field, Kind, LIFTER, LOBE, Object, PUSHROD, RETAINER, ROCKER, SHELF_VALVE, SPRING, columns_of,
};
use serde::{Deserialize, Serialize};

/// What one can take from the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartKind {
    /// A camshaft: both lobes and their phasing.
    Cam,
    /// One lobe, for a cam to be ground.
    Lobe,
    /// A set of lifters.
    Lifter,
    /// A set of pushrods.
    Pushrod,
    /// A set of rockers.
    Rocker,
    /// The valves of one side.
    Valve,
    /// Retainers with their locks.
    Retainer,
    /// Springs.
    Spring,
}

impl PartKind {
    /// Every kind, in the builder's order.
    pub const ALL: [Self; 8] =
        [Self::Cam, Self::Lobe, Self::Lifter, Self::Pushrod, Self::Rocker, Self::Valve, Self::Retainer, Self::Spring];

    /// Its word in files and paths.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Cam => "cam",
            Self::Lobe => "lobe",
            Self::Lifter => "lifter",
            Self::Pushrod => "pushrod",
            Self::Rocker => "rocker",
            Self::Valve => "valve",
            Self::Retainer => "retainer",
            Self::Spring => "spring",
        }
    }

    /// The kind of that word.
    pub fn from_word(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.word() == word)
    }

    /// The table its fields are of.
    pub fn object(self) -> &'static Object {
        match self {
            Self::Cam => &CAM,
            Self::Lobe => &LOBE,
            Self::Lifter => &LIFTER,
            Self::Pushrod => &PUSHROD,
            Self::Rocker => &ROCKER,
            Self::Valve => &SHELF_VALVE,
            Self::Retainer => &RETAINER,
            Self::Spring => &SPRING,
        }
    }

    /// Keys of that table which are set when it is fitted: the shelf does not know them, and they stay when a part is
    /// changed.
    pub const fn settings(self) -> &'static [&'static str] {
        match self {
            Self::Lifter => &["preload", "preload_school", "lash"],
            Self::Pushrod => &["checked_length"],
            Self::Rocker => &["pivot_height", "stem_offset", "geometry", "pushrod_angle"],
            Self::Spring => &["installed_height"],
            Self::Cam => &["intake_centreline"],
            Self::Lobe | Self::Valve | Self::Retainer => &[],
        }
    }

    /// Settings a card recommends: the shelf may know them, and they are taken where the candidate has none of its own; a
    /// cam is always put in where its card says.
    pub const fn recommended(self) -> &'static [&'static str] {
        match self {
            Self::Spring => &["installed_height"],
            Self::Cam => &["intake_centreline"],
            _ => &[],
        }
    }

    /// Whether `key` of its object says what the part is: not how it is set, not a mark of where a value comes from, and
    /// not a side, unless it is a lobe of a cam.
    pub fn is_of_the_part(self, key: &str) -> bool {
        let a_side = self != Self::Cam && matches!(key, "intake" | "exhaust");
        !a_side && key != "sources" && !self.settings().contains(&key)
    }

    /// Whether the shelf knows `key` of it; name and price it knows of every part.
    pub fn knows(self, key: &str) -> bool {
        !matches!(key, "part" | "price") && (self.is_of_the_part(key) || self.recommended().contains(&key))
    }

    /// Fields that tell one part of a kind from another, most telling first.
    pub const fn telling(self) -> &'static [&'static str] {
        match self {
            Self::Cam => {
                &["intake.lobe_lift", "exhaust.lobe_lift", "intake.checks", "exhaust.checks", "lobe_separation"]
            }
            Self::Lobe => &["lobe_lift", "checks", "opening.checks", "closing.checks", "lash_ramp"],
            Self::Lifter => &["kind", "variant", "anti_rotation", "mass", "rated_speed", "travel"],
            Self::Pushrod => &["length", "outside_diameter", "wall"],
            Self::Rocker => &["ratio", "mount", "tip", "material", "rated_lift", "tip_side_mass"],
            Self::Valve => &["valve_diameter", "stem_diameter", "length", "mass", "material"],
            Self::Retainer => &["spring_diameter", "mass", "depth", "diameter"],
            Self::Spring => &["points", "coils", "coil_bind_height", "outside_diameter", "mass"],
        }
    }

    /// Its fields on the shelf, nested ones by dotted names, in the order of the table.
    pub fn leaves(self) -> Vec<(String, &'static Field)> {
        let mut found = Vec::new();
        leaves_of(self.object(), "", &mut found);
        found.retain(|(path, field)| self.knows(path) && field.key != "part");
        found
    }
}

/// The fields of `object` down to texts, numbers and tables.
fn leaves_of(object: &'static Object, prefix: &str, found: &mut Vec<(String, &'static Field)>) {
    for field in object.fields {
        let path = if prefix.is_empty() { field.key.to_owned() } else { format!("{prefix}.{}", field.key) };
        match &field.kind {
            Kind::Object(inner) if columns_of(inner).is_none() => leaves_of(inner, &path, found),
            _ => found.push((path, field)),
        }
    }
}
