//! A polynomial through computed points: several quantities in the same few variables, with what it misses of each point when
//! that point is left out.
//!
//! Least squares by a QR factorisation; the leave-one-out error of a point is its residual over one less its leverage, which
//! is exact for least squares [PRESS: Allen 1974; Myers, Montgomery, Anderson-Cook, *Response surface methodology*].

use faer::linalg::solvers::SolveLstsqCore;
use faer::{Conj, Mat, Par};

/// Which terms a polynomial has.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Terms {
    /// One and the variables.
    Linear,
    /// Their squares and products too.
    Products,
}

impl Terms {
    /// How many, in so many variables.
    pub const fn count(self, variables: usize) -> usize {
        match self {
            Self::Linear => 1 + variables,
            Self::Products => (variables + 1) * (variables + 2) / 2,
        }
    }

    /// As many as so many points hold.
    pub const fn held_by(points: usize, variables: usize) -> Self {
        if points > Self::Products.count(variables) { Self::Products } else { Self::Linear }
    }

    /// Each at `x`.
    fn at(self, x: &[f64]) -> Vec<f64> {
        let mut row = Vec::with_capacity(self.count(x.len()));
        row.push(1.0);
        row.extend_from_slice(x);
        if self == Self::Products {
            for (place, one) in x.iter().enumerate() {
                row.extend(x[place..].iter().map(|other| one * other));
            }
        }
        row
    }
}

/// A fitted polynomial. Variables lie about -1..1.
#[derive(Debug, Clone, PartialEq)]
pub struct Polynomial {
    terms: Terms,
    columns: usize,
    /// Term by term, each with one number for every column.
    coefficients: Vec<f64>,
}

/// What a fit comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Fit {
    /// The polynomials.
    pub polynomial: Polynomial,
    /// Every point's columns as they would be predicted without it, point by point.
    pub left_out: Vec<Vec<f64>>,
}

/// Root of the mean of the squares.
pub fn root_mean_square(values: impl Iterator<Item = f64>) -> f64 {
    let (sum, count) = values.fold((0.0, 0.0), |(sum, count), value| (value.mul_add(value, sum), count + 1.0));
    (sum / f64::max(count, 1.0)).sqrt()
}

impl Fit {
    /// Root of the mean square of what is missed of `values` in one column, each point left out.
    pub fn missed(&self, values: &[Vec<f64>], column: usize) -> f64 {
        root_mean_square(self.left_out.iter().zip(values).map(|(left, own)| left[column] - own[column]))
    }
}

/// Fits `values` at `points`, all rows of the same length; `None` with fewer points than terms or points that do not tell
/// the terms apart.
pub fn fit(terms: Terms, points: &[Vec<f64>], values: &[Vec<f64>]) -> Option<Fit> {
    let (variables, columns) = (points.first()?.len(), values.first()?.len());
    let unknowns = terms.count(variables);
    if points.len() <= unknowns || points.len() != values.len() {
        return None;
    }
    let rows: Vec<Vec<f64>> = points.iter().map(|point| terms.at(point)).collect();
    let design = Mat::from_fn(rows.len(), unknowns, |i, j| rows[i][j]);
    let mut solved = Mat::from_fn(rows.len(), columns, |i, j| values[i][j]);
    let qr = faer::linalg::solvers::Qr::new(design.as_ref());
    // In one thread, whatever the number of cores: the same bits.
    faer::set_global_parallelism(Par::Seq);
    qr.solve_lstsq_in_place_with_conj(Conj::No, solved.as_mut());
    let thin = qr.compute_thin_Q();
    let coefficients = (0..unknowns).flat_map(|term| (0..columns).map(move |column| (term, column)));
    let coefficients: Vec<f64> = coefficients.map(|(term, column)| solved[(term, column)]).collect();
    if coefficients.iter().any(|value| !value.is_finite()) {
        return None;
    }
    let polynomial = Polynomial { terms, columns, coefficients };
    let left_out = points.iter().zip(values).enumerate().map(|(i, (point, value))| {
        let leverage: f64 = (0..unknowns).map(|j| thin[(i, j)] * thin[(i, j)]).sum();
        let fitted = polynomial.at(point);
        let without = |(value, fitted): (&f64, f64)| value - (value - fitted) / (1.0 - leverage).max(1e-9);
        value.iter().zip(fitted).map(without).collect()
    });
    let left_out = left_out.collect();
    Some(Fit { polynomial, left_out })
}

impl Polynomial {
    /// Of no quantity.
    pub const fn nothing() -> Self {
        Self { terms: Terms::Linear, columns: 0, coefficients: Vec::new() }
    }

    /// So many times as much everywhere.
    #[must_use]
    pub fn scaled(mut self, by: f64) -> Self {
        self.coefficients.iter_mut().for_each(|own| *own *= by);
        self
    }

    /// So much more everywhere, column by column.
    #[must_use]
    pub fn with_more(mut self, more: &[f64]) -> Self {
        // The first term is the constant.
        self.coefficients.iter_mut().zip(more).for_each(|(own, more)| *own += more);
        self
    }

    /// Every column at `x`.
    pub fn at(&self, x: &[f64]) -> Vec<f64> {
        let mut sums = vec![0.0; self.columns];
        if self.columns == 0 {
            return sums;
        }
        for (term, own) in self.terms.at(x).into_iter().zip(self.coefficients.chunks_exact(self.columns)) {
            for (sum, coefficient) in sums.iter_mut().zip(own) {
                *sum += term * coefficient;
            }
        }
        sums
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::response::towards_the_sides;

    /// A quadratic in three variables and one with a cubic on top.
    fn value(x: &[f64], cubic: f64) -> Vec<f64> {
        let [a, b, c] = [x[0], x[1], x[2]];
        vec![2.0 - a + 3.0 * b * c - 0.5 * a * a + 0.25 * b * b + cubic * a * a * a, 7.0 * c]
    }

    fn fitted(cubic: f64) -> (Fit, Vec<Vec<f64>>) {
        let points: Vec<Vec<f64>> = (0..25).map(|i| towards_the_sides(i, 3, 3)).collect();
        let values: Vec<Vec<f64>> = points.iter().map(|x| value(x, cubic)).collect();
        (fit(Terms::Products, &points, &values).unwrap(), points)
    }

    #[test]
    fn a_quadratic_is_found_again() {
        let (found, _) = fitted(0.0);
        let at = [0.3, -0.7, 0.9];
        for (found, own) in found.polynomial.at(&at).iter().zip(value(&at, 0.0)) {
            assert!((found - own).abs() < 1e-12, "{found} for {own}");
        }
    }

    /// Against the definition: every point left out in turn and the rest fitted again.
    #[test]
    fn what_it_misses_of_a_point_left_out_is_what_a_fit_without_it_misses() {
        let (found, points) = fitted(0.4);
        for left in [0, 7, 24] {
            let keep = |i: &usize| *i != left;
            let rest: Vec<Vec<f64>> = (0..25).filter(keep).map(|i| points[i].clone()).collect();
            let values: Vec<Vec<f64>> = rest.iter().map(|x| value(x, 0.4)).collect();
            let without = fit(Terms::Products, &rest, &values).unwrap().polynomial.at(&points[left]);
            for (left_out, without) in found.left_out[left].iter().zip(without) {
                assert!((left_out - without).abs() < 1e-10, "{left_out} for {without}");
            }
        }
    }

    #[test]
    fn too_few_points_or_a_column_of_the_same_make_no_fit() {
        let points: Vec<Vec<f64>> = (0..10).map(|i| towards_the_sides(i, 3, 3)).collect();
        let values: Vec<Vec<f64>> = points.iter().map(|x| value(x, 0.0)).collect();
        assert!(fit(Terms::Products, &points, &values).is_none(), "ten terms, ten points");
        let flat = vec![vec![0.5, 0.5, 0.5]; 25];
        let values = vec![vec![1.0]; 25];
        let flat = fit(Terms::Products, &flat, &values);
        assert!(flat.is_none_or(|found| found.left_out.iter().flatten().all(|value| value.is_finite())));
    }
}
