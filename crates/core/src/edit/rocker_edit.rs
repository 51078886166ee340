//! A rocker's ratio and its arms are one thing: typing one moves the other.
//!
//! A new ratio shortens or lengthens the arm to the cup; a new arm to the tip takes the cup's with it, since the ratio is the
//! rocker's name; a new arm to the cup is another rocker, and renames it where the name would no longer be true.

use crate::document::{Fault, Side, get, set_field};
use crate::quantity::{Dimension, UnitSystem, parse, restate};
use serde_json::Value;

/// A name that differs from the arms by more than this share is no longer true.
const TRUE_NAME: f64 = 0.03;

/// Moves what goes with the field at `path`, which has just been typed into `after`; other fields move nothing.
///
/// # Errors
/// A fault of the field that goes with it.
pub fn follow(before: &Value, after: &mut Value, path: &str) -> Result<(), Fault> {
    let Some((rocker, key)) = path.rsplit_once('.') else { return Ok(()) };
    let (plain, side) = match Side::BOTH.into_iter().find(|side| rocker.ends_with(&format!(".rocker.{}", side.key()))) {
        Some(side) => (rocker.trim_end_matches(&format!(".{}", side.key())), Some(side)),
        None => (rocker, None),
    };
    if !plain.ends_with(".train.rocker") || !matches!(key, "ratio" | "pivot_to_tip" | "pivot_to_cup") {
        return Ok(());
    }
    // A plain field is that of every side without its own; each of them has arms of its own, or the plain ones.
    let sides: Vec<Option<Side>> = match side {
        Some(side) => vec![Some(side)],
        None => std::iter::once(None).chain(Side::BOTH.map(Some)).collect(),
    };
    for side in sides {
        if let Some(own) = side.filter(|_| side != self::side_of(rocker)) {
            let prefix = format!("{plain}.{}", own.key());
            let has = |key: &str| get(before, &format!("{prefix}.{key}")).is_some();
            // Of a side that shares the typed field, only what it has of its own follows by itself.
            if has(key) || !(has("pivot_to_cup") || has("pivot_to_tip") || has("ratio")) {
                continue;
            }
        }
        follow_on(before, after, plain, side, key)?;
    }
    Ok(())
}

fn side_of(rocker: &str) -> Option<Side> {
    Side::BOTH.into_iter().find(|side| rocker.ends_with(&format!(".rocker.{}", side.key())))
}

fn follow_on(before: &Value, after: &mut Value, plain: &str, side: Option<Side>, key: &str) -> Result<(), Fault> {
    let text = |document: &Value, key: &str| -> Option<(String, String)> {
        let own = side.map(|side| format!("{plain}.{}.{key}", side.key()));
        let path = own.filter(|path| get(document, path).is_some()).unwrap_or_else(|| format!("{plain}.{key}"));
        let value = get(document, &path)?;
        Some((path, value.as_str().map_or_else(|| value.to_string(), str::to_owned)))
    };
    let length = |document: &Value, key: &str| parse(&text(document, key)?.1, Dimension::Length).ok();
    let ratio = |document: &Value| text(document, "ratio")?.1.parse::<f64>().ok();
    let place = |key: &str| side.map_or(format!("{plain}.{key}"), |side| format!("{plain}.{}.{key}", side.key()));
    match key {
        "pivot_to_cup" => {
            let (Some(named), Some(tip), Some(cup)) = (ratio(after), length(after, "pivot_to_tip"), length(after, key))
            else {
                return Ok(());
            };
            let arms = tip / cup;
            if (named / arms - 1.0).abs() > TRUE_NAME {
                set_field(after, &place("ratio"), &format!("{arms:.2}"), UnitSystem::Inch)?;
            }
        }
        _ => {
            let share = match key {
                "ratio" => ratio(before).zip(ratio(after)).map(|(was, is)| was / is),
                _ => length(before, key).zip(length(after, key)).map(|(was, is)| is / was),
            };
            let (Some(share), Some((_, cup))) = (share, text(before, "pivot_to_cup")) else { return Ok(()) };
            let Ok(si) = parse(&cup, Dimension::Length) else { return Ok(()) };
            if let Some(moved) = restate(&cup, Dimension::Length, si * share) {
                set_field(after, &place("pivot_to_cup"), &moved, UnitSystem::Inch)?;
            }
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use serde_json::json;

    fn typed(rocker: Value, path: &str, text: &str) -> Value {
        let before = json!({ "candidates": [{ "train": { "rocker": rocker } }] });
        let mut after = before.clone();
        let path = format!("candidates[0].train.rocker.{path}");
        set_field(&mut after, &path, text, UnitSystem::Inch).unwrap();
        follow(&before, &mut after, &path).unwrap();
        after["candidates"][0]["train"]["rocker"].clone()
    }

    #[test]
    fn a_new_ratio_moves_the_cup() {
        let arms = json!({ "ratio": 1.6, "pivot_to_tip": "1.400 in", "pivot_to_cup": "0.875 in" });
        assert_eq!(typed(arms.clone(), "ratio", "1.75")["pivot_to_cup"], "0.800 in");
        assert_eq!(
            typed(arms.clone(), "exhaust.ratio", "1.5")["exhaust"],
            json!({ "ratio": 1.5, "pivot_to_cup": "0.933 in" })
        );
        assert_eq!(typed(json!({ "ratio": 1.6 }), "ratio", "1.75"), json!({ "ratio": 1.75 }));
    }

    #[test]
    fn a_side_with_its_own_ratio_keeps_its_own_arms() {
        let arms = json!({ "ratio": 1.7, "pivot_to_tip": "1.560 in", "pivot_to_cup": "0.918 in",
            "exhaust": { "ratio": 1.65, "pivot_to_cup": "0.945 in" } });
        let moved = typed(arms, "ratio", "1.6");
        assert_eq!(
            (moved["pivot_to_cup"].as_str(), moved["exhaust"]["pivot_to_cup"].as_str()),
            (Some("0.975 in"), Some("0.945 in"))
        );
    }

    #[test]
    fn a_longer_tip_takes_the_cup_along_and_another_cup_renames_the_rocker() {
        let arms = json!({ "ratio": 1.6, "pivot_to_tip": "1.400 in", "pivot_to_cup": "0.875 in" });
        assert_eq!(typed(arms.clone(), "pivot_to_tip", "1.504 in")["pivot_to_cup"], "0.940 in");
        let renamed = typed(arms.clone(), "pivot_to_cup", "0.824 in");
        assert_eq!(renamed["ratio"].to_string(), "1.70");
        assert_eq!(typed(arms, "pivot_to_cup", "0.870 in")["ratio"].to_string(), "1.6", "built in within 3 %");
    }
}
