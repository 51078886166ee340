//! Finalists under the tolerances: how often one fails when it is built, what its torque strays by, and what to measure before
//! it is ordered.

use super::tolerance_words::called;
use crate::build::Build;
use crate::candidate::{Resolved, Stages, measured_by, motion_of_valves};
use crate::choose::{
    Bound, Field, Reserves, Responded, Standing, Strays, Toleranced, cast_of, found_quickly, model_of, reserves,
    respond, toleranced,
};
use crate::document::{Ledger, Side};
use crate::given::{Given, Of, Place, Source};
use crate::limits::{Findings, Rule, limits, titled};
use crate::report::{MeasureNext, Place as Step};
use crate::response::{Choice, Decision};
use crate::tolerance::{Model, simulate};
use crate::words::Word;

/// Engines drawn of a finalist, and the lot.
const ENGINES: usize = 10_000;
const SEED: u64 = 2026;
/// Limits that bind a best choice at once.
const BIND: f64 = 3.0;
/// What to measure must change the choice this often.
const CHANGES: f64 = 0.005;

/// A finalist as it is built.
pub(super) struct Chances {
    /// Share of engines of which any limit fails that is met as it is given.
    pub fails: f64,
    /// The same of the limits that the choice moves.
    pub by_choice: f64,
    /// The limit that fails most, in words.
    pub most: Option<String>,
    /// Standard deviation of its average torque, as a share.
    pub torque: f64,
    /// What to measure before it is ordered, with how often that would change the choice.
    pub measure: Vec<MeasureNext>,
}

/// What stands, with its fields that may be off.
struct Stands<'a> {
    resolved: Resolved,
    fields: Vec<Toleranced>,
    stages: &'a Stages,
    stop: &'a (dyn Fn() -> bool + Sync),
}

impl<'a> Stands<'a> {
    fn of(
        (build, index): (&Build, usize),
        (stages, stop): (&'a Stages, &'a (dyn Fn() -> bool + Sync)),
    ) -> Option<Self> {
        let views = build.candidates();
        let ledger = Ledger::default();
        let source = Source::new(views.get(index)?, &ledger);
        let resolved = Resolved::new(Given::read(&source), stages);
        let fields = toleranced(&resolved, &source);
        Some(Self { resolved, fields, stages, stop })
    }

    /// How far gas and trains stray with each field off, as far as any that stood is near to a limit of theirs. `None` when stopped.
    fn strays(&self, findings: &Findings, stood: &[&Standing]) -> Option<Strays> {
        let is_near = |is_of: fn(&Rule) -> bool| {
            let mut margins = stood.iter().flat_map(|standing| &standing.margins);
            margins.any(|own| is_of(own.bound.rule) && !own.is_advice && own.left < own.scale)
        };
        let findings = Findings {
            gas: findings.gas.clone().filter(|_| is_near(|rule| rule.gas)),
            control: findings.control.clone().filter(|_| is_near(|rule| rule.place == Step::Control)),
            moved: None,
        };
        Some(Strays::of(&self.resolved, &self.fields, &findings, (self.stages, self.stop))?.without_loads())
    }
}

/// How far gas and trains stray when finalists are built: of what stands, the first of `found`, whose fields move them as much.
/// `None` where a document is not whole or the work was stopped.
pub(super) fn strays_of(
    stands: (&Build, usize),
    found: &[(&Findings, &Standing)],
    within: (&Stages, &(dyn Fn() -> bool + Sync)),
) -> Option<Strays> {
    let stood: Vec<&Standing> = found.iter().map(|(_, standing)| *standing).collect();
    Stands::of(stands, within)?.strays(found.first()?.0, &stood)
}

/// What has to be left of limits so that no more than a share of engines fails any of what the choice moves, by what stands. Seldom
/// more than three limits bind at once: a third of the share for each. `None` where the document is not whole or the work was
/// stopped.
pub(super) fn reserves_of(
    stands: (&Build, usize),
    share: f64,
    within: (&Stages, &(dyn Fn() -> bool + Sync)),
) -> Option<Reserves> {
    let own = Stands::of(stands, within)?;
    let moved = motion_of_valves(&own.resolved, own.stages);
    let findings = Findings { moved, ..found_quickly(&own.resolved, own.stages, own.stop)? };
    let standing = Standing::of(&limits(&own.resolved, &findings, own.stages));
    let strays = own.strays(&findings, &[&standing])?;
    reserves((&own.resolved, &own.fields), (&findings, &strays), share / BIND, (&Stages::default(), own.stop))
}

/// Draws engines of a finalist; `None` where its document is not whole.
pub(super) fn chances(
    (build, index): (&Build, usize),
    (findings, choice): (&Findings, &Choice),
    (field, strays, moved): (&Field, &Strays, &[Bound]),
    stages: &Stages,
) -> Option<Chances> {
    let views = build.candidates();
    let ledger = Ledger::default();
    let source = Source::new(views.get(index)?, &ledger);
    let resolved = Resolved::new(Given::read(&source), stages);
    let fields = toleranced(&resolved, &source);
    let own = Stages::default();
    let responses = respond(&resolved, &fields, (findings, strays), (&own, &|| false))?;
    let model = model_of(&fields, &responses);
    let cast = cast_of(&resolved, ENGINES, SEED);
    let drawn = simulate(&model, &cast);
    let moves = |own: &Responded| moved.contains(&Bound { rule: own.rule, side: own.side });
    let counts = model.counts.iter().zip(&responses.limits).map(|(counts, own)| *counts && moves(own)).collect();
    let by_choice = simulate(&Model { counts, ..model.clone() }, &cast).any;
    let worst = responses.limits.iter().zip(&drawn.limits).zip(&model.counts).filter(|(_, counts)| **counts);
    let worst = worst.map(|(own, _)| own).max_by(|a, b| a.1.fails_any.total_cmp(&b.1.fails_any));
    let mut worth: Vec<(usize, f64)> = (0..fields.len())
        .map(|variable| (variable, drawn.any - drawn.any_if_known[variable]))
        .filter(|(variable, worth)| *worth >= CHANGES && fields[*variable].variable.known < 0.999)
        .collect();
    worth.sort_by(|a, b| b.1.total_cmp(&a.1));
    let measure = |(variable, changes): (usize, f64)| {
        let path = source.path(fields[variable].place);
        let node = source.node(fields[variable].place.of, fields[variable].place.side);
        MeasureNext {
            label: called(fields[variable].place, &path),
            value: node.input(fields[variable].place.key).value,
            session: measured_by(&path).map(|kind| kind.word().to_owned()),
            field: path,
            settles: Vec::new(),
            changes_share: Some(changes),
        }
    };
    Some(Chances {
        fails: drawn.any,
        by_choice,
        most: worst.filter(|own| own.1.fails_any > 0.0).map(|(own, _)| titled(own.rule.title, own.side)),
        torque: torque_strays(field, choice, &fields),
        measure: worth.into_iter().map(measure).collect(),
    })
}

/// Standard deviation of average torque by what the cam itself is off by, as a share: its gradient in each number of the card
/// times that number's own. What engines share is the same for every candidate and no difference.
fn torque_strays(field: &Field, choice: &Choice, fields: &[Toleranced]) -> f64 {
    let torque = |choice: &Choice| field.response.figures(choice).average_torque;
    let here = torque(choice);
    let spread = |of: Of, key: &'static str, side: Side| {
        let place = Place::new(of, key, side);
        fields.iter().find(|field| field.place == place).map_or(0.0, |field| field.variable.spread.sd())
    };
    let degrees = |of: Of, key: &'static str, side: Side| spread(of, key, side).to_degrees();
    let own = [
        (Decision::IntakeCentreline, degrees(Of::Cam, "intake_centreline", Side::Intake)),
        (Decision::LobeSeparation, degrees(Of::Cam, "lobe_separation", Side::Intake)),
        (Decision::IntakeDuration, degrees(Of::Lobe, "checks", Side::Intake)),
        (Decision::ExhaustDuration, degrees(Of::Lobe, "checks", Side::Exhaust)),
        (Decision::IntakeOpens, degrees(Of::Events, "intake_opens_btdc", Side::Intake)),
        (Decision::IntakeCloses, degrees(Of::Events, "intake_closes_abdc", Side::Intake)),
        (Decision::ExhaustOpens, degrees(Of::Events, "exhaust_opens_bbdc", Side::Intake)),
        (Decision::ExhaustCloses, degrees(Of::Events, "exhaust_closes_atdc", Side::Intake)),
        (Decision::IntakeLift, spread(Of::Lobe, "lobe_lift", Side::Intake)),
        (Decision::ExhaustLift, spread(Of::Lobe, "lobe_lift", Side::Exhaust)),
    ];
    let strays = own.into_iter().filter(|(_, sd)| *sd > 0.0).filter_map(|(decision, sd)| {
        let at = choice.get(decision)?;
        Some(0.5 * (torque(&choice.with(decision, at + sd)) - torque(&choice.with(decision, at - sd))) / here)
    });
    strays.map(|own| own * own).sum::<f64>().sqrt()
}
