//! Edits of pulls: runs of a dyno's file taken over, one taken out.

use super::entries;
use crate::document::{Fault, MOST_POINTS};
use crate::pulls::file::{Holds, Mapped, Run, guessed, read, runs};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};

/// What pulls of one file share, as typed; empty where nothing is said.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct SharedOfPulls {
    /// Identifier of the candidate that was on the dyno.
    pub candidate: String,
    /// Day, as 2026-03-09.
    pub day: String,
    /// Boost level.
    pub level: String,
    /// The air it is stated in.
    pub air: String,
    /// `engine` or `chassis`.
    pub dyno: String,
    /// Name of the file.
    pub file: String,
}

impl SharedOfPulls {
    /// Its fields with their names in the document.
    pub(super) fn fields(&self) -> Vec<(&'static str, &str)> {
        let Self { candidate, day, level, air, dyno, file } = self;
        vec![("candidate", candidate), ("day", day), ("level", level), ("air", air), ("dyno", dyno), ("file", file)]
    }
}

/// What every pull of a file shares.
pub struct Shared<'a> {
    /// Fields of the pull and their texts; empty ones are left out.
    pub fields: Vec<(&'a str, &'a str)>,
    /// Place in the day of the first.
    pub drawn: usize,
}

/// The runs of a file as pulls at the end of the list, those chosen of them.
pub fn take(
    document: &mut Value,
    text: &str,
    mapped: &[Mapped],
    chosen: &[usize],
    shared: &Shared<'_>,
) -> Result<(), Fault> {
    let refuse = |why: String| Fault::new("file", "what is in it", why);
    let table = read(text).map_err(refuse)?;
    let by_heading = mapped.is_empty().then(|| guessed(&table));
    let (found, _) = runs(&table, by_heading.as_deref().unwrap_or(mapped)).map_err(refuse)?;
    if let Some(none) = chosen.iter().find(|place| **place >= found.len()) {
        return Err(Fault::new("runs", &none.to_string(), format!("one of {} runs", found.len())));
    }
    for (nth, place) in chosen.iter().enumerate() {
        let list = entries::list(document, "pulls")?;
        let id = entries::free_id(list, "p");
        list.push(pull(&id, &found[*place], shared, nth));
    }
    Ok(())
}

/// A pull taken out.
pub fn remove(document: &mut Value, id: &str) -> Result<(), Fault> {
    entries::remove(document, ("pulls", "pull"), id)
}

fn pull(id: &str, run: &Run, shared: &Shared<'_>, nth: usize) -> Value {
    let mut map = Map::from_iter([("id".to_owned(), json!(id))]);
    let given = shared.fields.iter().filter(|(_, text)| !text.is_empty());
    map.extend(given.map(|(key, text)| ((*key).to_owned(), json!(text))));
    map.insert("drawn".to_owned(), json!(shared.drawn + nth));
    if !run.questions.is_empty() {
        map.insert("left_out".to_owned(), json!(shortened(&run.questions.join("; "))));
    }
    if run.from_power {
        map.insert("note".to_owned(), json!("torque worked out from power and speed"));
    }
    for (key, holds) in [("oil", Holds::OilTemperature), ("water", Holds::WaterTemperature)] {
        let own = run.traces.iter().find(|own| own.holds == holds && !own.unit.is_empty());
        if let Some((first, unit)) = own.and_then(|own| Some((own.values.first()?, &own.unit))) {
            map.insert(key.to_owned(), json!(format!("{first} {unit}")));
        }
    }
    let each = run.texts.len().div_ceil(MOST_POINTS).max(1);
    let points: Vec<Value> = run.texts.iter().step_by(each).map(|(speed, torque)| json!([speed, torque])).collect();
    map.insert("points".to_owned(), Value::Array(points));
    let trace = |own: &crate::pulls::file::Trace| {
        let values: Vec<f64> = own.values.iter().step_by(each).copied().collect();
        let mut map = Map::from_iter([("of".to_owned(), json!(word(own.holds)?))]);
        if !own.unit.is_empty() {
            map.insert("unit".to_owned(), json!(own.unit));
        }
        map.insert("values".to_owned(), json!(values));
        Some(Value::Object(map))
    };
    let traces: Vec<Value> = run.traces.iter().filter_map(trace).collect();
    if !traces.is_empty() {
        map.insert("traces".to_owned(), Value::Array(traces));
    }
    Value::Object(map)
}

/// At most what a document keeps as a reason.
fn shortened(text: &str) -> String {
    text.chars().take(200).collect()
}

/// The document's word for what a column holds; `None` for what a pull has a place of its own for.
fn word(holds: Holds) -> Option<Value> {
    let is_beside = !matches!(holds, Holds::Speed | Holds::Torque | Holds::Power | Holds::Nothing);
    is_beside.then(|| serde_json::to_value(holds).unwrap_or_default())
}

#[cfg(test)]
mod tests {
    use super::*;
    fn file() -> String {
        let line =
            |i: u32| format!("{},{:.1},{:.1}\n", 2000 + 40 * i, 340.0 + f64::from(i), 180.0 + 0.1 * f64::from(i));
        let run: String = (0..90).map(line).collect();
        format!("rpm,Torque (ft-lb),Oil temp (F)\n{run}rpm,Torque (ft-lb),Oil temp (F)\n{run}")
    }

    #[test]
    fn runs_of_a_file_become_pulls_as_they_are_written() {
        let mut document = json!({ "pulls": [{ "id": "p1" }] });
        let mapped = guessed(&read(&file()).unwrap());
        let shared = Shared { fields: vec![("candidate", "b"), ("day", "2026-03-09"), ("file", "")], drawn: 4 };
        take(&mut document, &file(), &mapped, &[0, 1], &shared).unwrap();
        let pulls = document["pulls"].as_array().unwrap();
        assert_eq!(pulls.len(), 3);
        assert_eq!(
            (&pulls[2]["id"], &pulls[2]["drawn"], &pulls[2]["candidate"]),
            (&json!("p3"), &json!(5), &json!("b"))
        );
        assert_eq!(pulls[1]["points"][0], json!(["2000 rpm", "340 lbf ft"]));
        assert_eq!(pulls[1]["oil"], json!("180 F"));
        assert_eq!(pulls[1]["traces"][0]["of"], json!("oil_temperature"));
        assert_eq!(pulls[1]["traces"][0]["values"].as_array().unwrap().len(), 90);
        assert!(take(&mut document, &file(), &mapped, &[2], &shared).is_err());
        remove(&mut document, "p2").unwrap();
        assert_eq!(document["pulls"].as_array().unwrap().len(), 2);
        assert!(remove(&mut document, "p2").is_err());
    }
}
