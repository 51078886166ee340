//! The last steps of a search on limits that are computed, not foreseen: gas and limiting speeds still come from what was
//! fitted, everything else of every choice is held against its rules.

use super::aim::Aim;
use super::field::{Field, Foreseen};
use super::goal::Goal;
use super::ground::{HAIR, Margins, Predicted, predicted};
use super::idling::idle_vacuum;
use super::motion::in_motion;
use super::region::gas_of;
use super::search::{Pick, ways};
use super::standing::{Bound, Margin, Standing};
use crate::candidate::{Resolved, Stages};
use crate::document::Side;
use crate::front::{Asked, Came, Member, Scale, climb};
use crate::limits::{ControlFinding, Findings, GasFinding, limits};
use crate::response::Choice;
use rayon::prelude::*;

/// First step of it, of a region's half, and most choices it computes.
const STEP: f64 = 0.12;
const MOST: usize = 60;
/// Ways to make a choice that are computed at once, the nearest first.
const WAYS: usize = 8;
/// A choice whose lobes cannot be made breaks as much as this, in scales.
pub const NO_LOBE: f64 = 5.0;
/// Limits with less left than this, in their scale, may hold a choice back.
const NEAR: f64 = 0.5;
/// A goal at its best is weighed as if so much were left to it.
const LEAST_LEFT: f64 = 0.05;

/// Fields whose limits are computed.
#[derive(Clone, Copy)]
pub struct Exact<'a> {
    /// The kits.
    pub fields: &'a [Field],
    /// What is climbed by.
    pub aim: Aim,
    /// Cached stages.
    pub stages: &'a Stages,
    /// What is kept of limits; less than nothing where one is moved out of the way.
    pub reserves: &'a [(Bound, f64)],
}

impl Exact<'_> {
    /// How a choice stands: limits computed, of what gas and trains are foreseen to do. `None` where no smooth lobe carries it.
    fn standing(&self, field: usize, choice: &Choice, foreseen: &Foreseen) -> Option<Standing> {
        let resolved = self.fields[field].kit.frame.at(choice, self.stages);
        self.standing_of(&resolved, foreseen, (foreseen.control(), foreseen.vacuum()))
    }

    /// The same with where control is lost, and the vacuum at idle.
    fn standing_of(
        &self,
        resolved: &Resolved,
        foreseen: &Foreseen,
        (control, idle_vacuum): (Option<ControlFinding>, Option<f64>),
    ) -> Option<Standing> {
        let gas = GasFinding { idle_vacuum, ..gas_of(&foreseen.figures) };
        let findings = Findings { gas: Some(gas), control, moved: None };
        let has_lobes = Side::BOTH.into_iter().all(|side| resolved.side(side).lobe().is_ok());
        let mut standing =
            has_lobes.then(|| Standing::of(&limits(resolved, &findings, self.stages)).keeping(self.reserves))?;
        // Gas is foreseen here too, and what was found of it in full stands in the margins.
        for own in standing.margins.iter_mut().filter(|own| Margins::raises(own.bound)) {
            own.left = predicted(&foreseen.margins, own.bound).map_or(own.left, |other| other.margin.left);
        }
        Some(standing)
    }

    /// A pick with its limits computed.
    pub fn pick(&self, field: usize, choice: Choice) -> Pick {
        let foreseen = self.fields[field].foreseen(&choice);
        let broken = self.standing(field, &choice, &foreseen).map_or(NO_LOBE, |standing| standing.broken());
        Pick::of((field, choice), foreseen, broken, &self.aim)
    }

    /// A pick with its trains turned and its engine idled, and how it stands then; the standing is absent where no smooth lobe carries it.
    pub fn turned(&self, pick: &Pick, stop: &(dyn Fn() -> bool + Sync)) -> (Pick, Option<Standing>) {
        let resolved = self.fields[pick.field].kit.frame.at(&pick.choice, self.stages);
        let control = in_motion(&resolved, self.stages, stop).or_else(|| pick.foreseen.control());
        let vacuum = idle_vacuum(&resolved, true, self.stages, stop).or_else(|| pick.foreseen.vacuum());
        let standing = self.standing_of(&resolved, &pick.foreseen, (control, vacuum));
        let broken = standing.as_ref().map_or(NO_LOBE, Standing::broken);
        (Pick::of((pick.field, pick.choice), pick.foreseen.clone(), broken, &self.aim), standing)
    }

    /// The best by the aim near each pick, as it is made.
    pub fn bests(&self, picks: &[Pick]) -> Vec<Pick> {
        picks.par_iter().map(|pick| self.made(pick.field, &self.best_choice(pick))).collect()
    }

    /// The best by the aim near a pick, finer than it is made.
    pub fn best(&self, pick: &Pick) -> Pick {
        self.pick(pick.field, self.best_choice(pick))
    }

    fn best_choice(&self, pick: &Pick) -> Choice {
        let aim = self.aim;
        let goals = |foreseen: &Foreseen| vec![aim.gain(&foreseen.figures)];
        let gain = aim.gain(&pick.foreseen.figures);
        let scale = Scale { worst: vec![gain - 0.01], best: vec![gain + 0.1] };
        self.climbed(pick, &goals, &[1.0], &scale)
    }

    /// Limits that hold a pick back, or nearly.
    pub fn near(&self, pick: &Pick) -> Vec<Bound> {
        let Some(standing) = self.standing(pick.field, &pick.choice, &pick.foreseen) else { return Vec::new() };
        let near = standing.margins.iter().filter(|own| !own.is_advice && own.room() < NEAR);
        near.map(|own| own.bound).collect()
    }

    /// Each pick moved on in its own direction between the goals, as it is made.
    pub fn moved_on(&self, picks: &[Pick], goals: &[Goal]) -> Vec<Pick> {
        let worth = |foreseen: &Foreseen| foreseen.worth(goals);
        let members: Vec<Vec<f64>> = picks.iter().map(|pick| worth(&pick.foreseen)).collect();
        let scale = Scale::of_all(&members);
        let one = |pick: &Pick| {
            let left: Vec<f64> =
                scale.of(&worth(&pick.foreseen)).iter().map(|own| 1.0 / (1.0 - own).max(LEAST_LEFT)).collect();
            let sum: f64 = left.iter().sum();
            let weights: Vec<f64> = left.iter().map(|own| own / sum).collect();
            self.made(pick.field, &self.climbed(pick, &worth, &weights, &scale))
        };
        picks.par_iter().map(one).collect()
    }

    fn climbed(
        &self,
        pick: &Pick,
        goals: &(dyn Fn(&Foreseen) -> Vec<f64> + Sync),
        weights: &[f64],
        scale: &Scale,
    ) -> Choice {
        let field = &self.fields[pick.field];
        let evaluate = |place: &[f64]| {
            let choice = field.choice(place);
            let foreseen = field.foreseen(&choice);
            let standing = self.standing(pick.field, &choice, &foreseen);
            Came { goals: goals(&foreseen), margins: room(&foreseen, standing.as_ref()) }
        };
        let asked = Asked { variables: field.response.axes.len(), evaluate: &evaluate };
        if asked.variables == 0 {
            return pick.choice;
        }
        let from = asked.at(&field.response.place(&pick.choice));
        let ended: Member = climb(asked, weights, scale, &from, (STEP, MOST));
        field.choice(&ended.place)
    }

    /// Of the nearest ways to make a choice the best, limits computed; of further ones where none of the nearest holds.
    fn made(&self, field: usize, choice: &Choice) -> Pick {
        let better = |a: Pick, b: Pick| if b.score > a.score { b } else { a };
        let mut best: Option<Pick> = None;
        for near in ways(&self.fields[field], choice).chunks(WAYS) {
            let all = near.iter().map(|way| self.pick(field, *way));
            best = best.into_iter().chain(all).reduce(better);
            if best.as_ref().is_some_and(Pick::holds) {
                break;
            }
        }
        best.unwrap_or_else(|| self.pick(field, *choice))
    }
}

/// What is left of every limit, each in its scale: as computed where it was, and one more for what was not foreseen at all.
fn room(foreseen: &Foreseen, computed: Option<&Standing>) -> Vec<f64> {
    let Some(computed) = computed else { return foreseen.room().into_iter().chain([-NO_LOBE]).collect() };
    let hard = foreseen.margins.iter().filter(|own| !own.margin.is_advice);
    // A rule that does not apply there has all the room there is.
    let left = |own: &Predicted| computed.margin(own.margin.bound).map_or(1.0, |own| own.room() - HAIR);
    let is_foreseen = |margin: &&Margin| foreseen.margins.iter().any(|own| own.margin.bound == margin.bound);
    let others: f64 = computed.margins.iter().filter(|own| !is_foreseen(own)).map(Margin::broken).sum();
    let beside = others + computed.incompatible.len() as f64;
    hard.map(left).chain([foreseen.nose, if beside > 0.0 { -beside } else { 1.0 }]).collect()
}
