//! The ground a search goes over: a field of every kit, and what computed candidates taught about them.

use super::search_words::Full;
use crate::choose::{Aim, Bound, Field, Kept, Margins, Pick, Reserves, Standing, counts};
use crate::response::Columns;

/// Ground of the kits that are searched with.
pub(super) struct Ground {
    /// Each kit's, what stands first.
    pub fields: Vec<Field>,
    /// What is climbed by.
    pub aim: Aim,
    /// What is kept of limits for what parts are off by when they are built.
    pub kept: Kept,
}

/// A pick with what it came to by a deeper computation.
pub(super) struct Deep<'a> {
    /// The pick.
    pub pick: &'a Pick,
    /// Its curve.
    pub columns: &'a Columns,
    /// How it stands with that.
    pub standing: &'a Standing,
}

impl<'a> Deep<'a> {
    /// Of a candidate computed in full.
    const fn of(full: &'a Full) -> Self {
        Self { pick: &full.pick, columns: &full.columns, standing: &full.standing }
    }
}

/// How much more is left of a limit than was foreseen: weighted sum, and sum of weights.
struct Left {
    bound: Bound,
    sum: f64,
    of: f64,
}

impl Ground {
    /// Keeps so much of limits from here on.
    pub fn keep(&mut self, kept: &Kept) {
        self.kept = kept.clone();
        self.fields.iter_mut().for_each(|field| field.margins.keep(&kept.reserves));
    }

    /// Keeps `reserves` of what cams and parts of this ground move: what they do not fails as often whatever is chosen.
    pub fn keeping(&mut self, mut reserves: Reserves) -> Kept {
        let stands = &self.fields[0];
        let middle = |field: &Field| *field.kit.frame.now();
        let mut moved: Vec<Bound> = Vec::new();
        for field in &self.fields {
            let before = (&stands.margins, &stands.response, &middle(stands));
            let own = field.margins.moved((&field.response, &middle(field)), before);
            moved.extend(own.into_iter().filter(|bound| !moved.contains(bound)).collect::<Vec<_>>());
        }
        reserves.retain(|(bound, _)| moved.contains(bound));
        let kept = Kept { reserves, moved };
        self.keep(&kept);
        kept
    }

    /// Takes up what a computed pick left of its margins; whether it broke one that had been predicted to hold.
    pub fn learn(&mut self, pick: &Pick, standing: &Standing, lesson: usize) -> bool {
        let Field { margins, response, .. } = &mut self.fields[pick.field];
        response.nearly_holds(&pick.choice) && margins.learn(response, &pick.choice, standing, lesson)
    }

    /// Brought to the depth of candidates that were computed in full, the first of which stands, and gains are counted from what
    /// stands in full.
    pub fn raise(&mut self, found: &[&Full], best: &Pick) {
        if let Some(stands) = found.first() {
            self.aim.from = stands.figures;
            self.shift(&found.iter().map(|full| Deep::of(full)).collect::<Vec<_>>(), best);
        }
    }

    /// Curves, and limits that hang on them, are moved by what computed candidates have more, the nearer to the best the more it
    /// counts.
    pub fn shift(&mut self, found: &[Deep<'_>], best: &Pick) {
        let Some(first) = found.first() else { return };
        let middle = self.fields[best.field].response.place(&best.choice);
        let weight = |full: &Deep<'_>| {
            let response = &self.fields[full.pick.field].response;
            let place = response.place(&full.pick.choice);
            if response.nearly_holds(&full.pick.choice) { counts(&place, &middle).max(LEAST) } else { 0.0 }
        };
        let weights: Vec<f64> = found.iter().map(weight).collect();
        let all: f64 = weights.iter().sum();
        if all <= 0.0 {
            return;
        }
        let mut more = vec![0.0; self.fields[0].response.columns(&first.pick.choice).len()];
        let mut left: Vec<Left> = Vec::new();
        for (full, weight) in found.iter().zip(&weights).filter(|(_, weight)| **weight > 0.0) {
            let Field { response, margins, .. } = &self.fields[full.pick.field];
            let foreseen = response.columns(&full.pick.choice);
            let own = full.columns.at(&response.speeds);
            for ((more, own), foreseen) in more.iter_mut().zip(own).zip(foreseen) {
                *more += weight / all * (own - foreseen);
            }
            for own in margins.at(response, &full.pick.choice).iter().filter(|own| Margins::raises(own.margin.bound)) {
                let Some(margin) = full.standing.margin(own.margin.bound) else { continue };
                let by = weight * (margin.left - own.margin.left);
                match left.iter_mut().find(|left| left.bound == margin.bound) {
                    Some(left) => (left.sum, left.of) = (left.sum + by, left.of + weight),
                    None => left.push(Left { bound: margin.bound, sum: by, of: *weight }),
                }
            }
        }
        for field in &mut self.fields {
            field.response.raise(&more);
            left.iter().for_each(|own| field.margins.raise(own.bound, own.sum / own.of));
        }
    }
}

/// Least that what was found anywhere in a region counts.
const LEAST: f64 = 1e-3;
