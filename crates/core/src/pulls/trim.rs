//! What of a pull counts: the throttle opens into it and closes out of it, a line is lost here and there, and none of that is torque.
//! Nothing is dropped: every point that does not count says why.

/// Why a point does not count.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Left {
    /// Before the throttle was open.
    RollOn,
    /// After it had closed.
    ThrottleClosed,
    /// Far off its neighbours.
    Spike,
    /// The engine slowed down there.
    Slower,
    /// Somebody said so.
    OutOfRange,
}

/// Pulls of fewer points were written down by someone who left out what is no torque, and too far apart to tell.
const READ: usize = 30;
/// Points a window of neighbours has on each side, and least share of all points for the look ahead of a throttle.
const NEIGHBOURS: usize = 4;
const AHEAD: f64 = 0.05;
/// Share of the torque ahead that a pull has reached once the throttle is open, and that it keeps until it closes (common practice,
/// no source).
const OPEN: f64 = 0.93;
const CLOSING: f64 = 0.88;
/// A spike is off its neighbours' median by so many of their spread and by that share of it [Hampel's identifier: Davies and
/// Gather 1993; the share is common practice, no source].
const SPREADS: f64 = 5.0;
const SHARE: f64 = 0.02;
/// Standard deviation of a normal spread over the median of its deviations.
const OF_MEDIAN: f64 = 1.4826;

/// What becomes of every point (rpm, torque) of a pull in the order it was read; `None` counts. `range`: slowest and fastest speed
/// somebody wants counted, in the place of where the throttle opened and closed.
pub fn trim(points: &[(f64, f64)], range: (Option<f64>, Option<f64>)) -> Vec<Option<Left>> {
    let mut left = vec![None; points.len()];
    falling(points, &mut left);
    if points.len() >= READ {
        throttle(points, range, &mut left);
        spikes(points, &mut left);
    }
    for (own, (rpm, _)) in left.iter_mut().zip(points) {
        let within = range.0.is_none_or(|from| *rpm >= from) && range.1.is_none_or(|to| *rpm <= to);
        if !within {
            *own = Some(Left::OutOfRange);
        }
    }
    left
}

/// What counts of `points`, in rising speed.
pub fn counted(points: &[(f64, f64)], left: &[Option<Left>]) -> Vec<(f64, f64)> {
    let mut counted: Vec<(f64, f64)> =
        points.iter().zip(left).filter(|(_, left)| left.is_none()).map(|(point, _)| *point).collect();
    counted.sort_by(|a, b| a.0.total_cmp(&b.0));
    counted
}

/// Points after the engine was faster already by more than the noise of a speed: what it read on its way down.
fn falling(points: &[(f64, f64)], left: &mut [Option<Left>]) {
    let fastest = points.iter().map(|point| point.0).fold(0.0, f64::max);
    let noise = 0.01 * fastest;
    // A pull that was read from its fast end down has no other speeds: it counts as it is.
    let rises = points.last().zip(points.first()).is_some_and(|(last, first)| last.0 > first.0);
    let Some(top) =
        points.iter().position(|point| point.0 >= fastest).filter(|_| rises || top_is_inside(points, fastest))
    else {
        return;
    };
    let mut reached = 0.0_f64;
    for (place, (rpm, _)) in points.iter().enumerate() {
        if place > top || *rpm < reached - noise {
            left[place] = Some(Left::Slower);
        }
        reached = reached.max(*rpm);
    }
}

/// Whether the fastest point has a tenth of all points on either side of it.
fn top_is_inside(points: &[(f64, f64)], fastest: f64) -> bool {
    let top = points.iter().position(|point| point.0 >= fastest).unwrap_or(0);
    10 * top > points.len() && 10 * (points.len() - top) > points.len()
}

fn spikes(points: &[(f64, f64)], left: &mut [Option<Left>]) {
    let kept: Vec<usize> = (0..points.len()).filter(|place| left[*place].is_none()).collect();
    for (own, place) in kept.iter().enumerate() {
        let (from, to) = (own.saturating_sub(NEIGHBOURS), (own + NEIGHBOURS + 1).min(kept.len()));
        // Off the line between its neighbours, so that a steep curve is no spike.
        let off = |at: usize| points[kept[at]].1 - between(points, &kept, at);
        let mut around: Vec<f64> = (from..to).filter(|at| *at != own).map(|at| off(at).abs()).collect();
        if around.len() < 4 {
            continue;
        }
        around.sort_by(f64::total_cmp);
        // Both neighbours of a spike are off as well, by half of it: the lower half of the window is free of them.
        let spread = OF_MEDIAN * around[around.len() / 2];
        let torque = points[*place].1;
        let by = off(own).abs();
        let peaks = by > SPREADS * spread && by > SHARE * torque.abs();
        let beside = own.saturating_sub(1)..(own + 2).min(kept.len());
        if peaks && beside.clone().all(|at| off(at).abs() <= by) {
            left[*place] = Some(Left::Spike);
        }
    }
}

/// Torque on the line between the neighbours of the point number `at`.
fn between(points: &[(f64, f64)], kept: &[usize], at: usize) -> f64 {
    let point = |at: usize| points[kept[at]];
    match (at.checked_sub(1).map(point), (at + 1 < kept.len()).then(|| point(at + 1))) {
        (Some(a), Some(b)) if b.0 - a.0 > 1e-9 => a.1 + (point(at).0 - a.0) / (b.0 - a.0) * (b.1 - a.1),
        (Some(a), Some(b)) => 0.5 * (a.1 + b.1),
        // At an end a line would guess.
        (None, _) | (_, None) => point(at).1,
    }
}

fn throttle(points: &[(f64, f64)], range: (Option<f64>, Option<f64>), left: &mut [Option<Left>]) {
    let kept: Vec<usize> = (0..points.len()).filter(|place| left[*place].is_none()).collect();
    let ahead = ((AHEAD * kept.len() as f64) as usize).max(3);
    if kept.len() < 2 * ahead {
        return;
    }
    let typical = |places: &[usize]| {
        let mut torques: Vec<f64> = places.iter().map(|place| points[*place].1).collect();
        torques.sort_by(f64::total_cmp);
        torques[torques.len() / 2]
    };
    let half = kept.len() / 2;
    let open = (0..half).find(|at| points[kept[*at]].1 >= OPEN * typical(&kept[*at + 1..=*at + ahead])).unwrap_or(0);
    let closing = |at: &usize| points[kept[*at]].1 >= CLOSING * typical(&kept[*at - ahead..*at]);
    let closed = (half.max(ahead)..kept.len()).rev().find(closing).unwrap_or(kept.len() - 1);
    if range.0.is_none() {
        kept[..open].iter().for_each(|place| left[*place] = Some(Left::RollOn));
    }
    if range.1.is_none() {
        kept[closed + 1..].iter().for_each(|place| left[*place] = Some(Left::ThrottleClosed));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A whole pull of 200 points, 2,000 to 6,000 rpm, with noise of a quarter of a per cent.
    fn pull() -> Vec<(f64, f64)> {
        (0..200)
            .map(|i| {
                let x = f64::from(i) / 199.0;
                let noise = f64::from((i * 7919) % 13 - 6) * 0.16;
                (2000.0 + 4000.0 * x, 340.0 + 90.0 * (std::f64::consts::PI * (0.25 + 0.75 * x)).sin() + noise)
            })
            .collect()
    }

    fn count(left: &[Option<Left>], what: Left) -> usize {
        left.iter().filter(|own| **own == Some(what)).count()
    }

    #[test]
    fn a_clean_pull_counts_as_it_is() {
        assert!(trim(&pull(), (None, None)).iter().all(Option::is_none));
        let few: Vec<(f64, f64)> = [341.1, 347.5, 355.2, 369.1, 391.4, 400.2, 392.0, 362.4, 333.1]
            .iter()
            .enumerate()
            .map(|(i, torque)| (2000.0 + 400.0 * i as f64, *torque))
            .collect();
        assert!(trim(&few, (None, None)).iter().all(Option::is_none));
        let down: Vec<(f64, f64)> = pull().into_iter().rev().collect();
        assert!(trim(&down, (None, None)).iter().all(Option::is_none), "a dyno that pulls down");
    }

    #[test]
    fn what_is_no_torque_is_named() {
        let mut points = pull();
        for (i, point) in points.iter_mut().enumerate().take(12) {
            point.1 *= 0.3 + 0.055 * i as f64;
        }
        points[80].1 *= 1.06;
        points[120].1 *= 0.9;
        points.truncate(190);
        // The throttle closes, and the engine slows down.
        for i in 0..10 {
            points.push((5800.0 + 12.0 * f64::from(i), 250.0 - 25.0 * f64::from(i)));
        }
        for i in 0..20 {
            points.push((5900.0 - 150.0 * f64::from(i), -30.0));
        }
        let left = trim(&points, (None, None));
        assert!((10..=12).contains(&count(&left, Left::RollOn)), "{}", count(&left, Left::RollOn));
        assert_eq!((left[80], left[120], count(&left, Left::Spike)), (Some(Left::Spike), Some(Left::Spike), 2));
        assert_eq!(count(&left, Left::Slower), 20);
        assert!((10..=11).contains(&count(&left, Left::ThrottleClosed)), "{}", count(&left, Left::ThrottleClosed));
        let kept = counted(&points, &left);
        assert!(kept.iter().all(|(_, torque)| *torque > 300.0));
    }

    #[test]
    fn what_somebody_said_goes_before() {
        let left = trim(&pull(), (Some(2500.0), Some(5500.0)));
        let kept = counted(&pull(), &left);
        assert!(kept[0].0 >= 2500.0 && kept[kept.len() - 1].0 <= 5500.0);
        assert_eq!(count(&left, Left::OutOfRange) + kept.len(), 200);
    }
}
