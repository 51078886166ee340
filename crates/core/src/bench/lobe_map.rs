//! Lobes mapped with a dial, or by caliper: lift and place of each, and how they differ among themselves.

use crate::peaks::vertex;

/// Flanks are held against each other between these shares of full lift: below, ramps lie flat, and above, the nose does.
const FLANKS: (f64, f64) = (0.3, 0.8);
/// Heights they are held against each other at.
const HEIGHTS: usize = 11;
/// Points above this share of the highest make up the nose.
const NOSE: f64 = 0.97;
/// Fewest points of it that a parabola is laid through.
const FEWEST: usize = 4;
/// Least points of a map.
const LEAST: usize = 9;

/// One mapped lobe, in the degrees its points have.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mapped {
    /// Full lift over the base, m.
    pub lift: f64,
    /// Where the middle between both flanks stands.
    pub centre: f64,
    /// What the base runs out by, m.
    pub runs_out: f64,
}

/// What a map of one lobe comes to: points in rising degrees, dial readings in m. `None` where there are too few, or they do not go
/// up and down again.
pub fn mapped(points: &[(f64, f64)]) -> Option<Mapped> {
    if points.len() < LEAST || points.windows(2).any(|two| two[1].0 <= two[0].0) {
        return None;
    }
    let (base, runs_out) = base_of(points);
    let above: Vec<(f64, f64)> = points.iter().map(|(deg, dial)| (*deg, dial - base)).collect();
    let top = (0..above.len()).max_by(|a, b| above[*a].1.total_cmp(&above[*b].1))?;
    if top == 0 || top == above.len() - 1 || above[top].1 <= 4.0 * runs_out {
        return None;
    }
    let middle = |step: usize| {
        let share = FLANKS.0 + (FLANKS.1 - FLANKS.0) * step as f64 / (HEIGHTS - 1) as f64;
        let height = share * above[top].1;
        Some(0.5 * (crossing(&above[..=top], height)? + crossing(&above[top..], height)?))
    };
    let middles: Vec<f64> = (0..HEIGHTS).map(middle).collect::<Option<_>>()?;
    let centre = middles.iter().sum::<f64>() / HEIGHTS as f64;
    Some(Mapped { lift: nose(&above, top), centre, runs_out })
}

/// The base under a lobe and what it runs out by: of the fifth of the points that are lowest.
fn base_of(points: &[(f64, f64)]) -> (f64, f64) {
    let mut dial: Vec<f64> = points.iter().map(|(_, dial)| *dial).collect();
    dial.sort_by(f64::total_cmp);
    let low = &dial[..(dial.len() / 5).max(2)];
    (low.iter().sum::<f64>() / low.len() as f64, low[low.len() - 1] - low[0])
}

/// Where straight lines through the points cross a height once.
fn crossing(points: &[(f64, f64)], height: f64) -> Option<f64> {
    let pair =
        points.windows(2).find(|two| (two[0].1 - height) * (two[1].1 - height) <= 0.0 && two[0].1 != two[1].1)?;
    let share = (height - pair[0].1) / (pair[1].1 - pair[0].1);
    Some(pair[0].0 + share * (pair[1].0 - pair[0].0))
}

/// Full lift: the top of the parabola of least squares through the points of the nose; the highest point where they are few.
fn nose(points: &[(f64, f64)], top: usize) -> f64 {
    let highest = points[top];
    let near = points.iter().filter(|own| own.1 > NOSE * highest.1);
    let (degrees, lifts): (Vec<f64>, Vec<f64>) = near.copied().unzip();
    let vertex = (degrees.len() >= FEWEST).then(|| vertex(&degrees, &lifts)).flatten();
    vertex.map_or(highest.1, |(_, lift)| lift)
}

/// Lift by caliper: across nose and heel less across the base [by hand: nose and base are on one line through the middle].
pub fn caliper_lift(across: f64, base: f64) -> f64 {
    across - base
}

/// One lobe beside its sisters.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Compared {
    /// Lift over that of most of them, m: the median.
    pub lift: f64,
    /// Degrees later than where the others say it should be.
    pub late: f64,
}

/// Lobes of one kind beside each other: lift and centre of each, and the degrees at which its cylinder's turn comes. The middle of
/// all (median) is what most were ground to: one that is worn does not move it.
pub fn compared(lobes: &[(f64, f64)], turns: &[f64]) -> Vec<Compared> {
    let lift = median(lobes.iter().map(|own| own.0));
    let phase = |own: &(f64, f64), turn: &f64| own.1 - turn;
    let middle = median(lobes.iter().zip(turns).map(|(own, turn)| phase(own, turn)));
    let beside = |(own, turn): (&(f64, f64), &f64)| Compared { lift: own.0 - lift, late: phase(own, turn) - middle };
    lobes.iter().zip(turns).map(beside).collect()
}

fn median(values: impl Iterator<Item = f64>) -> f64 {
    let mut sorted: Vec<f64> = values.collect();
    sorted.sort_by(f64::total_cmp);
    match sorted.len() {
        0 => f64::NAN,
        count if count % 2 == 1 => sorted[count / 2],
        count => 0.5 * (sorted[count / 2 - 1] + sorted[count / 2]),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Three circular arcs: base, and a nose of radius `n` at `d` from the middle, followed by a flat foot.
    fn foot(deg: f64, base: f64, nose: f64, d: f64) -> f64 {
        (d * deg.to_radians().cos() + nose - base).max(0.0)
    }

    #[test]
    fn a_round_lobe_is_mapped_and_calipered_alike() {
        // Closed form under a flat foot: lift = d + n - base, full at 37 degrees.
        let (base, nose, d) = (0.018, 0.008, 0.019);
        let dial = |deg: f64| 0.002 + foot(deg - 37.0, base, nose, d);
        let points: Vec<(f64, f64)> = (-30..=55).map(|i| (f64::from(i) * 4.0, dial(f64::from(i) * 4.0))).collect();
        let own = mapped(&points).unwrap();
        let across = base + d + nose;
        assert!((own.lift - (d + nose - base)).abs() < 5e-6, "{}", own.lift);
        assert!((caliper_lift(across, 2.0 * base) - own.lift).abs() < 5e-6);
        assert!((own.centre - 37.0).abs() < 0.1, "{}", own.centre);
        assert!(own.runs_out < 1e-12);
    }

    #[test]
    fn what_is_no_lobe_is_not_mapped() {
        let rising: Vec<(f64, f64)> = (0..20).map(|i| (f64::from(i), f64::from(i))).collect();
        assert_eq!(mapped(&rising), None);
        assert_eq!(mapped(&rising[..3]), None);
        let back = [(0.0, 0.0), (2.0, 0.1), (1.0, 0.2)].repeat(4);
        assert_eq!(mapped(&back), None);
    }

    #[test]
    fn the_worn_and_the_twisted_lobe_stand_out() {
        // Four at 90 degrees from each other in the order 1, 3, 4, 2; the second is worn by .2 mm, the third stands a degree late.
        let turns = [0.0, 270.0, 90.0, 180.0];
        let lobes = [(8.0e-3, 108.0), (7.8e-3, 378.0), (8.0e-3, 199.0), (8.0e-3, 288.0)];
        let found = compared(&lobes, &turns);
        assert!((found[1].lift + 0.2e-3).abs() < 1e-12 && found[0].lift.abs() < 1e-12);
        assert!((found[2].late - 1.0).abs() < 1e-12 && found[3].late.abs() < 1e-12);
    }
}
