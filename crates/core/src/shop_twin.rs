//! The shop twin: what the shop's own pulls say of the model's constants. Every build has its own, drawn from its family's, those from
//! the shop's.
//!
//! `d_i ~ N(m_f, T)`, `m_f ~ N(m, U)`, `m ~ N(0, 1)`, all in spreads that each constant is expected to lie off its usual value by. Of a
//! build only what its fit left behind is known: `e(d) = e_0 + J d` to first order, so `A = J'J/s^2`, `b = J'e_0/s^2`, `c = e_0'e_0/s^2`
//! are all that a normal model asks for. Means follow from what each build says of its family once its own deviation is integrated out
//! [Lindley and Smith, J. R. Stat. Soc. B 34, 1972, 1]; the covariances are the modes of inverse Wishart posteriors whose priors are
//! worth a few builds [Gelman et al., *Bayesian Data Analysis*, ch. 15.4; from memory].

use nalgebra::{Matrix4, Vector4};
use rayon::prelude::*;

/// How many constants there are.
pub const CONSTANTS: usize = 4;
/// Places of the upper half of a square.
const UPPER: [(usize, usize); 10] = [(0, 0), (0, 1), (0, 2), (0, 3), (1, 1), (1, 2), (1, 3), (2, 2), (2, 3), (3, 3)];

type Square = Matrix4<f64>;
type Column = Vector4<f64>;

/// What builds of a family differ by before any was pulled, and families by, in spreads; and how many builds or families that is worth
/// (assumed: like builds of one shop differ by half of what strangers do).
const WITHIN: (f64, f64) = (0.5, 3.0);
const BETWEEN: (f64, f64) = (0.6, 3.0);
/// Rounds after which covariances move by less than a thousandth.
const ROUNDS: usize = 40;

/// What the fit of one build left behind, in spreads of the constants.
#[derive(Debug, Clone, PartialEq)]
pub struct Learned {
    /// Points it was fitted to.
    pub points: f64,
    /// Squares of the usual constants' errors over that of a good pull.
    pub usual: f64,
    /// How they change with each constant, half.
    pub slope: Column,
    /// How that changes.
    pub curvature: Square,
}

/// How many numbers a document keeps of one.
pub const NUMBERS: usize = 2 + CONSTANTS + CONSTANTS * (CONSTANTS + 1) / 2;

/// A build's, and the number of its family.
pub type OfFamily = (usize, Learned);

impl Learned {
    /// From errors of the usual constants and the effects of each over them, both over the error of a good pull.
    pub fn of(errors: &[f64], effects: [&[f64]; CONSTANTS]) -> Self {
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        Self {
            points: errors.len() as f64,
            usual: dot(errors, errors),
            slope: Column::from_fn(|k, _| dot(effects[k], errors)),
            curvature: Square::from_fn(|i, j| dot(effects[i], effects[j])),
        }
    }

    /// As plain numbers: points, usual, slope, the upper half of the curvature row by row.
    pub fn numbers(&self) -> [f64; NUMBERS] {
        let mut all = [self.points, self.usual]
            .into_iter()
            .chain(self.slope.iter().copied())
            .chain(UPPER.map(|place| self.curvature[place]));
        std::array::from_fn(|_| all.next().unwrap_or(0.0))
    }

    /// From such numbers; `None` of what no fit could leave behind.
    pub fn of_numbers(numbers: &[f64]) -> Option<Self> {
        let [points, usual, rest @ ..] = numbers else { return None };
        let (slope, upper) = rest.split_at_checked(CONSTANTS)?;
        if upper.len() != UPPER.len() || *points < 1.0 || *usual < 0.0 {
            return None;
        }
        let mut curvature = Square::zeros();
        for (value, (i, j)) in upper.iter().zip(UPPER) {
            (curvature[(i, j)], curvature[(j, i)]) = (*value, *value);
        }
        let own = Self { points: *points, usual: *usual, slope: Column::from_column_slice(slope), curvature };
        // Squares are never negative, whatever the constants.
        (curvature + Square::identity()).cholesky().map(|_| own)
    }

    /// What it says by itself, of constants expected to be the usual ones within a spread.
    pub fn alone(&self) -> Drawn {
        drawn(&(self.curvature + Square::identity(), -self.slope))
    }

    /// Root mean square error that constants leave, in errors of a good pull; to first order in the constants.
    pub fn error(&self, deviation: &Column) -> f64 {
        let squares = self.usual + 2.0 * self.slope.dot(deviation) + (self.curvature * deviation).dot(deviation);
        (squares.max(0.0) / self.points.max(1.0)).sqrt()
    }
}

/// A family's constants, or a build's.
#[derive(Debug, Clone, PartialEq)]
pub struct Drawn {
    /// What they are expected to be.
    pub mean: Column,
    /// How far they may be off that.
    pub covariance: Square,
}

/// What the shop knows.
#[derive(Debug, Clone, PartialEq)]
pub struct ShopTwin {
    /// Over all families.
    pub shop: Drawn,
    /// Of each family, by its number.
    pub families: Vec<Drawn>,
    /// Of each build.
    pub builds: Vec<Drawn>,
    /// What builds of a family differ by.
    pub within: Square,
}

impl ShopTwin {
    /// What the next build of a family is expected to have; of one that nobody built, by the shop's others.
    pub fn next(&self, family: usize) -> Drawn {
        let own = self.families.get(family).unwrap_or(&self.shop);
        Drawn { mean: own.mean, covariance: own.covariance + self.within }
    }
}

/// Fits all levels to builds of so many families.
pub fn twin(builds: &[OfFamily], families: usize) -> ShopTwin {
    let diagonal = |spread: f64| Square::identity() * (spread * spread);
    let (mut within, mut between) = (diagonal(WITHIN.0), diagonal(BETWEEN.0));
    let mut found = levels(builds, families, &within, &between);
    for _ in 0..ROUNDS {
        let squares: Square = builds
            .iter()
            .zip(&found.builds)
            .map(|((family, _), drawn)| {
                let off = drawn.mean - found.families[*family].mean;
                off * off.transpose() + drawn.covariance
            })
            .sum();
        within = (diagonal(WITHIN.0) * WITHIN.1 + squares) / (WITHIN.1 + builds.len() as f64);
        let built: Vec<&Drawn> = (0..families)
            .filter(|f| builds.iter().any(|(family, _)| family == f))
            .map(|f| &found.families[f])
            .collect();
        let squares: Square = built
            .iter()
            .map(|own| {
                let off = own.mean - found.shop.mean;
                off * off.transpose() + own.covariance
            })
            .sum();
        between = (diagonal(BETWEEN.0) * BETWEEN.1 + squares) / (BETWEEN.1 + built.len() as f64);
        found = levels(builds, families, &within, &between);
    }
    found
}

/// Means of all levels at given covariances, from the shop down.
fn levels(builds: &[OfFamily], families: usize, within: &Square, between: &Square) -> ShopTwin {
    // What builds say of their family, and families of the shop: precision, and that times the mean.
    let mut of_family = vec![(Square::zeros(), Column::zeros()); families];
    for (family, own) in builds {
        let (precision, told) = through(&(own.curvature, -own.slope), within);
        of_family[*family].0 += precision;
        of_family[*family].1 += told;
    }
    let all = of_family
        .iter()
        .map(|own| through(own, between))
        .fold((Square::identity(), Column::zeros()), |sum, own| (sum.0 + own.0, sum.1 + own.1));
    let shop = drawn(&all);
    let under = |above: &Drawn, spread: &Square, told: &(Square, Column)| {
        let prior = inverse(&(spread + above.covariance));
        drawn(&(told.0 + prior, told.1 + prior * above.mean))
    };
    let families: Vec<Drawn> = of_family
        .iter()
        .map(|told| {
            // What the others say of the shop: a family is not drawn to itself.
            let own = through(told, between);
            under(&drawn(&(all.0 - own.0, all.1 - own.1)), between, told)
        })
        .collect();
    let builds = builds
        .iter()
        .map(|(family, own)| {
            let told = (own.curvature, -own.slope);
            let through_own = through(&told, within);
            let above = &families[*family];
            let precision = inverse(&above.covariance);
            let others = drawn(&(precision - through_own.0, precision * above.mean - through_own.1));
            under(&others, within, &told)
        })
        .collect();
    ShopTwin { shop, families, builds, within: *within }
}

/// What something of this precision, and that times its mean, says of what it was drawn from with a covariance: `(1 + A T)^-1 A`, and
/// the same of the mean.
fn through((precision, told): &(Square, Column), spread: &Square) -> (Square, Column) {
    let factor = inverse(&(Square::identity() + precision * spread));
    let found = factor * precision;
    ((found + found.transpose()) * 0.5, factor * told)
}

fn drawn((precision, told): &(Square, Column)) -> Drawn {
    let covariance = inverse(precision);
    Drawn { mean: covariance * told, covariance }
}

/// Every matrix here is one and something positive: it has an inverse.
fn inverse(of: &Square) -> Square {
    of.try_inverse().unwrap_or_else(Square::identity)
}

/// What each build would have been expected to have by all the others.
pub fn left_out(builds: &[OfFamily], families: usize) -> Vec<Drawn> {
    let out = |out: usize| {
        let others = builds.iter().enumerate().filter(|(place, _)| *place != out).map(|(_, own)| own.clone());
        twin(&others.collect::<Vec<_>>(), families).next(builds[out].0)
    };
    (0..builds.len()).into_par_iter().map(out).collect()
}

/// What each build would have been expected to have by the builds of all other families: as if its own were the first of its kind.
pub fn families_left_out(builds: &[OfFamily], families: usize) -> Vec<Drawn> {
    let of_family = |out: usize| {
        let others: Vec<OfFamily> = builds.iter().filter(|(family, _)| *family != out).cloned().collect();
        twin(&others, families).next(out)
    };
    let each: Vec<Drawn> = (0..families).map(of_family).collect();
    builds.iter().map(|(family, _)| each[*family].clone()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rand_distr::{Distribution, Normal};
    use rand_pcg::rand_core::SeedableRng;

    /// Invented builds: each family lies somewhere, each build about it, each pull of nine speeds off by a good pull's error.
    fn shop(seed: u64, count: usize, families: usize, within: f64) -> (Vec<OfFamily>, Vec<Column>) {
        let mut lot = rand_pcg::Pcg64::seed_from_u64(seed);
        let normal = Normal::new(0.0, 1.0).unwrap();
        let column = |lot: &mut rand_pcg::Pcg64, spread: f64| Column::from_fn(|_, _| spread * normal.sample(lot));
        let middle = column(&mut lot, 0.5);
        let means: Vec<Column> = (0..families).map(|_| middle + column(&mut lot, 0.6)).collect();
        let mut truths = Vec::new();
        let builds = (0..count)
            .map(|i| {
                let family = i % families;
                let truth = means[family] + column(&mut lot, within);
                truths.push(truth);
                // Effects of four constants over nine speeds, in errors of a good pull per spread.
                let mut own = Learned { points: 9.0, usual: 0.0, slope: Column::zeros(), curvature: Square::zeros() };
                for k in 0..9 {
                    let at = f64::from(k) / 8.0;
                    let effect = Column::new(1.0 + 4.0 * at, -1.0 - 3.0 * at * at, 3.0, 3.0 * (6.0 * at).sin());
                    let error = -effect.dot(&truth) + normal.sample(&mut lot);
                    own.usual += error * error;
                    own.slope += effect * error;
                    own.curvature += effect * effect.transpose();
                }
                (family, own)
            })
            .collect();
        (builds, truths)
    }

    /// By hand: one constant, one family, known spreads; the precision-weighted means of the textbook.
    #[test]
    fn one_constant_is_the_textbook_s() {
        let one = |value: f64, precision: f64| {
            let mut curvature = Square::zeros();
            curvature[(0, 0)] = precision;
            let mut slope = Column::zeros();
            slope[0] = -value * precision;
            (0, Learned { points: 9.0, usual: 0.0, slope, curvature })
        };
        let builds = [one(1.0, 4.0), one(0.2, 1.0), one(-0.4, 2.0)];
        let (within, between) = (Square::identity() * 0.09, Square::identity() * 0.25);
        let found = levels(&builds, 1, &within, &between);
        let weights: Vec<f64> = [4.0f64, 1.0, 2.0].iter().map(|p| 1.0 / (1.0 / p + 0.09)).collect();
        let sum: f64 = weights.iter().sum();
        let mean = (weights[0] * 1.0 + weights[1] * 0.2 + weights[2] * -0.4) / sum;
        // The family about a shop that nobody else speaks of: N(0, 1 + .25).
        let prior = 1.0 / 1.25;
        let family = sum * mean / (sum + prior);
        assert!((found.families[0].mean[0] - family).abs() < 1e-12, "{found:?}");
        assert!((found.families[0].covariance[(0, 0)] - 1.0 / (sum + prior)).abs() < 1e-12);
        // The first build between its own figure and what the others say.
        let others = (weights[1] * 0.2 + weights[2] * -0.4) / (weights[1] + weights[2] + prior);
        let above = 1.0 / (0.09 + 1.0 / (weights[1] + weights[2] + prior));
        let own = (4.0 * 1.0 + above * others) / (4.0 + above);
        assert!((found.builds[0].mean[0] - own).abs() < 1e-12, "{} {own}", found.builds[0].mean[0]);
    }

    /// Every constant of every build, family and shop in one normal distribution, its precision inverted whole.
    #[test]
    fn levels_are_the_whole_distribution_s() {
        use nalgebra::{DMatrix, DVector};
        let (builds, _) = shop(11, 5, 2, 0.3);
        let spread =
            |seed: f64| Square::from_fn(|i, j| if i == j { seed } else { 0.2 * seed / (1.0 + (i + j) as f64) });
        let (within, between) = (spread(0.1), spread(0.4));
        let found = levels(&builds, 2, &within, &between);
        let size = 4 * (builds.len() + 3);
        let (mut precision, mut told) = (DMatrix::<f64>::zeros(size, size), DVector::<f64>::zeros(size));
        let at = |place: usize| 4 * place;
        let (families, whole) = (builds.len(), builds.len() + 2);
        let mut add = |i: usize, j: usize, what: &Square| {
            let mut part = precision.view_mut((at(i), at(j)), (4, 4));
            part += what;
        };
        let mut tie = |own: usize, above: usize, spread: &Square| {
            let tight = inverse(spread);
            for (i, j, sign) in [(own, own, 1.0), (above, above, 1.0), (own, above, -1.0), (above, own, -1.0)] {
                add(i, j, &(tight * sign));
            }
        };
        for (place, (family, _)) in builds.iter().enumerate() {
            tie(place, families + family, &within);
        }
        for family in 0..2 {
            tie(families + family, whole, &between);
        }
        for (place, (_, own)) in builds.iter().enumerate() {
            add(place, place, &own.curvature);
            told.rows_mut(at(place), 4).copy_from(&-own.slope);
        }
        add(whole, whole, &Square::identity());
        let covariance = precision.try_inverse().expect("a distribution");
        let mean = &covariance * told;
        let close = |place: usize, drawn: &Drawn| {
            let off = (mean.fixed_rows::<4>(at(place)) - drawn.mean).abs().max();
            let spread = covariance.fixed_view::<4, 4>(at(place), at(place)) - drawn.covariance;
            assert!(off < 1e-9 && spread.abs().max() < 1e-9, "{place}: {off} {spread}");
        };
        found.builds.iter().enumerate().for_each(|(place, own)| close(place, own));
        found.families.iter().enumerate().for_each(|(family, own)| close(families + family, own));
        close(whole, &found.shop);
    }

    #[test]
    fn a_shop_knows_its_next_build_better_than_the_usual_constants() {
        let (mut usual, mut left, mut own, mut held, mut count) = (0.0, 0.0, 0.0, 0_u32, 0_u32);
        for seed in 0..20 {
            let (builds, truths) = shop(seed, 24, 3, 0.3);
            let found = twin(&builds, 3);
            for (place, out) in left_out(&builds, 3).iter().enumerate() {
                usual += builds[place].1.error(&Column::zeros()).powi(2);
                left += builds[place].1.error(&out.mean).powi(2);
                own += builds[place].1.error(&found.builds[place].mean).powi(2);
                let off = truths[place] - out.mean;
                let spreads = out.covariance.diagonal();
                held +=
                    off.iter().zip(&spreads).map(|(off, own)| u32::from(off.abs() < 1.96 * own.sqrt())).sum::<u32>();
                count += 4;
            }
        }
        let root = |sum: f64| (sum / (20.0 * 24.0)).sqrt();
        let share = f64::from(held) / f64::from(count);
        println!("usual {:.2}, by the others {:.2}, own {:.2}; held {share:.3}", root(usual), root(left), root(own));
        assert!(root(left) < 0.6 * root(usual));
        assert!(root(own) < root(left));
        assert!((0.92..=0.995).contains(&share), "{share}");
    }

    #[test]
    fn what_a_fit_left_behind_comes_back_from_its_numbers() {
        let (builds, _) = shop(3, 1, 1, 0.3);
        let own = &builds[0].1;
        assert_eq!(Learned::of_numbers(&own.numbers()).as_ref(), Some(own));
        assert_eq!(Learned::of_numbers(&own.numbers()[1..]), None);
        let mut odd = own.numbers();
        odd[6] = -5.0;
        assert_eq!(Learned::of_numbers(&odd), None, "squares that fall");
    }

    #[test]
    fn nobody_s_builds_leave_the_usual_constants() {
        let found = twin(&[], 1);
        assert_eq!(found.next(0).mean, Column::zeros());
        assert!(found.next(0).covariance[(0, 0)] > 1.0);
    }
}
