//! Faults between fields: order, counts, and redundant inputs that disagree.

use crate::document::{
    BUILD, ENGINE, Fault, Ledger, Node, Side, TARGET, Tolerated, check_object, check_patch_keys, join, limit_dimension,
    limit_figure,
};
use crate::quantity::{Angle, Area, Dimension, Flow, Force, Length, Speed, UnitSystem, Volume, format_si};
use crate::service::{NEEDS, day, used};
use serde_json::Value;

/// Appends every fault between fields of a document whose fields are each in order.
pub fn check(value: &Value, faults: &mut Vec<Fault>) {
    let ledger = Ledger::default();
    let build = Node::new(Some(value), &BUILD, "", &ledger);
    engine(&build.child("engine"), faults);
    target(&build.child("target"), faults);
    for (key, called) in [
        ("candidates", "candidate"),
        ("bench", "session"),
        ("pulls", "pull"),
        ("service", "entry"),
        ("valve_motion", "trace"),
    ] {
        ids_of(value, key, called, faults);
    }
    for own in build.children("pulls") {
        pull(&own, faults);
    }
    for own in build.children("service") {
        service(&own, faults);
    }
    for limit in build.children("limits") {
        shop_limit(&limit, faults);
    }
    for own in build.children("tolerances") {
        tolerance(&own, value, faults);
    }
    for (index, candidate) in build.children("candidates").iter().enumerate() {
        let cam = candidate.child("cam");
        for side in Side::BOTH {
            lobe(&cam.child(side.key()), faults);
            let train = candidate.child("train");
            spring(&train.child("spring").side(side), faults);
            pushrod(&train.child("pushrod").side(side), faults);
        }
        changes(value, index, faults);
    }
}

/// A shop's own figure is written in its limit's unit and says at least one bound.
fn shop_limit(limit: &Node<'_>, faults: &mut Vec<Fault>) {
    let Some(id) = limit.word("limit") else { return };
    let bounds = ["at_least", "at_most"].map(|key| (key, limit.word(key)));
    if bounds.iter().all(|(_, text)| text.is_none()) {
        fault(limit, "at_least", "a bound, at least or at most", faults);
    }
    for (key, text) in bounds {
        if let Some(text) = text.filter(|text| limit_figure(id, text).is_none()) {
            let needs =
                limit_dimension(id).map_or("a plain number".to_owned(), |d| format!("{} with its unit", d.noun()));
            faults.push(Fault::new(limit.path_of(key), text, needs));
        }
    }
}

/// A tolerance is of a field that can be off, in its unit, and leaves it what it is.
fn tolerance(own: &Node<'_>, document: &Value, faults: &mut Vec<Fault>) {
    let (Some(field), Some(text)) = (own.word("field"), own.word("plus_minus")) else { return };
    let Some(tolerated) = Tolerated::of(field) else {
        fault(own, "field", "the path of a field that is a quantity or a number", faults);
        return;
    };
    let Some(figure) = tolerated.figure(text) else {
        let needs = match tolerated {
            Tolerated::Quantity(dimension) => format!("{} with its unit, above nothing", dimension.noun()),
            Tolerated::Number => "a plain number above nothing".to_owned(),
        };
        fault(own, "plus_minus", &needs, faults);
        return;
    };
    if tolerated.positive(document, field).is_some_and(|value| figure >= value) {
        fault(own, "plus_minus", "less than the value it is of", faults);
    }
}

/// Entries of a list have identifiers of their own.
fn ids_of(value: &Value, key: &str, called: &str, faults: &mut Vec<Fault>) {
    let list = value.get(key).and_then(Value::as_array).map_or(&[][..], Vec::as_slice);
    let ids: Vec<(usize, &str)> =
        list.iter().enumerate().filter_map(|(place, own)| Some((place, own.get("id")?.as_str()?))).collect();
    for (nth, (place, id)) in ids.iter().enumerate() {
        if ids[..nth].iter().any(|(_, other)| other == id) {
            faults.push(
                Fault::new(format!("{key}[{place}].id"), id, format!("an id no other {called} has"))
                    .cure(format!("write \"{id}-{}\"", place + 1)),
            );
        }
    }
}

/// What is read beside a pull has a value for each of its points; a range has its ends in order.
fn pull(pull: &Node<'_>, faults: &mut Vec<Fault>) {
    let points = pull.entries("points");
    for trace in pull.children("traces") {
        if trace.entries("values") != points {
            fault(&trace, "values", &format!("as many values as the pull has points, {points}"), faults);
        }
    }
    let rpm = |key: &str| pull.quantity::<Speed>(key).map(Speed::si);
    if let (Some(from), Some(to)) = (rpm("from"), rpm("to"))
        && to <= from
    {
        fault(pull, "to", &format!("above where it is counted from, {}", pull.input("from").value), faults);
    }
}

/// An entry of the service log says its day and its use so that they can be counted with.
fn service(entry: &Node<'_>, faults: &mut Vec<Fault>) {
    if entry.word("date").is_some_and(|text| day(text).is_none()) {
        fault(entry, "date", "a day of the calendar, as 2026-06-01", faults);
    }
    if entry.word("at").is_some_and(|text| used(text).is_none()) {
        fault(entry, "at", NEEDS, faults);
    }
}

/// Merged `changes` are held against the same tables; only faults they bring are theirs.
fn changes(value: &Value, index: usize, faults: &mut Vec<Fault>) {
    let Some(changes) = value.get("candidates").and_then(|c| c.get(index)).and_then(|c| c.get("changes")) else {
        return;
    };
    let path = format!("candidates[{index}].changes");
    let ledger = Ledger::default();
    for (key, object) in [("engine", &ENGINE), ("target", &TARGET)] {
        let Some(patch) = changes.get(key) else { continue };
        check_patch_keys(patch, object, &join(&path, key), faults);
        let mut merged = value.get(key).cloned().unwrap_or(Value::Null);
        json_patch::merge(&mut merged, patch);
        let at = join(&path, key);
        let before = faults.len();
        check_object(&merged, object, &at, faults);
        if faults.len() == before {
            let node = Node::new(Some(&merged), object, &at, &ledger);
            if key == "engine" { engine(&node, faults) } else { target(&node, faults) }
        }
    }
}

fn engine(engine: &Node<'_>, faults: &mut Vec<Fault>) {
    let length = |node: &Node<'_>, key: &str| node.quantity::<Length>(key).map(Length::si);
    if let (Some(rod), Some(stroke), Some(offset)) =
        (length(engine, "rod_length"), length(engine, "stroke"), length(engine, "pin_offset"))
        && rod <= 0.5 * stroke + offset.abs()
    {
        fault(engine, "rod_length", "longer than half the stroke and the pin offset together", faults);
    }
    for side in ["intake", "exhaust"] {
        let port = engine.child(side);
        if let (Some(bore), Some(valve)) = (length(engine, "bore"), length(&port, "valve_diameter"))
            && valve >= bore
        {
            fault(&port, "valve_diameter", "smaller than the bore", faults);
        }
        for key in ["flow", "flow_reverse"] {
            let rows = port.rows::<Length, Flow>(key).unwrap_or_default();
            rising(rows.iter().map(|r| r.0.si()), &port.path_of(key), "lift", faults);
        }
    }
    manifolds(engine, faults);
    if let (Some(bore), Some(gasket)) = (length(engine, "bore"), length(engine, "gasket_bore"))
        && gasket < bore
    {
        fault(engine, "gasket_bore", &format!("at least the bore, {}", engine.input("bore").value), faults);
    }
    let (burns, fuel) = (engine.word("combustion"), engine.word("fuel"));
    if let (Some(burns), Some(fuel)) = (burns, fuel)
        && (burns == "diesel") != (fuel == "diesel")
    {
        fault(engine, "fuel", &format!("a fuel that {burns} combustion burns"), faults);
    }
    firing_order(engine, faults);
}

/// A manifold takes flow from the head and gives none; a log is a volume; a port is narrowest where it is narrowest.
fn manifolds(engine: &Node<'_>, faults: &mut Vec<Fault>) {
    let induction = engine.child("induction");
    let flow = |key: &str| induction.quantity::<Flow>(key).map(Flow::si);
    if let (Some(alone), Some(with)) = (flow("flow_without_manifold"), flow("flow_with_manifold"))
        && with > alone
    {
        let most = induction.input("flow_without_manifold").value;
        fault(&induction, "flow_with_manifold", &format!("at most what the head flows without it, {most}"), faults);
    }
    let exhaust = engine.child("exhaust");
    let collector = exhaust.child("collector");
    let no_volume = |key: &str| collector.quantity::<Length>(key).is_some_and(|length| length.si() <= 0.0);
    if exhaust.word("manifold") == Some("log") && no_volume("length") {
        fault(&collector, "length", "the length of the log, whose volume the ports share", faults);
    }
    let intake = engine.child("intake");
    let mean = intake.quantity::<Volume>("port_volume").zip(intake.quantity::<Length>("port_length"));
    if let (Some((volume, length)), Some(smallest)) = (mean, intake.quantity::<Area>("smallest_section"))
        && length.si() > 0.0
        && smallest.si() > volume.si() / length.si()
    {
        let most = format_si(volume.si() / length.si(), Dimension::Area, UnitSystem::Inch);
        fault(&intake, "smallest_section", &format!("at most the mean section of the port, {most}"), faults);
    }
}

fn firing_order(engine: &Node<'_>, faults: &mut Vec<Fault>) {
    let Some(order) = engine.numbers("firing_order") else { return };
    let count = engine.number("cylinders").unwrap_or(0.0) as usize;
    let mut sorted: Vec<usize> = order.iter().map(|n| *n as usize).collect();
    sorted.sort_unstable();
    if sorted != (1..=count).collect::<Vec<_>>() {
        fault(engine, "firing_order", &format!("every cylinder from 1 to {count} once"), faults);
    }
}

fn target(target: &Node<'_>, faults: &mut Vec<Fault>) {
    let speed = |key: &str| target.quantity::<Speed>(key).map(Speed::si);
    if let (Some(from), Some(to)) = (speed("band_from"), speed("band_to"))
        && from >= to
    {
        fault(target, "band_to", "above the start of the band", faults);
    }
    if let (Some(idle), Some(shift)) = (speed("idle_at"), speed("shift_at"))
        && idle >= shift
    {
        fault(target, "idle_at", &format!("below the shift, {}", target.input("shift_at").value), faults);
    }
    let levels = target.children("boost");
    let mut names: Vec<_> = levels.iter().map(|l| l.word("level")).collect();
    names.dedup();
    for name in names {
        let own = levels.iter().filter(|l| l.word("level") == name);
        let speeds = own.filter_map(|l| l.quantity::<Speed>("at")).map(Speed::si);
        rising(speeds, &target.path_of("boost"), "at", faults);
    }
}

fn spring(spring: &Node<'_>, faults: &mut Vec<Fault>) {
    let length = |key: &str| spring.quantity::<Length>(key).map(Length::si);
    if let (Some(installed), Some(bind)) = (length("installed_height"), length("coil_bind_height"))
        && installed <= bind
    {
        fault(spring, "installed_height", "above the coil bind height", faults);
    }
    let points = spring.rows::<Length, Force>("points").unwrap_or_default();
    let falls = points.first().zip(points.last()).is_some_and(|(first, last)| last.0 < first.0);
    for pair in points.windows(2) {
        let lower = pair[1].0 < pair[0].0;
        let stiffer = pair[1].1 > pair[0].1;
        if lower != stiffer || lower != falls || pair[0].0 == pair[1].0 {
            fault(spring, "points", "heights that go one way, with more load the shorter the spring", faults);
            return;
        }
    }
}

fn pushrod(pushrod: &Node<'_>, faults: &mut Vec<Fault>) {
    let length = |key: &str| pushrod.quantity::<Length>(key).map(Length::si);
    if let (Some(outside), Some(wall)) = (length("outside_diameter"), length("wall"))
        && 2.0 * wall > outside
    {
        let needs = format!("at most half of the tube, {}", pushrod.input("outside_diameter").value);
        fault(pushrod, "wall", &needs, faults);
    }
}

fn lobe(lobe: &Node<'_>, faults: &mut Vec<Fault>) {
    let lift = lobe.quantity::<Length>("lobe_lift").map(Length::si);
    for flank in [lobe.clone(), lobe.child("opening"), lobe.child("closing")] {
        let Some(rows) = flank.rows::<Length, Angle>("checks") else { continue };
        let path = flank.path_of("checks");
        rising(rows.iter().map(|r| r.0.si()), &path, "checking height", faults);
        falling(rows.iter().map(|r| r.1.si()), &path, faults);
        if let (Some(lift), Some(top)) = (lift, rows.last())
            && top.0.si() >= lift
        {
            fault(&flank, "checks", "checking heights below the lobe lift", faults);
        }
    }
    if lobe.has("opening") != lobe.has("closing") {
        let key = if lobe.has("opening") { "closing" } else { "opening" };
        fault(lobe, key, "both flanks of an asymmetric lobe", faults);
    }
    profile(&lobe.child("profile"), faults);
}

fn profile(profile: &Node<'_>, faults: &mut Vec<Fault>) {
    let (Some(angles), Some(lifts)) = (profile.numbers("cam_deg"), profile.count("lift")) else { return };
    rising(angles.iter().copied(), &profile.path_of("cam_deg"), "angle", faults);
    if angles.len() != lifts {
        let needs = format!("as many lifts as angles ({})", angles.len());
        faults.push(Fault::new(profile.path_of("lift"), &format!("a list of {lifts}"), needs));
    }
}

fn fault(node: &Node<'_>, key: &str, needs: &str, faults: &mut Vec<Fault>) {
    faults.push(Fault::new(node.path_of(key), &node.text(key), needs));
}

fn rising(values: impl Iterator<Item = f64>, path: &str, what: &str, faults: &mut Vec<Fault>) {
    let mut last = f64::NEG_INFINITY;
    for (place, value) in values.enumerate() {
        if value <= last {
            let needs = format!("every {what} above the one before");
            faults.push(Fault::new(format!("{path}[{place}]"), "a value not above the one before", needs));
            return;
        }
        last = value;
    }
}

fn falling(values: impl Iterator<Item = f64>, path: &str, faults: &mut Vec<Fault>) {
    let mut last = f64::INFINITY;
    for (place, value) in values.enumerate() {
        if value >= last {
            let needs = "a shorter duration at every greater height";
            faults.push(Fault::new(format!("{path}[{place}]"), "a duration not below the one before", needs));
            return;
        }
        last = value;
    }
}
