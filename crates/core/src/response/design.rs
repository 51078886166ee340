//! Points that fill a cube evenly: Sobol's sequence with Owen's scrambling [Sobol 1967; Owen 1995; Burley 2020], the same
//! for the same seed.

/// Point `index` of the sequence in -1..1 in every variable, denser towards the sides, where a quadratic is held least: the
/// density of Chebyshev's nodes.
pub fn towards_the_sides(index: usize, variables: usize, seed: u32) -> Vec<f64> {
    let half_turn = 0.5 * std::f64::consts::PI;
    evenly(index, variables, seed).into_iter().map(|share| (half_turn * (2.0 * share - 1.0)).sin()).collect()
}

/// Point `index` of the sequence in 0..1 in every variable.
pub fn evenly(index: usize, variables: usize, seed: u32) -> Vec<f64> {
    let index = u32::try_from(index).unwrap_or(u32::MAX);
    (0..variables as u32).map(|variable| f64::from(sobol_burley::sample(index, variable, seed))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sixty_four_points_lie_evenly_in_every_variable_and_the_same_every_time() {
        let points: Vec<Vec<f64>> = (0..64).map(|i| evenly(i, 6, 1)).collect();
        for variable in 0..6 {
            // A net in base two: each eighth of a side holds as many points.
            for eighth in 0..8 {
                let (low, high) = (f64::from(eighth) / 8.0, f64::from(eighth + 1) / 8.0);
                let within = points.iter().filter(|point| (low..high).contains(&point[variable])).count();
                assert_eq!(within, 8, "variable {variable}, eighth {eighth}");
            }
        }
        assert_eq!(points[17], evenly(17, 6, 1));
        assert_ne!(points[17], evenly(17, 6, 2));
    }
}
