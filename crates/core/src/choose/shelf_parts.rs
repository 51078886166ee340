//! Parts of the shelf as remedies: each that belongs to the place of a limit is put into the candidate and judged.

use super::advisor::Advisor;
use crate::build::Build;
use crate::candidate::Resolved;
use crate::document::{Ledger, differences};
use crate::given::{Given, Source};
use crate::limits::{Judged, Judgement, limits};
use crate::parts::{Part, PartKind, fit_part};
use crate::quantity::{Dimension, parse, shown};
use crate::report::{Place, Remedy, RemedyChange, RemedyPart, Verdict};
use std::cell::OnceCell;

/// Kinds of part that may help at a place of the work.
const fn kinds(place: Place) -> &'static [PartKind] {
    match place {
        Place::Spring => &[PartKind::Spring, PartKind::Retainer],
        Place::Lifter => &[PartKind::Lifter],
        Place::Rocker => &[PartKind::Rocker],
        Place::Pushrod => &[PartKind::Pushrod],
        _ => &[],
    }
}

/// The parts of a shelf, each put into the candidate and judged once, when a limit first asks for its kind.
pub struct Tried<'a>(Vec<(&'a Part, OnceCell<Option<Fitted>>)>);

/// A candidate with a part of the shelf in it.
struct Fitted {
    build: Build,
    judgement: Judgement,
}

impl<'a> Tried<'a> {
    /// Nothing is tried yet.
    pub fn of(shelf: &'a [Part]) -> Self {
        Self(shelf.iter().map(|part| (part, OnceCell::new())).collect())
    }

    /// What parts buy back of `target`, none of them breaking what was met.
    pub fn remedies(&self, advisor: &Advisor<'_>, target: &Judged) -> Vec<Remedy> {
        let kinds = kinds(target.rule.place);
        let wanted = self.0.iter().filter(|(part, _)| kinds.contains(&part.kind));
        wanted
            .filter_map(|(part, tried)| {
                let fitted = tried.get_or_init(|| fitted(advisor, part)).as_ref()?;
                remedy(advisor, target, part, fitted)
            })
            .collect()
    }
}

/// Parts of one kind that can go into the candidate without breaking what was met, each with the document it makes.
pub fn parts_that_fit<'a>(advisor: &Advisor<'a>, kind: PartKind) -> Vec<(&'a Part, Build)> {
    let own = advisor.shelf.iter().filter(|part| part.kind == kind);
    own.filter_map(|part| Some((part, fitted(advisor, part)?.build))).collect()
}

/// The candidate with `part` in it; `None` where the document refuses it, or it breaks what was met.
fn fitted(advisor: &Advisor<'_>, part: &Part) -> Option<Fitted> {
    let mut value = advisor.build.value().clone();
    fit_part(&mut value, advisor.index, part, None).ok()?;
    let build = Build::from_value(value).ok()?;
    let views = build.candidates();
    let ledger = Ledger::default();
    let resolved = Resolved::new(Given::read(&Source::new(views.get(advisor.index)?, &ledger)), advisor.stages);
    let judgement = limits(&resolved, advisor.findings, advisor.stages);
    advisor.broken(&judgement).is_none().then_some(Fitted { build, judgement })
}

fn remedy(advisor: &Advisor<'_>, target: &Judged, part: &Part, fitted: &Fitted) -> Option<Remedy> {
    let Fitted { build, judgement } = fitted;
    let after = judgement.of(target.rule, target.side)?;
    let gain = after.margin()? - target.margin()?;
    let met = matches!(after.verdict(), Verdict::Ok | Verdict::Tight);
    if !met || after.verdict() == target.verdict() {
        return None;
    }
    let changes = differences(advisor.build.value(), build.value()).into_iter();
    let changes = changes.filter(|change| !change.field.contains(".sources."));
    let changes: Vec<RemedyChange> = changes
        .map(|change| RemedyChange { label: change.label, field: change.field, from: change.before, to: change.after })
        .collect();
    Some(Remedy {
        price: part
            .price
            .as_deref()
            .and_then(|price| parse(price, Dimension::Money).ok())
            .map(|price| shown(price, Dimension::Money)),
        part: Some(RemedyPart { kind: part.kind.word().to_owned(), name: part.name.clone() }),
        how: "a part of the shelf".to_owned(),
        worsens: advisor.worsened(target, judgement),
        gain: target.rule.measure.to_report(gain),
        gain_shown: target.rule.measure.shown_signed(gain),
        verdict: after.verdict(),
        changes,
    })
}
