//! One root of one function of one number.

/// Root of a function that changes sign once between `low` and `high`: false position with the Illinois step.
/// To a millionth of the values at the ends, at most forty evaluations; without a change of sign the end with the
/// smaller value.
pub fn root(low: f64, high: f64, of: impl Fn(f64) -> f64) -> f64 {
    let (mut a, mut b) = (low, high);
    let (mut at_a, mut at_b) = (of(a), of(b));
    if at_a * at_b >= 0.0 {
        return if at_a.abs() < at_b.abs() { a } else { b };
    }
    let (tolerance, small) = (1e-8 * (high - low).abs(), 1e-6 * (at_a.abs() + at_b.abs()));
    for _ in 0..40 {
        let middle = (a * at_b - b * at_a) / (at_b - at_a);
        let value = of(middle);
        if value * at_b < 0.0 {
            (a, at_a) = (b, at_b);
        } else {
            at_a *= 0.5;
        }
        (b, at_b) = (middle, value);
        if value.abs() < small || (b - a).abs() < tolerance {
            break;
        }
    }
    b
}

/// The same, only where the function does change sign between `low` and `high`.
pub fn root_within(low: f64, high: f64, of: impl Fn(f64) -> f64) -> Option<f64> {
    (of(low) * of(high) < 0.0).then(|| root(low, high, of))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_root_is_found_where_the_sign_changes_and_nowhere_else() {
        let cube = |x: f64| x * x * x - 2.0;
        assert!((root_within(0.0, 2.0, cube).unwrap() - 2_f64.cbrt()).abs() < 1e-6);
        assert_eq!(root_within(2.0, 3.0, cube), None);
        assert!((root(2.0, 3.0, cube) - 2.0).abs() < 1e-12, "the end with the smaller value");
    }
}
