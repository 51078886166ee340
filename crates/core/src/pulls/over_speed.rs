//! Two combinations over speed: the difference at every speed, and how far it may be off at each by itself and at all of them together.
//!
//! Many speeds looked at one by one alarm falsely at some of them: what holds all together is the t that the greatest of them exceeds
//! in so many of a hundred tests when nothing differs. It is drawn by lot: curves of a difference that are as alike from speed to speed
//! as what is left of the pulls, over variances as uncertain as so few pulls leave them [the maximum modulus of a multivariate t:
//! Hothorn, Bretz, Westfall 2008; here its correlation is that of the residual curves].

use super::grid::{Found, Grid, Target};
use super::mixed::{Contrast, Design};
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64;
use rayon::prelude::*;
use statrs::distribution::{ContinuousCDF, Normal, StudentsT};

/// Curves that are drawn.
const LOTS: usize = 1_000;
/// Degrees of freedom beyond which variances count as known.
const KNOWN: usize = 16;

/// Means and differences over speed.
#[derive(Debug, Clone, PartialEq)]
pub struct OverSpeed {
    /// Of each target, at every speed by itself.
    pub at: Vec<Vec<Contrast>>,
    /// The t that holds all speeds together in so many of a hundred such tests.
    pub together: f64,
}

/// What is asked of pulls at every speed: `curves` are pulls, each with the same speeds. `share`: how many of a hundred tests the band of
/// all speeds holds. `None` where pulls do not tell them apart at some speed.
pub fn over_speed(
    design: &Design,
    curves: &[Vec<f64>],
    targets: &[Target],
    share: f64,
    seed: u64,
) -> Option<OverSpeed> {
    let grid = Grid::of(design, targets)?;
    let speeds = curves.first()?.len();
    if speeds == 0 || curves.len() != design.day.len() || curves.iter().any(|curve| curve.len() != speeds) {
        return None;
    }
    let found: Vec<Found> = (0..speeds)
        .into_par_iter()
        .map(|speed| {
            // About their mean: it is the differences that matter, and rounding is of what is largest.
            let mean = curves.iter().map(|curve| curve[speed]).sum::<f64>() / curves.len() as f64;
            let mut found = grid.found(&curves.iter().map(|curve| curve[speed] - mean).collect::<Vec<f64>>())?;
            for (own, target) in found.contrasts.iter_mut().zip(targets) {
                own.difference += if matches!(target, Target::Mean(_)) { mean } else { 0.0 };
            }
            Some(found)
        })
        .collect::<Option<Vec<Found>>>()?;
    let mut left = vec![0.0; speeds * curves.len()];
    for (speed, found) in found.iter().enumerate() {
        let length = found.left.iter().map(|own| own * own).sum::<f64>().sqrt().max(f64::MIN_POSITIVE);
        found.left.iter().enumerate().for_each(|(pull, own)| left[pull * speeds + speed] = own / length);
    }
    let all = found.iter().flat_map(|own| &own.contrasts).map(|own| own.freedom);
    let freedom = all.sum::<f64>() / (speeds * targets.len().max(1)) as f64;
    let together = greatest(&left, speeds, freedom.round().max(1.0) as usize, (share, seed));
    let at = (0..targets.len()).map(|own| found.iter().map(|speed| speed.contrasts[own]).collect()).collect();
    Some(OverSpeed { at, together })
}

/// The greatest t of any speed that so many of a hundred lots stay below. `left`: what is left of every pull, of length one at every
/// speed; `freedom`: pulls that a variance rests on.
fn greatest(left: &[f64], speeds: usize, freedom: usize, (share, seed): (f64, u64)) -> f64 {
    let own = |number: u64| {
        let mut lot = Pcg64::new(u128::from(seed), u128::from(number));
        let mut draw = |curve: &mut [f64]| {
            curve.fill(0.0);
            for own in left.chunks_exact(speeds) {
                let weight: f64 = StandardNormal.sample(&mut lot);
                curve.iter_mut().zip(own).for_each(|(sum, own)| *sum += weight * own);
            }
        };
        let (mut difference, mut other, mut squares) = (vec![0.0; speeds], vec![0.0; speeds], vec![1.0; speeds]);
        draw(&mut difference);
        // Beyond that many the variances of all speeds are as good as known.
        if freedom <= KNOWN {
            squares.fill(0.0);
            for _ in 0..freedom {
                draw(&mut other);
                squares.iter_mut().zip(&other).for_each(|(sum, own)| *sum += own * own / freedom as f64);
            }
        }
        let t = difference.iter().zip(&squares).map(|(own, square)| own.abs() / square.sqrt());
        t.fold(0.0_f64, f64::max)
    };
    let mut most: Vec<f64> = (0..LOTS as u64).into_par_iter().map(own).collect();
    most.sort_by(f64::total_cmp);
    let place = (share * LOTS as f64).ceil() as usize;
    let t = most[place.clamp(1, LOTS) - 1];
    // What a single speed would need at so many degrees of freedom, over what it needs when its variance is known.
    if freedom <= KNOWN { t } else { t * widened(freedom, share) }
}

/// Student's t over the normal deviate, at this share.
fn widened(freedom: usize, share: f64) -> f64 {
    let at = 0.5 + 0.5 * share;
    let student = StudentsT::new(0.0, 1.0, freedom as f64).map(|own| own.inverse_cdf(at));
    let normal = Normal::new(0.0, 1.0).map(|own| own.inverse_cdf(at));
    student.ok().zip(normal.ok()).map_or(1.0, |(student, normal)| student / normal)
}
