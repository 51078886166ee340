//! Faults between fields that say one thing twice, or that no engine can have together: each names both sides.

use crate::cam::{Events, Phasing, height_050, lobe_of_points};
use crate::document::{Fault, Ledger, Node, Side, candidates, spoken_label};
use crate::gas::nozzle::effective_area;
use crate::quantity::{Angle, Flow, Length, Pressure};
use serde_json::Value;

/// Redundant angles may differ by this much, crank degrees.
const ANGLE_TOLERANCE: f64 = 0.5;
/// Redundant lifts may differ by this much, in.
const LIFT_TOLERANCE_IN: f64 = 0.002;
/// A rocker's name may differ from its arms by this share: makers build some ratio in.
const RATIO_TOLERANCE: f64 = 0.03;

/// Appends every disagreement of a document whose fields are each in order.
pub fn check(document: &Value, faults: &mut Vec<Fault>) {
    let ledger = Ledger::default();
    for view in candidates(document) {
        let (candidate, engine) = (view.node(&ledger), view.engine(&ledger));
        let cam = candidate.child("cam");
        let before = faults.len();
        for side in Side::BOTH {
            let lobe = cam.child(side.key());
            flanks_against_durations(&lobe, faults);
            profile_against_card(&lobe, faults);
            once(faults, before, ratio_against_arms(&candidate.child("train").child("rocker").side(side)));
            once(faults, before, flow_against_valve(&engine.child(side.key())));
        }
        redundant_events(&cam, faults);
    }
}

/// A fault of plain fields is met on both sides: once is enough.
fn once(faults: &mut Vec<Fault>, from: usize, found: Option<Fault>) {
    if let Some(found) = found
        && !faults[from..].iter().any(|fault| fault.field == found.field)
    {
        faults.push(found);
    }
}

/// A ratio that the arms beside it do not have: both are one thing.
fn ratio_against_arms(rocker: &Node<'_>) -> Option<Fault> {
    let (tip, cup) = (rocker.quantity::<Length>("pivot_to_tip")?, rocker.quantity::<Length>("pivot_to_cup")?);
    let (ratio, arms) = (rocker.number("ratio")?, tip.si() / cup.si());
    if (ratio / arms - 1.0).abs() <= RATIO_TOLERANCE {
        return None;
    }
    let needs = format!(
        "to agree with {} {} and {} {}, which make {arms:.3}",
        spoken_label(&rocker.path_of("pivot_to_tip")),
        rocker.input("pivot_to_tip").value,
        spoken_label(&rocker.path_of("pivot_to_cup")),
        rocker.input("pivot_to_cup").value
    );
    let cure = "correct the ratio or the arm to the cup; within 3 % both may stand";
    Some(Fault::new(rocker.path_of("ratio"), &ratio.to_string(), needs).cure(cure))
}

/// A flow that an open hole of the valve's size would not pass.
fn flow_against_valve(port: &Node<'_>) -> Option<Fault> {
    let (valve, depression) =
        (port.quantity::<Length>("valve_diameter")?, port.quantity::<Pressure>("flow_depression")?);
    let hole = port.number("valves").unwrap_or(1.0) * 0.25 * std::f64::consts::PI * valve.si() * valve.si();
    let rows = port.rows::<Length, Flow>("flow")?;
    let (place, most) = rows.iter().enumerate().find_map(|(place, (_, flow))| {
        let area = effective_area(flow.si(), depression.si()).unwrap_or(f64::INFINITY);
        (area > hole).then_some((place, flow))
    })?;
    let needs = format!("less than an open hole of {} passes", port.input("valve_diameter").value);
    Some(Fault::new(format!("{}[{place}]", port.path_of("flow")), &format!("{:.0} cfm", most.as_cfm()), needs))
}

/// A measured profile beside a card that says something else. A profile that is no lobe is told of by
/// the analysis.
fn profile_against_card(lobe: &Node<'_>, faults: &mut Vec<Fault>) {
    if !lobe.has("profile") || !lobe.has("lobe_lift") && !lobe.has("checks") {
        return;
    }
    let node = lobe.child("profile");
    let (Some(angles), Some(lifts)) = (node.numbers("cam_deg"), node.quantities::<Length>("lift")) else { return };
    if agrees_as_read(lobe, &angles, &lifts) {
        return;
    }
    let Ok(measured) = lobe_of_points(&angles.into_iter().zip(lifts).collect::<Vec<_>>()) else { return };
    if let Some(lift) = lobe.quantity::<Length>("lobe_lift")
        && (lift.as_inches() - measured.lift().as_inches()).abs() > LIFT_TOLERANCE_IN
    {
        let follows =
            format!("{}, which gives {:.3} in", spoken_label(&node.path_of("lift")), measured.lift().as_inches());
        faults.push(disagreement(&lobe.path_of("lobe_lift"), &format!("{:.3} in", lift.as_inches()), &follows));
    }
    for (height, duration) in lobe.rows::<Length, Angle>("checks").unwrap_or_default() {
        let Some(follows) = measured.duration_crank_deg(height) else { continue };
        if (follows - duration.as_deg()).abs() > ANGLE_TOLERANCE {
            let given = format!("{:.1} deg at {:.3} in", duration.as_deg(), height.as_inches());
            let other = format!("{}, which gives {follows:.1} deg", spoken_label(&node.path_of("lift")));
            faults.push(disagreement(&lobe.path_of("checks"), &given, &other));
        }
    }
}

/// Whether the readings as they are agree with the card beside them: then no lobe has to be fitted to know.
fn agrees_as_read(lobe: &Node<'_>, angles: &[f64], lifts: &[Length]) -> bool {
    let most = lifts.iter().map(|lift| lift.si()).fold(0.0, f64::max);
    let lift = lobe.quantity::<Length>("lobe_lift");
    let lift_agrees = lift.is_none_or(|lift| (lift.si() - most).abs() <= LIFT_TOLERANCE_IN * 0.0254);
    // Cam degrees between the first and the last crossing of a height, by straight lines between readings.
    let above = |height: f64| {
        let pairs = || angles.windows(2).zip(lifts.windows(2));
        let at = |(deg, lift): (&[f64], &[Length])| {
            deg[0] + (height - lift[0].si()) / (lift[1].si() - lift[0].si()) * (deg[1] - deg[0])
        };
        let up = pairs().find(|(_, lift)| lift[0].si() < height && lift[1].si() >= height).map(at)?;
        let down = pairs().rfind(|(_, lift)| lift[0].si() >= height && lift[1].si() < height).map(at)?;
        Some(2.0 * (down - up))
    };
    let checks = lobe.rows::<Length, Angle>("checks").unwrap_or_default();
    let agrees = |(height, duration): &(Length, Angle)| {
        above(height.si()).is_some_and(|deg| (deg - duration.as_deg()).abs() <= ANGLE_TOLERANCE)
    };
    lift_agrees && checks.iter().all(agrees)
}

/// Opening and closing flank together are the duration at the same height.
fn flanks_against_durations(lobe: &Node<'_>, faults: &mut Vec<Fault>) {
    let rows = |node: &Node<'_>| node.rows::<Length, Angle>("checks").unwrap_or_default();
    let (opening, closing) = (rows(&lobe.child("opening")), rows(&lobe.child("closing")));
    let at = |rows: &[(Length, Angle)], height: Length| {
        rows.iter().find(|r| (r.0.si() - height.si()).abs() < 1e-8).map(|r| r.1.as_deg())
    };
    for (height, duration) in rows(lobe) {
        if let (Some(open), Some(close)) = (at(&opening, height), at(&closing, height)) {
            let (sum, duration) = (open + close, duration.as_deg());
            if (sum - duration).abs() > ANGLE_TOLERANCE {
                faults.push(disagreement(
                    &lobe.path_of("checks"),
                    &format!("{duration:.1} deg at {:.3} in", height.as_inches()),
                    &format!(
                        "{} and {} (together {sum:.1} deg)",
                        spoken_label(&lobe.path_of("opening")),
                        spoken_label(&lobe.path_of("closing"))
                    ),
                ));
            }
        }
    }
}

/// Events at .050 beside durations, separation or centreline that say something else.
fn redundant_events(cam: &Node<'_>, faults: &mut Vec<Fault>) {
    let events_node = cam.child("events_050");
    let deg = |key: &str| events_node.quantity::<Angle>(key).map(Angle::as_deg);
    let (Some(io), Some(ic), Some(eo), Some(ec)) =
        (deg("intake_opens_btdc"), deg("intake_closes_abdc"), deg("exhaust_opens_bbdc"), deg("exhaust_closes_atdc"))
    else {
        return;
    };
    let events =
        Events { intake_opens_btdc: io, intake_closes_abdc: ic, exhaust_opens_bbdc: eo, exhaust_closes_atdc: ec };
    let phasing: Phasing = events.phasing();
    let given = |key: &str| cam.quantity::<Angle>(key).map(Angle::as_deg);
    let mut compare = |path: String, given: Option<f64>, follows: f64| {
        if let Some(given) = given
            && (given - follows).abs() > ANGLE_TOLERANCE
        {
            let other = format!("{}, which give {follows:.1} deg", spoken_label(&cam.path_of("events_050")));
            faults.push(disagreement(&path, &format!("{given:.1} deg"), &other));
        }
    };
    compare(cam.path_of("lobe_separation"), given("lobe_separation"), phasing.separation());
    compare(cam.path_of("intake_centreline"), given("intake_centreline"), phasing.intake_centreline);
    for (side, follows) in [("intake", events.intake_duration()), ("exhaust", events.exhaust_duration())] {
        let lobe = cam.child(side);
        let rows = lobe.rows::<Length, Angle>("checks").unwrap_or_default();
        let given = rows.iter().find(|r| (r.0.si() - height_050().si()).abs() < 1e-8).map(|r| r.1.as_deg());
        compare(lobe.path_of("checks"), given, follows);
    }
}

fn disagreement(field: &str, given: &str, other: &str) -> Fault {
    Fault::new(field, given, format!("to agree with {other}")).cure("remove one of the two, or correct it")
}
