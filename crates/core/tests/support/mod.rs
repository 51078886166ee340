//! What several tests of the core share; each uses a part of it.

pub mod by_hand;

use serde_json::Value;

/// The demo builds: a towing V8, a strip V8, a diesel.
pub const DEMOS: [&str; 3] = [
    include_str!("../../../../demo/tollgate-388-hauler.json"),
    include_str!("../../../../demo/quarry-lane-427-strip.json"),
    include_str!("../../../../demo/harbour-six-7-2-diesel.json"),
];

/// The demo's parts shelf.
pub const SHELF: &str = include_str!("../../../../demo/parts.csv");

/// Seeded shares between 0 and 1 [splitmix64: Steele, Lea and Flood 2014; from memory].
pub struct Chance(pub u64);

impl Chance {
    pub fn share(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut mixed = self.0;
        mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        ((mixed ^ (mixed >> 31)) >> 11) as f64 / (1u64 << 53) as f64
    }
}

/// Paths of every scalar of a value.
pub fn scalars(value: &Value, path: &str, out: &mut Vec<String>) {
    match value {
        Value::Object(map) => {
            for (key, inner) in map {
                scalars(inner, &if path.is_empty() { key.clone() } else { format!("{path}.{key}") }, out);
            }
        }
        Value::Array(items) => {
            for (place, inner) in items.iter().enumerate() {
                scalars(inner, &format!("{path}[{place}]"), out);
            }
        }
        _ => out.push(path.to_owned()),
    }
}

/// Fails where something printed holds a number that is none; `of` says whose it is.
pub fn finite(printed: &str, of: &[String]) {
    for word in ["NaN", ": inf", ": -inf", "(inf", "(-inf", "[inf", " inf,"] {
        assert!(
            !printed.contains(word),
            "{of:?}: {word} after {}",
            printed.split(word).next().map_or("", |p| &p[p.len().saturating_sub(200)..])
        );
    }
}

/// How many cases of a long check are run: a few in `./check`, as many as the environment names by hand.
pub fn wanted(name: &str, usual: usize) -> usize {
    std::env::var(name).ok().and_then(|text| text.parse().ok()).unwrap_or(usual)
}
