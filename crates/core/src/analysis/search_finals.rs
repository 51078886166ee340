//! The end of a search: the front, finalists whose trains were turned and whose curves are computed in full, what limits cost.

use super::curve::halted;
use super::search_beside::BesideCandidate;
use super::search_chances::strays_of;
use super::search_ground::Ground;
use super::search_told::Told;
use super::search_words::{Full, Worded, worded};
use super::searching::{LESSONS, SearchJob, lacks};
use crate::candidate::breathing::{Effort, breathing_of};
use crate::candidate::motion_of_valves;
use crate::choose::{
    By, Called, Field, Frame, NO_LOBE, Pick, Points, Priced, Share, Standing, Strays, bests, fronts, gas_of,
    idle_vacuum, in_motion, interval, nearest_made, pick, prices, spread, written,
};
use crate::limits::{ControlFinding, Findings, GasFinding, limits};
use crate::report::SearchReport;
use crate::response::{Choice, Columns, Figures};
use crate::work::Halted;
use rayon::prelude::*;
use std::sync::Arc;

/// Times that the best is computed in full before the front is drawn, each by what the ones before taught.
const ALONE: usize = 3;
/// Times that finalists are taken, the later ones by what the earlier taught.
const TAKES: usize = 2;
/// Times as many candidates as are wanted: some lose control when they are turned.
const SPARE: usize = 2;
/// Candidates of the front that are told.
const FRONT: usize = 60;

impl SearchJob {
    /// Finalists in full, taken twice: where control was found to be lost sooner than foreseen, the second take knows.
    pub(super) fn finals(
        &self,
        (mut ground, mut best): (Ground, Pick),
        from: &[Choice],
        share: Share,
        told: &Told<'_, '_>,
    ) -> Result<Option<SearchReport>, Halted> {
        let mut taken: Vec<Pick> = vec![self.exact(&ground).pick(0, *self.frame.now())];
        let mut found: Vec<Option<Full>> = Vec::new();
        let mut front = Vec::new();
        for lesson in 0..ALONE {
            if taken.iter().any(|pick| pick.is(&best)) {
                break;
            }
            taken.push(best.clone());
            let Some(full) = self.in_full(&ground, (&taken, found.len()), share, told)? else { return Ok(None) };
            found.extend(full);
            best = self.taught((&mut ground, &best), (&found, lesson), from, told.watch.stop)?;
        }
        for take in 0..TAKES {
            told.doing("drawing the front");
            let most = self.setup.evaluations * (take + 1) / TAKES;
            front = self.finalists((&mut ground, &best), from, (&mut taken, most), told.watch.stop)?;
            let Some(full) = self.in_full(&ground, (&taken, found.len()), share, told)? else { return Ok(None) };
            found.extend(full);
            if take + 1 < TAKES {
                best = self.taught((&mut ground, &best), (&found, take), from, told.watch.stop)?;
            }
        }
        if (told.watch.stop)() {
            return Err(Halted::Stopped);
        }
        let Some(beside) = self.beside_in_full(&ground, share, told)? else { return Ok(None) };
        told.doing("pricing limits");
        let found: Vec<Full> = found.into_iter().flatten().collect();
        front.truncate(FRONT);
        let written = |pick: Pick| (self.written(&ground.fields[pick.field], &pick), pick);
        let front: Vec<_> = front.into_par_iter().map(written).map(|(candidate, pick)| (pick, candidate)).collect();
        let priced = prices(self.exact(&ground), &best);
        told.doing("running what is off when it is built");
        let stood: Vec<_> = found.iter().map(|full| (&full.findings, &full.standing)).collect();
        let strays = strays_of((&self.build, self.index), &stood, (&self.stages, told.watch.stop)).unwrap_or_default();
        if (told.watch.stop)() {
            return Err(Halted::Stopped);
        }
        let report = worded(&self.worded_by(&ground, (&priced, &strays), told), (found, beside), &front);
        report.map(Some).ok_or_else(|| lacks("the candidate as it stands has no curve"))
    }

    /// The best anew, after what candidates in full taught about the ground near the best so far.
    fn taught(
        &self,
        (ground, best): (&mut Ground, &Pick),
        (found, lesson): (&[Option<Full>], usize),
        from: &[Choice],
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Pick, Halted> {
        let known: Vec<&Full> = found.iter().flatten().collect();
        ground.raise(&known, best);
        for full in &known {
            ground.learn(&full.pick, &full.standing, lesson);
        }
        self.best(ground, from, stop)
    }

    /// The front, and what is computed in full of it: taken up to `most`, whose trains were turned and which keep every limit,
    /// or break them least where none keeps them all.
    fn finalists(
        &self,
        (ground, best): (&mut Ground, &Pick),
        from: &[Choice],
        (taken, most): (&mut Vec<Pick>, usize),
        stop: &(dyn Fn() -> bool + Sync),
    ) -> Result<Vec<Pick>, Halted> {
        let mut front = Vec::new();
        for lesson in 0..LESSONS {
            front = self.front(ground, best, from, SPARE * most.saturating_sub(taken.len()));
            let some_hold = front.iter().any(Pick::holds);
            let next = std::iter::once(best.clone()).chain(spread(&front, &self.setup.goals, 2 * most));
            let mut learned = false;
            for pick in next {
                let is_taken = taken.iter().any(|other| other.is(&pick));
                if is_taken || taken.len() > most {
                    continue;
                }
                let (turned, standing) = self.exact(ground).turned(&pick, stop);
                if stop() {
                    return Err(Halted::Stopped);
                }
                learned |= standing.is_some_and(|standing| ground.learn(&turned, &standing, lesson));
                if turned.holds() || !some_hold {
                    taken.push(turned);
                }
            }
            if !learned || taken.len() > most {
                break;
            }
        }
        // What stands is always there.
        if taken.len() < 2 {
            taken.push(best.clone());
        }
        Ok(front)
    }

    /// What a report is worded from.
    fn worded_by<'a>(
        &'a self,
        ground: &'a Ground,
        (priced, strays): (&'a [Priced], &'a Strays),
        told: &Told<'_, '_>,
    ) -> Worded<'a> {
        Worded {
            build: &self.build,
            index: self.index,
            resolved: &self.resolved,
            frame: &self.frame,
            setup: &self.setup,
            fields: &ground.fields,
            aim: ground.aim,
            priced,
            counts: told.counts(),
            kept: &ground.kept,
            strays,
            stages: &self.stages,
        }
    }

    /// The front, limits of everything on it computed, the best first; where nothing meets them all, what breaks them least. So
    /// many are `wanted` of those that were foreseen to hold and do not.
    fn front(&self, ground: &Ground, best: &Pick, from: &[Choice], wanted: usize) -> Vec<Pick> {
        let exact = self.exact(ground);
        let mut drawn = fronts(&ground.fields, &self.setup.goals, &ground.aim, from);
        if drawn.is_empty() {
            // Nothing is foreseen to hold: what lies about the best is looked at too, since it may be foreseen wrongly.
            drawn = bests(&ground.fields, &ground.aim, from);
            let about = ground.fields[best.field].response.points.iter();
            drawn.extend(about.map(|point| nearest_made(&ground.fields, best.field, &point.choice, &ground.aim)));
        }
        drawn.push(best.clone());
        let all = drawn.par_iter().map(|pick| exact.pick(pick.field, pick.choice));
        let (mut all, broken): (Vec<Pick>, Vec<Pick>) = all.collect::<Vec<_>>().into_iter().partition(Pick::holds);
        // What was foreseen to hold and does not is moved until it does.
        let goals = &self.setup.goals;
        all.extend(exact.moved_on(&spread(&broken, goals, wanted), goals));
        let some_hold = all.iter().any(Pick::holds);
        all.retain(|pick| if some_hold { pick.holds() } else { pick.broken < NO_LOBE });
        all.sort_by(|a, b| b.score.total_cmp(&a.score));
        all
    }

    /// Every pick from the first that is not known on in full, its trains in motion; `None` where those of others are missing.
    fn in_full(
        &self,
        ground: &Ground,
        (taken, known): (&[Pick], usize),
        share: Share,
        told: &Told<'_, '_>,
    ) -> Result<Option<Vec<Option<Full>>>, Halted> {
        let frame = |pick: &Pick| &ground.fields[pick.field].kit.frame;
        let new = &taken[known..];
        let wanted: Vec<(&Frame, &Choice)> = new.iter().map(|pick| (frame(pick), &pick.choice)).collect();
        let Some(all) = self.columns(&wanted, known, share, told)? else { return Ok(None) };
        let full = |(pick, columns): (&Pick, &Arc<Option<Columns>>)| -> Option<Full> {
            let candidate = self.written(&ground.fields[pick.field], pick);
            Some(self.judged((ground, frame(pick)), pick, columns.as_ref().as_ref()?, candidate))
        };
        Ok(Some(new.par_iter().zip(&all).map(full).collect()))
    }

    /// The candidates beside, computed as finalists are, each with its title; those that have no curve are left out.
    fn beside_in_full(
        &self,
        ground: &Ground,
        share: Share,
        told: &Told<'_, '_>,
    ) -> Result<Option<Vec<(String, Full)>>, Halted> {
        let wanted: Vec<(&Frame, &Choice)> = self.beside.iter().map(|own| (&own.frame, own.frame.now())).collect();
        let Some(all) = self.columns(&wanted, 0, share, told)? else { return Ok(None) };
        let full = |(own, columns): (&BesideCandidate, &Arc<Option<Columns>>)| {
            let pick = pick(&ground.fields, 0, *own.frame.now(), &ground.aim);
            let full =
                self.judged((ground, &own.frame), &pick, columns.as_ref().as_ref()?, Some(own.candidate.clone()));
            Some((own.title.clone(), full))
        };
        Ok(Some(self.beside.par_iter().zip(&all).filter_map(full).collect()))
    }

    /// Curves in full at the speeds of the band (what lies beyond it is not compared), so many of others before them; `None` where
    /// those of other shares are missing.
    fn columns(
        &self,
        wanted: &[(&Frame, &Choice)],
        before: usize,
        share: Share,
        told: &Told<'_, '_>,
    ) -> Result<Option<Vec<Arc<Option<Columns>>>>, Halted> {
        let by = By::at(self.deepest(), Effort::Draft);
        let mut all: Vec<Option<Arc<Option<Columns>>>> = Vec::with_capacity(wanted.len());
        for (place, (frame, choice)) in (before..).zip(wanted) {
            let points = Points::of(frame, &self.stages);
            let columns = match share.has(place) {
                true => Some(points.computed(choice, by, told.watch.stop).map_err(halted)?),
                false => points.kept(choice, by),
            };
            if let Some(columns) = &columns {
                let figures = columns.as_ref().as_ref().map(|own| self.figures(own));
                told.full((place + 1, before + wanted.len()), figures.as_ref());
            }
            all.push(columns);
        }
        Ok(all.into_iter().collect())
    }

    pub(super) fn figures(&self, columns: &Columns) -> Figures {
        self.plan.figures(&columns.speeds, &columns.values)
    }

    /// The deepest effort that the document is whole enough for.
    fn deepest(&self) -> Effort {
        breathing_of(&self.resolved).map_or(Effort::Fast, |breathing| breathing.deepest())
    }

    /// How a pick stands with what was computed of it.
    fn judged(
        &self,
        (ground, frame): (&Ground, &Frame),
        pick: &Pick,
        columns: &Columns,
        candidate: Option<serde_json::Value>,
    ) -> Full {
        let figures = self.figures(columns);
        let resolved = frame.at(&pick.choice, &self.stages);
        let control = in_motion(&resolved, &self.stages, &|| false);
        let least = control.as_ref().map(ControlFinding::least_rpm);
        let idle_vacuum = idle_vacuum(&resolved, false, &self.stages, &|| false);
        let moved = motion_of_valves(&resolved, &self.stages);
        let findings = Findings { gas: Some(GasFinding { idle_vacuum, ..gas_of(&figures) }), control, moved };
        let judgement = limits(&resolved, &findings, &self.stages);
        Full {
            pick: pick.clone(),
            control: least.zip(self.plan.missed).map(|(limit, top)| limit - top),
            interval: interval(&resolved),
            standing: Standing::of(&judgement).keeping(&ground.kept.reserves),
            money: resolved.given.money(),
            candidate,
            figures,
            columns: columns.clone(),
            findings,
        }
    }

    /// A pick as the document holds it; `None` for what stands there already.
    fn written(&self, field: &Field, pick: &Pick) -> Option<serde_json::Value> {
        if field.kit.parts.is_empty() && pick.choice == *self.frame.now() {
            return None;
        }
        let called = Called { id: "found", name: "Found" };
        let build =
            written((&field.kit.build, self.index), &field.kit.frame, &pick.choice, called, &self.stages).ok()?;
        build.last_candidate().cloned()
    }
}
