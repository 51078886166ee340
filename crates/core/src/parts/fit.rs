//! Whether a part fits a candidate: it is put in, the candidate is analysed as before, and what changed is told.

use super::drags::{Change, Drag, drags};
use super::fitting::{fit_part, sides};
use super::part::Part;
use crate::build::Build;
use crate::candidate::{Resolved, Stages};
use crate::document::{Difference, Faults, Ledger, Side, candidate_or_first, differences};
use crate::given::{Given, Source};
use crate::limits::{Findings, NO_SCHOOL, limits};
use crate::quantity::{Shown, UnitSystem};
use crate::report::{LimitReport, Verdict};
use serde::Serialize;

/// In a word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FitVerdict {
    /// It goes in, with the work it drags along.
    Fits,
    /// It fits, but a limit that was met fails with it.
    LosesMargin,
    /// Something of it never goes together with what is there.
    Incompatible,
}

/// A margin before and after.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FitMargin {
    /// Identifier of the rule.
    pub id: String,
    /// In words.
    pub title: String,
    /// Left over before; absent when it was not known or did not apply.
    pub before: Option<Shown>,
    /// Left over after.
    pub after: Option<Shown>,
    /// Before, in a word; absent when it did not apply.
    pub verdict_before: Option<Verdict>,
    /// After, in a word; absent when it does not apply any more.
    pub verdict_after: Option<Verdict>,
    /// Why, for what never goes together.
    pub why: Option<String>,
}

/// A part tried in a candidate.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FitReport {
    /// In a word.
    pub verdict: FitVerdict,
    /// Fields it changes.
    pub changes: Vec<Difference>,
    /// Margins that move, what gets worst first.
    pub margins: Vec<FitMargin>,
    /// What goes with it.
    pub drags: Vec<Drag>,
}

/// Tries `part` in the candidate `id` on `side`, or on both. Nothing is changed.
///
/// # Errors
/// An unknown candidate, or every fault of the document with the part in it.
pub fn fit(
    build: &Build,
    id: &str,
    part: &Part,
    side: Option<Side>,
    system: UnitSystem,
    stages: &Stages,
) -> Result<FitReport, Faults> {
    let views = build.candidates();
    let view = candidate_or_first(&views, Some(id))?;
    let mut value = build.value().clone();
    fit_part(&mut value, view.index, part, side)?;
    let changed = Build::from_value(value)?;
    let changed_views = changed.candidates();
    let (ledger, new_ledger) = (Ledger::default(), Ledger::default());
    let (source, new_source) = (Source::new(view, &ledger), Source::new(&changed_views[view.index], &new_ledger));
    let (before, after) =
        (Resolved::new(Given::read(&source), stages), Resolved::new(Given::read(&new_source), stages));
    // What the gas does with the part is not known before its curve is computed: both are judged without.
    let lines = |resolved: &Resolved, source: &Source<'_>| {
        let none = Findings::default();
        limits(resolved, &none, stages).lines(resolved, &none, stages, source)
    };
    let margins = moved(&lines(&before, &source), &lines(&after, &new_source), system);
    let mut changes = differences(build.value(), changed.value());
    changes.retain(|change| !change.field.contains(".sources."));
    Ok(FitReport {
        verdict: verdict(&margins),
        changes,
        drags: drags(&Change { before: &before, after: &after, system }, part.kind, &sides(side)),
        margins,
    })
}

fn verdict(margins: &[FitMargin]) -> FitVerdict {
    let newly = |margin: &&FitMargin| {
        margin.verdict_after == Some(Verdict::Fails) && margin.verdict_before != Some(Verdict::Fails)
    };
    let failing: Vec<&FitMargin> = margins.iter().filter(newly).collect();
    match failing.iter().any(|margin| margin.why.is_some()) {
        true => FitVerdict::Incompatible,
        false if failing.is_empty() => FitVerdict::Fits,
        false => FitVerdict::LosesMargin,
    }
}

/// Margins that read differently, worst turn first.
fn moved(before: &[LimitReport], after: &[LimitReport], system: UnitSystem) -> Vec<FitMargin> {
    fn same<'a>(line: &LimitReport, among: &'a [LimitReport]) -> Option<&'a LimitReport> {
        among.iter().find(|other| other.id == line.id && other.side == line.side)
    }
    let left = |line: &LimitReport| line.shown.as_ref().map(|shown| shown.margin.clone());
    let read = |line: Option<&LimitReport>| {
        let text = line.and_then(left).map(|shown| shown.read(system));
        (text, line.map(|line| line.verdict))
    };
    let gone = before.iter().filter(|line| same(line, after).is_none());
    let all = after.iter().chain(gone);
    let mut found: Vec<FitMargin> = all
        .filter_map(|line| {
            let (old, new) = (same(line, before), same(line, after));
            (read(old) != read(new)).then(|| FitMargin {
                id: line.id.clone(),
                title: line.title.clone(),
                before: old.and_then(left),
                after: new.and_then(left),
                verdict_before: old.map(|line| line.verdict),
                verdict_after: new.map(|line| line.verdict),
                why: (line.school == NO_SCHOOL).then(|| line.formula.clone()),
            })
        })
        .collect();
    found.sort_by_key(|margin| (turn(margin), rank(margin.verdict_after)));
    found
}

/// Worse first, then what stays as it was, then better.
fn turn(margin: &FitMargin) -> i8 {
    let (before, after) = (rank(margin.verdict_before), rank(margin.verdict_after));
    match after.cmp(&before) {
        std::cmp::Ordering::Less => -1,
        std::cmp::Ordering::Equal => 0,
        std::cmp::Ordering::Greater => 1,
    }
}

/// A failing one first; what does not apply as good as met.
fn rank(verdict: Option<Verdict>) -> i8 {
    match verdict {
        Some(Verdict::Fails) => 0,
        Some(Verdict::Tight) => 1,
        Some(Verdict::Advice | Verdict::Unknown) => 2,
        Some(Verdict::Ok) | None => 3,
    }
}
