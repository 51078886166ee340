//! Hardware a search may choose: what stands in the candidate, and parts of the shelf that can stand there, alone or two
//! together, with the shims and settings that go with them.

use super::advisor::Advisor;
use super::frame::Frame;
use super::motion::limiting_speeds;
use super::remedies::Mended;
use super::standing::Standing;
use crate::begin::usual_setting;
use crate::build::Build;
use crate::candidate::breathing::breathing_of;
use crate::candidate::{Resolved, Stages};
use crate::document::{Ledger, Side};
use crate::given::{Given, Source};
use crate::limits::{Findings, Judged, Judgement, limits};
use crate::parts::{Part, PartKind, fit_part};
use crate::report::{RemedyChange, Verdict};
use crate::response::{Choice, Decision};
use crate::words::{Casting, LifterVariant};
use rayon::prelude::*;
use serde_json::json;

/// Kinds that are looked at two together: where one needs the other.
const TOGETHER: [[PartKind; 2]; 5] = [
    [PartKind::Spring, PartKind::Retainer],
    [PartKind::Rocker, PartKind::Pushrod],
    [PartKind::Lifter, PartKind::Pushrod],
    [PartKind::Lifter, PartKind::Spring],
    [PartKind::Rocker, PartKind::Spring],
];
/// Kits that are searched with beside what stands.
const MOST: usize = 11;
/// Kits whose trains are turned.
const TURNED: usize = 24;
/// Better by less than this is not better, of what counts as much.
const WORTH: f64 = 0.1;
/// Broken by no more than this beyond what breaks already, in scales: another cam may mend it.
const MENDABLE: f64 = 1.0;

/// A candidate with other hardware.
#[derive(Debug, Clone)]
pub struct Kit {
    /// Parts of the shelf; none for what stands.
    pub parts: Vec<Part>,
    /// Shims and settings that go with them.
    pub settings: Vec<RemedyChange>,
    /// The document with them in it.
    pub build: Build,
    /// The candidate.
    pub frame: Frame,
    /// What its parts cost, as far as prices are given.
    pub money: f64,
    /// Where control is lost with the choice it was looked at with, rpm, of each valve.
    pub control: Option<[f64; 2]>,
    /// By how much limits are broken with that, each in its scale.
    broken: f64,
}

/// Where kits are put together.
pub struct Workbench<'a> {
    /// The document.
    pub build: &'a Build,
    /// Place of the candidate.
    pub index: usize,
    /// The candidate.
    pub resolved: &'a Resolved,
    /// The same with open decisions.
    pub frame: &'a Frame,
    /// Parts.
    pub shelf: &'a [Part],
    /// Kinds that may be exchanged.
    pub open: &'a [PartKind],
    /// The decisions kits are looked at with.
    pub choice: Choice,
    /// What is known of the gas with them.
    pub findings: Findings,
    /// Cached stages.
    pub stages: &'a Stages,
}

/// Kinds that may be exchanged, less what the plan keeps.
pub fn open_kinds(build: &Build, wanted: &[PartKind]) -> Vec<PartKind> {
    let kept = build.value()["target"]["keep"].as_array().cloned().unwrap_or_default();
    let is_kept = |kind: &PartKind| kept.iter().any(|word| word.as_str() == Some(&format!("{}s", kind.word())));
    wanted.iter().copied().filter(|kind| !is_kept(kind)).collect()
}

/// A choice made with the ratio of `from`, on the ratio of `to`: the same valve lift by lobes of another lift, or the same lobes
/// where those stay.
pub fn on_ratio(choice: &Choice, from: &Frame, to: &Frame) -> Choice {
    let mut own = *choice;
    if from.ratios() == to.ratios() {
        return own;
    }
    if let Some(ratio) = to.now().get(Decision::Ratio) {
        own.set(Decision::Ratio, ratio);
    }
    if from.keeps_lobes() {
        return own;
    }
    let ratios = from.ratios().into_iter().zip(to.ratios());
    for (lift, (before, after)) in [Decision::IntakeLift, Decision::ExhaustLift].into_iter().zip(ratios) {
        if let (Some(now), Some(before), Some(after)) = (choice.get(lift), before, after) {
            own.set(lift, now * before / after);
        }
    }
    own
}

impl Workbench<'_> {
    /// What stands, then kits that may be better in something, the best first; `None` where not even what stands is whole.
    pub fn kits(&self, stop: &(dyn Fn() -> bool + Sync)) -> Option<Vec<Kit>> {
        let stands = self.kit(self.build.clone(), Vec::new(), Vec::new())?;
        let before = limits(self.resolved, &self.findings, self.stages);
        let open: Vec<&Part> = self.shelf.iter().filter(|part| self.open.contains(&part.kind)).collect();
        let fits = |kit: &Kit| kit.broken <= stands.broken + MENDABLE;
        let singles = self.all_fitted(open.iter().map(|part| vec![*part]).collect(), &before, stop);
        let alone: Vec<&str> = singles.iter().filter(|kit| fits(kit)).map(|kit| kit.parts[0].name.as_str()).collect();
        let mut tried: Vec<Vec<&Part>> = Vec::new();
        for [one, other] in TOGETHER {
            let of = |kind: PartKind| open.iter().copied().filter(move |part| part.kind == kind);
            let two = of(one).flat_map(|one| of(other).map(move |other| vec![one, other]));
            // A pushrod of another length is for what does not go with the present one.
            tried.extend(two.filter(|two| other != PartKind::Pushrod || !alone.contains(&two[0].name.as_str())));
        }
        let together: Vec<Kit> = self.all_fitted(tried, &before, stop);
        let found = singles.into_iter().chain(together);
        let stands_key = stands.frame.key(&[]);
        let mut found: Vec<Kit> = found.filter(|kit| fits(kit) && kit.frame.key(&[]) != stands_key).collect();
        found.sort_by(|a, b| a.broken.total_cmp(&b.broken).then(a.parts.len().cmp(&b.parts.len())));
        found.truncate(TURNED);
        let mut kits: Vec<Kit> = std::iter::once(stands.clone()).chain(found).collect();
        kits.par_iter_mut().for_each(|kit| kit.control = self.control(kit, stop));
        let mut chosen = vec![kits.remove(0)];
        // One after another, whatever is best beside those chosen: by what it breaks, by control, by money.
        while chosen.len() <= MOST && !kits.is_empty() {
            let worth = |kit: &Kit| chosen.iter().map(|other| kit.better_than(other)).fold(f64::INFINITY, f64::min);
            let worths: Vec<f64> = kits.iter().map(worth).collect();
            let best = (0..kits.len()).max_by(|a, b| worths[*a].total_cmp(&worths[*b]).then(b.cmp(a)));
            let Some(best) = best.filter(|best| worths[*best] > WORTH) else { break };
            chosen.push(kits.remove(best));
        }
        Some(chosen)
    }

    fn all_fitted(&self, tried: Vec<Vec<&Part>>, before: &Judgement, stop: &(dyn Fn() -> bool + Sync)) -> Vec<Kit> {
        tried.into_par_iter().filter(|_| !stop()).filter_map(|parts| self.fitted(&parts, before)).collect()
    }

    fn fitted(&self, parts: &[&Part], before: &Judgement) -> Option<Kit> {
        let mut value = self.build.value().clone();
        for part in parts {
            fit_part(&mut value, self.index, part, None).ok()?;
        }
        let (build, mut settings) = self.usually_set(Build::from_value(value).ok()?)?;
        let parts: Vec<Part> = parts.iter().map(|part| (*part).clone()).collect();
        let (build, mended) = self.set_up(build, before)?;
        settings.extend(mended);
        let kit = self.kit(build, parts, settings)?;
        self.tells_as_much(&kit, before).then_some(kit)
    }

    /// The document with a lifter of another way to be set set as is usual, and that said; the builder's own setting stays.
    fn usually_set(&self, build: Build) -> Option<(Build, Vec<RemedyChange>)> {
        let resolved = Resolved::of(build.candidates().get(self.index)?, self.stages);
        let lifter = &resolved.train(Side::Intake).lifter;
        let was = self.resolved.train(Side::Intake).lifter.kind;
        let (Some(kind), Some(was)) = (lifter.kind, was) else { return Some((build, Vec::new())) };
        let preload_is_set = lifter.preload.is_some() || lifter.preload_school.is_some();
        let is_set = if kind.is_solid() { lifter.lash.is_some() } else { preload_is_set };
        if kind.is_solid() == was.is_solid() || is_set {
            return Some((build, Vec::new()));
        }
        let is_short = lifter.variant == Some(LifterVariant::ShortTravel);
        let heads = resolved.given.engine.head_material.unwrap_or(Casting::Iron);
        let (key, text) = usual_setting(kind, is_short, heads);
        let mut value = build.value().clone();
        let own = value.pointer_mut(&format!("/candidates/{}/train/lifter", self.index))?.as_object_mut()?;
        own.insert(key.to_owned(), json!(text));
        own.entry("sources").or_insert_with(|| json!({}))[key] = json!("assumed");
        let change = RemedyChange {
            field: format!("candidates[{}].train.lifter.{key}", self.index),
            label: key.to_owned(),
            from: String::new(),
            to: format!("{text}, as usual: the card of its cam says"),
        };
        Some((Build::from_value(value).ok()?, vec![change]))
    }

    /// Whether everything that is known of what stands is known with a kit too: what hides a limit keeps it on paper only.
    fn tells_as_much(&self, kit: &Kit, before: &Judgement) -> bool {
        let own = kit.frame.at(kit.frame.now(), self.stages);
        let after = limits(&own, &self.findings, self.stages);
        let hides = |judged: &Judged| {
            let own = after.of(judged.rule, judged.side);
            judged.verdict() != Verdict::Unknown && own.is_some_and(|own| own.verdict() == Verdict::Unknown)
        };
        !before.figures.iter().any(hides) && (breathing_of(&own).is_ok() || breathing_of(self.resolved).is_err())
    }

    /// The document with shims and settings that mend what new parts break of what stood `before`; `None` where they never go together.
    fn set_up(&self, build: Build, before: &Judgement) -> Option<(Build, Vec<RemedyChange>)> {
        let views = build.candidates();
        let ledger = Ledger::default();
        let source = Source::new(views.get(self.index)?, &ledger);
        let resolved = Resolved::new(Given::read(&source), self.stages);
        let judgement = limits(&resolved, &self.findings, self.stages);
        let known = |id: &str, side| before.incompatible.iter().any(|pair| pair.id == id && pair.side == side);
        if judgement.incompatible.iter().any(|pair| !known(pair.id, pair.side)) {
            return None;
        }
        let advisor = Advisor {
            build: &build,
            index: self.index,
            resolved: &resolved,
            source: &source,
            judgement: before,
            findings: &self.findings,
            shelf: &[],
            stages: self.stages,
        };
        let Mended { settings, build: mended } = advisor.set_up(&judgement);
        let mended = mended.unwrap_or_else(|| build.clone());
        Some((mended, settings))
    }

    fn kit(&self, build: Build, parts: Vec<Part>, settings: Vec<RemedyChange>) -> Option<Kit> {
        let resolved = Resolved::of(build.candidates().get(self.index)?, self.stages);
        let frame = Frame::of(&resolved).ok()?.keeping_lobes(self.frame.keeps_lobes());
        let own = on_ratio(&self.choice, self.frame, &frame);
        let standing = Standing::of(&limits(&frame.at(&own, self.stages), &self.findings, self.stages));
        let money = resolved.given.money();
        Some(Kit { parts, settings, build, frame, money, control: None, broken: standing.broken() })
    }

    fn control(&self, kit: &Kit, stop: &(dyn Fn() -> bool + Sync)) -> Option<[f64; 2]> {
        limiting_speeds(&kit.frame.at(&on_ratio(&self.choice, self.frame, &kit.frame), self.stages), self.stages, stop)
    }
}

/// How much counts as much: a scale of what is broken, rpm of control, and money.
const RPM: f64 = 200.0;
const MONEY: f64 = 200.0;
/// What another lift on the same lobes counts: what it does to torque is not known yet.
const ANOTHER_LIFT: f64 = 1.0;

impl Kit {
    /// How much better it is than another in what it is better in most; zero or less where it is better in nothing.
    fn better_than(&self, other: &Self) -> f64 {
        let control = |kit: &Self| kit.control.map_or(0.0, |[intake, exhaust]| intake.min(exhaust));
        let gains =
            [other.broken - self.broken, (control(self) - control(other)) / RPM, (other.money - self.money) / MONEY];
        let is_another_lift = self.frame.keeps_lobes() && self.frame.ratios() != other.frame.ratios();
        let gains = gains.into_iter().chain(is_another_lift.then_some(ANOTHER_LIFT));
        // What breaks more is no gain however cheap it is.
        let lost = (self.broken - other.broken).max(0.0);
        gains.fold(f64::NEG_INFINITY, f64::max) - lost
    }

    /// In words: its parts and settings, or that everything stays.
    pub fn words(&self) -> String {
        if self.parts.is_empty() {
            return "the hardware stays".to_owned();
        }
        let parts = self.parts.iter().map(|part| format!("{} {}", part.kind.word(), part.name));
        let settings = self.settings.iter().map(|change| format!("{} {}", change.label.to_lowercase(), change.to));
        parts.chain(settings).collect::<Vec<_>>().join(", ")
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::begin::{Beginning, begin};
    use crate::parts::read_sheet;
    use crate::quantity::UnitSystem;

    #[test]
    fn a_solid_lifter_in_the_place_of_a_hydraulic_one_comes_with_its_lash_and_hides_nothing() {
        let from = Beginning {
            name: "Slip".into(),
            family: "middle_v8".into(),
            heads: Some("aluminium".into()),
            used_for: Some("marine".into()),
            known: Vec::new(),
        };
        let stages = Stages::default();
        let build = begin(&from, UnitSystem::Inch, &stages).unwrap().build;
        let resolved = Resolved::of(&build.candidates()[0], &stages);
        let frame = Frame::of(&resolved).unwrap();
        let shelf = read_sheet(include_str!("../../../../demo/parts.csv"), UnitSystem::Inch).unwrap();
        let choice = *frame.now();
        let (findings, open) = (Findings::default(), [PartKind::Lifter]);
        let workbench = Workbench {
            build: &build,
            index: 0,
            resolved: &resolved,
            frame: &frame,
            shelf: &shelf,
            open: &open,
            choice,
            findings: findings.clone(),
            stages: &stages,
        };
        let before = limits(&resolved, &findings, &stages);
        let solid = shelf.iter().find(|part| part.name == "Solid roller, keyway").unwrap();
        let kit = workbench.fitted(&[solid], &before).expect("it goes in");
        assert!(kit.words().contains("lash 0.026 in, as usual"), "{}", kit.words());
        // Without a lash nothing is known of lift, gaps or gas: no such kit is offered.
        let mut value = build.value().clone();
        fit_part(&mut value, 0, solid, None).unwrap();
        let bare = Build::from_value(value).unwrap();
        let bare = workbench.kit(bare, vec![solid.clone()], Vec::new()).expect("a cam");
        assert!(!workbench.tells_as_much(&bare, &before));
        assert!(workbench.tells_as_much(&kit, &before));
    }
}
