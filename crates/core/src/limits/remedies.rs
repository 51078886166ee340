//! What buys a margin back: single changes, each found by running the candidate again.
//!
//! A lever is tried one step; the slope says how many steps reach the verdict ok; the change of that
//! size is run again, and only what that run gains is reported.

use super::rule::{Finding, Lever, Rule};
use crate::candidate::{Inputs, Stages};
use crate::document::{Build, Ledger, Node, Side, field_label, kind_of, set_field};
use crate::quantity::{UnitSystem, parse, restate};
use crate::report::Remedy;

/// Most remedies of one limit.
const MOST: usize = 4;

/// The remedies of `rule` on `side` for the candidate at `index`; empty when it is met with room.
pub fn remedies_for(rule: &Rule, side: Option<Side>, build: &Build, index: usize, stages: &Stages) -> Vec<Remedy> {
    let Some(now) = run(rule, side, build, index, stages) else { return Vec::new() };
    if now.margin() >= now.tight {
        return Vec::new();
    }
    let found = rule.levers.iter().filter_map(|lever| pull(rule, lever, side, &now, build, index, stages));
    found.take(MOST).collect()
}

fn run(rule: &Rule, side: Option<Side>, build: &Build, index: usize, stages: &Stages) -> Option<Finding> {
    let views = build.candidates();
    let ledger = Ledger::default();
    let inputs = Inputs::resolve(views.get(index)?, &ledger, stages);
    rule.finding(side, &inputs, stages)?.ok()
}

fn pull(
    rule: &Rule,
    lever: &Lever,
    side: Option<Side>,
    now: &Finding,
    build: &Build,
    index: usize,
    stages: &Stages,
) -> Option<Remedy> {
    let (field, from) = place(lever, side.unwrap_or(Side::Intake), build, index)?;
    let after = |steps: f64| -> Option<(String, Finding)> {
        let to = changed(&field, &from, steps * lever.step)?;
        let mut value = build.value().clone();
        set_field(&mut value, &field, &to, UnitSystem::Inch).ok()?;
        let finding = run(rule, side, &Build::from_value(value).ok()?, index, stages)?;
        Some((to, finding))
    };
    let (_, probe) = after(1.0)?;
    let slope = probe.margin() - now.margin();
    if slope <= 1e-12 {
        return None;
    }
    // A band's far bound may come near before room is reached: settle for its middle.
    let wanted = now.tight - now.margin();
    let steps = (wanted / slope - 1e-9).ceil().clamp(1.0, lever.most);
    let (to, finding) = after(steps)?;
    let gain = finding.margin() - now.margin();
    (gain > 0.0).then(|| Remedy {
        label: field_label(&field),
        field,
        from,
        to,
        gain: rule.measure.to_report(gain),
        gain_shown: rule.measure.shown_signed(gain),
        verdict: finding.verdict(),
    })
}

/// Path and present text of a lever.
fn place(lever: &Lever, side: Side, build: &Build, index: usize) -> Option<(String, String)> {
    let views = build.candidates();
    let ledger = Ledger::default();
    let view = views.get(index)?;
    let node: Node<'_> = match lever.part {
        "cam" => view.node(&ledger).child("cam"),
        "engine" => view.engine(&ledger),
        "target" => view.target(&ledger),
        "port" => view.engine(&ledger).child(side.key()),
        "pocket" => {
            let pocket = view.engine(&ledger).child(side.key()).child("pocket");
            pocket.is_given().then_some(pocket)?
        }
        part => view.node(&ledger).child("train").child(part).side(side),
    };
    let input = node.input(lever.field);
    (input.value != "unknown").then_some((input.field, input.value))
}

/// `from` changed by `by` (SI for quantities), written in its own unit.
fn changed(field: &str, from: &str, by: f64) -> Option<String> {
    match kind_of(field)?.dimension() {
        Some(dimension) => restate(from, dimension, parse(from, dimension).ok()? + by),
        None => Some(format!("{:.2}", from.parse::<f64>().ok()? + by)),
    }
}
