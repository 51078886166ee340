//! Holds a JSON value against the table and collects every fault at once.

use super::fault::Fault;
use super::field::{Kind, Object, quantity_text};
use super::path::join;
use super::table::SOURCES;
use crate::quantity::{Dimension, TextFault, UnitSystem, parse, scale};
use serde_json::{Map, Value};

/// Most faults reported at once; a document with more is not a build document.
const MAX_FAULTS: usize = 200;

/// Checks `value` against `object` and appends every fault.
pub fn check_object(value: &Value, object: &Object, path: &str, faults: &mut Vec<Fault>) {
    let Value::Object(map) = value else {
        refuse(value, &format!("an object: {}", object.doc), path, faults);
        return;
    };
    check_fields(map, object, path, faults);
    if object.sided {
        for side in ["intake", "exhaust"] {
            match map.get(side) {
                None => {}
                Some(Value::Object(own)) => check_fields(own, object, &join(path, side), faults),
                Some(other) => refuse(other, "an object of overrides", &join(path, side), faults),
            }
        }
    }
    for field in object.fields.iter().filter(|f| f.required && !map.contains_key(f.key)) {
        push(
            faults,
            Fault::new(join(path, field.key), "nothing", field.kind.needs()).cure(format!("add it: {}", field.doc)),
        );
    }
}

fn check_fields(map: &Map<String, Value>, object: &Object, path: &str, faults: &mut Vec<Fault>) {
    for (key, value) in map {
        let at = join(path, key);
        if let Some(field) = object.field(key) {
            check_kind(value, &field.kind, &at, faults);
        } else if key == "sources" {
            check_sources(value, object, &at, faults);
        } else if !(object.sided && (key == "intake" || key == "exhaust")) {
            push(faults, unknown_key(key, object, at));
        }
    }
}

fn unknown_key(key: &str, object: &Object, at: String) -> Fault {
    let closest = object.fields.iter().map(|f| (distance(key, f.key), f.key)).min();
    let fault = Fault::new(at, key, format!("a field of {}", object.name));
    match closest {
        Some((edits, name)) if edits <= 3 => fault.cure(format!("did you mean \"{name}\"?")),
        _ => fault.cure("remove it, or put it in notes"),
    }
}

fn check_sources(value: &Value, object: &Object, path: &str, faults: &mut Vec<Fault>) {
    let Value::Object(marks) = value else {
        refuse(value, "an object of field and source", path, faults);
        return;
    };
    for (key, mark) in marks {
        let at = join(path, key);
        if object.field(key).is_none() {
            push(faults, unknown_key(key, object, at.clone()));
        }
        if !mark.as_str().is_some_and(|word| SOURCES.contains(&word)) {
            refuse(mark, &format!("one of {}", SOURCES.join(", ")), &at, faults);
        }
    }
}

/// Checks one value against its kind.
pub fn check_kind(value: &Value, kind: &Kind, path: &str, faults: &mut Vec<Fault>) {
    match kind {
        Kind::Quantity { .. } => check_quantity(value, kind, path, faults),
        Kind::Number { .. } => refuse_unless(in_order(kind)(value), value, kind, path, faults),
        Kind::Integer { min, max } => {
            let ok = value.as_i64().is_some_and(|x| (*min..=*max).contains(&x));
            refuse_unless(ok, value, kind, path, faults);
        }
        Kind::Flag => refuse_unless(value.is_boolean(), value, kind, path, faults),
        Kind::Text(most) => {
            let text = value.as_str().unwrap_or_default();
            let ok = !text.trim().is_empty() && text.chars().count() <= *most;
            refuse_unless(ok, value, kind, path, faults);
            if ok && text.chars().any(is_unseen) {
                let needs = "a text without characters that nobody sees or that turn its direction";
                push(faults, Fault::new(path, text, needs).cure("type it anew"));
            }
        }
        Kind::Choice(words) => {
            let ok = value.as_str().is_some_and(|word| words.contains(&word));
            refuse_unless(ok, value, kind, path, faults);
        }
        Kind::Object(object) => check_object(value, object, path, faults),
        Kind::List { of, min, max } => match value {
            Value::Array(items) if (*min..=*max).contains(&items.len()) => {
                // A long table is mostly in order: its paths are written only where something is not.
                let holds = in_order(of);
                for (place, item) in items.iter().enumerate().filter(|(_, item)| !holds(item)) {
                    check_kind(item, of, &format!("{path}[{place}]"), faults);
                }
            }
            _ => refuse(value, &kind.needs(), path, faults),
        },
        Kind::Row(kinds) => match value {
            Value::Array(items) if items.len() == kinds.len() => {
                for (place, (item, (_, kind))) in items.iter().zip(*kinds).enumerate() {
                    check_kind(item, kind, &format!("{path}[{place}]"), faults);
                }
            }
            _ => refuse(value, &kind.needs(), path, faults),
        },
        Kind::Patch => check_patch(value, path, faults),
    }
}

/// The judge of numbers and quantities, and of rows of them: what it passes has no fault. Bounds are read once for all
/// values it is asked about. Other kinds pass nothing here: they are looked at one by one.
fn in_order(kind: &Kind) -> Box<dyn Fn(&Value) -> bool + '_> {
    match kind {
        Kind::Quantity { dimension, .. } => match kind.si_range() {
            Ok((low, high)) => Box::new(move |value| {
                let si = quantity_text(value, *dimension).and_then(|text| parse(&text, *dimension).ok());
                si.is_some_and(|si| (low..=high).contains(&si))
            }),
            Err(_) => Box::new(|_| false),
        },
        Kind::Number { min, max } => Box::new(|value| value.as_f64().is_some_and(|x| (*min..=*max).contains(&x))),
        Kind::Row(kinds) => {
            let cells: Vec<_> = kinds.iter().map(|(_, kind)| in_order(kind)).collect();
            Box::new(move |value| {
                let items = value.as_array().filter(|items| items.len() == cells.len());
                items.is_some_and(|items| items.iter().zip(&cells).all(|(item, holds)| holds(item)))
            })
        }
        _ => Box::new(|_| false),
    }
}

/// Refuses keys of a merge patch that `object` does not have, also those that it would remove.
pub fn check_patch_keys(patch: &Value, object: &Object, path: &str, faults: &mut Vec<Fault>) {
    let Value::Object(map) = patch else { return };
    for (key, value) in map.iter().filter(|(key, _)| *key != "sources") {
        let at = join(path, key);
        match object.field(key) {
            None => push(faults, unknown_key(key, object, at)),
            Some(field) => {
                if let Kind::Object(inner) = &field.kind {
                    check_patch_keys(value, inner, &at, faults);
                }
            }
        }
    }
}

fn check_patch(value: &Value, path: &str, faults: &mut Vec<Fault>) {
    let Value::Object(map) = value else {
        refuse(value, &Kind::Patch.needs(), path, faults);
        return;
    };
    for (key, part) in map {
        if !matches!(key.as_str(), "engine" | "target") || !part.is_object() {
            refuse(part, &Kind::Patch.needs(), &join(path, key), faults);
        }
    }
}

fn check_quantity(value: &Value, kind: &Kind, path: &str, faults: &mut Vec<Fault>) {
    let Kind::Quantity { dimension, .. } = kind else { return };
    if in_order(kind)(value) {
        return;
    }
    let Some(text) = quantity_text(value, *dimension) else {
        let mut fault = Fault::of_kind(path, &render(value), kind);
        if value.is_number() {
            fault = fault.cure(format!("as a text: {}", with_likely_units(&value.to_string(), kind, *dimension)));
        }
        push(faults, fault);
        return;
    };
    let cure = match parse(&text, *dimension) {
        Ok(_) => "check the unit and the decimal point".to_owned(),
        Err(TextFault::NoUnit) => with_likely_units(text.trim(), kind, *dimension),
        Err(reason) => {
            let units: Vec<_> = dimension.units().iter().map(|u| u.symbol).collect();
            format!("{reason}; units: {}", units.join(", "))
        }
    };
    push(faults, Fault::of_kind(path, &text, kind).cure(cure));
}

/// `write "4.06 in"`: the number with the units, inch first, that put it within the row's range.
fn with_likely_units(number: &str, kind: &Kind, dimension: Dimension) -> String {
    let range = kind.si_range();
    let within = |unit: &str| {
        let si = parse(&format!("{number} {unit}"), dimension);
        matches!((si, &range), (Ok(si), Ok((low, high))) if (*low..=*high).contains(&si))
    };
    let mut units = vec![scale(dimension, UnitSystem::Inch).unit, scale(dimension, UnitSystem::Metric).unit];
    units.dedup();
    let likely: Vec<String> = units.iter().filter(|u| within(u)).map(|u| format!("\"{number} {u}\"")).collect();
    if likely.is_empty() {
        format!("add its unit, such as {}", kind.bare_unit())
    } else {
        format!("write {}", likely.join(" or "))
    }
}

/// Characters that make a name look like another: controls but line ends and tabs, zero widths, marks of direction.
fn is_unseen(c: char) -> bool {
    let layout = matches!(c, '\n' | '\r' | '\t');
    (c.is_control() && !layout)
        || matches!(c, '\u{200B}'..='\u{200F}' | '\u{202A}'..='\u{202E}' | '\u{2060}'..='\u{2069}' | '\u{FEFF}' | '\u{00AD}')
}

fn refuse_unless(ok: bool, value: &Value, kind: &Kind, path: &str, faults: &mut Vec<Fault>) {
    if !ok {
        push(faults, Fault::of_kind(path, &render(value), kind));
    }
}

fn refuse(value: &Value, needs: &str, path: &str, faults: &mut Vec<Fault>) {
    push(faults, Fault::new(path, &render(value), needs));
}

fn push(faults: &mut Vec<Fault>, fault: Fault) {
    if faults.len() < MAX_FAULTS {
        faults.push(fault);
    }
}

fn render(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Object(_) => "an object".to_owned(),
        Value::Array(items) => format!("a list of {}", items.len()),
        other => other.to_string(),
    }
}

/// Levenshtein distance, for "did you mean".
fn distance(a: &str, b: &str) -> usize {
    let b: Vec<char> = b.chars().collect();
    let mut row: Vec<usize> = (0..=b.len()).collect();
    for (i, from) in a.chars().take(64).enumerate() {
        let mut diagonal = row[0];
        row[0] = i + 1;
        for (j, to) in b.iter().enumerate() {
            let substituted = diagonal + usize::from(from != *to);
            diagonal = row[j + 1];
            row[j + 1] = substituted.min(row[j] + 1).min(diagonal + 1);
        }
    }
    row[b.len()]
}
