//! What the document keeps of measured motion, as far as it holds for the parts of one train.

use super::ranges::{COUNT, Learned, Unmeasured};
use crate::given::{Train, TrainFitPart};
use crate::quantity::SpringRate;

/// Which part each is of, in the order of their places.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Part {
    /// The train as a whole, or the head.
    Any,
    /// The lifter and what it runs on.
    Lifter,
    /// The rocker and what it stands on.
    Rocker,
    /// The coils.
    Spring,
}

const OF: [Part; COUNT] = [
    Part::Any,
    Part::Any,
    Part::Any,
    Part::Spring,
    Part::Lifter,
    Part::Rocker,
    Part::Rocker,
    Part::Rocker,
    Part::Lifter,
    Part::Lifter,
    Part::Spring,
];

/// What is known of a train with these parts: what was found on parts of the same kind.
pub fn learned(fit: &TrainFitPart, train: &Train) -> Learned {
    let Some((place, root)) = kept(fit) else { return Learned::nothing() };
    let holds = |part: Part| match part {
        Part::Any => true,
        Part::Lifter => fit.lifter.is_some() && fit.lifter == train.lifter.kind,
        Part::Rocker => fit.mount.is_some() && fit.mount == train.rocker.mount,
        Part::Spring => fit.form.is_some() && fit.form == train.spring.form,
    };
    let own = Learned { place, root, known: [true; COUNT] };
    // Motion says nothing of what it leaves as open as it was.
    let seen = own.seen();
    Learned { known: std::array::from_fn(|i| holds(OF[i]) && seen[i]), ..own }
}

/// Places and the root of their covariance; `None` where the document does not keep all of it.
fn kept(fit: &TrainFitPart) -> Option<([f64; COUNT], [[f64; COUNT]; COUNT])> {
    let found = Unmeasured {
        train_damping: fit.train_damping?,
        seat_damping: fit.seat_damping?,
        seat_stiffness: fit.seat_stiffness.map(SpringRate::si)?,
        spring_damping: fit.spring_damping?,
        cam_stiffness: fit.cam_stiffness?,
        pivot_stiffness: fit.pivot_stiffness?,
        body_stiffness: fit.body_stiffness?,
        inertia: fit.inertia?,
        air: fit.air?,
        leak: fit.leak?,
        moving_coils: fit.moving_coils?,
    };
    let mut numbers = fit.spread.as_ref()?.iter().copied();
    let mut root = [[0.0; COUNT]; COUNT];
    for (row, line) in root.iter_mut().enumerate() {
        for cell in &mut line[..=row] {
            *cell = numbers.next()?;
        }
    }
    Some((found.places(), root))
}
