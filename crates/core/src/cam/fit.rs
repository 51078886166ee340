//! What the two ways to a lobe share on a spline basis: the integral of jerk squared, and the step
//! from B-spline coefficients to polynomials.

use super::bspline::{Basis, DEGREE};

/// `int s'''^2 du` over the whole basis as a symmetric banded matrix in the coefficients.
pub fn gram_of_jerk(basis: &Basis) -> Vec<Vec<f64>> {
    // Gauss-Legendre, three points: exact for the degree four of the integrand.
    let half = 0.6_f64.sqrt() / 2.0;
    let points = [(0.5 - half, 5.0 / 18.0), (0.5, 8.0 / 18.0), (0.5 + half, 5.0 / 18.0)];
    let mut gram = vec![vec![0.0; basis.len()]; basis.len()];
    for span in 0..basis.spans() {
        for (place, weight) in points {
            let jerk = basis.row_in(span, span as f64 + place).values[3];
            for i in 0..=DEGREE {
                for j in 0..=DEGREE {
                    gram[span + i][span + j] += weight * jerk[i] * jerk[j];
                }
            }
        }
    }
    gram
}

/// The polynomial of `span` about `u`, in powers of `angle`, where one knot span is `span_deg`
/// degrees (negative to mirror) and one unit of the spline is `scale` metres.
pub fn taylor(basis: &Basis, coefficients: &[f64], span: usize, u: f64, span_deg: f64, scale: f64) -> [f64; 6] {
    let derivative = |order: usize, at: f64| -> f64 {
        let row = basis.row_in(span, at);
        (0..=DEGREE).map(|j| row.values[order][j] * coefficients[span + j]).sum()
    };
    // The fifth derivative is constant on a span: the slope of the fourth.
    let start = span as f64;
    let fifth = derivative(4, start + 1.0) - derivative(4, start);
    let mut powers = [0.0; 6];
    let mut factor = scale;
    for (order, power) in powers.iter_mut().enumerate() {
        if order > 0 {
            factor /= order as f64 * span_deg;
        }
        *power = factor * if order < 5 { derivative(order, u) } else { fifth };
    }
    powers
}
