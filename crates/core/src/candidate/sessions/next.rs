//! What a session reads next: one reading at a time, with where the tool sits.

use super::session::{Bench, Session};
use crate::document::Side;
use crate::quantity::{Dimension, INCH, Length, UnitSystem, format_si};
use crate::report::{NextCell, NextReading};
use crate::words::SessionKind;
use serde_json::Value;

/// Heights a cam is degreed in at, and drops below full lift, as typed.
const HEIGHTS: [&str; 2] = ["0.050 in", "0.200 in"];
const DROPS: [&str; 2] = ["0.050 in", "0.020 in"];
/// Crank degrees after top dead centre at which an intake valve is dropped; an exhaust valve as many before it.
const AT: [i32; 5] = [0, 5, 10, 15, 20];
/// Readings of a lift with each spring.
const LIFTS: usize = 2;

/// A table with its columns as they are asked or stand already.
struct Row {
    table: &'static str,
    cells: Vec<NextCell>,
    says: String,
    tool: &'static str,
}

fn given(label: &str, text: impl Into<String>) -> NextCell {
    NextCell { label: label.to_owned(), given: Some(text.into()) }
}

fn asked(label: &str) -> NextCell {
    NextCell { label: label.to_owned(), given: None }
}

/// What to read next; `None` where a session has what it asks for.
pub(super) fn next(bench: &Bench<'_>, session: &Session<'_>) -> Option<NextReading> {
    let cylinders = bench.inputs.given.engine.cylinders.map_or(8, |count| count as usize);
    let rows = rows(bench, session, cylinders);
    let of = rows.len();
    let is_read = |row: &Row| {
        let own = session.node.cells(row.table);
        let fits = |read: &&[Value]| row.cells.iter().zip(*read).all(|(cell, value)| is_same(cell, value));
        own.iter().filter(|read| fits(read)).count() >= repeats(&rows, row)
    };
    let place = rows.iter().position(|row| !is_read(row))?;
    let row = rows.into_iter().nth(place)?;
    Some(NextReading {
        table: row.table.to_owned(),
        cells: row.cells,
        says: row.says,
        tool: row.tool.to_owned(),
        place: place + 1,
        of,
    })
}

/// How often the same row is asked for up to this one.
fn repeats(rows: &[Row], row: &Row) -> usize {
    let upto = rows.iter().position(|own| std::ptr::eq(own, row)).unwrap_or(0);
    rows[..=upto].iter().filter(|own| own.table == row.table && own.cells == row.cells).count()
}

/// Whether a cell that stands already is what was read.
fn is_same(cell: &NextCell, value: &Value) -> bool {
    let Some(given) = &cell.given else { return true };
    match value {
        Value::String(text) => text == given,
        number => number.as_u64().is_some_and(|number| given.parse() == Ok(number)),
    }
}

fn rows(bench: &Bench<'_>, session: &Session<'_>, cylinders: usize) -> Vec<Row> {
    match session.kind {
        SessionKind::DegreeIn => degree(session),
        SessionKind::LobeMap => valves(cylinders, "calipers", &["Nose to heel", "Base"], "caliper over the lobe"),
        SessionKind::InstalledHeights => valves(
            cylinders,
            "heights",
            &["Height"],
            "height micrometer in place of the spring, locks and retainer fitted",
        ),
        SessionKind::LiftCheck => lifts(),
        SessionKind::ValveDrop => drops(session.side),
        SessionKind::Springs => springs(bench, session, cylinders),
        SessionKind::Compression => {
            each(cylinders, "pressures", &["Gauge"], "gauge in the plug hole, throttle open, all plugs out")
        }
        SessionKind::LeakDown => each(
            cylinders,
            "leaks",
            &["Supply", "Cylinder gauge"],
            "tester in the plug hole, the cylinder at firing top dead centre, crank held",
        ),
    }
}

fn degree(session: &Session<'_>) -> Vec<Row> {
    let is_full_lift = session.node.word("method") == Some("full_lift");
    let heights = if is_full_lift { DROPS } else { HEIGHTS };
    let tool = if session.node.word("dial_on") == Some("valve") {
        "dial on the retainer, along the stem"
    } else {
        "dial on the lifter, along its bore"
    };
    let row = |(height, flank): (&str, &str)| Row {
        table: "readings",
        cells: vec![given("Height", height), given("Flank", flank), asked("Wheel")],
        says: match (is_full_lift, flank) {
            (true, "opening") => format!("{height} before full lift"),
            (true, _) => format!("{height} after full lift"),
            (false, flank) => format!("{flank}, {height} above the base"),
        },
        tool,
    };
    heights.iter().flat_map(|height| ["opening", "closing"].map(|flank| row((height, flank)))).collect()
}

/// Every valve, cylinder by cylinder, intake first.
fn valves(cylinders: usize, table: &'static str, columns: &[&str], tool: &'static str) -> Vec<Row> {
    let row = |(cylinder, side): (usize, Side)| Row {
        table,
        cells: [given("Cylinder", cylinder.to_string()), given("Side", side.key())]
            .into_iter()
            .chain(columns.iter().map(|label| asked(label)))
            .collect(),
        says: format!("cylinder {cylinder}, {}", side.key()),
        tool,
    };
    (1..=cylinders).flat_map(|cylinder| Side::BOTH.map(|side| row((cylinder, side)))).collect()
}

fn each(cylinders: usize, table: &'static str, columns: &[&str], tool: &'static str) -> Vec<Row> {
    let row = |cylinder: usize| Row {
        table,
        cells: std::iter::once(given("Cylinder", cylinder.to_string()))
            .chain(columns.iter().map(|label| asked(label)))
            .collect(),
        says: format!("cylinder {cylinder}"),
        tool,
    };
    (1..=cylinders).map(row).collect()
}

fn lifts() -> Vec<Row> {
    let row = |spring: &str| Row {
        table: "lifts",
        cells: vec![given("Spring", spring), asked("Lift")],
        says: format!("full lift, {spring} spring"),
        tool: "dial on the retainer, along the stem; solid lifter in place of a hydraulic one",
    };
    ["light", "real"].into_iter().flat_map(|spring| (0..LIFTS).map(move |_| row(spring))).collect()
}

fn drops(side: Side) -> Vec<Row> {
    let row = |deg: i32| {
        let at = if side == Side::Intake { deg } else { -deg };
        Row {
            table: "drops",
            cells: vec![given("After top dead centre", format!("{at} deg")), asked("Drop")],
            says: format!("crank at {at} deg, push the valve down to the piston"),
            tool: "dial on the retainer over a light spring, zero with the valve closed",
        }
    };
    AT.into_iter().map(row).collect()
}

/// Each spring at its installed height and at that less the lift of this cam.
fn springs(bench: &Bench<'_>, session: &Session<'_>, cylinders: usize) -> Vec<Row> {
    let spring = &bench.inputs.train(Side::Intake).spring;
    let Some(tall) = spring.installed_height.map(Length::si) else { return Vec::new() };
    let own = bench.inputs.side(Side::Intake);
    let lift = own.lift.as_ref().ok().zip(own.lobe().ok()).map_or(0.500 * INCH, |(lift, lobe)| lift.net(lobe).si());
    let text = |si: f64| format_si(si, Dimension::Length, UnitSystem::Inch);
    let heights = [text(tall), text(tall - lift)];
    let read = session.node.cells("loads").iter().filter_map(|row| row.first()?.as_u64()).max().unwrap_or(0);
    let count = (2 * cylinders).max(read as usize);
    let row = |(number, height): (usize, &String)| Row {
        table: "loads",
        cells: vec![given("Spring", number.to_string()), given("Height", height.clone()), asked("Load")],
        says: format!("spring {number} at {height}"),
        tool: "spring tester, guard closed: a compressed spring can injure",
    };
    (1..=count).flat_map(|number| heights.each_ref().map(|height| row((number, height)))).collect()
}
