//! What wears, as straight lines over use: every valve has a level and a rate of its own, drawn to the rate of them all.
//!
//! A valve's rate is that of least squares through its own readings; what a reading may be off is pooled over all valves, with what
//! such readings usually are off as a few degrees of freedom more. Rates are then drawn to their mean ([`shrink`]). Where a line
//! reaches a limit is the ratio of two figures, and so is its interval [Fieller, J. R. Stat. Soc. B 16, 1954, 175]: it may have no end.

use super::shrink::{Estimate, Shrunk, shrink};
use statrs::distribution::{ContinuousCDF, StudentsT};

/// Share of intervals that hold the truth.
const HELD: f64 = 0.95;

/// Readings of one valve between two settings or renewals.
#[derive(Debug, Clone, PartialEq)]
pub struct Line {
    /// Use, and what was read.
    pub points: Vec<(f64, f64)>,
}

/// Lines through readings.
#[derive(Debug, Clone, PartialEq)]
pub struct Trend {
    /// Rates per unit of use.
    pub rates: Shrunk,
    /// Variance of a reading.
    pub variance: f64,
    /// Degrees of freedom of that.
    pub freedom: f64,
    /// Middle of each line: use, reading, and how many there are.
    middles: Vec<(f64, f64, f64)>,
}

/// Where a line reaches a limit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reached {
    /// Use at which the line itself does; absent where it does not go there.
    pub at: Option<f64>,
    /// Not before.
    pub from: f64,
    /// Not after; absent where the readings do not tell that it wears at all.
    pub to: Option<f64>,
}

/// Lines through the readings of valves. `usual`: standard deviation of such a reading, and how many degrees of freedom that is worth;
/// `expected`: the rate that engines like it had. `None` where nothing tells a rate.
pub fn trend(lines: &[Line], usual: (f64, f64), expected: Option<Estimate>) -> Option<Trend> {
    let fitted: Vec<Fitted> = lines.iter().map(Fitted::of).collect();
    let squares: f64 = fitted.iter().map(|own| own.squares).sum();
    let own_freedom: f64 = fitted.iter().map(|own| (own.count - 2.0).max(0.0)).sum();
    let freedom = own_freedom + usual.1;
    let variance = (squares + usual.1 * usual.0 * usual.0) / freedom;
    if !variance.is_finite() || freedom <= 0.0 {
        return None;
    }
    let rate = |own: &Fitted| Estimate { value: own.rate, variance: variance / own.spread };
    let rates = shrink(&fitted.iter().map(rate).collect::<Vec<_>>(), expected)?;
    let middles = fitted.iter().map(|own| (own.at, own.value, own.count)).collect();
    Some(Trend { rates, variance, freedom, middles })
}

impl Trend {
    /// What a line says at a use.
    pub fn value(&self, line: usize, at: f64) -> f64 {
        let (middle, value, _) = self.middles[line];
        value + self.rates.each[line].value * (at - middle)
    }

    /// Half width of the interval about that, 95 of 100.
    pub fn doubt(&self, line: usize, at: f64) -> f64 {
        let (middle, _, count) = self.middles[line];
        self.student() * (self.variance / count + (at - middle).powi(2) * self.rates.each[line].variance).sqrt()
    }

    /// Half width of the interval about the mean rate.
    pub fn doubt_of_rate(&self) -> f64 {
        self.student() * self.rates.mean.variance.sqrt()
    }

    /// Where a line reaches `limit` going the way that wear goes, `down` or up.
    pub fn reached(&self, line: usize, limit: f64, down: bool) -> Reached {
        let (middle, value, count) = self.middles[line];
        // Turned so that wear goes down towards nought.
        let sign = if down { 1.0 } else { -1.0 };
        let (left, rate) = (sign * (value - limit), sign * self.rates.each[line].value);
        let t2 = self.student().powi(2);
        let (level, rates) = (t2 * self.variance / count, t2 * self.rates.each[line].variance);
        let (a, b, c) = (rate * rate - rates, rate * left, left * left - level);
        let root = (b * b - a * c).max(0.0).sqrt();
        let at = (rate < 0.0).then(|| middle - left / rate);
        // Of a line that is there already within its doubt, nobody can say that it was not before.
        let is_there = left <= 0.0 || c <= 0.0;
        if a > 0.0 && rate < 0.0 {
            let from = if is_there { f64::NEG_INFINITY } else { middle + (-b - root) / a };
            return Reached { at, from: from.max(0.0), to: Some(middle + (-b + root) / a) };
        }
        let from = match is_there {
            true => f64::NEG_INFINITY,
            // Both ends of the rate's interval: the quickest wear is what sets the earliest use.
            false if rate - rates.sqrt() >= 0.0 => f64::INFINITY,
            false if a == 0.0 => middle - c / (2.0 * b),
            false => middle + (-b - root) / a,
        };
        Reached { at, from: from.max(0.0), to: None }
    }

    fn student(&self) -> f64 {
        StudentsT::new(0.0, 1.0, self.freedom).map_or(f64::INFINITY, |t| t.inverse_cdf(0.5 + 0.5 * HELD))
    }
}

/// Least squares of one line.
struct Fitted {
    at: f64,
    value: f64,
    count: f64,
    rate: f64,
    /// Squares of use about its mean.
    spread: f64,
    /// Squares left.
    squares: f64,
}

impl Fitted {
    fn of(line: &Line) -> Self {
        let count = line.points.len() as f64;
        let mean = |of: fn(&(f64, f64)) -> f64| line.points.iter().map(of).sum::<f64>() / count.max(1.0);
        let (at, value) = (mean(|own| own.0), mean(|own| own.1));
        let spread: f64 = line.points.iter().map(|own| (own.0 - at).powi(2)).sum();
        let along: f64 = line.points.iter().map(|own| (own.0 - at) * (own.1 - value)).sum();
        let rate = if spread > 0.0 { along / spread } else { 0.0 };
        let squares = line.points.iter().map(|own| (own.1 - value - rate * (own.0 - at)).powi(2)).sum();
        Self { at, value, count, rate, spread, squares }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Shear strength of a propellant over its age [Montgomery, Peck and Vining, *Introduction to Linear Regression Analysis*,
    /// example 2.1: slope -37.15, its error 2.89]; where its band holds 1500 psi by `tests/reference/service.py`.
    #[test]
    fn a_propellant_ages_as_the_textbook_has_it() {
        let strength = [
            2158.70, 1678.15, 2316.00, 2061.30, 2207.50, 1708.30, 1784.70, 2575.00, 2357.90, 2256.70, 2165.20, 2399.55,
            1779.80, 2336.75, 1765.30, 2053.50, 2414.40, 2200.50, 2654.20, 1753.70,
        ];
        let age = [
            15.50, 23.75, 8.00, 17.00, 5.50, 19.00, 24.00, 2.50, 7.50, 11.00, 13.00, 3.75, 25.00, 9.75, 22.00, 18.00,
            6.00, 12.50, 2.00, 21.50,
        ];
        let line = Line { points: age.into_iter().zip(strength).collect() };
        let found = trend(&[line], (0.0, 0.0), None).unwrap();
        assert!((found.rates.mean.value + 37.15).abs() < 0.005, "{found:?}");
        assert!((found.rates.mean.variance.sqrt() - 2.889).abs() < 0.001, "{found:?}");
        let reached = found.reached(0, 1500.0, true);
        assert!((reached.at.unwrap() - 30.3557).abs() < 1e-3, "{reached:?}");
        assert!((reached.from - 27.7149).abs() < 1e-3, "{reached:?}");
        assert!((reached.to.unwrap() - 33.9285).abs() < 1e-3, "{reached:?}");
        // The textbook prints 2086.230 to 2176.571 for the mean at 13.3625 weeks, by a rounded slope.
        assert!((found.value(0, 13.3625) - 2131.4).abs() < 0.1);
        assert!((found.doubt(0, 13.3625) - 45.17).abs() < 0.03, "{}", found.doubt(0, 13.3625));
    }

    #[test]
    fn what_wears_up_is_what_wears_down_turned_over() {
        let points = [(0.0, 10.0), (1.0, 9.2), (2.0, 7.9), (3.0, 7.1)];
        let down = trend(&[Line { points: points.to_vec() }], (0.2, 2.0), None).unwrap().reached(0, 4.0, true);
        let turned = points.map(|(at, value)| (at, -value)).to_vec();
        let up = trend(&[Line { points: turned }], (0.2, 2.0), None).unwrap().reached(0, -4.0, false);
        assert!((down.at.unwrap() - up.at.unwrap()).abs() < 1e-12);
        assert!((down.from - up.from).abs() < 1e-12 && down.from < down.at.unwrap());
    }

    #[test]
    fn readings_that_tell_no_wear_have_no_end() {
        let level = Line { points: vec![(0.0, 10.0), (1.0, 10.3), (2.0, 9.8), (3.0, 10.0)] };
        let found = trend(std::slice::from_ref(&level), (0.2, 2.0), None).unwrap();
        let reached = found.reached(0, 5.0, true);
        assert_eq!(reached.to, None);
        assert!(reached.from > 5.0 && reached.from.is_finite(), "{reached:?}");
        // One reading says nothing of a rate, until engines like it do.
        let once = Line { points: vec![(3.0, 10.0)] };
        assert_eq!(trend(std::slice::from_ref(&once), (0.2, 2.0), None), None);
        let expected = Estimate { value: -1.0, variance: 0.01 };
        let reached = trend(&[once], (0.2, 20.0), Some(expected)).unwrap().reached(0, 5.0, true);
        assert!((reached.at.unwrap() - 8.0).abs() < 1e-9, "{reached:?}");
        assert!(reached.from > 6.0 && reached.to.unwrap() < 12.0, "{reached:?}");
    }

    #[test]
    fn a_valve_keeps_of_its_own_rate_what_the_others_leave_it() {
        let at = |rate: f64| Line { points: (0..5).map(|i| (f64::from(i), 10.0 - rate * f64::from(i))).collect() };
        let all = [at(0.5), at(0.5), at(0.5), at(2.0)];
        let found = trend(&all, (0.1, 4.0), None).unwrap();
        let own = &found.rates.each;
        assert!(own[3].value < -1.8 && own[3].value > -2.0, "{own:?}");
        assert!(found.reached(3, 5.0, true).at.unwrap() < found.reached(0, 5.0, true).at.unwrap());
        // With readings that are far off, all are much the same.
        let loose = trend(&all, (3.0, 400.0), None).unwrap();
        assert!(loose.rates.spread < 0.1 * found.rates.spread.max(1e-9) || loose.rates.spread == 0.0);
    }
}
