//! Sentences a builder should read beside what the limits say. Sizes are quoted as they were typed.

use crate::candidate::Resolved;
use crate::document::{CandidateView, Side, in_a_sentence};
use crate::given::{Place, Source};
use crate::quantity::Length;
use crate::report::{BenchFinding, BenchVerdict};
use crate::words::LifterKind;

/// Bore of a pushrod below which little oil reaches the rocker, m (common practice, no source).
const OIL_BORE: f64 = 0.080 * 0.0254;
/// Share of its valves' area below which no pipe is built (common practice, no source).
const NARROW: f64 = 0.4;

/// Cautions that belong to what the document says; what holds for both sides is said once.
pub fn warn(resolved: &Resolved, view: &CandidateView<'_>, source: &Source<'_>, warnings: &mut Vec<String>) {
    let [intake, exhaust] = Side::BOTH.map(|side| cautions(resolved, source, side));
    for caution in &intake {
        let whose = if exhaust.contains(caution) { "" } else { "intake " };
        warnings.push(format!("{}: {whose}{caution}", view.name));
    }
    for caution in exhaust.iter().filter(|caution| !intake.contains(caution)) {
        warnings.push(format!("{}: exhaust {caution}", view.name));
    }
    warnings.extend(engine(resolved).into_iter().map(|caution| format!("{}: {caution}", view.name)));
}

/// Readings that contradict the fields everything is computed with: neither is taken for the other in silence.
pub fn bench_against_fields(bench: &[BenchFinding], view: &CandidateView<'_>) -> Option<String> {
    let differs = bench.iter().filter(|one| one.surest && one.verdict == BenchVerdict::Differs);
    let labels: Vec<String> = differs.map(|one| in_a_sentence(&one.label)).collect();
    let (name, fields) = (&view.name, labels.join(", "));
    (!labels.is_empty()).then(|| format!("{name}: the bench read other figures than those computed with: {fields}"))
}

fn cautions(resolved: &Resolved, source: &Source<'_>, side: Side) -> Vec<String> {
    let mut found = Vec::new();
    if resolved.train(side).lifter.kind.is_some_and(LifterKind::is_flat) {
        found.push("flat lifters: break in with reduced spring load and the right oil, without idling; a lobe can be lost in minutes".to_owned());
    }
    let pushrod = &resolved.train(side).pushrod;
    if let (Some(outside), Some(wall)) = (pushrod.outside_diameter, pushrod.wall)
        && outside.si() - 2.0 * wall.si() < OIL_BORE
    {
        let (tube, wall) = (typed(source, pushrod.at("outside_diameter")), typed(source, pushrod.at("wall")));
        found.push(format!("{tube} with {wall} leaves hardly a bore: little oil reaches the rocker through it"));
    }
    found.extend(narrow_pipe(resolved, source, side));
    found
}

/// A pipe that is far narrower than the valves it serves.
fn narrow_pipe(resolved: &Resolved, source: &Source<'_>, side: Side) -> Option<String> {
    let (runner, primary, port) = (&resolved.given.runner, &resolved.given.primary, resolved.port(side));
    let (bore, place) = match side {
        Side::Intake => (runner.runner_diameter?, runner.at("runner_diameter")),
        Side::Exhaust => (primary.primary_diameter?, primary.at("primary_diameter")),
    };
    let square = |length: Length| length.si() * length.si();
    let narrow = square(bore) < NARROW * port.valves.unwrap_or(1.0) * square(port.valve_diameter?);
    narrow.then(|| {
        let valve = typed(source, port.at("valve_diameter"));
        format!("{} is far narrower than {valve} needs: torque computed with it means little", typed(source, place))
    })
}

/// A field with its text, as typed.
fn typed(source: &Source<'_>, place: Place) -> String {
    let input = source.node(place.of, place.side).input(place.key);
    format!("{} {}", in_a_sentence(&input.label), input.value)
}

/// What is odd about the engine as a whole.
fn engine(resolved: &Resolved) -> Vec<&'static str> {
    if resolved.given.engine.is_domed() {
        vec!["the piston has a dome: piston to head and to plug is not judged by the deck alone, check it by clay"]
    } else {
        Vec::new()
    }
}
