//! Springs from the tester: loads at heights, which spring goes under which valve, and with which shims.

use pathfinding::kuhn_munkres::kuhn_munkres_min;
use pathfinding::matrix::Matrix;

/// A spring as the tester read it: heights and loads, m and N, the tallest first.
#[derive(Debug, Clone, PartialEq)]
pub struct Tested(pub Vec<(f64, f64)>);

/// Load at a height, N, on the line through the two readings next to it; `None` of fewer than two.
pub fn load_at(spring: &Tested, height: f64) -> Option<f64> {
    let points = &spring.0;
    let place = points.windows(2).position(|two| height >= two[1].0).unwrap_or(points.len().checked_sub(2)?);
    let (tall, short) = (points.get(place)?, points.get(place + 1)?);
    let share = (tall.0 - height) / (tall.0 - short.0);
    share.is_finite().then_some(tall.1 + share * (short.1 - tall.1))
}

/// A spring under a valve.
#[derive(Debug, Clone, PartialEq)]
pub struct Fitted {
    /// Which spring, from nought.
    pub spring: usize,
    /// Shims under it, thickest first, m.
    pub shims: Vec<f64>,
    /// Installed height with them, m.
    pub height: f64,
    /// Load on the seat, N.
    pub load: f64,
}

/// Micronewtons: costs are whole numbers for the assignment.
const FINE: f64 = 1e6;
/// What a shim more is worth, N: of two ways that are as even, the one with fewer shims.
const A_SHIM: f64 = 0.01;

/// Springs and shims under valves so that the loads on the seat lie nearest to what each valve wants (the sum of what they are off
/// by is least; by Kuhn and Munkres). `heights` without shims and `wanted` by valve, m and N; `piles` are the shims that may be
/// used, thickest first, one of them none. `None` with fewer springs than valves, or of springs that were not read twice.
pub fn fitted(springs: &[Tested], heights: &[f64], wanted: &[f64], piles: &[Vec<f64>]) -> Option<Vec<Fitted>> {
    if springs.len() < heights.len() || heights.is_empty() || heights.len() != wanted.len() {
        return None;
    }
    let best = |spring: &Tested, valve: usize| -> Option<(f64, Fitted)> {
        let way = |pile: &Vec<f64>| {
            let height = heights[valve] - pile.iter().sum::<f64>();
            let load = load_at(spring, height)?;
            let cost = (load - wanted[valve]).abs() + A_SHIM * pile.len() as f64;
            Some((cost, Fitted { spring: 0, shims: pile.clone(), height, load }))
        };
        piles.iter().filter_map(way).min_by(|a, b| a.0.total_cmp(&b.0))
    };
    let ways: Option<Vec<Vec<(f64, Fitted)>>> =
        (0..heights.len()).map(|valve| springs.iter().map(|spring| best(spring, valve)).collect()).collect();
    let ways = ways?;
    let costs = ways.iter().flatten().map(|(cost, _)| (FINE * cost) as i64).collect();
    let costs = Matrix::from_vec(heights.len(), springs.len(), costs).ok()?;
    let (_, chosen) = kuhn_munkres_min(&costs);
    let fit = |(valve, spring): (usize, usize)| Fitted { spring, ..ways[valve][spring].1.clone() };
    Some(chosen.into_iter().enumerate().map(fit).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn spring(seat: f64, rate: f64) -> Tested {
        Tested(vec![(0.0457, seat), (0.0330, seat + rate * 0.0127)])
    }

    #[test]
    fn a_load_lies_on_the_line_between_readings() {
        let own = Tested(vec![(0.046, 600.0), (0.036, 1000.0), (0.030, 1300.0)]);
        let near = |height: f64, load: f64| assert!((load_at(&own, height).unwrap() - load).abs() < 1e-9, "{height}");
        near(0.041, 800.0);
        near(0.033, 1150.0);
        // Beyond the readings the last line goes on.
        near(0.048, 520.0);
        near(0.028, 1400.0);
        assert_eq!(load_at(&Tested(vec![(0.046, 600.0)]), 0.046), None);
    }

    #[test]
    fn no_other_way_is_nearer() {
        // Every order of three springs under two valves with every pile, by trying them.
        let springs = [spring(620.0, 60e3), spring(600.0, 58e3), spring(655.0, 61e3)];
        let (heights, wanted) = ([0.0457, 0.0470], [610.0, 640.0]);
        let piles = vec![vec![], vec![0.000_381], vec![0.000_762], vec![0.000_762, 0.000_381]];
        let found = fitted(&springs, &heights, &wanted, &piles).unwrap();
        let off = |fits: &[Fitted]| fits.iter().zip(&wanted).map(|(own, want)| (own.load - want).abs()).sum::<f64>();
        let mut least = f64::MAX;
        for a in 0..3 {
            for b in (0..3).filter(|b| *b != a) {
                for one in &piles {
                    for other in &piles {
                        let load = |spring: usize, valve: usize, pile: &[f64]| {
                            load_at(&springs[spring], heights[valve] - pile.iter().sum::<f64>()).unwrap()
                                - wanted[valve]
                        };
                        least = least.min(load(a, 0, one).abs() + load(b, 1, other).abs());
                    }
                }
            }
        }
        assert!(off(&found) <= least + 0.05, "{} for {least}", off(&found));
        assert_ne!(found[0].spring, found[1].spring);
        assert_eq!(fitted(&springs[..1], &heights, &wanted, &piles), None);
    }
}
