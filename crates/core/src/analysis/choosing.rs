//! What there is to choose of a candidate as a job: screened cams over a wide region and what both schools make of them, then
//! drafts around where it stands, which torque follows while something is dragged.

use super::beginning::reasons;
use super::choose_words::{Proposed, because, computed_by, decision_report, proposal_report};
use super::curve::{can_draft, halted};
use super::following::follow_report;
use crate::begin::CardCam;
use crate::build::Build;
use crate::candidate::breathing::{Effort, breathing_of, curve};
use crate::candidate::{Gap, Key, Resolved, Stages, key, worded};
use crate::choose::{
    Aim, Called, Frame, Guide, Idling, Margins, Motion, Region, Standing, axes, by_card, differ, figures_of, gas_of,
    idle_vacuum, limiting_speeds, score, written,
};
use crate::document::{Fault, Ledger, candidate_or_first};
use crate::edit::{Edit, apply_all};
use crate::given::{Given, Source};
use crate::limits::{ControlFinding, Findings, GasFinding, limits};
use crate::quantity::UnitSystem;
use crate::report::{ChooseReport, DifferReport, OffReport, ProposalReport};
use crate::response::{Axis, Choice, Decision, Depth, Figures, Response};
use crate::work::{Class, Halted, Job, Watch, held};
use serde::Serialize;
use std::sync::{Arc, Mutex, OnceLock};

/// Of the places of computed cams.
const SEED: u32 = 1;
/// How far from the middle a cam may lie in a region that is kept for it.
const WELL_INSIDE: f64 = 0.75;
/// What the events come to, at first look and once it was looked at closer.
const EARLY: &str = "By the events, at first look";
const BY_EVENTS: &str = "By the events";
/// Cams between two lines that tell of them.
const EVERY: usize = 6;

/// A computed cam, for a cloud of them.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CloudPoint {
    /// Average torque over the band, N m.
    pub average_torque_nm: f64,
    /// Peak power, kW.
    pub peak_power_kw: f64,
    /// Where, rpm.
    pub peak_power_rpm: f64,
}

/// What there is so far.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ChooseStep {
    /// Cams computed.
    pub done: usize,
    /// Cams in all.
    pub of: usize,
    /// In words.
    pub doing: String,
    /// Screened cams so far.
    pub cloud: Vec<CloudPoint>,
    /// The report so far, once there is one.
    pub report: Option<Box<ChooseReport>>,
}

/// Choosing for one candidate.
pub struct ChooseJob {
    pub(super) build: Build,
    pub(super) index: usize,
    resolved: Resolved,
    pub(super) frame: Frame,
    idling: OnceLock<Option<Idling>>,
    /// Whether what is beside the cam is asked for too.
    hardware: bool,
    pub(super) stages: Arc<Stages>,
}

impl ChooseJob {
    /// Of the candidate `id`, or of the first.
    ///
    /// # Errors
    /// A fault when there is no such candidate; inside, everything that is missing for its curve.
    pub fn new(build: &Build, id: Option<&str>, stages: Arc<Stages>) -> Result<Result<Self, Halted>, Fault> {
        let views = build.candidates();
        let view = candidate_or_first(&views, id)?;
        let ledger = Ledger::default();
        let source = Source::new(view, &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let frame = breathing_of(&resolved).and_then(|_| Frame::of(&resolved));
        let frame = match frame {
            Ok(frame) => frame,
            Err(gap) => {
                let (reason, needs) = worded(&gap, &source);
                return Ok(Err(Halted::Lacks { reason, needs }));
            }
        };
        let (build, index) = (build.clone(), view.index);
        Ok(Ok(Self { build, index, resolved, frame, idling: OnceLock::new(), hardware: false, stages }))
    }

    /// Stands for it, with or without decisions beside the cam.
    fn key_of(&self, hardware: bool) -> Key {
        // Proposals are whole candidates of this document, what is only written in them too.
        key(&(self.build.text(), self.index, hardware))
    }

    /// A report with what is beside the cam, where that is asked for, kept.
    fn finished(&self, report: &mut ChooseReport, told: &Told<'_, '_>) -> Result<Arc<ChooseReport>, Halted> {
        if self.hardware {
            self.beside_the_cam(report, told)?;
        }
        let report = Arc::new(report.clone());
        self.stages.choosing.keep(self.key(), Arc::clone(&report));
        Ok(report)
    }

    /// The same, with decisions beside the cam.
    #[must_use]
    pub fn with_hardware(mut self, hardware: bool) -> Self {
        self.hardware = hardware;
        self
    }

    pub(super) fn region(&self, depth: Depth, is_far: bool) -> Region<'_> {
        let axes = axes(self.frame.now(), &Decision::CAM, is_far);
        Region { frame: &self.frame, axes, depth, seed: SEED, stages: &self.stages }
    }

    /// The response of a region, told cam by cam.
    pub(super) fn respond(&self, region: &Region<'_>, doing: &str, told: &Told<'_, '_>) -> Result<Response, Halted> {
        let response = region.respond(told.watch.stop, &|point| {
            let screened = point.by == Effort::Screening;
            told.point((point.done, point.of), doing, screened.then_some(point.figures));
        });
        response.map_err(halted)
    }

    /// The margins over a region of cams, with where control is lost and vacuum at idle.
    fn margins(&self, response: &Response, stop: &(dyn Fn() -> bool + Sync)) -> Result<Margins, Halted> {
        // Vacuum at idle bends little: what the first region, the widest, says of it is good enough for the others.
        let idling = || Idling::of(&self.frame, &response.axes, &self.stages, stop);
        self.margins_with(response, || self.idling.get_or_init(idling).clone(), stop)
    }

    /// The margins over a region, with where control is lost and what `idling` says.
    pub(super) fn margins_with(
        &self,
        response: &Response,
        idling: impl FnOnce() -> Option<Idling>,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Margins, Halted> {
        let motion = Motion::of(&self.frame, &response.axes, &self.stages, stop);
        if stop() {
            return Err(Halted::Stopped);
        }
        let margins = Margins::of(&self.frame, response, &self.stages).ok_or_else(no_margins)?;
        Ok(margins.turning(motion, self.frame.now()).idling(idling()))
    }

    /// Where the candidate stands, by a response.
    pub(super) fn guide<'a>(&self, response: &'a Response, margins: &'a Margins) -> Guide<'a> {
        let from = response.figures(self.frame.now());
        Guide { response, margins, aim: Aim::of(&self.resolved.given, from) }
    }

    /// A whole candidate of a choice, its curve drafted and every limit computed.
    fn proposed(&self, school: &'static str, title: &'static str, choice: &Choice) -> Proposed {
        let called = Called { id: school, name: title };
        match written((&self.build, self.index), &self.frame, &choice.made(), called, &self.stages) {
            Ok(build) => self.last_of(&build, school, title),
            Err(faults) => Proposed::refused(school, title, faults.to_string()),
        }
    }

    /// How a candidate stands by a drafted curve and its trains turned by the usual.
    fn judged(
        &self,
        school: &'static str,
        title: &'static str,
        candidate: Option<serde_json::Value>,
        resolved: &Resolved,
    ) -> Proposed {
        let figures = match self.drafted(resolved) {
            Ok(figures) => figures,
            Err(gap) => return Proposed::refused(school, title, gap.reason),
        };
        let standing = Some(self.standing(resolved, &figures));
        Proposed { school, title, candidate, figures: Some(figures), standing, lacks: None }
    }

    /// How a candidate stands with these figures, its trains turned by the usual and its engine idled.
    fn standing(&self, resolved: &Resolved, figures: &Figures) -> Standing {
        let control = limiting_speeds(resolved, &self.stages, &|| false).map(ControlFinding::of_rpm);
        let idle_vacuum = idle_vacuum(resolved, false, &self.stages, &|| false);
        let findings = Findings { gas: Some(GasFinding { idle_vacuum, ..gas_of(figures) }), control, moved: None };
        Standing::of(&limits(resolved, &findings, &self.stages))
    }

    /// Figures of a drafted curve; of a screened one where the cylinders are not joined.
    fn drafted(&self, resolved: &Resolved) -> Result<Figures, Gap> {
        let breathing = breathing_of(resolved)?;
        let effort = if breathing.can(Effort::Draft).is_ok() { Effort::Draft } else { Effort::Screening };
        Ok(figures_of(&breathing, &curve(&breathing, effort)?))
    }
}

/// Who is told, and what has been.
pub(super) struct Told<'a, 'w> {
    pub(super) watch: &'a Watch<'w, ChooseStep>,
    cloud: Mutex<Vec<CloudPoint>>,
    report: Mutex<Option<Box<ChooseReport>>>,
}

impl Told<'_, '_> {
    /// One more cam; every few of them are told.
    fn point(&self, (done, of): (usize, usize), doing: &str, figures: Option<&Figures>) {
        let found = figures.map(|figures| CloudPoint {
            average_torque_nm: figures.average_torque,
            peak_power_kw: figures.peak_power * 1e-3,
            peak_power_rpm: figures.peak_power_rpm,
        });
        held(&self.cloud).extend(found);
        if done.is_multiple_of(EVERY) {
            self.tell((done, of), doing);
        }
    }

    /// What there is so far, with a report.
    pub(super) fn report(&self, doing: &str, report: &ChooseReport) {
        *held(&self.report) = Some(Box::new(report.clone()));
        self.tell((0, 0), doing);
    }

    fn tell(&self, (done, of): (usize, usize), doing: &str) {
        let (cloud, report) = (held(&self.cloud).clone(), held(&self.report).clone());
        (self.watch.report)(ChooseStep { done, of, doing: doing.to_owned(), cloud, report });
    }
}

impl Job for ChooseJob {
    type Step = ChooseStep;
    type Done = ChooseReport;

    fn key(&self) -> Key {
        self.key_of(self.hardware)
    }

    fn class(&self) -> Class {
        Class::Result
    }

    fn kept(&self) -> Option<Arc<ChooseReport>> {
        self.stages.choosing.kept(self.key())
    }

    fn run(&self, watch: &Watch<'_, ChooseStep>) -> Result<Arc<ChooseReport>, Halted> {
        let told = Told { watch, cloud: Mutex::default(), report: Mutex::default() };
        // What is beside the cam comes on top of what was chosen without it.
        if let Some(kept) = self.stages.choosing.kept(self.key_of(false)).filter(|_| self.hardware) {
            let mut report = (*kept).clone();
            return self.finished(&mut report, &told);
        }
        let (open, now) = (self.frame.key(&Decision::CAM), self.frame.now());
        // Curves do not hang on the shop's own limits; what is chosen within them does.
        let within = key(&(open, &self.resolved.given.own_limits));
        let kept = self.stages.wide.kept(open).filter(|wide| wide.holds(now));
        let far = match kept {
            Some(kept) => kept,
            None => Arc::new(self.respond(&self.region(Depth::Screened, true), "screening cams", &told)?),
        };
        self.stages.wide.keep(open, Arc::clone(&far));
        let stands = self.judged("as_it_stands", "As it stands", None, &self.resolved);
        let card = self.card();
        let far_margins = self.margins(&far, watch.stop)?;
        let guide = self.guide(&far, &far_margins);
        let (events, closer) = match self.stages.decided.kept(within) {
            Some(kept) => (*kept, None),
            None => {
                let decided = self.carried(&guide, now);
                let first =
                    self.report(&far, &far_margins, &self.schools(&stands, &card, &guide, (EARLY, &decided), &guide));
                told.report("looking closer at what the events come to", &first);
                let near = self.best(decided, guide.aim, watch.stop)?;
                self.stages.decided.keep(within, Arc::new(near.choice));
                (near.choice, Some(near))
            }
        };
        let schools = match &closer {
            Some(near) => {
                let near = Guide { response: &near.response, margins: &near.margins, aim: guide.aim };
                self.schools(&stands, &card, &guide, (BY_EVENTS, &events), &near)
            }
            None => self.schools(&stands, &card, &guide, (BY_EVENTS, &events), &guide),
        };
        let mut report = self.report(&far, &far_margins, &schools);
        told.report("drafting the curves around this cam", &report);
        // A cam that was moved a little still lies among those that were drafted.
        let is_well_inside = |kept: &Arc<Response>| kept.place(now).iter().all(|x| x.abs() <= WELL_INSIDE);
        let kept = self.stages.responses.kept(open).filter(is_well_inside);
        let axes = kept.as_ref().map_or_else(|| axes(now, &Decision::CAM, false), |kept| kept.axes.clone());
        for depth in [Depth::Sampled, Depth::Whole] {
            let near = match kept.as_ref().filter(|kept| kept.depth >= depth || kept.depth == Depth::Screened) {
                Some(kept) => Arc::clone(kept),
                None => {
                    let region = Region { axes: axes.clone(), ..self.region(depth, false) };
                    Arc::new(self.respond(&region, "drafting the curves around this cam", &told)?)
                }
            };
            let margins = self.margins(&near, watch.stop)?;
            report = self.report(&near, &margins, &schools);
            self.stages.responses.keep(open, Arc::clone(&near));
            if near.depth != Depth::Sampled {
                break;
            }
            told.report("drafting more of them", &report);
        }
        self.finished(&mut report, &told)
    }
}

/// What the card comes to.
struct Card {
    proposed: Proposed,
    found: Option<(Choice, CardCam)>,
}

/// What the schools come to.
struct Schools {
    proposals: Vec<ProposalReport>,
    differ: Vec<DifferReport>,
}

/// A choice, how good it is, and the ground about it.
struct Near {
    score: f64,
    choice: Choice,
    response: Response,
    margins: Margins,
}

/// Regions looked at on the way from a wide one to the best of it, and times that computed margins are learned from.
const ROUNDS: usize = 2;
const LESSONS: usize = 5;

impl ChooseJob {
    /// The best choice near `from`, by regions that follow it and by what computed limits teach.
    fn best_near(
        &self,
        from: Choice,
        aim: Aim,
        rounds: usize,
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Near, Halted> {
        let (mut choice, mut ground) = (from, None);
        for _ in 0..rounds {
            let axes = axes(&choice, &Decision::CAM, false);
            let region = Region { axes, ..self.region(Depth::Screened, false) };
            let response = region.respond(stop, &|_| ()).map_err(halted)?;
            let margins = self.margins(&response, stop)?;
            choice = self.carried(&Guide { response: &response, margins: &margins, aim }, &choice);
            ground = Some((response, margins));
        }
        let Some((response, mut margins)) = ground else { return Err(no_margins()) };
        let mut best: Option<(f64, Choice)> = None;
        for lesson in 0..LESSONS {
            let figures = response.figures(&choice);
            let found = self.standing(&self.frame.at(&choice, &self.stages), &figures);
            let score = score(aim.gain(&figures), found.broken());
            if best.is_none_or(|(known, _)| score > known) {
                best = Some((score, choice));
            }
            if !margins.learn(&response, &choice, &found, lesson) {
                break;
            }
            choice = self.carried(&Guide { response: &response, margins: &margins, aim }, &choice);
        }
        let (score, choice) = best.unwrap_or((f64::NEG_INFINITY, choice));
        Ok(Near { score, choice, response, margins })
    }

    /// The best of a region that smooth lobes carry.
    fn carried(&self, guide: &Guide<'_>, from: &Choice) -> Choice {
        self.frame.carried(&guide.decided(from), &self.stages)
    }

    /// The card's cam on its own flanks.
    fn carded(&self) -> Proposed {
        let (school, title) = ("card_first", "By the card");
        let views = self.build.candidates();
        let Some(view) = views.get(self.index) else { return Proposed::refused(school, title, String::new()) };
        let copy = Edit::Duplicate { candidate: view.id.clone(), to: school.to_owned(), name: title.to_owned() };
        let card = Edit::CardCam { candidate: school.to_owned() };
        match apply_all(self.build.clone(), &[copy, card], UnitSystem::Inch, &self.stages) {
            Ok(build) => self.last_of(&build, school, title),
            Err(faults) => Proposed::refused(school, title, faults.to_string()),
        }
    }

    /// The last candidate of a build, judged.
    fn last_of(&self, build: &Build, school: &'static str, title: &'static str) -> Proposed {
        let views = build.candidates();
        let Some(view) = views.last() else { return Proposed::refused(school, title, String::new()) };
        let candidate = build.last_candidate().cloned();
        self.judged(school, title, candidate, &Resolved::of(view, &self.stages))
    }

    /// The better of what a wide region leads to and what lies near.
    fn best(&self, decided: Choice, aim: Aim, stop: &(dyn Fn() -> bool + Sync)) -> Result<Near, Halted> {
        let wide = self.best_near(decided, aim, ROUNDS, stop)?;
        let near = self.best_near(*self.frame.now(), aim, 1, stop)?;
        Ok(if wide.score > near.score { wide } else { near })
    }

    /// The card's cam, computed, and its numbers where plan and engine give them.
    fn card(&self) -> Card {
        let found = by_card(&self.frame, &self.resolved);
        let proposed = match &found {
            Ok(_) => self.carded(),
            Err(gap) => Proposed::refused("card_first", "By the card", lacks(gap)),
        };
        Card { proposed, found: found.ok() }
    }

    /// Both schools' candidates beside the present one, drafted; `events` is what the events come to, on `ground`, as it is called.
    fn schools(
        &self,
        stands: &Proposed,
        card: &Card,
        wide: &Guide<'_>,
        (title, events): (&'static str, &Choice),
        ground: &Guide<'_>,
    ) -> Schools {
        let own = Aim::of(&self.resolved.given, stands.figures.unwrap_or_default());
        let by_events = self.proposed("events_first", title, events);
        let card_because = card.found.as_ref().map_or_else(Vec::new, |(_, card)| reasons(&card.because));
        let proposals = vec![
            proposal_report(stands, stands, &own, Vec::new()),
            proposal_report(&by_events, stands, &own, because(ground, events)),
            proposal_report(&card.proposed, stands, &own, card_because),
        ];
        let apart = card.found.as_ref().map_or_else(Vec::new, |(card, _)| {
            differ(wide, [&card.made(), &events.made()], ["by the card", "by the events"])
        });
        let differ = apart.into_iter().map(|(decision, words)| DifferReport { decision, words }).collect();
        Schools { proposals, differ }
    }

    fn report(&self, response: &Response, margins: &Margins, schools: &Schools) -> ChooseReport {
        let guide = self.guide(response, margins);
        let is_early = response.depth == Depth::Screened && can_draft(&self.resolved);
        let now = self.frame.now();
        let own = |axis: &Axis| decision_report(&guide, axis, now, is_early);
        let decisions = response.axes.iter().map(own);
        let card = axes(now, &Decision::CARD, false).iter().map(own).collect();
        let off = response.left_out;
        ChooseReport {
            aim: guide.aim.words(),
            computed_by: computed_by(response),
            off: OffReport { average_torque: off.average_torque, peak_power: off.peak_power, torque: off.torque },
            decisions: decisions.collect(),
            card,
            stands: follow_report(response, self.frame.now()),
            proposals: schools.proposals.clone(),
            differ: schools.differ.clone(),
            by_card: self.frame.carded.iter().map(|side| side.key().to_owned()).collect(),
            hardware: Vec::new(),
        }
    }
}

/// Why there is no ground to choose on.
fn no_margins() -> Halted {
    halted(Gap::because("margins around this candidate cannot be told apart").into())
}

/// What is lacking, in words.
fn lacks(gap: &Gap) -> String {
    if !gap.reason.is_empty() {
        return gap.reason.clone();
    }
    let needs: Vec<String> = gap.needs.iter().map(|place| place.key.replace('_', " ")).collect();
    format!("it needs {}", needs.join(", "))
}
