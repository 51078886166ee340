//! What is wrong with a curve of torque beside the one it is held against: where it falls away, goes flat, sags, scatters.
//!
//! Everything is looked for in the ratio of both, which the shape of the engine's own curve does not trouble. A break is a line that bends:
//! `r = a + b (s - s0) + c max(0, s - k)`, least squares over every k, held against the line without a bend by what it leaves [segmented
//! regression: Hinkley 1971; from memory].

use super::level::median;

/// Something that is wrong.
#[derive(Debug, Clone, PartialEq)]
pub enum Symptom {
    /// It falls more steeply from a speed on, beyond the reference's peak of power.
    NoseOver {
        /// rpm.
        from: f64,
        /// Share of the torque that is lost at its end.
        falls: f64,
    },
    /// Power stands still from a speed on, where the reference still rises.
    Flat {
        /// rpm.
        from: f64,
        /// Share of the torque that is lost at its end.
        falls: f64,
    },
    /// It loses more and more with speed, without a break.
    Fades {
        /// Share of the torque that is lost at its end more than at its beginning.
        falls: f64,
    },
    /// It is low in one stretch, and as it should be on both sides.
    Sag {
        /// rpm.
        from: f64,
        /// rpm.
        to: f64,
        /// Share of the torque that is lost at its deepest.
        deep: f64,
    },
    /// It is low all over, by about the same share.
    Low {
        /// That share.
        by: f64,
    },
    /// Points scatter from a speed on.
    Scatter {
        /// rpm.
        from: f64,
        /// Their spread over that below.
        times: f64,
    },
}

/// How far a ratio has to be off before anything is made of it, as a share: a pull of the same engine before, or what a model predicts
/// (common practice, no source).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Trust {
    /// Of a break or a sag.
    pub shape: f64,
    /// Of the whole.
    pub level: f64,
}

impl Trust {
    /// Of pulls of the same engine.
    pub const BEFORE: Self = Self { shape: 0.012, level: 0.02 };
    /// Of a prediction that knows the engine as well as its document does.
    pub const PREDICTED: Self = Self { shape: 0.03, level: 0.06 };
}

/// Fewest speeds on either side of a break.
const FEWEST: usize = 5;
/// What a bend has to leave less than a line does, and how many spreads of a single speed it has to be.
const LEAVES: f64 = 0.6;
const SPREADS: f64 = 4.0;
/// Power within the first share of its highest is at it; it stands still while it stays within the second, and the reference's rises by as
/// much meanwhile.
const AT_ITS_HIGHEST: f64 = 0.01;
const STILL: f64 = 0.03;
/// Widest sag, as a share of all speeds.
const WIDE: f64 = 0.4;
/// Scatter: spread over that of the slower half, and least of it.
const SCATTERS: f64 = 3.0;
const LEAST_SCATTER: f64 = 0.006;
/// Stretches that scatter is looked for in, rpm.
const STRETCH: f64 = 250.0;
/// Standard deviation over the median of deviations, and of a second difference.
const OF_MEDIAN: f64 = 1.4826;
const OF_SECOND: f64 = 2.449;

/// What is wrong with `measured` beside `reference`, torques at the same rising `speeds`.
pub fn symptoms(speeds: &[f64], measured: &[f64], reference: &[f64], trust: Trust) -> Vec<Symptom> {
    let ratio: Vec<f64> = measured.iter().zip(reference).map(|(own, other)| own / other).collect();
    if ratio.len() < 3 * FEWEST || ratio.iter().any(|own| !own.is_finite()) {
        return Vec::new();
    }
    let least = trust.shape.max(SPREADS * noise(&ratio));
    let peak = peak_of_power(speeds, reference);
    let breaks = flat(&speeds[..=peak], (measured, reference), &ratio[..=peak], least)
        .or_else(|| nose_over(speeds, &ratio, (least, trust)));
    let mut found = Vec::new();
    let from = breaks.as_ref().map(|own| own.0);
    match breaks {
        Some((_, own)) => found.push(own),
        None => found.extend(sag(speeds, &ratio, least).or_else(|| fades(speeds, &ratio, least))),
    }
    let breaks = from;
    let end = breaks.unwrap_or(ratio.len());
    let level = median(&ratio[..end.max(FEWEST)]) - 1.0;
    if level < -trust.level {
        found.push(Symptom::Low { by: -level });
    }
    found
}

fn peak_of_power(speeds: &[f64], torques: &[f64]) -> usize {
    let power = |place: usize| torques[place] * speeds[place];
    (0..speeds.len()).max_by(|a, b| power(*a).total_cmp(&power(*b))).unwrap_or(0)
}

/// A break that loses at least so much by the end, and by how much.
fn breaking(speeds: &[f64], ratio: &[f64], least: f64) -> Option<(usize, f64)> {
    if speeds.len() < 3 * FEWEST {
        return None;
    }
    let own = bend(speeds, ratio)?;
    let falls = -own.bends * (speeds[speeds.len() - 1] - speeds[own.at]);
    (falls > least && own.left < LEAVES * left(&straight(speeds, ratio))).then_some((own.at, falls))
}

/// Power that is at its highest long before the reference's is, and stays there: up to where the reference's has risen to its peak.
fn flat(
    speeds: &[f64],
    (measured, reference): (&[f64], &[f64]),
    ratio: &[f64],
    least: f64,
) -> Option<(usize, Symptom)> {
    let power = |torques: &[f64], place: usize| torques[place] * speeds[place];
    let last = speeds.len() - 1;
    let highest = (0..=last).map(|place| power(measured, place)).fold(0.0, f64::max);
    let at = (0..=last).find(|place| power(measured, *place) >= (1.0 - AT_ITS_HIGHEST) * highest)?;
    let rises = power(reference, last) / power(reference, at) - 1.0;
    let stays = (at..=last).all(|place| power(measured, place) > (1.0 - STILL) * highest);
    let falls = median(ratio.get(..at)?) - median(&ratio[last.saturating_sub(2)..]);
    let is_flat = at >= FEWEST && stays && rises > STILL && falls > least;
    is_flat.then_some((at, Symptom::Flat { from: speeds[at], falls }))
}

fn nose_over(speeds: &[f64], ratio: &[f64], (least, trust): (f64, Trust)) -> Option<(usize, Symptom)> {
    let (at, falls) = breaking(speeds, ratio, least)?;
    is_whole(ratio, at, trust).then_some((at, Symptom::NoseOver { from: speeds[at], falls }))
}

/// A ratio that falls all the way, by a straight line of least squares.
fn fades(speeds: &[f64], ratio: &[f64], least: f64) -> Option<Symptom> {
    let rest = straight(speeds, ratio);
    let last = ratio.len() - 1;
    let falls = (ratio[0] - rest[0]) - (ratio[last] - rest[last]);
    (falls > least && falls > SPREADS * left(&rest)).then_some(Symptom::Fades { falls })
}

/// Whether what lies before a break is no dip of its own: a sag near the fast end bends a line as well.
fn is_whole(ratio: &[f64], at: usize, trust: Trust) -> bool {
    let threes: Vec<f64> = ratio[at..].windows(3).map(median).collect();
    let lowest = threes.iter().copied().fold(f64::INFINITY, f64::min);
    threes.last().is_some_and(|last| last - lowest < 0.5 * trust.shape)
}

/// From where points scatter: `residuals` are points of pulls (rpm, share off their own smooth curve), in any order.
pub fn scatter(residuals: &[(f64, f64)]) -> Option<Symptom> {
    let slowest = residuals.iter().map(|own| own.0).fold(f64::INFINITY, f64::min);
    let fastest = residuals.iter().map(|own| own.0).fold(0.0, f64::max);
    let count = ((fastest - slowest) / STRETCH).floor() as usize;
    if count < 4 {
        return None;
    }
    let spread = |stretch: usize| {
        let from = slowest + STRETCH * stretch as f64;
        let own: Vec<f64> =
            residuals.iter().filter(|(rpm, _)| (from..from + STRETCH).contains(rpm)).map(|own| own.1.abs()).collect();
        (own.len() >= FEWEST).then(|| OF_MEDIAN * median(&own))
    };
    let spreads: Vec<f64> = (0..count).map(|stretch| spread(stretch).unwrap_or(0.0)).collect();
    let usual = median(&spreads[..count / 2]).max(1e-5);
    let is_wild = |own: &f64| *own > SCATTERS * usual && *own > LEAST_SCATTER;
    let first = (0..count).find(|from| spreads[*from..].iter().all(is_wild))?;
    let times = spreads[first..].iter().sum::<f64>() / (count - first) as f64 / usual;
    Some(Symptom::Scatter { from: slowest + STRETCH * first as f64, times })
}

/// A bend and what it leaves.
struct Bend {
    at: usize,
    /// By how much the slope changes there, 1/rpm.
    bends: f64,
    left: f64,
}

/// The bend downward that leaves least.
fn bend(speeds: &[f64], ratio: &[f64]) -> Option<Bend> {
    let of = |at: usize| {
        let hinge: Vec<f64> = speeds.iter().map(|own| (own - speeds[at]).max(0.0)).collect();
        // What is left of hinge and ratio once a straight line is taken out of both [Frisch and Waugh 1933].
        let (hinge, own) = (straight(speeds, &hinge), straight(speeds, ratio));
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let bends = dot(&hinge, &own) / dot(&hinge, &hinge);
        let rest: Vec<f64> = own.iter().zip(&hinge).map(|(own, hinge)| own - bends * hinge).collect();
        Bend { at, bends, left: left(&rest) }
    };
    let all = (FEWEST..speeds.len() - FEWEST).map(of).filter(|own| own.bends < 0.0);
    all.min_by(|a, b| a.left.total_cmp(&b.left))
}

/// What a straight line leaves of `values`.
fn straight(speeds: &[f64], values: &[f64]) -> Vec<f64> {
    let n = speeds.len() as f64;
    let (mx, my) = (speeds.iter().sum::<f64>() / n, values.iter().sum::<f64>() / n);
    let sxx: f64 = speeds.iter().map(|x| (x - mx).powi(2)).sum();
    let sxy: f64 = speeds.iter().zip(values).map(|(x, y)| (x - mx) * (y - my)).sum();
    speeds.iter().zip(values).map(|(x, y)| y - my - sxy / sxx * (x - mx)).collect()
}

/// Standard deviation of what is left.
fn left(rest: &[f64]) -> f64 {
    (rest.iter().map(|own| own * own).sum::<f64>() / rest.len() as f64).sqrt()
}

/// The deepest stretch below the line between what lies on both sides of it.
fn sag(speeds: &[f64], ratio: &[f64], least: f64) -> Option<Symptom> {
    let count = ratio.len();
    let widest = (WIDE * count as f64) as usize;
    let mut best: Option<(f64, usize, usize)> = None;
    for from in 2..count - 3 {
        for to in from + 2..(from + widest).min(count - 2) {
            let side = |places: std::ops::Range<usize>| median(&ratio[places]);
            let (before, after) = (side(from.saturating_sub(4)..from), side(to + 1..(to + 5).min(count)));
            let within = median(&ratio[from..=to]);
            let deep = before.min(after) - within;
            // Sides that are far apart are a step and no sag.
            if (before - after).abs() < 0.6 * deep && best.is_none_or(|(other, ..)| deep > other + 1e-6) {
                best = Some((deep, from, to));
            }
        }
    }
    best.filter(|(deep, ..)| *deep > least).map(|(deep, from, to)| Symptom::Sag {
        from: speeds[from],
        to: speeds[to],
        deep,
    })
}

/// Spread of a single speed by second differences.
fn noise(ratio: &[f64]) -> f64 {
    let seconds: Vec<f64> = ratio.windows(3).map(|own| (own[0] - 2.0 * own[1] + own[2]).abs()).collect();
    OF_MEDIAN * median(&seconds) / OF_SECOND
}

/// Most times as strong as a cause was tried that it may have to be: beyond, it would be another cause.
const MOST_TIMES: f64 = 2.5;

/// The share of squares of `off` that `along`, made longer or shorter but never turned round and not without bound, explains; and how much
/// longer it is made.
pub fn explained(off: &[f64], along: &[f64]) -> (f64, f64) {
    let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
    let (squares, length) = (dot(off, off), dot(along, along));
    if squares <= 0.0 || length <= 0.0 {
        return (0.0, 0.0);
    }
    let times = (dot(off, along) / length).clamp(0.0, MOST_TIMES);
    ((2.0 * times * dot(off, along) - times * times * length) / squares, times)
}
