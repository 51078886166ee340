//! Top dead centre by a piston stop: the wheel is read where the piston meets it from both sides.

use crate::root::root_within;

/// A crank with its rod.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cranked {
    /// Crank radius, m.
    pub radius: f64,
    /// Rod length, m.
    pub rod: f64,
    /// Pin offset, m.
    pub offset: f64,
}

impl Cranked {
    /// Height of the pin at a crank angle, radians: `r cos t + sqrt(L^2 - (r sin t - e)^2)` [Norton; Heywood ch. 2].
    fn height(&self, angle: f64) -> f64 {
        let across = self.radius * angle.sin() - self.offset;
        self.radius * angle.cos() + (self.rod * self.rod - across * across).sqrt()
    }

    /// Crank angle of the highest pin, radians: rod and crank in line, `sin t = e/(r + L)`.
    fn top(&self) -> f64 {
        (self.offset / (self.radius + self.rod)).asin()
    }

    /// By how much the middle between two stops stands after the true top, degrees, when they are so many degrees apart: with an
    /// offset pin a piston goes up and down unequally.
    fn lean(&self, apart: f64) -> f64 {
        let half = 0.5 * apart.to_radians();
        let top = self.top();
        // The middle at which both stops are at one height.
        let unequal = |middle: f64| self.height(top + middle + half) - self.height(top + middle - half);
        root_within(-0.1, 0.1, unequal).unwrap_or(0.0).to_degrees()
    }
}

/// How far a wheel reads too much, degrees: the middle of both stops should be zero, but for what an offset pin makes of it.
pub fn wheel_error((one, other): (f64, f64), crank: Option<Cranked>) -> f64 {
    let lean = crank.map_or(0.0, |crank| crank.lean((other - one).abs()));
    0.5 * (one + other) - lean
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_middle_of_both_stops_is_the_top() {
        let crank = Cranked { radius: 0.046_99, rod: 0.153_67, offset: 0.0 };
        assert_eq!(wheel_error((-24.5, 27.5), None), 1.5);
        assert!((wheel_error((-24.5, 27.5), Some(crank)) - 1.5).abs() < 1e-9);
    }

    #[test]
    fn an_offset_pin_leans() {
        let crank = Cranked { radius: 0.046_99, rod: 0.153_67, offset: 0.001_5 };
        // Both stops at one height, found the other way round: by looking for the angles at a height.
        let top = crank.top();
        let height = crank.height(top) - 0.005;
        let angle = |low: f64, high: f64| root_within(low, high, |t| crank.height(t) - height).unwrap().to_degrees();
        let (before, after) = (angle(top - 1.0, top), angle(top, top + 1.0));
        // A wheel that is right reads zero at the true top.
        let wheel = |crank_deg: f64| crank_deg - top.to_degrees();
        let error = wheel_error((wheel(before), wheel(after)), Some(crank));
        assert!(error.abs() < 1e-4, "{error}");
        let plain = wheel_error((wheel(before), wheel(after)), None);
        assert!(plain.abs() > 0.001 && plain.abs() < 0.2, "{plain}");
    }
}
