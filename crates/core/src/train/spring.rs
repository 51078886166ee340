//! The spring package as fitted: seat and open load at this cam's lift, rate, travel to bind,
//! stress and surge, what gas pressure leaves of the seat load.

use super::wire::Coil;
use crate::given::{Missing, Needs, SpringPart, need};
use crate::quantity::{Force, Length, Mass, Pressure, SpringRate};

/// How the load over height is known.
#[derive(Debug, Clone, PartialEq)]
enum Law {
    /// Tester points, height falling.
    Points(Vec<(Length, Force)>),
    /// Nested coils, loads add.
    Coils(Vec<Coil>),
}

/// A spring package on one side.
#[derive(Debug, Clone, PartialEq)]
pub struct Spring {
    law: Law,
    /// Seat to retainer, valve closed.
    pub installed: Length,
    /// Height at which the first coil is solid, when known.
    pub bind: Option<Length>,
    /// Mass of the package, when known.
    pub mass: Option<Mass>,
}

/// Reads the spring of one side.
///
/// # Errors
/// Installed height, or tester points where no coils are given.
pub fn read_spring(spring: &SpringPart) -> Result<Spring, Missing> {
    let mut needs = Needs::default();
    let installed = need!(needs, spring.installed_height);
    let coils: Vec<Coil> = spring.coils.iter().flat_map(|coils| coils.iter()).filter_map(Coil::read).collect();
    let law = match &spring.points {
        Some(points) => {
            let mut points = points.to_vec();
            points.sort_by(|a, b| b.0.si().total_cmp(&a.0.si()));
            Some(Law::Points(points))
        }
        None => (!coils.is_empty()).then(|| Law::Coils(coils.clone())),
    };
    let law = needs.note(law, spring.at("points"));
    let bind = spring.coil_bind_height.or_else(|| first_solid(&coils));
    let coil_mass = || (!coils.is_empty()).then(|| Mass::from_si(coils.iter().map(|c| c.mass().si()).sum()));
    let mass = spring.mass.or_else(coil_mass);
    needs.met(())?;
    let law = law.ok_or_else(|| Missing(vec![spring.at("points")]))?;
    Ok(Spring { law, installed, bind, mass })
}

fn first_solid(coils: &[Coil]) -> Option<Length> {
    let heights = coils.iter().map(|c| c.solid_package_height().si());
    heights.reduce(f64::max).map(Length::from_si)
}

impl Spring {
    /// Load with the valve `lift` open. Between tester points linear, beyond them by the slope of
    /// the nearest two.
    pub fn load(&self, lift: Length) -> Force {
        let height = self.installed.si() - lift.si();
        match &self.law {
            Law::Points(points) => Force::from_si(on_points(points, height)),
            Law::Coils(coils) => Force::from_si(coils.iter().map(|c| c.load(Length::from_si(height)).si()).sum()),
        }
    }

    /// Its coils, where they are known by their wire.
    pub fn coils(&self) -> &[Coil] {
        match &self.law {
            Law::Coils(coils) => coils,
            Law::Points(_) => &[],
        }
    }

    /// Mean rate between the seat and `lift`.
    pub fn rate(&self, lift: Length) -> SpringRate {
        let lift = Length::from_si(lift.si().max(1e-5));
        let seat = self.load(Length::from_si(0.0)).si();
        SpringRate::from_si((self.load(lift).si() - seat) / lift.si())
    }

    /// Travel left to coil bind with the valve `lift` open.
    pub fn to_bind(&self, lift: Length) -> Option<Length> {
        let bind = self.bind?;
        Some(Length::from_si(self.installed.si() - lift.si() - bind.si()))
    }

    /// First surge frequency: the lowest of the coils; from tester points by rate and whole mass,
    /// which lies some per cent low because dead coils are weighed too. Hertz.
    pub fn surge_frequency(&self, lift: Length) -> Option<f64> {
        match &self.law {
            Law::Coils(coils) => coils.iter().map(Coil::surge_frequency).reduce(f64::min),
            Law::Points(_) => Some(0.5 * (self.rate(lift).si() / self.mass?.si()).sqrt()),
        }
    }

    /// Largest corrected shear stress of any coil with the valve `lift` open; only coils know it.
    pub fn stress(&self, lift: Length) -> Option<Pressure> {
        let Law::Coils(coils) = &self.law else { return None };
        let height = Length::from_si(self.installed.si() - lift.si());
        let stress = coils.iter().map(|c| c.shear_stress(c.load(height)).si());
        stress.reduce(f64::max).map(Pressure::from_si)
    }
}

impl Spring {
    /// Greatest share of its wire's tensile strength that any coil bears with the valve `lift` open; only coils know it.
    pub fn stress_share(&self, lift: Length) -> Option<f64> {
        let Law::Coils(coils) = &self.law else { return None };
        let height = Length::from_si(self.installed.si() - lift.si());
        let share = |coil: &Coil| coil.shear_stress(coil.load(height)).si() / coil.strength().si();
        coils.iter().map(share).reduce(f64::max)
    }

    /// Least fatigue reserve of any coil swinging between the seat and `lift`; see [`Coil::fatigue_reserve`].
    pub fn fatigue_reserve(&self, lift: Length) -> Option<f64> {
        let Law::Coils(coils) = &self.law else { return None };
        let at = |lift: f64| Length::from_si(self.installed.si() - lift);
        coils.iter().map(|coil| coil.fatigue_reserve(at(0.0), at(lift.si()))).reduce(f64::min)
    }
}

fn on_points(points: &[(Length, Force)], height: f64) -> f64 {
    let below = points.partition_point(|p| p.0.si() > height).clamp(1, points.len() - 1);
    let ((h0, f0), (h1, f1)) = (points[below - 1], points[below]);
    let share = (h0.si() - height) / (h0.si() - h1.si());
    (f0.si() + share * (f1.si() - f0.si())).max(0.0)
}

/// Force that pushes a closed valve open for a gauge pressure in its port.
///
/// `F = p_port (A_head - A_stem)` with cylinder and crankcase at ambient: the least cylinder
/// pressure while the valve should be shut, so the estimate is on the safe side. Closed form; the
/// computed pressure replaces it once breathing is known.
pub fn opening_force(port: Pressure, head: Length, stem: Length) -> Force {
    let area = 0.25 * std::f64::consts::PI * (head.si().powi(2) - stem.si().powi(2));
    Force::from_si(port.si().max(0.0) * area)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn load_between_and_beyond_tester_points_is_linear() {
        let spring = Spring {
            law: Law::Points(vec![
                (Length::inches(1.8), Force::lbf(140.0)),
                (Length::inches(1.4), Force::lbf(300.0)),
                (Length::inches(1.2), Force::lbf(400.0)),
            ]),
            installed: Length::inches(1.85),
            bind: Some(Length::inches(1.1)),
            mass: None,
        };
        // By hand: 400 lbf/in above 1.4, 500 lbf/in below.
        for (lift, load) in [(0.0, 120.0), (0.05, 140.0), (0.25, 220.0), (0.55, 350.0), (0.70, 425.0)] {
            assert!((spring.load(Length::inches(lift)).as_lbf() - load).abs() < 1e-9, "{lift}");
        }
        assert!((spring.to_bind(Length::inches(0.6)).unwrap().as_inches() - 0.15).abs() < 1e-12);
    }
}
