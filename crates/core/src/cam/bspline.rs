//! Clamped uniform quintic B-splines on `[0, spans]`, one unit per knot span.
//!
//! Basis values and derivatives by the recurrences of Piegl and Tiller, *The NURBS Book*,
//! algorithm A2.3 (number from memory). Everything depends only on the number of spans, so a lobe
//! scales angle and lift outside and reuses the basis.

/// Degree of the spline: quintic, so that jerk is continuous and its integral is smooth.
pub const DEGREE: usize = 5;

/// Basis of a clamped uniform quintic spline.
#[derive(Debug, Clone, PartialEq)]
pub struct Basis {
    spans: usize,
    knots: Vec<f64>,
}

/// The six basis functions that are not zero at a place, with four derivatives.
#[derive(Debug, Clone, Copy)]
pub struct Row {
    /// Index of the first of the six coefficients.
    pub first: usize,
    /// `values[d][j]`: derivative `d` of basis function `first + j`.
    pub values: [[f64; DEGREE + 1]; 5],
}

impl Basis {
    /// The basis over `spans` (at least one) knot spans.
    pub fn new(spans: usize) -> Self {
        let inner = (0..=spans).map(|i| i as f64);
        let knots =
            std::iter::repeat_n(0.0, DEGREE).chain(inner).chain(std::iter::repeat_n(spans as f64, DEGREE)).collect();
        Self { spans, knots }
    }

    /// Number of knot spans.
    pub const fn spans(&self) -> usize {
        self.spans
    }

    /// Number of coefficients.
    pub const fn len(&self) -> usize {
        self.spans + DEGREE
    }

    /// The basis at `u` in `[0, spans]`, seen from the span `u` lies in.
    pub fn row(&self, u: f64) -> Row {
        let span = (u.max(0.0) as usize).min(self.spans - 1);
        self.row_in(span, u)
    }

    /// The basis at `u` by the polynomials of `span`, which `u` may border.
    pub fn row_in(&self, span: usize, u: f64) -> Row {
        const P: usize = DEGREE;
        let knot = span + P;
        let t = &self.knots;
        let mut table = [[0.0; P + 1]; P + 1];
        let (mut left, mut right) = ([0.0; P + 1], [0.0; P + 1]);
        table[0][0] = 1.0;
        for j in 1..=P {
            left[j] = u - t[knot + 1 - j];
            right[j] = t[knot + j] - u;
            let mut saved = 0.0;
            for r in 0..j {
                table[j][r] = right[r + 1] + left[j - r];
                let part = table[r][j - 1] / table[j][r];
                table[r][j] = saved + right[r + 1] * part;
                saved = left[j - r] * part;
            }
            table[j][j] = saved;
        }
        let mut values = [[0.0; P + 1]; 5];
        for (j, value) in values[0].iter_mut().enumerate() {
            *value = table[j][P];
        }
        derivatives(&table, &mut values);
        Row { first: span, values }
    }

    /// Coefficients of the derivative spline: `(i, weights)` with `q_i = w0 c_i + w1 c_(i+1)`,
    /// for a spline of `degree` on these knots with its outer knots dropped.
    fn difference(&self, degree: usize) -> Vec<(f64, f64)> {
        let drop = DEGREE - degree;
        let knots = &self.knots[drop..self.knots.len() - drop];
        let count = knots.len() - degree - 1;
        (0..count - 1)
            .map(|i| {
                let width = (knots[i + degree + 1] - knots[i + 1]) / degree as f64;
                (-1.0 / width, 1.0 / width)
            })
            .collect()
    }

    /// Control coefficients of the second derivative, each as weights of three coefficients.
    /// Where they keep one sign the acceleration does, and it changes sign no more often than they.
    pub fn acceleration_controls(&self) -> Vec<[f64; 3]> {
        let first = self.difference(DEGREE);
        let second = self.difference(DEGREE - 1);
        second
            .iter()
            .enumerate()
            .map(|(i, (a, b))| {
                let ((p, q), (r, s)) = (first[i], first[i + 1]);
                [a * p, a * q + b * r, b * s]
            })
            .collect()
    }
}

/// The derivative part of A2.3.
fn derivatives(table: &[[f64; DEGREE + 1]; DEGREE + 1], values: &mut [[f64; DEGREE + 1]; 5]) {
    const P: usize = DEGREE;
    for r in 0..=P {
        let mut a = [[0.0; P + 1]; 2];
        a[0][0] = 1.0;
        let (mut now, mut next) = (0, 1);
        for k in 1..values.len() {
            let mut sum = 0.0;
            let pk = P - k;
            if r >= k {
                a[next][0] = a[now][0] / table[pk + 1][r - k];
                sum = a[next][0] * table[r - k][pk];
            }
            let low = if r + 1 >= k { 1 } else { k - r };
            let high = if r <= pk + 1 { k - 1 } else { P - r };
            for j in low..=high {
                let at = r + j - k;
                a[next][j] = (a[now][j] - a[now][j - 1]) / table[pk + 1][at];
                sum += a[next][j] * table[at][pk];
            }
            if r <= pk {
                a[next][k] = -a[now][k - 1] / table[pk + 1][r];
                sum += a[next][k] * table[r][pk];
            }
            values[k][r] = sum;
            std::mem::swap(&mut now, &mut next);
        }
    }
    let mut factor = P as f64;
    for (k, row) in values.iter_mut().enumerate().skip(1) {
        for value in row.iter_mut() {
            *value *= factor;
        }
        factor *= (P - k) as f64;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn value(basis: &Basis, c: &[f64], u: f64, d: usize) -> f64 {
        let row = basis.row(u);
        (0..=DEGREE).map(|j| row.values[d][j] * c[row.first + j]).sum()
    }

    #[test]
    fn the_basis_sums_to_one_and_its_derivatives_to_zero() {
        let basis = Basis::new(7);
        let ones = vec![1.0; basis.len()];
        for u in [0.0, 0.3, 1.0, 3.7, 6.999, 7.0] {
            assert!((value(&basis, &ones, u, 0) - 1.0).abs() < 1e-13);
            for d in 1..5 {
                assert!(value(&basis, &ones, u, d).abs() < 1e-10, "d{d} at {u}");
            }
        }
    }

    #[test]
    fn derivatives_agree_with_central_differences() {
        let basis = Basis::new(9);
        let c: Vec<f64> = (0..basis.len()).map(|i| (i as f64 * 1.7).sin()).collect();
        let step = 1e-4;
        for u in [0.5, 2.25, 4.5, 8.4] {
            for d in 0..4 {
                let slope = (value(&basis, &c, u + step, d) - value(&basis, &c, u - step, d)) / (2.0 * step);
                // Truncation of the difference is step^2/6 times a derivative of order ten.
                assert!((slope - value(&basis, &c, u, d + 1)).abs() < 1e-5, "d{d} at {u}");
            }
        }
    }

    #[test]
    fn acceleration_controls_at_the_ends_are_the_end_accelerations() {
        let basis = Basis::new(6);
        let c: Vec<f64> = (0..basis.len()).map(|i| (i as f64).powi(3)).collect();
        let controls = basis.acceleration_controls();
        let at = |i: usize| controls[i].iter().zip(&c[i..]).map(|(w, c)| w * c).sum::<f64>();
        assert!((at(0) - value(&basis, &c, 0.0, 2)).abs() < 1e-9);
        assert!((at(controls.len() - 1) - value(&basis, &c, 6.0, 2)).abs() < 1e-9);
    }
}
