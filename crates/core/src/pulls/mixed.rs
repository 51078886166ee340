//! A linear mixed model of pulls: every combination has its mean, every day its own level drawn by lot, and within a day the engine
//! drifts pull by pull.
//!
//! `y = X b + Z u + e`, `u` normal with variance `ratio s2`, `e` normal with variance `s2`. With one random level, the inverse of a day's
//! covariance is that of its own readings less a share of their mean, so that generalised least squares are ordinary ones of
//! `y - theta mean(y)`, `theta = 1 - 1/sqrt(1 + ratio n)` [Searle, Casella, McCulloch, *Variance Components*, ch. 3; Swamy and
//! Arora 1972]. The ratio is that of the greatest restricted likelihood [Patterson and Thompson 1971]. Degrees of freedom of a
//! contrast are Satterthwaite's [Giesbrecht and Burns 1985].

use faer::linalg::solvers::{DenseSolveCore, Solve};
use faer::{Mat, Side};
use statrs::distribution::{ContinuousCDF, StudentsT};

/// Ratios of variance that are looked at, as powers of e.
pub(super) const RATIOS: [f64; 2] = [-9.0, 9.0];
/// Share of a column's square below which the columns before it say the same.
const SINGULAR: f64 = 1e-9;
/// Golden section: steps after which the ratio is known to a thousandth of itself.
const STEPS: usize = 48;

/// Which combination, on which day, and when within it.
#[derive(Debug, Clone, PartialEq)]
pub struct Design {
    /// Combination of every pull, from nought, each of them at least once.
    pub combination: Vec<usize>,
    /// Day or session of every pull, from nought.
    pub day: Vec<usize>,
    /// How far into its day every pull was, in any unit; the same of all where drift is not looked for.
    pub at: Vec<f64>,
}

/// What a fit comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Fitted {
    /// Mean of every combination at the middle of a day.
    pub means: Vec<f64>,
    /// Drift per unit of [`Design::at`]; nought where all pulls stood at one place.
    pub drift: f64,
    /// Variance of a pull about its day.
    pub variance: f64,
    /// Variance of days over that.
    pub ratio: f64,
    /// Covariance of means and drift over the variance.
    covariance: Mat<f64>,
    design: Design,
}

/// A difference of two combinations.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Contrast {
    /// One less the other.
    pub difference: f64,
    /// Its standard error.
    pub error: f64,
    /// Degrees of freedom of it.
    pub freedom: f64,
}

impl Contrast {
    /// Half width of the interval that holds the true difference in so many of a hundred such tests.
    pub fn half_width(&self, share: f64) -> f64 {
        self.student().map_or(f64::INFINITY, |t| self.error * t.inverse_cdf(0.5 + 0.5 * share))
    }

    /// How sure it is that the first is more than the other, 0 to 1: the share of the t distribution about the difference that lies
    /// above nought.
    pub fn certainty(&self) -> f64 {
        self.student().map_or(0.5, |t| t.cdf(self.difference / self.error))
    }

    fn student(&self) -> Option<StudentsT> {
        StudentsT::new(0.0, 1.0, self.freedom).ok().filter(|_| self.error > 0.0)
    }
}

/// Fits one figure of every pull; `None` where pulls do not tell combinations, days and drift apart.
pub fn fit(design: &Design, values: &[f64]) -> Option<Fitted> {
    let rows = Rows::of(design)?;
    if values.len() != rows.count() || values.iter().any(|value| !value.is_finite()) {
        return None;
    }
    let ratio = rows.likeliest(values)?;
    let solved = rows.solve(ratio, values)?;
    let combinations = rows.combinations;
    Some(Fitted {
        means: solved.coefficients[..combinations].to_vec(),
        drift: solved.coefficients.get(combinations).copied().unwrap_or(0.0),
        variance: solved.squares / rows.freedom(),
        ratio,
        covariance: solved.inverse,
        design: design.clone(),
    })
}

impl Fitted {
    /// What combination `one` has more than `other`.
    pub fn contrast(&self, one: usize, other: usize) -> Option<Contrast> {
        let difference = self.means.get(one)? - self.means.get(other)?;
        let rows = Rows::of(&self.design)?;
        let spread = |ratio: f64, variance: f64| Some(variance * between(&rows.inverse(ratio)?, one, other));
        let error = (self.variance * between(&self.covariance, one, other)).sqrt();
        Some(Contrast { difference, error, freedom: rows.satterthwaite((self.ratio, self.variance), &spread)? })
    }

    /// The drift per unit of [`Design::at`] against none; `None` where it was not looked for.
    pub fn drifting(&self) -> Option<Contrast> {
        let place = self.means.len();
        if place >= self.covariance.nrows() {
            return None;
        }
        let rows = Rows::of(&self.design)?;
        let spread = |ratio: f64, variance: f64| Some(variance * rows.inverse(ratio)?[(place, place)]);
        let error = (self.variance * self.covariance[(place, place)]).sqrt();
        let freedom = rows.satterthwaite((self.ratio, self.variance), &spread)?;
        Some(Contrast { difference: self.drift, error, freedom })
    }

    /// Combination of every pull, and `values` without their days' levels, as far as those are told from chance, and without drift.
    pub fn levelled(&self, values: &[f64]) -> Vec<(usize, f64)> {
        let Design { combination, day, at } = &self.design;
        let middle = at.iter().sum::<f64>() / at.len().max(1) as f64;
        let still: Vec<f64> = values.iter().zip(at).map(|(own, at)| own - self.drift * (at - middle)).collect();
        let off = |pull: usize| still[pull] - self.means[combination[pull]];
        let level = |of: usize| {
            let own: Vec<f64> = (0..still.len()).filter(|pull| day[*pull] == of).map(off).collect();
            let count = own.len() as f64;
            self.ratio / (1.0 + self.ratio * count) * own.iter().sum::<f64>()
        };
        (0..still.len()).map(|pull| (combination[pull], still[pull] - level(day[pull]))).collect()
    }

    /// Degrees of freedom of the variance of a pull.
    pub fn freedom(&self) -> f64 {
        Rows::of(&self.design).map_or(0.0, |rows| rows.freedom())
    }
}

/// How far every pull is off what all others say of it, in standard errors of that, and their degrees of freedom: residuals that are
/// studentised from outside [Cook and Weisberg 1982; from memory]. `usual`: a standard deviation that is expected, and how many degrees
/// of freedom that is worth. A pull that nothing else speaks of has nought.
pub fn off_the_others(design: &Design, values: &[f64], usual: (f64, f64)) -> Option<(Vec<f64>, f64)> {
    let fitted = fit(design, values)?;
    let rows = Rows::of(design)?;
    let freedom = rows.freedom() - 1.0;
    if freedom < 1.0 {
        return None;
    }
    let solved = rows.solve(fitted.ratio, values)?;
    let (_, columns) = rows.normal(fitted.ratio);
    let lever = |pull: usize| -> f64 {
        let row: Vec<f64> = columns.iter().map(|column| column[pull]).collect();
        let with = |i: usize| (0..row.len()).map(|j| solved.inverse[(i, j)] * row[j]).sum::<f64>();
        (0..row.len()).map(|i| row[i] * with(i)).sum()
    };
    let off = |pull: usize| {
        let (own, free) = (solved.left[pull], 1.0 - lever(pull));
        let squares = (solved.squares - own * own / free).max(0.0) + usual.1 * usual.0 * usual.0;
        let others = squares / (freedom + usual.1);
        if free < 1e-6 || others <= 0.0 { 0.0 } else { own / (others * free).sqrt() }
    };
    Some(((0..values.len()).map(off).collect(), freedom + usual.1))
}

/// Variance of the difference of two coefficients.
pub(super) fn between(covariance: &Mat<f64>, one: usize, other: usize) -> f64 {
    covariance[(one, one)] + covariance[(other, other)] - 2.0 * covariance[(one, other)]
}

/// A design as rows of numbers, and its days.
pub(super) struct Rows {
    rows: Vec<Vec<f64>>,
    /// Places of the pulls of every day.
    days: Vec<Vec<usize>>,
    combinations: usize,
}

/// Least squares at a ratio.
pub(super) struct Solved {
    pub coefficients: Vec<f64>,
    pub squares: f64,
    pub inverse: Mat<f64>,
    /// Logarithm of the determinant of the normal matrix.
    determinant: f64,
    /// What is left of every value.
    pub left: Vec<f64>,
}

impl Rows {
    pub(super) fn of(design: &Design) -> Option<Self> {
        let Design { combination, day, at } = design;
        let count = combination.len();
        if count == 0 || day.len() != count || at.len() != count || at.iter().any(|own| !own.is_finite()) {
            return None;
        }
        let combinations = combination.iter().max()? + 1;
        let days: Vec<Vec<usize>> =
            (0..=*day.iter().max()?).map(|own| (0..count).filter(|pull| day[*pull] == own).collect()).collect();
        let middle = at.iter().sum::<f64>() / count as f64;
        let drifts = at.iter().any(|own| (own - middle).abs() > 1e-12);
        let row = |pull: usize| {
            let mut row = vec![0.0; combinations];
            row[combination[pull]] = 1.0;
            row.extend(drifts.then(|| at[pull] - middle));
            row
        };
        Some(Self { rows: (0..count).map(row).collect(), days, combinations }).filter(|own| own.freedom() > 0.0)
    }

    pub(super) fn count(&self) -> usize {
        self.rows.len()
    }

    /// How many pulls a combination has.
    pub(super) fn pulls_of(&self, combination: usize) -> f64 {
        self.rows.iter().map(|row| row[combination]).sum()
    }

    fn columns(&self) -> usize {
        self.rows[0].len()
    }

    pub(super) fn freedom(&self) -> f64 {
        self.count() as f64 - self.columns() as f64
    }

    /// Every row, and every value, less the share of its day's mean that the ratio takes.
    pub(super) fn shrunk(&self, ratio: f64, of: &dyn Fn(usize) -> f64) -> Vec<f64> {
        let mut all = vec![0.0; self.count()];
        for day in self.days.iter().filter(|day| !day.is_empty()) {
            let n = day.len() as f64;
            let share = 1.0 - (1.0 + ratio * n).sqrt().recip();
            let mean = day.iter().map(|pull| of(*pull)).sum::<f64>() / n;
            day.iter().for_each(|pull| all[*pull] = of(*pull) - share * mean);
        }
        all
    }

    fn normal(&self, ratio: f64) -> (Mat<f64>, Vec<Vec<f64>>) {
        let columns: Vec<Vec<f64>> =
            (0..self.columns()).map(|column| self.shrunk(ratio, &|pull| self.rows[pull][column])).collect();
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        (Mat::from_fn(columns.len(), columns.len(), |i, j| dot(&columns[i], &columns[j])), columns)
    }

    pub(super) fn inverse(&self, ratio: f64) -> Option<Mat<f64>> {
        let (normal, _) = self.normal(ratio);
        let inverse = normal.llt(Side::Lower).ok()?.inverse();
        (0..inverse.nrows()).all(|i| inverse[(i, i)].is_finite()).then_some(inverse)
    }

    pub(super) fn solve(&self, ratio: f64, values: &[f64]) -> Option<Solved> {
        let (normal, columns) = self.normal(ratio);
        let own = self.shrunk(ratio, &|pull| values[pull]);
        let factor = normal.llt(Side::Lower).ok()?;
        let right = Mat::from_fn(columns.len(), 1, |i, _| columns[i].iter().zip(&own).map(|(a, b)| a * b).sum());
        let solved = factor.solve(&right);
        let coefficients: Vec<f64> = (0..columns.len()).map(|i| solved[(i, 0)]).collect();
        let fitted = |pull: usize| coefficients.iter().zip(&columns).map(|(b, x)| b * x[pull]).sum::<f64>();
        let left: Vec<f64> = (0..self.count()).map(|pull| own[pull] - fitted(pull)).collect();
        let squares = left.iter().map(|own| own * own).sum();
        let lower = factor.L();
        let determinant = (0..columns.len()).map(|i| 2.0 * lower[(i, i)].ln()).sum::<f64>();
        // What is left of a column once those before it are taken out; nearly nothing, and it says what they say.
        let left_of = |i: usize| lower[(i, i)] * lower[(i, i)] / normal[(i, i)];
        let is_whole =
            coefficients.iter().all(|own| own.is_finite()) && (0..columns.len()).all(|i| left_of(i) > SINGULAR);
        is_whole.then(|| Solved { coefficients, squares, inverse: factor.inverse(), determinant, left })
    }

    /// At a ratio: shrunk columns, the inverse of their normal matrix, and what of minus twice the restricted likelihood does not depend
    /// on values.
    pub(super) fn prepared(&self, ratio: f64) -> Option<(Vec<Vec<f64>>, Mat<f64>, f64)> {
        let zero = self.solve(ratio, &vec![0.0; self.count()])?;
        let (_, columns) = self.normal(ratio);
        Some((columns, zero.inverse, self.of_days(ratio) + zero.determinant))
    }

    fn of_days(&self, ratio: f64) -> f64 {
        self.days.iter().map(|day| (1.0 + ratio * day.len() as f64).ln()).sum()
    }

    /// The greatest restricted likelihood at a ratio, as minus twice its logarithm, with what it was solved to.
    pub(super) fn profile(&self, ratio: f64, values: &[f64]) -> Option<(f64, Solved)> {
        let solved = self.solve(ratio, values)?;
        let days = self.of_days(ratio);
        let variance = (solved.squares / self.freedom()).max(f64::MIN_POSITIVE);
        Some((self.freedom() * variance.ln() + days + solved.determinant, solved))
    }

    /// Whether days could differ.
    pub(super) fn has_days(&self) -> bool {
        self.days.iter().filter(|day| !day.is_empty()).count() > 1
    }

    /// The ratio of the greatest restricted likelihood, the variance at its best for each; nought with a single day.
    fn likeliest(&self, values: &[f64]) -> Option<f64> {
        if !self.has_days() {
            return Some(0.0);
        }
        let at = |ratio: f64| self.profile(ratio, values).map(|own| own.0);
        let (mut low, mut high) = (RATIOS[0], RATIOS[1]);
        let golden = 0.5 * (5_f64.sqrt() - 1.0);
        for _ in 0..STEPS {
            let (a, b) = (high - golden * (high - low), low + golden * (high - low));
            if at(a.exp())? < at(b.exp())? { high = b } else { low = a }
        }
        let best = (0.5 * (low + high)).exp();
        Some(if at(0.0)? <= at(best)? + 1e-9 { 0.0 } else { best })
    }

    /// Satterthwaite's degrees of freedom of what `spread` makes of ratio and variance: `2 f^2/(g' A g)`, `g` its gradient and `A`
    /// the covariance of both from the expected information of the restricted likelihood. Where days do not differ, those of the pulls.
    pub(super) fn satterthwaite(
        &self,
        (ratio, variance): (f64, f64),
        spread: &dyn Fn(f64, f64) -> Option<f64>,
    ) -> Option<f64> {
        if ratio <= 0.0 {
            return Some(self.freedom());
        }
        // In the variances of days and pulls themselves, of which the information is half the trace of P V_i P V_j.
        let (day, pull) = (ratio * variance, variance);
        let own = |day: f64, pull: f64| spread(day / pull, pull);
        let gradient = |step: [f64; 2]| {
            let [a, b] = step;
            Some((own(day + a, pull + b)? - own(day - a, pull - b)?) / (2.0 * (a + b)))
        };
        let gradient = [gradient([1e-4 * day, 0.0])?, gradient([0.0, 1e-4 * pull])?];
        let [[aa, ab], [_, bb]] = self.information(ratio, variance)?;
        let determinant = aa * bb - ab * ab;
        let covariance = [[bb / determinant, -ab / determinant], [-ab / determinant, aa / determinant]];
        let square: f64 = (0..2)
            .flat_map(|i| (0..2).map(move |j| (i, j)))
            .map(|(i, j)| gradient[i] * covariance[i][j] * gradient[j])
            .sum();
        let freedom = 2.0 * own(day, pull)?.powi(2) / square;
        freedom.is_finite().then(|| freedom.clamp(1.0, self.freedom()))
    }

    /// Expected information of the variances of days and of pulls: half the traces of `P D P D`, `P D P` and `P P`, `D` being one
    /// within a day. Sums over days in the place of products with `D`.
    fn information(&self, ratio: f64, variance: f64) -> Option<[[f64; 2]; 2]> {
        let count = self.count();
        // P = (V^-1 - V^-1 X (X' V^-1 X)^-1 X' V^-1), over the variance; V^-1 is one less a share of the day's mean.
        let inverse = self.inverse(ratio)?;
        let x = Mat::from_fn(count, self.columns(), |i, j| self.rows[i][j]);
        let mut vx = x.clone();
        for day in &self.days {
            let share = ratio / (1.0 + ratio * day.len() as f64);
            for column in 0..self.columns() {
                let sum: f64 = day.iter().map(|pull| x[(*pull, column)]).sum();
                day.iter().for_each(|pull| vx[(*pull, column)] -= share * sum);
            }
        }
        let mut p = &(&vx * &inverse) * vx.transpose();
        p.col_iter_mut().for_each(|column| column.iter_mut().for_each(|own| *own = -*own));
        for day in &self.days {
            let share = ratio / (1.0 + ratio * day.len() as f64);
            for a in day {
                p[(*a, *a)] += 1.0;
                day.iter().for_each(|b| p[(*a, *b)] -= share);
            }
        }
        let over_days = Mat::from_fn(count, self.days.len(), |a, day| self.days[day].iter().map(|b| p[(a, *b)]).sum());
        let both = Mat::from_fn(self.days.len(), self.days.len(), |one, other| {
            self.days[one].iter().map(|a| over_days[(*a, other)]).sum()
        });
        let squares =
            |of: &Mat<f64>| of.col_iter().map(|column| column.iter().map(|own| own * own).sum::<f64>()).sum::<f64>();
        let scale = 0.5 / (variance * variance);
        let beside = scale * squares(&over_days);
        Some([[scale * squares(&both), beside], [beside, scale * squares(&p)]])
    }
}
