//! A search as a job: kits of hardware, regions that follow the best, the front of several goals, finalists in full with their
//! trains in motion, and what every limit costs. The same document, setup and seed give the same answer, on one thread or
//! many, in one run or begun again, on one machine or shared among several.

use super::curve::{can_draft, halted};
use super::search_beside::BesideCandidate;
use super::search_chances::reserves_of;
use super::search_ground::{Deep, Ground};
use super::search_setup::{SearchSetup, SearchStep};
use super::search_told::Told;
use crate::build::Build;
use crate::candidate::breathing::{Effort, breathing_of};
use crate::candidate::{Key, Resolved, Stages, key, worded as gap_words};
use crate::choose::{
    Aim, By, Exact, Field, Frame, Idling, Kept, Kit, Motion, Pick, Points, Region, Reserves, Share, Standing, Start,
    Workbench, axes, bests, gas_of, on_ratio, open_kinds, pick, plan_of, standing,
};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::given::{Given, Source};
use crate::limits::Findings;
use crate::parts::{Part, PartKind};
use crate::report::SearchReport;
use crate::response::{Axis, Choice, Decision, Depth, PlanOf, Response, placed};
use crate::work::{Class, Halted, Job, Watch};
use std::sync::Arc;

/// Most regions that follow the best of a wide one, and how near to its side a best makes another region.
const ROUNDS: usize = 4;
/// More of them where nothing holds in the last one and the best lies at its side.
const FURTHER: usize = 2;
const AT_THE_SIDE: f64 = 0.9;
/// A decision that may move by less than this share of its reach is not one.
const OPEN: f64 = 0.1;
/// Kits whose best is looked for with limits computed.
const POLISHED: usize = 2;
/// Kits that are searched with near the best, beside what stands.
const NEAR_KITS: usize = 4;
/// Times that the best is taken with its trains turned, and what was found taken into account.
pub(super) const LESSONS: usize = 3;

/// A search for one candidate.
pub struct SearchJob {
    pub(super) build: Build,
    pub(super) index: usize,
    pub(super) resolved: Resolved,
    pub(super) frame: Frame,
    pub(super) plan: PlanOf,
    pub(super) shelf: Vec<Part>,
    pub(super) setup: SearchSetup,
    pub(super) beside: Vec<BesideCandidate>,
    pub(super) stages: Arc<Stages>,
}

impl SearchJob {
    /// Of the candidate `id`, or of the first, with parts of `shelf`.
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, everything that is missing for its curve.
    pub fn new(
        build: &Build,
        id: Option<&str>,
        shelf: Vec<Part>,
        setup: SearchSetup,
        stages: Arc<Stages>,
    ) -> Result<Result<Self, Halted>, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let setup = setup.checked()?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let found = breathing_of(&resolved).and_then(|breathing| Ok((plan_of(&breathing), Frame::of(&resolved)?)));
        let (plan, frame) = match found {
            // Where only the ratio changes, the cam is what it is.
            Ok((plan, frame)) => (plan, frame.keeping_lobes(setup.start == Start::Ratio)),
            Err(gap) => {
                let (reason, needs) = gap_words(&gap, &source);
                return Ok(Err(Halted::Lacks { reason, needs }));
            }
        };
        let (build, index) = (build.clone(), view.index);
        let beside = BesideCandidate::all(&setup.beside, (&build, index), &stages)?;
        Ok(Ok(Self { build, index, resolved, frame, plan, shelf, setup, beside, stages }))
    }

    /// Runs with a share of what is to be computed. `None` where other shares are not there yet: what was computed is kept.
    ///
    /// # Errors
    /// That it was stopped, or what is missing.
    pub fn shared(&self, share: Share, watch: &Watch<'_, SearchStep>) -> Result<Option<SearchReport>, Halted> {
        let told = Told::new(watch);
        let open = self.open();
        let region = |middle: &Choice, depth: Depth, far: bool| Region {
            frame: &self.frame,
            axes: self.axes(middle, &open, far),
            depth,
            seed: self.setup.seed,
            stages: &self.stages,
        };
        let now = *self.frame.now();
        let reserves = self.reserves(&told)?;
        let wide = region(&now, Depth::Screened, true);
        let Some(response) = self.respond(&wide, share, "screening cams far and wide", &told)? else { return Ok(None) };
        told.doing("trying the shelf");
        let kits = self.kits(&now, watch.stop)?;
        told.doing("weighing limits against each other");
        let mut idling = self.idling(&response, watch.stop);
        let mut ground = self.ground(&kits, (&response, idling.as_ref()), watch.stop)?;
        let kept = ground.keeping(reserves);
        self.deepen(&mut ground, &wide, watch.stop)?;
        let mut from: Vec<Choice> = std::iter::once(now).chain(self.earlier()).collect();
        let mut best = self.best(&mut ground, &from, watch.stop)?;
        let (mut depth, mut rounds) = (Depth::Screened, 1);
        loop {
            let chosen = self.nearest_kits(&ground, &best);
            let middle = self.home(&ground, &best);
            from.push(middle);
            let near = region(&self.frame.carried(&middle, &self.stages), depth, false);
            let doing = if depth == Depth::Sampled { "drafting near the best" } else { "screening near the best" };
            let Some(response) = self.respond(&near, share, doing, &told)? else { return Ok(None) };
            told.doing("weighing limits near the best");
            // Vacuum at idle bends little: what was found far and wide is good enough until the last region.
            if depth == Depth::Sampled {
                idling = self.idling(&response, watch.stop);
            }
            ground = self.ground(&chosen, (&response, idling.as_ref()), watch.stop)?;
            ground.keep(&kept);
            self.deepen(&mut ground, &near, watch.stop)?;
            best = self.best(&mut ground, &from, watch.stop)?;
            let place = ground.fields[best.field].response.place(&best.choice);
            let is_inside = place.iter().all(|x| x.abs() < AT_THE_SIDE);
            rounds += 1;
            if depth == Depth::Sampled && (best.holds() || is_inside || rounds > ROUNDS + FURTHER) {
                break;
            }
            if is_inside || rounds >= ROUNDS {
                depth = Depth::Sampled;
            }
        }
        self.finals((ground, best), &from, share, &told)
    }

    /// What is kept of limits where no more than a share of engines may fail as they are built.
    fn reserves(&self, told: &Told<'_, '_>) -> Result<Reserves, Halted> {
        let Some(most) = self.setup.most_fails.filter(|most| *most < 1.0) else { return Ok(Vec::new()) };
        told.doing("drawing engines of what stands");
        let found = reserves_of((&self.build, self.index), most, (&self.stages, told.watch.stop));
        if (told.watch.stop)() { Err(Halted::Stopped) } else { Ok(found.unwrap_or_default()) }
    }

    /// Brings a ground of screened curves to the depth of drafts by the draft in its middle: one cylinder by itself knocks later
    /// than an engine, and looked at by that alone the best lies where nothing holds.
    fn deepen(&self, ground: &mut Ground, region: &Region<'_>, stop: &(dyn Fn() -> bool + Sync)) -> Result<(), Halted> {
        if region.depth != Depth::Screened || !can_draft(&self.resolved) {
            return Ok(());
        }
        let middle = placed(&region.axes, self.frame.now(), &vec![0.0; region.axes.len()]);
        let points = Points::of(&self.frame, &self.stages);
        let drafted = points.computed(&middle, By::at(Effort::Draft, Effort::Draft), stop).map_err(halted)?;
        if let Some(columns) = drafted.as_ref() {
            let pick = self.exact(ground).pick(0, middle);
            let findings = Findings { gas: Some(gas_of(&self.figures(columns))), ..Findings::default() };
            let standing = standing(&self.frame, &middle, &findings, &self.stages);
            ground.shift(&[Deep { pick: &pick, columns, standing: &standing }], &pick);
        }
        Ok(())
    }

    /// Decisions that are climbed in. Rockers of the shelf have ratios of their own: where there are some, no other is looked at.
    fn open(&self) -> Vec<Decision> {
        let has_rockers = self.shelf.iter().any(|part| part.kind == PartKind::Rocker);
        let mut open = self.setup.start.decisions(&self.frame);
        open.retain(|decision| *decision != Decision::Ratio || !has_rockers);
        open
    }

    /// Axes of the open decisions, as far as each is made.
    fn axes(&self, middle: &Choice, open: &[Decision], far: bool) -> Vec<Axis> {
        let within = |mut axis: Axis| {
            if Decision::HARDWARE.contains(&axis.decision) {
                // However often a region follows the best, more than this from what stands is another engine.
                let now = self.frame.now().get(axis.decision)?;
                let far = axis.decision.counting().far.around(now);
                let (least, most) =
                    ((axis.middle - axis.reach).max(now - far), (axis.middle + axis.reach).min(now + far));
                (axis.middle, axis.reach) = (0.5 * (least + most), 0.5 * (most - least));
            }
            if axis.decision == Decision::Quickness {
                let most = (axis.middle + axis.reach).min(self.frame.quickest()?);
                let least = (axis.middle - axis.reach).min(most);
                let whole = axis.reach;
                (axis.middle, axis.reach) = (0.5 * (least + most), 0.5 * (most - least));
                return (axis.reach > OPEN * whole).then_some(axis);
            }
            Some(axis)
        };
        axes(middle, open, far).into_iter().filter_map(within).collect()
    }

    /// The response of a region; `None` where points of others are missing.
    fn respond(
        &self,
        region: &Region<'_>,
        share: Share,
        doing: &str,
        told: &Told<'_, '_>,
    ) -> Result<Option<Response>, Halted> {
        let stop = told.watch.stop;
        if share != Share::WHOLE && !region.prepared(share, stop).map_err(halted)? {
            return Ok(None);
        }
        let response = region.respond(stop, &|point| told.point(doing, &point)).map_err(halted)?;
        Ok(Some(response))
    }

    /// Hardware to search with, what stands first.
    fn kits(&self, choice: &Choice, stop: &(dyn Fn() -> bool + Sync)) -> Result<Vec<Kit>, Halted> {
        let workbench = Workbench {
            build: &self.build,
            index: self.index,
            resolved: &self.resolved,
            frame: &self.frame,
            shelf: &self.shelf,
            open: &open_kinds(&self.build, self.setup.start.kinds()),
            choice: *choice,
            findings: Findings::default(),
            stages: &self.stages,
        };
        let kits = workbench.kits(stop).ok_or_else(|| lacks("the candidate's train is not whole"))?;
        if stop() { Err(Halted::Stopped) } else { Ok(kits) }
    }

    /// Vacuum at idle over a region.
    fn idling(&self, response: &Response, stop: &(dyn Fn() -> bool + Sync)) -> Option<Idling> {
        Idling::of(&self.frame, &response.axes, &self.stages, stop)
    }

    /// Every kit over a region.
    fn ground(
        &self,
        kits: &[Kit],
        (response, idling): (&Response, Option<&Idling>),
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Ground, Halted> {
        let motion = Motion::of(&self.frame, &response.axes, &self.stages, stop);
        let stands = &kits[0];
        let own = |kit: &Kit| {
            let speed = match (kit.control, stands.control) {
                (Some(own), Some(stands)) => [own[0] / stands[0], own[1] / stands[1]],
                _ => [1.0; 2],
            };
            let ratios = stands.frame.ratios().into_iter().zip(kit.frame.ratios());
            let lift: Vec<f64> = ratios.map(|(before, after)| before.zip(after).map_or(1.0, |(b, a)| b / a)).collect();
            let lift = [lift[0], lift[1]];
            let apart = (motion.carried_over(speed, lift), idling.map(|own| own.carried_over(lift)));
            let more = self.more(kit, response, stop);
            Field::of(kit.clone(), (response, &self.frame), more.as_deref(), apart, &self.stages)
        };
        let fields: Option<Vec<Field>> = kits.iter().map(own).collect();
        if stop() {
            return Err(Halted::Stopped);
        }
        let fields = fields.ok_or_else(|| lacks("margins around this candidate cannot be told apart"))?;
        let aim = Aim::of(&self.resolved.given, response.figures(self.frame.now()));
        Ok(Ground { fields, aim, kept: Kept::default() })
    }

    /// What the curve of another kit has beside that of what stands, at the middle of a region, column by column: of a drafted one,
    /// and of a screened one where nothing deeper follows.
    fn more(&self, kit: &Kit, response: &Response, stop: &(dyn Fn() -> bool + Sync)) -> Option<Vec<f64>> {
        let is_screened = response.depth == Depth::Screened;
        if kit.parts.is_empty() || (is_screened && can_draft(&self.resolved)) {
            return None;
        }
        let effort = if is_screened { Effort::Screening } else { Effort::Draft };
        let middle = placed(&response.axes, self.frame.now(), &vec![0.0; response.axes.len()]);
        let at = |frame: &Frame, choice: &Choice| {
            Points::of(frame, &self.stages).computed(choice, By::at(effort, effort), stop).ok()?.as_ref().clone()
        };
        let (own, stands) = (at(&kit.frame, &on_ratio(&middle, &self.frame, &kit.frame))?, at(&self.frame, &middle)?);
        Some(own.values.iter().zip(&stands.values).map(|(own, stands)| own - stands).collect())
    }

    /// The best by the plan's aim with the kit that it is best with, its limits computed and its trains turned.
    pub(super) fn best(
        &self,
        ground: &mut Ground,
        from: &[Choice],
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Pick, Halted> {
        let mut best: Option<Pick> = None;
        for lesson in 0..LESSONS {
            let mut foreseen = bests(&ground.fields, &ground.aim, from);
            foreseen.sort_by(|a, b| b.score.total_cmp(&a.score));
            foreseen.truncate(POLISHED);
            let exact = self.exact(ground);
            let polished = exact.bests(&foreseen);
            let turned: Vec<(Pick, Option<Standing>)> = polished.iter().map(|pick| exact.turned(pick, stop)).collect();
            if stop() {
                return Err(Halted::Stopped);
            }
            let mut learned = false;
            for (pick, standing) in turned {
                learned |= standing.is_some_and(|standing| ground.learn(&pick, &standing, lesson));
                if best.as_ref().is_none_or(|known| pick.score > known.score) {
                    best = Some(pick);
                }
            }
            if !learned {
                break;
            }
        }
        best.ok_or_else(|| lacks("nothing to choose from"))
    }

    pub(super) fn exact<'a>(&'a self, ground: &'a Ground) -> Exact<'a> {
        Exact { fields: &ground.fields, aim: ground.aim, stages: &self.stages, reserves: &ground.kept.reserves }
    }

    /// What stands, and the kits that are best with the best cam.
    fn nearest_kits(&self, ground: &Ground, best: &Pick) -> Vec<Kit> {
        let home = self.home(ground, best);
        let mut order: Vec<(f64, usize)> = (1..ground.fields.len())
            .map(|index| {
                let own = on_ratio(&home, &self.frame, &ground.fields[index].kit.frame);
                (pick(&ground.fields, index, own, &ground.aim).score, index)
            })
            .collect();
        order.sort_by(|a, b| b.0.total_cmp(&a.0).then(a.1.cmp(&b.1)));
        let mut chosen: Vec<usize> = order.into_iter().take(NEAR_KITS).map(|(_, index)| index).collect();
        if best.field != 0 && !chosen.contains(&best.field) {
            chosen.pop();
            chosen.push(best.field);
        }
        chosen.sort_unstable();
        std::iter::once(0).chain(chosen).map(|index| ground.fields[index].kit.clone()).collect()
    }

    /// A pick as a choice of what stands.
    fn home(&self, ground: &Ground, pick: &Pick) -> Choice {
        on_ratio(&pick.choice, &ground.fields[pick.field].kit.frame, &self.frame)
    }

    /// Choices of an earlier search, and cams of the candidates beside.
    fn earlier(&self) -> impl Iterator<Item = Choice> {
        let now = *self.frame.now();
        let earlier = self.setup.from.iter().map(move |decided| {
            let known = decided.iter().filter(|own| now.get(own.decision).is_some());
            known.fold(now, |choice, own| choice.with(own.decision, own.value))
        });
        let beside = self.beside.iter().map(move |own| {
            let cam = Decision::CAM.into_iter().filter_map(|decision| Some((decision, own.frame.now().get(decision)?)));
            cam.fold(now, |choice, (decision, value)| choice.with(decision, value))
        });
        earlier.chain(beside)
    }
}

pub(super) fn lacks(reason: &str) -> Halted {
    Halted::Lacks { reason: reason.to_owned(), needs: Vec::new() }
}

impl Job for SearchJob {
    type Step = SearchStep;
    type Done = SearchReport;

    fn key(&self) -> Key {
        key(&(self.build.text(), self.index, &self.shelf, &self.setup))
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<SearchReport>> {
        self.stages.searches.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, SearchStep>) -> Result<Arc<SearchReport>, Halted> {
        let report = self.shared(Share::WHOLE, watch)?.ok_or_else(|| lacks("points are missing"))?;
        let report = Arc::new(report);
        self.stages.searches.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }
}
