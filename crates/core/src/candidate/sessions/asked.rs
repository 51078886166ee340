//! Every reading a session asks for, in the order of the work.

use super::session::{Bench, Session};
use crate::candidate::breathing::firing;
use crate::document::Side;
use crate::quantity::{Dimension, INCH, Length, UnitSystem, format_si};
use crate::report::{Gauge, NextCell};
use crate::words::{BankEnd, CrownEdge, FilledOf, HeadCheck, SessionKind, Word};

/// Heights a cam is degreed in at, and drops below full lift, as typed.
const HEIGHTS: [&str; 2] = ["0.050 in", "0.200 in"];
const DROPS: [&str; 2] = ["0.050 in", "0.020 in"];
/// Crank degrees after top dead centre at which an intake valve is dropped; an exhaust valve as many before it.
const AT: [i32; 5] = [0, 5, 10, 15, 20];
/// Heights of a card where none were asked at.
const CARD_HEIGHTS: [&str; 3] = ["0.006 in", "0.050 in", "0.200 in"];
/// Cam degrees from reading to reading of a mapped lobe.
const MAPPED: i32 = 5;
/// Readings of a lift with each spring, and rockers that are weighed.
const LIFTS: usize = 2;
const ROCKERS: usize = 4;
/// Lifts of a flow bench where no table stands, thousandths of an inch.
const LIFTED: [i32; 7] = [50, 100, 200, 300, 400, 500, 600];

/// A reading: its table with its columns as they are asked or stand already.
pub(super) struct Row {
    pub table: &'static str,
    pub cells: Vec<NextCell>,
    pub says: String,
    pub gauge: Gauge,
}

fn given(label: &str, text: impl Into<String>) -> NextCell {
    NextCell { label: label.to_owned(), given: Some(text.into()) }
}

fn asked(label: &str) -> NextCell {
    NextCell { label: label.to_owned(), given: None }
}

/// All of them.
pub(super) fn rows(bench: &Bench<'_>, session: &Session<'_>) -> Vec<Row> {
    let cylinders = bench.inputs.given.engine.cylinders.map_or(8, |count| count as usize);
    match session.kind {
        SessionKind::DegreeIn => degree(session),
        SessionKind::LobeMap if session.node.word("mapped_by") == Some("dial") => lobe(session),
        SessionKind::LobeMap => valves(cylinders, "calipers", &["Nose to heel", "Base"], Gauge::CaliperOnLobe),
        SessionKind::InstalledHeights => valves(cylinders, "heights", &["Height"], Gauge::HeightMicrometer),
        SessionKind::LiftCheck => lifts(),
        SessionKind::ValveDrop => drops(session.side),
        SessionKind::Springs => springs(bench, session, cylinders),
        SessionKind::Compression => each(cylinders, "pressures", &["Gauge"], "throttle open, all plugs out"),
        SessionKind::LeakDown => each(
            cylinders,
            "leaks",
            &["Supply", "Cylinder gauge"],
            "at its firing top dead centre, crank held: it may turn by itself",
        ),
        SessionKind::Stems => valves(cylinders, "stems", &["Height"], Gauge::StemGauge),
        SessionKind::Decks => decks(bench),
        SessionKind::Pushrods => pushrods(session, cylinders),
        SessionKind::Adjustment => adjustments(bench, cylinders),
        SessionKind::Clay => clays(bench),
        SessionKind::Head => head(cylinders),
        SessionKind::RockerMass => rockers(session),
        SessionKind::Volumes => volumes(cylinders),
        SessionKind::Flow => flows(bench),
        SessionKind::CamCard => card(bench),
    }
}

fn degree(session: &Session<'_>) -> Vec<Row> {
    let is_full_lift = session.node.word("method") == Some("full_lift");
    let heights = if is_full_lift { DROPS } else { HEIGHTS };
    let on_valve = session.node.word("dial_on") == Some("valve");
    let row = |(height, flank): (&str, &str)| Row {
        table: "readings",
        cells: vec![given("Height", height), given("Flank", flank), asked("Wheel")],
        says: match (is_full_lift, flank) {
            (true, "opening") => format!("{height} before full lift"),
            (true, _) => format!("{height} after full lift"),
            (false, flank) => format!("{flank}, {height} above the base"),
        },
        gauge: if on_valve { Gauge::WheelAndValve } else { Gauge::WheelAndLifter },
    };
    heights.iter().flat_map(|height| ["opening", "closing"].map(|flank| row((height, flank)))).collect()
}

/// One lobe over its whole turn.
fn lobe(session: &Session<'_>) -> Vec<Row> {
    let turn = if session.node.word("angles") == Some("crank") { 2 } else { 1 };
    let row = |step: i32| {
        let deg = format!("{} deg", turn * MAPPED * step);
        Row {
            table: "lobes",
            cells: whose(session.cylinder, session.side)
                .into_iter()
                .chain([given("Angle", deg.clone()), asked("Dial")])
                .collect(),
            says: format!("cylinder {}, {}, wheel at {deg}", session.cylinder, session.side.key()),
            gauge: Gauge::DialOnLobe,
        }
    };
    (0..360 / MAPPED).map(row).collect()
}

/// Cylinder and side of a row, as they stand.
fn whose(cylinder: usize, side: Side) -> [NextCell; 2] {
    [given("Cylinder", cylinder.to_string()), given("Side", side.key())]
}

/// Every valve, cylinder by cylinder, intake first.
fn valves(cylinders: usize, table: &'static str, columns: &[&str], gauge: Gauge) -> Vec<Row> {
    let row = |(cylinder, side): (usize, Side)| Row {
        table,
        cells: whose(cylinder, side).into_iter().chain(columns.iter().map(|label| asked(label))).collect(),
        says: format!("cylinder {cylinder}, {}", side.key()),
        gauge,
    };
    (1..=cylinders).flat_map(|cylinder| Side::BOTH.map(|side| row((cylinder, side)))).collect()
}

fn each(cylinders: usize, table: &'static str, columns: &[&str], how: &str) -> Vec<Row> {
    let row = |cylinder: usize| Row {
        table,
        cells: std::iter::once(given("Cylinder", cylinder.to_string()))
            .chain(columns.iter().map(|label| asked(label)))
            .collect(),
        says: format!("cylinder {cylinder}, {how}"),
        gauge: Gauge::PlugHole,
    };
    (1..=cylinders).map(row).collect()
}

fn lifts() -> Vec<Row> {
    let row = |spring: &str| Row {
        table: "lifts",
        cells: vec![given("Spring", spring), asked("Lift")],
        says: format!("full lift, {spring} spring"),
        gauge: Gauge::DialOnValve,
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
            gauge: Gauge::DropToPiston,
        }
    };
    AT.into_iter().map(row).collect()
}

fn inches(si: f64) -> String {
    format_si(si, Dimension::Length, UnitSystem::Inch)
}

/// Each spring at its installed height and at that less the lift of this cam.
fn springs(bench: &Bench<'_>, session: &Session<'_>, cylinders: usize) -> Vec<Row> {
    let spring = &bench.inputs.train(Side::Intake).spring;
    let Some(tall) = spring.installed_height.map(Length::si) else { return Vec::new() };
    let own = bench.inputs.side(Side::Intake);
    let lift = own.lift.as_ref().ok().zip(own.lobe().ok()).map_or(0.500 * INCH, |(lift, lobe)| lift.net(lobe).si());
    let heights = [inches(tall), inches(tall - lift)];
    let count = (2 * cylinders).max(highest(session, "loads"));
    let row = |(number, height): (usize, &String)| Row {
        table: "loads",
        cells: vec![given("Spring", number.to_string()), given("Height", height.clone()), asked("Load")],
        says: format!("spring {number} at {height}"),
        gauge: Gauge::SpringTester,
    };
    (1..=count).flat_map(|number| heights.each_ref().map(|height| row((number, height)))).collect()
}

/// The highest number that was read of what is numbered.
fn highest(session: &Session<'_>, table: &str) -> usize {
    let numbers = session.node.cells(table);
    numbers.iter().filter_map(|row| row.first()?.as_u64()).max().unwrap_or(0) as usize
}

/// Both edges of the pistons at both ends of each bank.
fn decks(bench: &Bench<'_>) -> Vec<Row> {
    let row = |(bank, end, edge): (usize, BankEnd, CrownEdge)| Row {
        table: "decks",
        cells: vec![
            given("Bank", bank.to_string()),
            given("End", end.word()),
            given("Edge", edge.word()),
            asked("Below the deck"),
        ],
        says: format!("bank {bank}, {} cylinder, {} edge", end.word(), edge.word()),
        gauge: Gauge::DeckBridge,
    };
    let corners = BankEnd::ALL.iter().flat_map(|end| CrownEdge::ALL.iter().map(move |edge| (*end, *edge)));
    let corners: Vec<(BankEnd, CrownEdge)> = corners.collect();
    (1..=bench.banks()).flat_map(|bank| corners.iter().map(move |(end, edge)| (bank, *end, *edge))).map(row).collect()
}

/// Every pushrod, then the length that every place wants.
fn pushrods(session: &Session<'_>, cylinders: usize) -> Vec<Row> {
    let row = |number: usize| Row {
        table: "lengths",
        cells: vec![given("Pushrod", number.to_string()), asked("Length")],
        says: format!("pushrod {number}"),
        gauge: Gauge::CaliperOnPushrod,
    };
    let count = (2 * cylinders).max(highest(session, "lengths"));
    let places = valves(cylinders, "places", &["Length"], Gauge::CheckingPushrod);
    (1..=count).map(row).chain(places).collect()
}

/// Both valves of each cylinder at its firing top dead centre, in firing order: both lifters stand on their base circles.
fn adjustments(bench: &Bench<'_>, cylinders: usize) -> Vec<Row> {
    let mut turns: Vec<(usize, f64)> = firing(bench.inputs, cylinders).into_iter().enumerate().collect();
    turns.sort_by(|a, b| a.1.total_cmp(&b.1));
    let row = |cylinder: usize, turned: f64, side: Side| Row {
        table: "adjustments",
        cells: whose(cylinder, side).into_iter().chain([asked("Found")]).collect(),
        says: if turned == 0.0 {
            format!("cylinder {cylinder} at its firing top dead centre, {}", side.key())
        } else {
            format!("crank {turned:.0} deg on: cylinder {cylinder} fires, {}", side.key())
        },
        gauge: Gauge::Feeler,
    };
    let mut last = 0.0;
    let mut all = Vec::new();
    for (place, deg) in turns {
        all.push(row(place + 1, deg - last, Side::Intake));
        all.push(row(place + 1, 0.0, Side::Exhaust));
        last = deg;
    }
    all
}

/// Under each valve, and beside its edge where that enters a pocket.
fn clays(bench: &Bench<'_>) -> Vec<Row> {
    let row = |side: Side, at: &str| Row {
        table: "clays",
        cells: vec![given("Side", side.key()), given("Where", at), asked("Thickness")],
        says: match at {
            "floor" => format!("{} valve, thinnest between face and crown", side.key()),
            _ => format!("{} valve, thinnest between its edge and the pocket's wall", side.key()),
        },
        gauge: Gauge::Clay,
    };
    let has_wall = |side: Side| {
        bench.inputs.given.pocket(side).is_given && bench.closest(side).is_none_or(|own| own.radial.is_some())
    };
    let places = |side: Side| if has_wall(side) { &["floor", "wall"][..] } else { &["floor"] };
    Side::BOTH.into_iter().flat_map(|side| places(side).iter().map(move |at| row(side, at))).collect()
}

fn head(cylinders: usize) -> Vec<Row> {
    let row = |cylinder: usize, side: Side, check: HeadCheck| Row {
        table: "checks",
        cells: whose(cylinder, side).into_iter().chain([given("Check", check.word()), asked("Size")]).collect(),
        says: format!("cylinder {cylinder}, {}, {}", side.key(), check.word().replace('_', " ")),
        gauge: if check == HeadCheck::SeatRunOut { Gauge::DialOnSeat } else { Gauge::DialOnValve },
    };
    let of = |cylinder: usize| {
        Side::BOTH.into_iter().flat_map(move |side| HeadCheck::ALL.iter().map(move |check| row(cylinder, side, *check)))
    };
    (1..=cylinders).flat_map(of).collect()
}

fn rockers(session: &Session<'_>) -> Vec<Row> {
    let row = |number: usize| Row {
        table: "masses",
        cells: vec![given("Rocker", number.to_string()), asked("Tip side"), asked("Cup side")],
        says: format!("rocker {number}, each side by itself"),
        gauge: Gauge::Scale,
    };
    (1..=ROCKERS.max(highest(session, "masses"))).map(row).collect()
}

/// Every chamber, then both ports of the first cylinder.
fn volumes(cylinders: usize) -> Vec<Row> {
    let row = |(cylinder, of): (usize, FilledOf)| Row {
        table: "volumes",
        cells: vec![given("Cylinder", cylinder.to_string()), given("Of", of.word()), asked("Volume")],
        says: format!("cylinder {cylinder}, {}", of.word().replace('_', " ")),
        gauge: Gauge::Burette,
    };
    let ports = [(1, FilledOf::IntakePort), (1, FilledOf::ExhaustPort)];
    (1..=cylinders).map(|cylinder| (cylinder, FilledOf::Chamber)).chain(ports).map(row).collect()
}

/// Durations at the heights that the lobe was asked at, and its lift.
fn card(bench: &Bench<'_>) -> Vec<Row> {
    let duration = |side: Side, height: String| Row {
        table: "durations",
        cells: vec![given("Side", side.key()), given("Height", height.clone()), asked("Duration")],
        says: format!("{} duration at {height}", side.key()),
        gauge: Gauge::MakersCard,
    };
    let lift = |side: Side| Row {
        table: "lobe_lifts",
        cells: vec![given("Side", side.key()), asked("Lobe lift")],
        says: format!("{} lobe lift", side.key()),
        gauge: Gauge::MakersCard,
    };
    let of = |side: Side| {
        let heights = &bench.inputs.side(side).card_heights;
        let heights: Vec<String> = match heights.is_empty() {
            true => CARD_HEIGHTS.map(str::to_owned).to_vec(),
            false => heights.iter().map(|height| inches(height.si())).collect(),
        };
        heights.into_iter().map(|height| duration(side, height)).chain([lift(side)]).collect::<Vec<Row>>()
    };
    Side::BOTH.into_iter().flat_map(of).collect()
}

/// At the lifts of the table that stands, or at the usual ones.
fn flows(bench: &Bench<'_>) -> Vec<Row> {
    let row = |side: Side, lift: String| Row {
        table: "flows",
        cells: vec![given("Side", side.key()), given("Lift", lift.clone()), asked("Flow")],
        says: format!("{} port at {lift}", side.key()),
        gauge: Gauge::FlowBench,
    };
    let lifts = |side: Side| -> Vec<String> {
        let flow = bench.inputs.port(side).flow.as_deref().unwrap_or_default();
        if flow.is_empty() {
            return LIFTED.iter().map(|mil| format!("0.{mil:03} in")).collect();
        }
        flow.iter().map(|(lift, _)| inches(lift.si())).collect()
    };
    Side::BOTH.into_iter().flat_map(|side| lifts(side).into_iter().map(move |lift| row(side, lift))).collect()
}
