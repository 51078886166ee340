//! Edits of measured valve motion: a file of lift over the crank taken over, speed by speed; a trace taken out.
//!
//! Two kinds of file are read: a column of angles with one of lifts for every speed, named by its heading; or columns of speed, angle
//! and lift, one line a point.

use super::entries;
use crate::document::{Fault, MOST_OF_TRACE};
use crate::pulls::file::{Line, Table, number, read};
use crate::quantity::{Dimension, UnitSystem, parse};
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};

/// What traces of one file share, as typed; empty where nothing is said.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct SharedOfMotion {
    /// Identifier of the candidate whose train it was.
    pub candidate: String,
    /// `intake` or `exhaust`.
    pub side: String,
    /// `rig` or `engine`.
    pub turned_by: String,
    /// Day, as 2026-03-09.
    pub day: String,
    /// Name of the file.
    pub file: String,
}

impl SharedOfMotion {
    /// Its fields with their names in the document.
    pub(super) fn fields(&self) -> [(&'static str, &str); 5] {
        let Self { candidate, side, turned_by, day, file } = self;
        [("candidate", candidate), ("side", side), ("turned_by", turned_by), ("day", day), ("file", file)]
    }
}

/// Speeds that a column may be named by, rpm.
const SPEEDS: std::ops::RangeInclusive<f64> = 300.0..=15_000.0;
/// A speed is held while it strays by no more than this share.
const HELD: f64 = 0.02;
/// Fewest points of a speed.
const FEWEST: usize = 40;

/// Crank degrees and lifts, m, at one speed, rpm.
type Trace = (f64, Vec<(f64, f64)>);

/// The traces of a file, each with these fields, at the end of the list.
pub fn take(document: &mut Value, text: &str, shared: &[(&str, &str)], system: UnitSystem) -> Result<(), Fault> {
    let refuse = |why: String| Fault::new("file", "what is in it", why);
    let table = read(text).map_err(refuse)?;
    let traces = traces(&table, system).map_err(refuse)?;
    for (rpm, points) in traces {
        let list = entries::list(document, "valve_motion")?;
        let mut map = Map::from_iter([("id".to_owned(), json!(entries::free_id(list, "m")))]);
        let given = shared.iter().filter(|(_, text)| !text.is_empty());
        map.extend(given.map(|(key, text)| ((*key).to_owned(), json!(text))));
        map.insert("speed".to_owned(), json!(format!("{rpm:.0} rpm")));
        let each = points.len().div_ceil(MOST_OF_TRACE).max(1);
        let point = |(deg, lift): &(f64, f64)| json!([format!("{deg:.2} deg"), format!("{:.4} mm", 1e3 * lift)]);
        map.insert("points".to_owned(), points.iter().step_by(each).map(point).collect());
        list.push(Value::Object(map));
    }
    Ok(())
}

/// A trace taken out.
pub fn remove(document: &mut Value, id: &str) -> Result<(), Fault> {
    entries::remove(document, ("valve_motion", "trace"), id)
}

fn traces(table: &Table, system: UnitSystem) -> Result<Vec<Trace>, String> {
    let named = |words: &[&str]| {
        let is = |(name, unit): &(String, String)| {
            let name = format!("{name} {unit}").to_lowercase();
            words.iter().any(|word| name.contains(word)) && number(&name).is_none()
        };
        table.heading.iter().position(is)
    };
    let angle = named(&["deg", "angle", "crank", "winkel"]).unwrap_or(0);
    // A wheel on the cam turns half as far.
    let turn = if table.heading[angle].0.to_lowercase().contains("cam") { 2.0 } else { 1.0 };
    let found = match (named(&["rpm", "speed", "drehzahl"]), named(&["lift", "hub"])) {
        (Some(speed), Some(lift)) => by_line(table, (speed, angle, lift), system),
        _ => by_column(table, angle, system),
    };
    if found.is_empty() {
        return Err("a column of crank degrees beside one of lifts for each speed, headed by the speed as in \"6200 rpm (mm)\", \
                    or columns headed speed, angle and lift"
            .to_owned());
    }
    if let Some((rpm, points)) = found.iter().find(|(_, points)| points.len() < FEWEST) {
        return Err(format!("at least {FEWEST} points at each speed; at {rpm:.0} rpm there are {}", points.len()));
    }
    Ok(found
        .into_iter()
        .map(|(rpm, points)| (rpm, points.into_iter().map(|(deg, m)| (turn * deg, m)).collect()))
        .collect())
}

/// A number of a column of lifts in m: in the unit of its heading, else in the one lengths are shown in.
fn metres(value: f64, unit: &str, system: UnitSystem) -> Option<f64> {
    let usual = if system == UnitSystem::Inch { "in" } else { "mm" };
    let known = |unit: &str| parse(&format!("{value} {unit}"), Dimension::Length).ok();
    known(unit).or_else(|| known(usual))
}

fn by_column(table: &Table, angle: usize, system: UnitSystem) -> Vec<Trace> {
    let of = |(column, (name, unit)): (usize, &(String, String))| {
        let rpm = number(name.trim()).filter(|rpm| column != angle && SPEEDS.contains(rpm))?;
        let point = |line: &Line| Some((line.number_at(angle)?, metres(line.number_at(column)?, unit, system)?));
        Some((rpm, table.lines.iter().filter_map(point).collect()))
    };
    table.heading.iter().enumerate().filter_map(of).collect()
}

fn by_line(table: &Table, (speed, angle, lift): (usize, usize, usize), system: UnitSystem) -> Vec<Trace> {
    let mut found: Vec<Trace> = Vec::new();
    for line in &table.lines {
        let cells = [speed, angle, lift].map(|column| line.number_at(column));
        let [Some(rpm), Some(deg), Some(lift_of)] = cells else { continue };
        let Some(metres) = metres(lift_of, &table.heading[lift].1, system) else { continue };
        match found.iter_mut().find(|(held, _)| (rpm / *held - 1.0).abs() < HELD) {
            Some((_, points)) => points.push((deg, metres)),
            None if SPEEDS.contains(&rpm) => found.push((rpm, vec![(deg, metres)])),
            None => {}
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    fn lift(deg: u32) -> f64 {
        10.0 * f64::from(deg).to_radians().sin().max(0.0)
    }

    fn taken(text: &str) -> Vec<(String, usize, Value)> {
        let mut document = json!({});
        take(&mut document, text, &[("side", "intake"), ("day", "")], UnitSystem::Metric).unwrap();
        let own = |own: &Value| {
            let points = own["points"].as_array().unwrap();
            (own["speed"].as_str().unwrap().to_owned(), points.len(), points[45].clone())
        };
        document["valve_motion"].as_array().unwrap().iter().map(own).collect()
    }

    #[test]
    fn a_file_is_the_same_traces_by_columns_and_by_lines() {
        let wide = |deg: u32| format!("{},{:.4},{:.4}\n", 2 * deg, lift(deg), 1.01 * lift(deg));
        let wide: String =
            std::iter::once("crank deg,3000 rpm (mm),5200 rpm (mm)\n".to_owned()).chain((0..180).map(wide)).collect();
        let long = |rpm: f64, by: f64| {
            move |deg: u32| format!("{};{};{:.4}\n", rpm + f64::from(deg % 7), 2 * deg, by * lift(deg))
        };
        let long: String = std::iter::once("Speed [rpm];Crank angle [deg];Lift [mm]\n".to_owned())
            .chain((0..180).map(long(3000.0, 1.0)))
            .chain((0..180).map(long(5200.0, 1.01)))
            .collect();
        let (wide, long) = (taken(&wide), taken(&long));
        assert_eq!(wide, long);
        assert_eq!(wide[0], ("3000 rpm".to_owned(), 180, json!(["90.00 deg", "7.0711 mm"])));
        assert_eq!((wide.len(), &*wide[1].0), (2, "5200 rpm"));
        let cam = (0..180).map(|deg| format!("{deg} {:.4}\n", lift(deg)));
        let cam: String = std::iter::once("cam_deg 4000\n".to_owned()).chain(cam).collect();
        assert_eq!(taken(&cam)[0].2, json!(["90.00 deg", "7.0711 mm"]));
    }

    #[test]
    fn what_is_no_motion_is_refused_and_leaves_nothing() {
        let mut document = json!({});
        let mut refused = |text: &str| take(&mut document, text, &[], UnitSystem::Inch).unwrap_err().needs;
        assert!(refused("rpm,torque\n2000,300\n2100,310\n2200,320\n").contains("crank degrees"));
        assert!(refused("deg,3000 rpm\n0,0.1\n1,0.2\n2,0.3\n").contains("40 points"));
        assert!(!refused("nothing").is_empty());
        assert_eq!(document, json!({}));
    }
}
