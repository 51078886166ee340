//! How many pulls it takes to be sure of a difference, and in which order they are run.

use rand_pcg::Pcg64;
use rand_pcg::rand_core::{RngCore, SeedableRng};
use statrs::distribution::{ContinuousCDF, StudentsT};

/// Most pulls of each that are looked at.
pub const MOST: usize = 60;
/// How often a difference of that size is to be found, and how often one is allowed to be found where there is none.
pub const FOUND: f64 = 0.9;
/// Two-sided.
pub const ALARMS: f64 = 0.05;

/// Pulls of each of two combinations that find a difference of `by` in [`FOUND`] of a hundred such tests; `None` for more than
/// [`MOST`]. `spread`: standard deviation of a pull about its day and drift, of the same unit.
///
/// The least n with `by >= (t(1 - a/2) + t(found)) spread sqrt(2/n)` at `2 n - 2` degrees of freedom [two samples: Montgomery,
/// *Design and Analysis of Experiments*, ch. 2, with t in the place of the noncentral t; from memory].
pub fn pulls_each(by: f64, spread: f64) -> Option<usize> {
    (2..=MOST).find(|n| {
        let freedom = 2.0 * (*n as f64) - 2.0;
        let Ok(t) = StudentsT::new(0.0, 1.0, freedom) else { return false };
        let t = t.inverse_cdf(1.0 - 0.5 * ALARMS) + t.inverse_cdf(FOUND);
        by >= t * spread * (2.0 / *n as f64).sqrt()
    })
}

/// The order of `others` by lot [Fisher and Yates]; the same of the same number.
pub fn drawn<T: Clone>(others: &[T], lot: u64) -> Vec<T> {
    let mut all = others.to_vec();
    let mut draws = Pcg64::seed_from_u64(lot);
    for place in (1..all.len()).rev() {
        // Without the bias of a remainder: draws beyond the last whole multiple are thrown away.
        let many = place as u64 + 1;
        let whole = u64::MAX - u64::MAX % many;
        let draw = std::iter::repeat_with(|| draws.next_u64()).find(|draw| *draw < whole).unwrap_or(0);
        all.swap(place, (draw % many) as usize);
    }
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_lot_is_fair_and_the_same_of_the_same_number() {
        assert_eq!(drawn(&[1, 2, 3, 4], 7), drawn(&[1, 2, 3, 4], 7));
        let mut firsts = [0; 4];
        for lot in 0..4000 {
            firsts[drawn(&[0_usize, 1, 2, 3], lot)[0]] += 1;
        }
        // Each first in a quarter of 4,000 draws: sd 27.
        assert!(firsts.iter().all(|count| (*count - 1000_i32).abs() < 110), "{firsts:?}");
    }
}
