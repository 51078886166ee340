//! What buys a margin back. Every change is run against **all** limits before it is offered: one that would newly break
//! another never stands alone, it is offered with the smallest set of further changes that keeps every limit met, or not
//! at all.

use super::advisor::Advisor;
use super::change::{Change, change};
use super::shelf_parts::Tried;
use crate::build::Build;
use crate::candidate::Resolved;
use crate::document::Side;
use crate::edit::{Edit, apply};
use crate::given::{Of, Place};
use crate::limits::{How, Judged, Judgement, Lever, Rule};
use crate::quantity::{Shown, UnitSystem};
use crate::report::{LimitReport, Remedy, RemedyChange, Verdict, Worsened};

/// Most remedies of one limit.
const MOST: usize = 4;
/// Most changes that stand together.
const TOGETHER: usize = 3;
/// Most candidates judged for one limit: a search, not a proof.
const TRIALS: usize = 150;

/// A candidate changed, and how it stands then.
pub(super) struct Trial {
    pub changes: Vec<Change>,
    pub resolved: Resolved,
    pub judgement: Judgement,
}

/// Adds to every line that is not met with room what would buy it back.
pub fn remedies(lines: &mut [LimitReport], advisor: Advisor<'_>) {
    let shelf = Tried::of(advisor.shelf);
    for line in lines {
        if !matches!(line.verdict, Verdict::Fails | Verdict::Tight | Verdict::Advice) {
            continue;
        }
        let judged =
            advisor.judgement.figures.iter().find(|judged| judged.rule.id == line.id && judged.side == line.side);
        if let Some(judged) = judged {
            line.remedies = advisor.remedies_of(judged, &shelf);
        }
    }
}

/// What new parts need beside them.
pub(super) struct Mended {
    pub settings: Vec<RemedyChange>,
    /// The document with them; absent where there are none.
    pub build: Option<Build>,
}

impl Advisor<'_> {
    /// Shims and settings that mend what `after`, the judgement of this candidate, breaks and the advisor's did not; as far
    /// as they do.
    pub(super) fn set_up(&self, after: &Judgement) -> Mended {
        let (mut budget, mut changes) = (TRIALS, Vec::<Change>::new());
        let mut trial = Trial { changes: Vec::new(), resolved: self.resolved.clone(), judgement: after.clone() };
        for _ in 0..TOGETHER {
            let Some(Some(broken)) = self.broken(&trial.judgement) else { break };
            let own = broken.rule.levers.iter().filter(|lever| matches!(lever.how, How::Setting | How::Shims));
            let side = broken.side.unwrap_or(Side::Intake);
            let own = own.filter(|lever| matches!((lever.place)(side).of, Of::Lifter | Of::Spring | Of::Rocker));
            let sized = own.filter_map(|lever| self.sized(&trial.resolved, broken, lever, &mut budget));
            let next = sized.collect::<Vec<_>>().into_iter().find_map(|change| {
                let tried = self.tried_on(after, changes.iter().cloned().chain([change]).collect())?;
                let gained = tried.judgement.of(broken.rule, broken.side)?.margin()? > broken.margin()?;
                gained.then_some(tried)
            });
            let Some(next) = next else { break };
            changes.clone_from(&next.changes);
            trial = next;
        }
        let fields = changes.iter().flat_map(|change| &change.fields);
        let settings: Vec<RemedyChange> = fields.map(|field| field.written.clone()).collect();
        let written = settings.iter().try_fold(self.build.clone(), |build, change| {
            let edit = Edit::Set { field: change.field.clone(), text: change.to.clone() };
            apply(&build, &edit, UnitSystem::Inch, self.stages)
        });
        match written {
            Ok(build) if !settings.is_empty() => Mended { settings, build: Some(build) },
            _ => Mended { settings: Vec::new(), build: None },
        }
    }

    fn remedies_of(&self, target: &Judged, shelf: &Tried<'_>) -> Vec<Remedy> {
        let mut budget = TRIALS;
        let mut found: Vec<Remedy> = Vec::new();
        for lever in target.rule.levers {
            let Some(change) = self.sized(self.resolved, target, lever, &mut budget) else { continue };
            let start = self.tried(vec![change]);
            let whole = start.and_then(|trial| self.completed(trial, target, &mut budget));
            found.extend(whole.and_then(|trial| self.remedy(target, &trial)));
        }
        if target.verdict() != Verdict::Tight {
            found.extend(shelf.remedies(self, target));
        }
        found.sort_by_key(rank);
        found.dedup_by(|a, b| a.changes == b.changes);
        found.truncate(MOST);
        found
    }

    /// The change by `lever` that gives `target` room in `resolved`, or as near as it comes.
    fn sized(&self, resolved: &Resolved, target: &Judged, lever: &Lever, budget: &mut usize) -> Option<Change> {
        let place = (lever.place)(target.side.unwrap_or(Side::Intake));
        let finding = target.found.as_ref().ok()?;
        let wanted = finding.tight.max(0.0);
        let mut at = |steps: f64| -> Option<(Change, f64)> {
            *budget = budget.checked_sub(1)?;
            let change = change(resolved, self.source, place, steps * lever.step, lever.how)?;
            let margin = self.margin(target.rule, target.side, resolved, &change)?;
            Some((change, margin))
        };
        // What a part or machining does not allow in full it may allow in part.
        let most = (1..=lever.most as u32)
            .rev()
            .map(f64::from)
            .find(|steps| change(resolved, self.source, place, steps * lever.step, lever.how).is_some())?;
        let (_, probe) = at(1.0)?;
        let slope = probe - finding.margin();
        if slope <= 1e-12 {
            return None;
        }
        let steps = ((wanted - finding.margin()) / slope - 1e-9).ceil().clamp(1.0, most);
        let (first, margin) = at(steps)?;
        if margin >= wanted - 1e-9 || steps >= most {
            return (margin > finding.margin()).then_some(first);
        }
        // The slope had changed on the way: once more from there.
        let slope = (margin - finding.margin()) / steps;
        let steps = ((wanted - finding.margin()) / slope - 1e-9).ceil().clamp(1.0, most);
        let (second, _) = at(steps)?;
        Some(second)
    }

    fn margin(&self, rule: &'static Rule, side: Option<Side>, resolved: &Resolved, change: &Change) -> Option<f64> {
        let numbers: Vec<(Place, f64)> = change.numbers().collect();
        let resolved = resolved.with(&numbers, self.stages)?;
        let case = crate::limits::Case {
            resolved: &resolved,
            findings: self.findings,
            stages: self.stages,
            side: side.unwrap_or(Side::Intake),
        };
        rule.judge(side, case)?.margin()
    }

    /// The candidate with `changes` made.
    fn tried(&self, changes: Vec<Change>) -> Option<Trial> {
        self.tried_on(self.judgement, changes)
    }

    /// The same, `before` being how it stands without them.
    fn tried_on(&self, before: &Judgement, changes: Vec<Change>) -> Option<Trial> {
        let numbers: Vec<(Place, f64)> = changes.iter().flat_map(Change::numbers).collect();
        let places: Vec<Place> = changes.iter().flat_map(Change::places).collect();
        let resolved = self.resolved.with(&numbers, self.stages)?;
        let judgement = before.after(&places, &resolved, self.findings, self.stages);
        Some(Trial { changes, resolved, judgement })
    }

    /// `trial` with what it breaks mended by further changes; `None` where it takes too many, or gains nothing then.
    fn completed(&self, trial: Trial, target: &Judged, budget: &mut usize) -> Option<Trial> {
        if self.broken(&trial.judgement).is_none() {
            return self.gains(target, &trial).then_some(trial);
        }
        let mut level = vec![trial];
        // Widest first: the smallest set that does it is found first.
        for _ in 1..TOGETHER {
            let mut next = Vec::new();
            for trial in &level {
                for mended in self.mended(trial, budget) {
                    if self.broken(&mended.judgement).is_none() && self.gains(target, &mended) {
                        return Some(mended);
                    }
                    next.push(mended);
                }
            }
            level = next;
        }
        None
    }

    /// Every way one more change mends the first thing that `trial` breaks.
    fn mended(&self, trial: &Trial, budget: &mut usize) -> Vec<Trial> {
        let Some(Some(broken)) = self.broken(&trial.judgement) else { return Vec::new() };
        let used: Vec<Place> = trial.changes.iter().flat_map(Change::places).collect();
        let levers = broken.rule.levers.iter();
        let free = levers.filter(|lever| !used.contains(&(lever.place)(broken.side.unwrap_or(Side::Intake))));
        let mut found = Vec::new();
        for lever in free {
            let Some(change) = self.sized(&trial.resolved, broken, lever, budget) else { continue };
            let mut changes = trial.changes.clone();
            changes.push(change);
            found.extend(self.tried(changes));
        }
        found
    }

    /// What is newly broken: a limit that was not failing and is now, or `Some(None)` for what never goes together.
    pub(super) fn broken<'j>(&self, after: &'j Judgement) -> Option<Option<&'j Judged>> {
        let newly = |judged: &&Judged| {
            judged.verdict() == Verdict::Fails
                && self.judgement.of(judged.rule, judged.side).is_none_or(|before| before.verdict() != Verdict::Fails)
        };
        if let Some(judged) = after.figures.iter().find(newly) {
            return Some(Some(judged));
        }
        let known = |id: &str, side| self.judgement.incompatible.iter().any(|pair| pair.id == id && pair.side == side);
        after.incompatible.iter().any(|pair| !known(pair.id, pair.side)).then_some(None)
    }

    fn gains(&self, target: &Judged, trial: &Trial) -> bool {
        let after = trial.judgement.of(target.rule, target.side);
        match after.map(|after| (after.verdict(), after.margin())) {
            // What does not apply any more has nothing left to gain.
            None | Some((_, None)) => false,
            Some((verdict, Some(margin))) => {
                let better = verdict.rank() < target.verdict().rank();
                better || target.margin().is_some_and(|before| margin > before + 1e-12)
            }
        }
    }

    fn remedy(&self, target: &Judged, trial: &Trial) -> Option<Remedy> {
        let after = trial.judgement.of(target.rule, target.side)?;
        let gain = after.margin()? - target.margin()?;
        let how = trial.changes.iter().map(|change| change.how).max()?;
        Some(Remedy {
            changes: trial
                .changes
                .iter()
                .flat_map(|change| &change.fields)
                .map(|field| field.written.clone())
                .collect(),
            how: words(how).to_owned(),
            price: None,
            part: None,
            worsens: self.worsened(target, &trial.judgement),
            gain: target.rule.measure.to_report(gain),
            gain_shown: target.rule.measure.shown_signed(gain),
            verdict: after.verdict(),
        })
    }

    /// Limits that are worse off: in a word, or failing by more.
    pub(super) fn worsened(&self, target: &Judged, after: &Judgement) -> Vec<Worsened> {
        let worse = |now: &&Judged| {
            let Some(before) = self.judgement.of(now.rule, now.side) else { return false };
            let by_word = now.verdict().rank() > before.verdict().rank();
            let fails_more = now.verdict() == Verdict::Fails
                && now.margin().zip(before.margin()).is_some_and(|(now, before)| now < before - 1e-9);
            (by_word || fails_more) && !(std::ptr::eq(now.rule, target.rule) && now.side == target.side)
        };
        let line = |now: &Judged| Worsened {
            id: now.rule.id.to_owned(),
            side: now.side,
            title: crate::limits::titled(now.rule.title, now.side),
            from: self.judgement.of(now.rule, now.side).map_or(Verdict::Unknown, Judged::verdict),
            to: now.verdict(),
            margin: now.margin().map_or_else(nothing, |margin| now.rule.measure.shown_signed(margin)),
        };
        after.figures.iter().filter(worse).map(line).collect()
    }
}

fn nothing() -> Shown {
    Shown { inch: String::new(), metric: String::new() }
}

/// What a remedy takes, in words.
const fn words(how: How) -> &'static str {
    match how {
        How::Setting => "a setting",
        How::Shims => "shims, a key or a gasket",
        How::Plan => "a decision of the plan",
        How::Machining => "machining",
        How::Part => "another part",
    }
}

/// Best first: what meets the limit with room, by few changes, cheaply, at little cost elsewhere.
fn rank(remedy: &Remedy) -> (u8, usize, u8, usize) {
    let hows = [How::Setting, How::Shims, How::Plan, How::Machining, How::Part];
    let cost = hows.iter().position(|how| words(*how) == remedy.how).unwrap_or(hows.len());
    (remedy.verdict.rank(), remedy.changes.len(), cost as u8, remedy.worsens.len())
}
