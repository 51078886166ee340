//! Edits of the service log: an entry begun, one taken out, and a limit held to by what broke.

use super::entries;
use crate::document::{Fault, READINGS, value_of};
use crate::quantity::UnitSystem;
use serde_json::{Map, Value, json};

/// Where entries stand, and what one is called.
const SERVICE: (&str, &str) = ("service", "entry");

/// An entry without readings at the end of the log.
pub fn begin(document: &mut Value, id: &str, fields: &[(&str, &str)]) -> Result<(), Fault> {
    entries::begin(document, SERVICE, id, fields)
}

/// What was read of one valve, in the place of what was read of it before; an empty text takes that out. A bare number gets the
/// column's unit.
pub fn read(
    document: &mut Value,
    (id, table): (&str, &str),
    (cylinder, side): (u32, &str),
    text: &str,
    system: UnitSystem,
) -> Result<(), Fault> {
    let unknown = || Fault::new("table", table, "a table of readings of valves");
    let (_, kind) = READINGS.field(table).and_then(|field| field.kind.columns()?.get(2)).ok_or_else(unknown)?;
    let value = value_of(kind, text.trim(), table, system)?;
    let readings = entries::own(document, SERVICE, id)?.entry("readings").or_insert_with(|| json!({}));
    let tables = readings.as_object_mut().ok_or_else(|| Fault::new("readings", "no object", "tables of readings"))?;
    let rows = tables.entry(table).or_insert_with(|| json!([]));
    let rows = rows.as_array_mut().ok_or_else(|| Fault::new(table, "no list", "a list of rows"))?;
    rows.retain(|row| row[0].as_u64() != Some(cylinder.into()) || row[1].as_str() != Some(side));
    rows.extend(value.map(|value| json!([cylinder, side, value])));
    // As an engine is walked round, intake first.
    rows.sort_by_key(|row| (row[0].as_u64(), row[1].as_str() != Some("intake")));
    if rows.is_empty() {
        tables.shift_remove(table);
    }
    if tables.is_empty() {
        entries::own(document, SERVICE, id)?.shift_remove("readings");
    }
    Ok(())
}

/// An entry taken out with its readings.
pub fn remove(document: &mut Value, id: &str) -> Result<(), Fault> {
    entries::remove(document, SERVICE, id)
}

/// A figure of the shop's own for both sides of a limit, in the place of the one it had.
pub fn hold(document: &mut Value, limit: &str, bounds: [(&str, &str); 2], reason: &str) -> Result<(), Fault> {
    let list = entries::list(document, "limits")?;
    list.retain(|own| own["limit"].as_str() != Some(limit) || own.get("side").is_some());
    let given = bounds.into_iter().filter(|(_, text)| !text.is_empty());
    let mut own = Map::from_iter([("limit".to_owned(), json!(limit))]);
    own.extend(given.map(|(key, text)| (key.to_owned(), json!(text))));
    own.insert("reason".to_owned(), json!(reason));
    list.push(Value::Object(own));
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_entry_comes_and_goes_and_a_limit_is_held_once() {
        let mut document = json!({});
        begin(&mut document, "v1", &[("date", "2026-06-01"), ("event", "inspection"), ("by", "")]).unwrap();
        assert_eq!(document["service"][0], json!({ "id": "v1", "date": "2026-06-01", "event": "inspection" }));
        assert!(begin(&mut document, "v1", &[]).is_err());
        let mut valve = |of: (u32, &str), text: &str| read(&mut document, ("v1", "lash"), of, text, UnitSystem::Inch);
        valve((1, "exhaust"), ".018").unwrap();
        valve((2, "intake"), "0.5 mm").unwrap();
        valve((1, "intake"), ".016").unwrap();
        valve((1, "exhaust"), ".019").unwrap();
        assert!(valve((1, "exhaust"), "18 lbf").is_err());
        valve((2, "intake"), "").unwrap();
        assert_eq!(
            document["service"][0]["readings"],
            json!({ "lash": [[1, "intake", "0.016 in"], [1, "exhaust", "0.019 in"]] })
        );
        let mut clear = |side: &str| read(&mut document, ("v1", "lash"), (1, side), "", UnitSystem::Inch);
        clear("intake").unwrap();
        clear("exhaust").unwrap();
        assert!(document["service"][0].get("readings").is_none());
        remove(&mut document, "v1").unwrap();
        assert_eq!(document, json!({}));
        let bounds = |least| [("at_least", least), ("at_most", "")];
        hold(&mut document, "coil_bind", bounds("0.070 in"), "broke").unwrap();
        hold(&mut document, "coil_bind", bounds("0.080 in"), "broke again").unwrap();
        let kept = json!([{ "limit": "coil_bind", "at_least": "0.080 in", "reason": "broke again" }]);
        assert_eq!(document["limits"], kept);
    }
}
