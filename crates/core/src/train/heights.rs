//! Shims under springs: which of a kit bring every valve to one height, and the fewest that even them; other locks where shims alone
//! do not.

/// Most shims under one spring.
const MOST: usize = 4;

/// A valve's shims and the height they leave.
#[derive(Debug, Clone, PartialEq)]
pub struct Shimmed {
    /// Thicknesses, thickest first, m.
    pub shims: Vec<f64>,
    /// How much higher other locks hold its retainer, m; zero with its own.
    pub lock: f64,
    /// Installed height with them, m.
    pub height: f64,
}

/// Every pile of up to [`MOST`] shims of a kit, each with its thickness, the fewest shims first.
pub fn piles(kit: &[f64]) -> Vec<Vec<f64>> {
    let mut sizes: Vec<f64> = kit.iter().copied().filter(|size| *size > 0.0).collect();
    sizes.sort_by(|a, b| b.total_cmp(a));
    let mut all = vec![Vec::new()];
    let mut last: Vec<(usize, Vec<f64>)> = vec![(0, Vec::new())];
    for _ in 0..MOST {
        // A pile grows by sizes no thicker than its thinnest, so that each is met once.
        let grown = last.iter().flat_map(|(from, pile)| {
            (*from..sizes.len()).map(|i| (i, pile.iter().copied().chain([sizes[i]]).collect::<Vec<f64>>()))
        });
        last = grown.collect();
        all.extend(last.iter().map(|(_, pile)| pile.clone()));
    }
    all
}

/// What may go under a spring and above it.
#[derive(Debug, Clone, Copy)]
pub struct AtHand<'a> {
    /// Thicknesses of shims, m.
    pub kit: &'a [f64],
    /// How much higher other locks hold a retainer, lower where negative, m.
    pub locks: &'a [f64],
}

/// The fewest shims that bring each height (m) to `wanted` within `within` (m, each way), with other locks where none do without;
/// where nothing does, what comes nearest. Shims only shorten: a valve below `wanted` needs locks that hold higher.
pub fn to_height(heights: &[f64], at_hand: AtHand<'_>, wanted: f64, within: f64) -> Vec<Shimmed> {
    let piles = piles(at_hand.kit);
    let mut locks = at_hand.locks.to_vec();
    locks.sort_by(|a, b| a.abs().total_cmp(&b.abs()));
    locks.insert(0, 0.0);
    let ways: Vec<(f64, &Vec<f64>)> =
        locks.iter().flat_map(|lock| piles.iter().map(move |pile| (*lock, pile))).collect();
    let left = |height: f64, (lock, pile): &(f64, &Vec<f64>)| height + lock - pile.iter().sum::<f64>();
    let shimmed = |height: f64| {
        let off = |way: &(f64, &Vec<f64>)| (left(height, way) - wanted).abs();
        let met = ways.iter().find(|way| off(way) <= within + 1e-9);
        let nearest = || ways.iter().min_by(|a, b| off(a).total_cmp(&off(b)));
        let none = (0.0, &piles[0]);
        let way = met.or_else(nearest).unwrap_or(&none);
        Shimmed { height: left(height, way), lock: way.0, shims: way.1.clone() }
    };
    heights.iter().map(|height| shimmed(*height)).collect()
}

/// Whether every valve stands within `within` of `wanted`.
fn is_even(valves: &[Shimmed], wanted: f64, within: f64) -> bool {
    valves.iter().all(|valve| (valve.height - wanted).abs() <= within + 1e-9)
}

/// The height between `low` and `high` (m) that the fewest shims even all valves at within `within`, nearest `wanted` where
/// several do, with them; `None` where no height does.
pub fn evened(
    heights: &[f64],
    at_hand: AtHand<'_>,
    (low, wanted, high): (f64, f64, f64),
    within: f64,
) -> Option<(f64, Vec<Shimmed>)> {
    let piles = piles(at_hand.kit);
    // A best height leaves some valve at the edge of what is allowed: any other can be moved there.
    let edges = heights.iter().flat_map(|height| {
        piles.iter().flat_map(move |pile| {
            let left = height - pile.iter().sum::<f64>();
            [left - within, left, left + within]
        })
    });
    let mut tried: Vec<f64> = edges.chain([wanted]).filter(|at| (low..=high).contains(at)).collect();
    tried.sort_by(|a, b| (a - wanted).abs().total_cmp(&(b - wanted).abs()));
    tried.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
    let plans = tried.into_iter().map(|at| (at, to_height(heights, at_hand, at, within)));
    plans.filter(|(at, valves)| is_even(valves, *at, within)).min_by_key(|(_, valves)| work(valves))
}

/// Shims of all valves.
pub fn count(valves: &[Shimmed]) -> usize {
    valves.iter().map(|valve| valve.shims.len()).sum()
}

/// Shims and changed locks of all valves.
fn work(valves: &[Shimmed]) -> usize {
    count(valves) + valves.iter().filter(|valve| valve.lock != 0.0).count()
}

#[cfg(test)]
mod tests {
    use super::*;

    const INCH: f64 = 0.0254;
    const KIT: [f64; 3] = [0.015 * INCH, 0.030 * INCH, 0.060 * INCH];

    const ALONE: AtHand<'static> = AtHand { kit: &KIT, locks: &[] };

    fn inches(values: &[f64]) -> Vec<f64> {
        values.iter().map(|value| value * INCH).collect()
    }

    #[test]
    fn each_valve_gets_the_fewest_shims_that_bring_it_there() {
        // By hand: 1.862 less .060 is 1.802; 1.847 less .045 (two shims) 1.802; 1.801 none; 1.790 cannot be made taller.
        let found = to_height(&inches(&[1.862, 1.847, 1.801, 1.790]), ALONE, 1.800 * INCH, 0.005 * INCH);
        let shims: Vec<Vec<i32>> = found
            .iter()
            .map(|valve| valve.shims.iter().map(|size| (size / INCH * 1000.0).round() as i32).collect())
            .collect();
        assert_eq!(shims, [vec![60], vec![30, 15], vec![], vec![]]);
        assert!((found[3].height - 1.790 * INCH).abs() < 1e-9);
    }

    #[test]
    fn other_locks_are_taken_where_shims_alone_do_not() {
        // By hand: 1.790 with locks .050 higher is 1.840, less .045 (30 and 15) 1.795; 1.812 is met by .015 and keeps its own; what
        // lies .060 too tall is met by a shim, not by locks that hold lower.
        let locks = inches(&[0.050, -0.050]);
        let at_hand = AtHand { kit: &KIT, locks: &locks };
        let found = to_height(&inches(&[1.790, 1.812, 1.860]), at_hand, 1.800 * INCH, 0.005 * INCH);
        let read = |own: f64| (own / INCH * 1000.0).round() as i32;
        let told: Vec<_> = found
            .iter()
            .map(|own| (read(own.lock), own.shims.iter().map(|shim| read(*shim)).collect::<Vec<_>>()))
            .collect();
        assert_eq!(told, [(50, vec![30, 15]), (0, vec![15]), (0, vec![60])]);
        assert!(found.iter().all(|own| (own.height / INCH - 1.800).abs() < 0.0051));
        // Nothing brings it there: what comes nearest.
        let far = to_height(&inches(&[1.700]), at_hand, 1.800 * INCH, 0.005 * INCH);
        assert_eq!((read(far[0].lock), far[0].shims.len()), (50, 0));
    }

    #[test]
    fn heights_are_evened_where_the_fewest_shims_do() {
        // At 1.800 three need one each; at 1.830 one does.
        let heights = inches(&[1.830, 1.831, 1.829, 1.860]);
        let wide = (1.790 * INCH, 1.800 * INCH, 1.840 * INCH);
        let (at, valves) = evened(&heights, ALONE, wide, 0.003 * INCH).unwrap();
        assert_eq!(count(&valves), 1);
        assert!((at / INCH - 1.830).abs() < 0.004 && is_even(&valves, at, 0.003 * INCH), "{}", at / INCH);
        // Held near what is wanted it takes them.
        let near = (1.795 * INCH, 1.800 * INCH, 1.805 * INCH);
        assert_eq!(count(&evened(&heights, ALONE, near, 0.003 * INCH).unwrap().1), 4);
        // No kit evens what lies between its steps.
        assert_eq!(evened(&inches(&[1.800, 1.806]), AtHand { kit: &KIT[2..], locks: &[] }, near, 0.001 * INCH), None);
    }

    #[test]
    fn no_fewer_shims_do_by_trying_every_pile() {
        // Against every choice of piles for three valves.
        let (heights, within) = (inches(&[1.812, 1.841, 1.874]), 0.004 * INCH);
        let (low, wanted, high) = (1.780 * INCH, 1.800 * INCH, 1.820 * INCH);
        let (_, found) = evened(&heights, ALONE, (low, wanted, high), within).unwrap();
        let piles = piles(&KIT);
        let mut least = usize::MAX;
        for a in &piles {
            for b in &piles {
                for c in &piles {
                    let left: Vec<f64> =
                        heights.iter().zip([a, b, c]).map(|(h, pile)| h - pile.iter().sum::<f64>()).collect();
                    let (lowest, highest) =
                        (left.iter().copied().fold(f64::MAX, f64::min), left.iter().copied().fold(0.0, f64::max));
                    // A height within reach of all, inside the range.
                    let reach = (highest - within).max(low)..=(lowest + within).min(high);
                    if reach.start() <= reach.end() {
                        least = least.min(a.len() + b.len() + c.len());
                    }
                }
            }
        }
        assert_eq!(count(&found), least);
    }
}
