//! The order card: everything a grinder asks for, as asked, as to be ground and as it will run; parts and what to watch.

use super::analyze::{PartName, Request, analyze};
use super::bill::{bill, conflicts, dragged, machining, parts};
use crate::build::Build;
use crate::candidate::{Came, Resolved, Stages, cam_as_it_came};
use crate::document::{Fault, Ledger, Side, unknown_candidate};
use crate::given::{Given, Of, Source};
use crate::quantity::{Dimension, INCH, Shown, UnitSystem, shown};
use crate::report::{CandidateReport, Named, OrderCard, OrderFact, OrderLine, OrderReport, SideTiming};
use crate::words::{ChainRows, LifterKind};

/// A dead centre an event is quoted from: its words before and after, and whether the figure counts before it.
#[derive(Clone, Copy)]
struct Reference(&'static str, bool);

/// Facts about the cam beside its lobes: the object, the key, what the line is called; a grinder asks for each.
const ASKED: [(Of, &str, &str); 14] = [
    (Of::Cam, "base_circle_diameter", "Base circle"),
    (Of::Cam, "core_material", "Core"),
    (Of::Cam, "ground_for", "Ground for"),
    (Of::Cam, "bearing_diameter", "Smallest bearing"),
    (Of::Cam, "snout", "Snout"),
    (Of::Cam, "gear", "Its gear"),
    (Of::Engine, "distributor_gear", "Runs with"),
    (Of::Engine, "cam_drive", "Driven by"),
    (Of::Engine, "layout", "Engine"),
    (Of::Lifter, "kind", "Lifter"),
    (Of::Lifter, "variant", "Variant"),
    (Of::Lifter, "lash", "Lash, hot"),
    (Of::Lifter, "preload", "Preload"),
    (Of::Rocker, "ratio", "Rocker ratio"),
];

/// The order card of the candidate `id`.
///
/// # Errors
/// There is no such candidate.
pub fn order_card(build: &Build, id: &str, stages: &Stages) -> Result<OrderCard, Fault> {
    let asked = Request::of(Some(id.to_owned()), vec![PartName::Timing, PartName::Lift, PartName::Train]);
    let analysis = analyze(build, &asked, stages)?;
    let views = build.candidates();
    let view = views.iter().find(|view| view.id == id);
    let unknown = || unknown_candidate("candidate", id, &views);
    let (view, report) = view.zip(analysis.candidates.first()).ok_or_else(unknown)?;
    let ledger = Ledger::default();
    let source = Source::new(view, &ledger);
    let resolved = Resolved::new(Given::read(&source), stages);
    let (facts, missing) = facts(&resolved, &source, report);
    let parts = parts(&source);
    let came = cam_as_it_came(&source, view.index == 0);
    Ok(OrderCard {
        build: build.name().to_owned(),
        candidate: view.name.clone(),
        lines: Side::BOTH.into_iter().flat_map(|side| lines(report, side, &came)).collect(),
        facts,
        missing,
        bill: bill(&parts, &resolved.given),
        parts,
        drags_along: dragged(build, id, &resolved, stages),
        machining: machining(&resolved, &source),
        conflicts: conflicts(&resolved),
        checklist: checklist(&resolved),
        cautions: cautions(&resolved),
    })
}

/// What is asked, to be ground and running, of one lobe.
fn lines(report: &CandidateReport, side: Side, came: &[Came]) -> Vec<OrderLine> {
    let Some(timing) = report.timing.done() else { return Vec::new() };
    let own = if side == Side::Intake { &timing.intake } else { &timing.exhaust };
    let train = report.train.done().map(|train| train.of(side));
    let order = train.and_then(|train| train.order.as_ref());
    let mut lines: Vec<OrderLine> = events(own, order, side).collect();
    for (height, mil, deg) in [
        (".006", 6.0, Some(own.duration_006_deg)),
        (".050", 50.0, Some(own.duration_050_deg)),
        (".200", 200.0, own.duration_200_deg),
    ] {
        let Some(asked) = deg else { continue };
        let check = order.and_then(|order| at_height(order, height));
        lines.push(OrderLine {
            side,
            label: format!("Duration at {height}"),
            asked: degrees(asked),
            ground: check.map(|check| degrees(check.order_deg)),
            running: check.and_then(|check| check.running_deg).map(degrees),
            delivered: as_it_came(came, side, Some(mil * 1e-3 * INCH)),
        });
    }
    if let Some(train) = train {
        let budget = &train.budget;
        let lobe = budget.first().map(|step| step.shown.clone());
        lines.extend(lobe.map(|asked| OrderLine {
            side,
            label: "Lobe lift".to_owned(),
            asked,
            ground: order.map(|order| order.lobe_lift.clone()),
            running: None,
            delivered: as_it_came(came, side, None),
        }));
        let net = report.lift.done().map(|lift| lift.of(side));
        lines.extend(net.map(|lift| OrderLine {
            side,
            label: "Valve lift".to_owned(),
            asked: shown(lift.gross_mm * 1e-3, Dimension::Length),
            ground: None,
            running: budget.last().map(|step| step.shown.clone()),
            delivered: None,
        }));
    }
    lines.push(OrderLine {
        side,
        label: "Centreline".to_owned(),
        asked: degrees(own.centreline_deg),
        ground: None,
        running: None,
        delivered: None,
    });
    lines
}

/// What the maker's card says of a lobe at a height, m, or of its lift; `None` where it does not, or none came.
fn as_it_came(came: &[Came], side: Side, height: Option<f64>) -> Option<Shown> {
    let is_same = |own: Option<f64>| match (own, height) {
        (Some(own), Some(height)) => (own - height).abs() < 1e-6,
        (own, height) => own.is_none() && height.is_none(),
    };
    let own = came.iter().find(|own| own.side == side && is_same(own.height))?;
    let dimension = if height.is_some() { Dimension::Angle } else { Dimension::Length };
    Some(shown(own.si, dimension))
}

/// The four events of a lobe. What compensation adds to a duration is half on each flank: the centre stays.
fn events<'a>(own: &'a SideTiming, order: Option<&'a OrderReport>, side: Side) -> impl Iterator<Item = OrderLine> + 'a {
    let (opens, closes) = match side {
        Side::Intake => (Reference("TDC", true), Reference("BDC", false)),
        Side::Exhaust => (Reference("BDC", true), Reference("TDC", false)),
    };
    let rows = [
        ("Opens", ".006", own.opens_006_deg, opens),
        ("Closes", ".006", own.closes_006_deg, closes),
        ("Opens", ".050", own.opens_050_deg, opens),
        ("Closes", ".050", own.closes_050_deg, closes),
    ];
    rows.into_iter().map(move |(word, height, asked, reference)| {
        let more =
            order.and_then(|order| at_height(order, height)).map(|check| 0.5 * (check.order_deg - check.card_deg));
        OrderLine {
            side,
            label: format!("{word} at {height}"),
            asked: event(asked, reference),
            ground: more.map(|more| event(asked + more, reference)),
            running: None,
            delivered: None,
        }
    })
}

fn at_height<'a>(order: &'a OrderReport, height: &str) -> Option<&'a crate::report::OrderCheck> {
    order.checks.iter().find(|check| check.height.inch.starts_with(height))
}

/// An event as cards quote it: never a minus, but before or after its dead centre.
fn event(deg: f64, Reference(centre, counts_before): Reference) -> Shown {
    let before = (deg >= 0.0) == counts_before;
    let word = if before { "before" } else { "after" };
    Shown::plain(format!("{:.1} deg {word} {centre}", deg.abs()))
}

fn degrees(deg: f64) -> Shown {
    Shown::plain(format!("{deg:.1} deg"))
}

/// What the grinder asks beside the lobes, and what of it nobody gave.
fn facts(resolved: &Resolved, source: &Source<'_>, report: &CandidateReport) -> (Vec<OrderFact>, Vec<Named>) {
    let mut facts = Vec::new();
    let mut missing = Vec::new();
    if let Some(timing) = report.timing.done() {
        for (label, deg) in [
            ("Lobe separation", timing.lobe_separation_deg),
            ("Advance ground in", timing.advance_deg),
            ("Overlap at .050", timing.overlap_050_deg),
            ("Overlap at .006", timing.overlap_006_deg),
        ] {
            facts.push(OrderFact { label: label.to_owned(), value: degrees(deg), assumed: false });
        }
    }
    let solid = resolved.train(Side::Intake).lifter.kind.is_some_and(LifterKind::is_solid);
    for (of, key, label) in ASKED {
        if (key == "lash" && !solid) || (matches!(key, "preload" | "variant") && solid) {
            continue;
        }
        let [intake, exhaust] = Side::BOTH.map(|side| source.node(of, side));
        if !intake.stands(key) {
            missing.push(Named { field: intake.path_of(key), label: label.to_owned() });
            continue;
        }
        let [one, other] = [intake.input(key), exhaust.input(key)];
        let text = |text: &str| text.replace('_', " ");
        let value = if one.value == other.value {
            text(&one.value)
        } else {
            format!("{} intake, {} exhaust", text(&one.value), text(&other.value))
        };
        let assumed = one.origin == crate::document::Origin::Assumed;
        facts.push(OrderFact { label: label.to_owned(), value: Shown::plain(value), assumed });
    }
    match resolved.given.engine.firing_order.as_deref() {
        Some(order) => {
            let order: Vec<String> = order.iter().map(|cylinder| format!("{cylinder:.0}")).collect();
            facts.push(OrderFact {
                label: "Firing order".to_owned(),
                value: Shown::plain(order.join(" ")),
                assumed: false,
            });
        }
        None => missing.push(Named { field: "engine.firing_order".to_owned(), label: "Firing order".to_owned() }),
    }
    (facts, missing)
}

/// What to do when it comes, in order (common practice, no source).
fn checklist(resolved: &Resolved) -> Vec<String> {
    let lifter = resolved.train(Side::Intake).lifter.kind;
    let roller = lifter.is_some_and(LifterKind::is_roller);
    let mut list = vec![
        "Hold the cam's own card against this order before it goes in: lobe lifts by dial or caliper, durations and centreline by the wheel.".to_owned(),
        "Lifter bores clean; every lifter falls through its bore by hand.".to_owned(),
        "Put it in with a long handle bolt; oil the drive gear; leave the gears loose until it is phased.".to_owned(),
        "Degree it in before pushrods are measured; then measure pushrod length with a checking pushrod.".to_owned(),
        "Piston to valve by dial with light springs on both sides of overlap, clay for the pocket's wall.".to_owned(),
    ];
    if resolved.given.engine.chain_rows == Some(ChainRows::Double) {
        list.push(
            "Double-row chain: spacers behind the oil pump, and the cover tried on over it before it is sealed."
                .to_owned(),
        );
    }
    if roller {
        list.push("Link bars or trays the right way round; wheels in line with their lobes.".to_owned());
    }
    if lifter.is_some_and(LifterKind::is_solid) {
        list.push("Set lash cold by what heat adds, and again hot after the first run.".to_owned());
    }
    list
}

fn cautions(resolved: &Resolved) -> Vec<String> {
    let mut list = vec![
        "Compressed springs injure: a proper compressor, eye protection.".to_owned(),
        "Turn the engine by hand only, plugs or injectors out, while clearances are checked.".to_owned(),
    ];
    if resolved.train(Side::Intake).lifter.kind.is_some_and(LifterKind::is_flat) {
        list.push("Flat lifters: new ones on a new cam, reduced spring load, the right oil, no idling; a lobe can be lost in minutes.".to_owned());
    }
    list.push(
        "Changing the camshaft of a road vehicle can be unlawful: check local rules, use licensed professionals."
            .to_owned(),
    );
    list.push("Makers may add for flex themselves: say whether figures are at lobe or valve, and whether compensation is in them.".to_owned());
    list
}

/// Headings of an order's lines.
pub const ORDER_COLUMNS: [&str; 6] = ["what", "side", "asked", "to be ground", "running", "as it came"];

/// A line under them; nothing where there is none.
pub fn order_cells(line: &OrderLine, system: UnitSystem) -> [&str; 6] {
    let ways = [&line.ground, &line.running, &line.delivered];
    let [ground, running, came] = ways.map(|shown| or_nothing(shown.as_ref(), system));
    [&line.label, line.side.key(), line.asked.text(system), ground, running, came]
}

fn or_nothing(shown: Option<&Shown>, system: UnitSystem) -> &str {
    shown.map_or("", |shown| shown.text(system))
}

/// What an order is of, for whoever gets a sheet by itself: build and candidate, and the revision where one is known.
pub fn order_of_what<'a>(card: &'a OrderCard, revision: &'a str) -> impl Iterator<Item = (&'static str, &'a str)> {
    let named = [("Build", card.build.as_str()), ("Candidate", card.candidate.as_str()), ("Revision", revision)];
    named.into_iter().filter(|(_, text)| !text.is_empty())
}

/// The card as a sheet of six columns, for whoever keeps orders in a spreadsheet.
///
/// # Errors
/// Never for text in memory; the writer's own error is passed on.
pub fn order_csv(card: &OrderCard, system: UnitSystem) -> Result<String, csv::Error> {
    let mut sheet = csv::Writer::from_writer(Vec::new());
    sheet.write_record(ORDER_COLUMNS)?;
    for (label, text) in order_of_what(card, "") {
        sheet.write_record([label, "", text, "", "", ""])?;
    }
    for line in &card.lines {
        sheet.write_record(order_cells(line, system))?;
    }
    for fact in &card.facts {
        sheet.write_record([fact.label.as_str(), "", fact.value.text(system), "", "", ""])?;
    }
    for lacking in &card.missing {
        sheet.write_record([lacking.label.as_str(), "", "to be given", "", "", ""])?;
    }
    for part in &card.parts {
        let (price, lead) = (or_nothing(part.price.as_ref(), system), part.lead_time.as_deref().unwrap_or_default());
        sheet.write_record([&part.kind, "", &part.name, part.state.words(), price, lead])?;
    }
    let bytes = sheet.into_inner().map_err(|error| error.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}
