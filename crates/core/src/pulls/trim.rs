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
/// Share of its strongest torque below which an engine idles or is driven; no open throttle makes so little where it is pulled. How far a
/// held speed wanders, and how many points of it no dwell of a stepped test has (common practice, no source).
const IDLES: f64 = 0.25;
const HELD: f64 = 0.02;
const DWELL: usize = 12;
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
    // A last step that is held wanders about its speed: it does not slow down.
    let slows = points[top..].iter().any(|(rpm, _)| *rpm < fastest - noise);
    let mut reached = 0.0_f64;
    for (place, (rpm, _)) in points.iter().enumerate() {
        if (slows && place > top) || *rpm < reached - noise {
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

/// Marks what was read before the throttle was open and after it had closed. Flat torque is not yet an open throttle: an engine idles,
/// or is held at a part of its torque, before it is pulled.
fn throttle(points: &[(f64, f64)], range: (Option<f64>, Option<f64>), left: &mut [Option<Left>]) {
    let kept: Vec<usize> = (0..points.len()).filter(|place| left[*place].is_none()).collect();
    let ahead = ((AHEAD * kept.len() as f64) as usize).max(3);
    if kept.len() < 2 * ahead {
        return;
    }
    let torque = |at: usize| points[kept[at]].1;
    let last = kept.len() - 1;
    let strong = ranked(kept.iter().map(|place| points[*place].1), 0.9);
    let pulling: Vec<usize> = (0..=last).filter(|at| torque(*at) >= 0.5 * strong).collect();
    let middle = pulling[pulling.len() / 2];
    let typical = |from: usize, to: usize| ranked((from..=to.min(last)).map(torque), 0.5);
    let idles = |at: &usize| torque(*at) < IDLES * strong;
    let first = (0..middle).rev().find(idles).map_or(0, |at| at + 1);
    let first = held_until(points, &kept[first..middle.max(first)]).map_or(first, |held| {
        let from = first + held;
        if typical(first, from - 1) < OPEN * typical(from, from + ahead) { from } else { first }
    });
    let open = (first..middle).find(|at| torque(*at) >= OPEN * typical(at + 1, at + ahead)).unwrap_or(first);
    let end = (middle + 1..=last).find(idles).unwrap_or(last + 1);
    let closing = |at: &usize| torque(*at) >= CLOSING * typical(at - ahead, at - 1);
    let closed = (middle.max(ahead)..end).rev().find(closing).unwrap_or(end - 1);
    if range.0.is_none() {
        kept[..open].iter().for_each(|place| left[*place] = Some(Left::RollOn));
    }
    if range.1.is_none() {
        kept[closed + 1..].iter().for_each(|place| left[*place] = Some(Left::ThrottleClosed));
    }
}

/// How many of the first points have one speed; `None` of fewer than a dwell of a stepped test has.
fn held_until(points: &[(f64, f64)], places: &[usize]) -> Option<usize> {
    let speed = |place: &usize| points[*place].0;
    let first = speed(places.first()?);
    let held = places.iter().take_while(|place| (speed(place) - first).abs() < HELD * first).count();
    (held >= DWELL).then_some(held)
}

/// The value that such a share of all lie below.
fn ranked(values: impl Iterator<Item = f64>, share: f64) -> f64 {
    let mut values: Vec<f64> = values.collect();
    values.sort_by(f64::total_cmp);
    values.get(((share * values.len() as f64) as usize).min(values.len().saturating_sub(1))).copied().unwrap_or(0.0)
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

    /// What the engine does before it is pulled, then the pull.
    fn after(lead: impl Iterator<Item = (f64, f64)>) -> Vec<Option<Left>> {
        let points: Vec<(f64, f64)> = lead.chain(pull()).collect();
        trim(&points, (None, None))
    }

    #[test]
    fn idling_and_a_held_part_of_its_torque_are_no_pull() {
        // Steady, as idling is: flat torque is no open throttle. For however long it idled.
        for count in [30_usize, 400] {
            let idling = (0..count).map(|i| (900.0 + 5.0 * (i % 3) as f64, 10.0));
            let left = after(idling);
            assert!(left[..count].iter().all(|own| *own == Some(Left::RollOn)), "{count}");
            assert!(left[count..].iter().all(Option::is_none), "{count}");
        }
        // Held at the speed it begins from, at half of its torque, then opened.
        let held = (0..25).map(|i| (1990.0 + 5.0 * (i % 3) as f64, 200.0));
        let left = after(held);
        // With it the two points of the pull that have the same speed.
        assert!(left[..25].iter().all(|own| *own == Some(Left::RollOn)) && count(&left, Left::RollOn) <= 27);
        // The throttle closes and the brake holds the speed: flat, and no pull either.
        let mut points = pull();
        points.extend((0..20).map(|i| (6001.0 + f64::from(i), 12.0)));
        let left = trim(&points, (None, None));
        assert_eq!((count(&left, Left::ThrottleClosed), counted(&points, &left).len()), (20, 200));
    }

    #[test]
    fn a_stepped_test_and_an_engine_that_comes_on_late_count_as_they_are() {
        let stepped: Vec<(f64, f64)> =
            (0..96).map(|i| (2000.0 + 400.0 * f64::from(i / 8) + f64::from(i % 2), 400.0 - f64::from(i / 8))).collect();
        assert_eq!(trim(&stepped, (None, None)), vec![None; 96]);
        // Boost comes in: from two fifths of its torque to all of it over a quarter of its speeds.
        let boosted: Vec<(f64, f64)> = (0..160)
            .map(|i| {
                let x = f64::from(i) / 159.0;
                (1400.0 + 2000.0 * x, 700.0 * (0.4 + 0.6 * (4.0 * (x - 0.15)).clamp(0.0, 1.0)))
            })
            .collect();
        assert_eq!(trim(&boosted, (None, None)), vec![None; 160]);
    }

    #[test]
    fn what_somebody_said_goes_before() {
        let left = trim(&pull(), (Some(2500.0), Some(5500.0)));
        let kept = counted(&pull(), &left);
        assert!(kept[0].0 >= 2500.0 && kept[kept.len() - 1].0 <= 5500.0);
        assert_eq!(count(&left, Left::OutOfRange) + kept.len(), 200);
    }
}
