//! Planar slider-crank with pin offset. Rigid parts.
//!
//! Crank zero is the crank pin on the bore axis, nearest the head. With an offset pin the piston
//! is highest a little away from there; [`CrankSlider::true_top`] says where.

use crate::quantity::{Angle, Length};

/// Crank throw, rod and pin offset of one cylinder.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CrankSlider {
    throw: f64,
    rod: f64,
    offset: f64,
}

/// A dead centre.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Dead {
    /// Crank angle at which it is reached.
    pub at: Angle,
    /// Distance of the pin from the crank axis.
    pub height: Length,
}

impl CrankSlider {
    /// From stroke (twice the throw), rod and pin offset, positive towards the side where the crank pin goes down (the
    /// minor thrust side: a loaded rod leans there and pushes the piston to the other); `None` unless the rod can turn the crank
    /// (`rod > throw + |offset|`).
    pub fn new(stroke: Length, rod: Length, offset: Length) -> Option<Self> {
        let (throw, rod, offset) = (0.5 * stroke.si(), rod.si(), offset.si());
        let turns = throw > 0.0 && rod > throw + offset.abs();
        turns.then_some(Self { throw, rod, offset })
    }

    /// Distance of the pin from the crank axis.
    ///
    /// `y = r cos t + sqrt(L^2 - (r sin t - e)^2)` [Norton, *Design of Machinery*, offset
    /// slider-crank; Heywood ch. 2 with e = 0; from memory].
    pub fn height(&self, crank: Angle) -> Length {
        let (sin, cos) = crank.si().sin_cos();
        let side = self.throw * sin - self.offset;
        Length::from_si(self.throw * cos + (self.rod * self.rod - side * side).sqrt())
    }

    /// Change of the pin's height per radian of crank, m/rad.
    ///
    /// `dy/dt = -r sin t - (r sin t - e) r cos t / sqrt(L^2 - (r sin t - e)^2)`.
    pub fn slope(&self, crank: Angle) -> f64 {
        let (sin, cos) = crank.si().sin_cos();
        let side = self.throw * sin - self.offset;
        -self.throw * sin - side * self.throw * cos / (self.rod * self.rod - side * side).sqrt()
    }

    /// Where the piston is highest: rod and throw in line, `sin t = e / (L + r)`.
    pub fn true_top(&self) -> Dead {
        let reach = self.rod + self.throw;
        Dead {
            at: Angle::from_si((self.offset / reach).asin()),
            height: Length::from_si((reach * reach - self.offset * self.offset).sqrt()),
        }
    }

    /// Where the piston is lowest: rod folded over the throw, `sin(t - pi) = e / (L - r)`.
    pub fn true_bottom(&self) -> Dead {
        let reach = self.rod - self.throw;
        Dead {
            at: Angle::from_si(std::f64::consts::PI - (self.offset / -reach).asin()),
            height: Length::from_si((reach * reach - self.offset * self.offset).sqrt()),
        }
    }

    /// Distance between the dead centres: `sqrt((L+r)^2-e^2) - sqrt((L-r)^2-e^2)`.
    pub fn true_stroke(&self) -> Length {
        Length::from_si(self.true_top().height.si() - self.true_bottom().height.si())
    }

    /// How far the piston has dropped from its highest place.
    pub fn drop(&self, crank: Angle) -> Length {
        Length::from_si(self.true_top().height.si() - self.height(crank).si())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn offset_crank() -> CrankSlider {
        CrankSlider::new(Length::mm(90.0), Length::mm(150.0), Length::mm(1.2)).unwrap()
    }

    #[test]
    fn dead_centres_are_where_the_slope_vanishes() {
        let crank = offset_crank();
        for dead in [crank.true_top(), crank.true_bottom()] {
            assert!(crank.slope(dead.at).abs() < 1e-15, "{dead:?}");
            assert!((crank.height(dead.at).si() - dead.height.si()).abs() < 1e-15);
        }
    }

    #[test]
    fn slope_is_the_numerical_derivative_of_height() {
        let crank = offset_crank();
        let step = 1e-5;
        for deg in (0..720).step_by(7) {
            let at = f64::from(deg).to_radians();
            let rise = crank.height(Angle::from_si(at + step)).si() - crank.height(Angle::from_si(at - step)).si();
            // Truncation: step^2/6 times the third derivative, below 1e-11.
            assert!((rise / (2.0 * step) - crank.slope(Angle::from_si(at))).abs() < 1e-10);
        }
    }

    #[test]
    fn without_offset_the_closed_form_of_the_text_book_holds() {
        // x = r (1 - cos t) + l (1 - sqrt(1 - (r/l)^2 sin^2 t))   [Heywood ch. 2, from memory]
        let (r, l) = (0.047, 0.154);
        let crank = CrankSlider::new(Length::from_si(2.0 * r), Length::from_si(l), Length::from_si(0.0)).unwrap();
        for deg in 0..360 {
            let t = f64::from(deg).to_radians();
            let x = r * (1.0 - t.cos()) + l * (1.0 - (1.0 - (r / l * t.sin()).powi(2)).sqrt());
            assert!((crank.drop(Angle::deg(f64::from(deg))).si() - x).abs() < 1e-15);
        }
        assert!((crank.true_stroke().si() - 2.0 * r).abs() < 1e-15);
    }

    #[test]
    fn a_rod_that_cannot_turn_the_crank_is_refused() {
        assert!(CrankSlider::new(Length::mm(90.0), Length::mm(45.0), Length::mm(0.0)).is_none());
        assert!(CrankSlider::new(Length::mm(90.0), Length::mm(f64::NAN), Length::mm(0.0)).is_none());
    }
}
