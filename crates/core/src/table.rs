//! Values between the rows of a table.

/// `y` at `x` on a table of rising `x`: linear between its rows, held beyond its ends. Zero when it is empty.
pub fn held(table: &[(f64, f64)], x: f64) -> f64 {
    let above = table.partition_point(|(at, _)| *at <= x);
    match (above.checked_sub(1).map(|i| table[i]), table.get(above)) {
        (Some((x0, y0)), Some((x1, y1))) => y0 + (x - x0) / (x1 - x0) * (y1 - y0),
        (Some((_, last)), None) => last,
        (None, Some((_, first))) => *first,
        (None, None) => 0.0,
    }
}

/// The same, extended beyond its ends by the slope of the nearest two rows.
pub fn extended(table: &[(f64, f64)], x: f64) -> f64 {
    let line = |a: (f64, f64), b: (f64, f64)| a.1 + (x - a.0) / (b.0 - a.0) * (b.1 - a.1);
    match table {
        [first, second, ..] if x < first.0 => line(*first, *second),
        [.., before, last] if x > last.0 => line(*before, *last),
        _ => held(table, x),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn between_rows_linear_and_beyond_the_ends_held() {
        let table = [(1.0, 10.0), (2.0, 30.0), (4.0, 10.0)];
        for (x, y) in [(0.0, 10.0), (1.0, 10.0), (1.5, 20.0), (2.0, 30.0), (3.0, 20.0), (9.0, 10.0)] {
            assert!((held(&table, x) - y).abs() < 1e-12, "{x}");
        }
        assert_eq!(held(&[], 3.0), 0.0);
    }

    #[test]
    fn extended_goes_on_as_the_ends_go() {
        let table = [(1.0, 10.0), (2.0, 30.0), (4.0, 10.0)];
        for (x, y) in [(0.0, -10.0), (1.5, 20.0), (5.0, 0.0)] {
            assert!((extended(&table, x) - y).abs() < 1e-12, "{x}");
        }
    }
}
