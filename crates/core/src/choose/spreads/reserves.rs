//! What has to be left of every limit so that engines hold it as they are built.

use super::fields::{Field, cast_of};
use super::responses::{model_of, respond};
use super::strays::Strays;
use crate::candidate::{Resolved, Stages};
use crate::choose::standing::{Bound, Reserves};
use crate::limits::Findings;
use crate::tolerance::simulate;

/// Engines drawn, and the lot.
const ENGINES: usize = 10_000;
const SEED: u64 = 2026;

/// What has to be left of every limit that anything moves, so that no more than `share` of engines fails it on any cylinder: what
/// the worst cylinder of an engine has less than things as given, at that share; of a limit that has less left as it stands, that.
/// `stop` ends it with `None`.
pub fn reserves(
    (resolved, fields): (&Resolved, &[Field]),
    found: (&Findings, &Strays),
    share: f64,
    within: (&Stages, &(dyn Fn() -> bool + Sync)),
) -> Option<Reserves> {
    let responses = respond(resolved, fields, found, within)?;
    let drawn = simulate(&model_of(fields, &responses), &cast_of(resolved, ENGINES, SEED));
    let own = responses.limits.iter().zip(&drawn.limits).filter(|(own, _)| !own.found.is_advice && !own.is_broken);
    let reserve = own.map(|(own, outcome)| {
        let bound = Bound { rule: own.rule, side: own.side };
        (bound, outcome.lost_at(own.margin.middle, share).min(own.margin.middle))
    });
    Some(reserve.filter(|(_, reserve)| *reserve > 0.0).collect())
}
