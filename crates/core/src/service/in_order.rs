//! Entries that run forward.

/// Which of `values`, in the order of their days, are the longest row that never falls; the others are slips, or of another engine.
pub fn in_order(values: &[f64]) -> Vec<bool> {
    let mut longest: Vec<(usize, Option<usize>)> = Vec::with_capacity(values.len());
    for (place, value) in values.iter().enumerate() {
        // Of rows as long, the one that ends last: an odometer that was misread once is found on its own line.
        let before = (0..place).filter(|own| values[*own] <= *value).max_by_key(|own| (longest[*own].0, *own));
        longest.push((before.map_or(1, |own| longest[own].0 + 1), before));
    }
    let mut kept = vec![false; values.len()];
    let mut at = (0..values.len()).max_by_key(|own| (longest[*own].0, *own));
    while let Some(place) = at {
        kept[place] = true;
        at = longest[place].1;
    }
    kept
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_slip_is_the_one_that_is_left_out() {
        assert_eq!(in_order(&[0.0, 5.0, 5.0, 9.0]), [true; 4]);
        assert_eq!(in_order(&[0.0, 5000.0, 95000.0, 9000.0, 12000.0]), [true, true, false, true, true]);
        assert_eq!(in_order(&[0.0, 5000.0, 900.0, 12000.0]).iter().filter(|own| **own).count(), 3);
        assert_eq!(in_order(&[]), Vec::<bool>::new());
    }
}
