//! Parts of the shelf as remedies: each that belongs to the place of a limit is put into the candidate and judged.

use super::remedies::Advisor;
use crate::build::Build;
use crate::candidate::Resolved;
use crate::document::{Ledger, differences};
use crate::given::{Given, Source};
use crate::limits::{Judged, limits};
use crate::parts::{Part, PartKind, fit_part};
use crate::quantity::{Dimension, parse, shown};
use crate::report::{Place, Remedy, RemedyChange, RemedyPart, Verdict};

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

/// What parts of the shelf buy back of `target`, none of them breaking what was met.
pub fn parts_for(advisor: &Advisor<'_>, target: &Judged) -> Vec<Remedy> {
    let kinds = kinds(target.rule.place);
    let shelf = advisor.shelf.iter().filter(|part| kinds.contains(&part.kind));
    shelf.filter_map(|part| remedy(advisor, target, part)).collect()
}

fn remedy(advisor: &Advisor<'_>, target: &Judged, part: &Part) -> Option<Remedy> {
    let mut value = advisor.build.value().clone();
    fit_part(&mut value, advisor.index, part, None).ok()?;
    let build = Build::from_value(value).ok()?;
    let views = build.candidates();
    let ledger = Ledger::default();
    let resolved = Resolved::new(Given::read(&Source::new(views.get(advisor.index)?, &ledger)), advisor.stages);
    let judgement = limits(&resolved, advisor.findings, advisor.stages);
    let after = judgement.of(target.rule, target.side)?;
    let gain = after.margin()? - target.margin()?;
    let met = matches!(after.verdict(), Verdict::Ok | Verdict::Tight);
    if advisor.broken(&judgement).is_some() || !met || after.verdict() == target.verdict() {
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
        worsens: advisor.worsened(target, &judgement),
        gain: target.rule.measure.to_report(gain),
        gain_shown: target.rule.measure.shown_signed(gain),
        verdict: after.verdict(),
        changes,
    })
}
