//! What long work found of a candidate, which rules may use beside what the document gives: the gas, and the train in motion.

use crate::candidate::Moved;
use crate::quantity::{Pressure, Speed};
use crate::report::DynamicsSide;

/// Everything that was found; a rule says which of it goes into it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Findings {
    /// What breathing found.
    pub gas: Option<GasFinding>,
    /// What the train in motion found.
    pub control: Option<ControlFinding>,
    /// What the trains in motion do to gaps at speed.
    pub moved: Option<Moved>,
}

/// By how much what long work finds of one engine differs from what it finds of another, figure by figure; not a number where
/// either is not known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strayed([f64; Findings::FIGURES]);

impl Strayed {
    /// By how much `own` is more than `other`.
    pub fn between(own: &Findings, other: &Findings) -> Self {
        let (own, other) = (own.figures(), other.figures());
        Self(std::array::from_fn(|i| own[i] - other[i]))
    }

    /// Of its figures; `None` where they are not as many.
    pub fn of(figures: &[f64]) -> Option<Self> {
        figures.try_into().ok().map(Self)
    }

    /// Its figures.
    pub fn figures(&self) -> Vec<f64> {
        self.0.to_vec()
    }

    /// The same without what parts bear in motion, which jumps by a gram: only where control is lost, and the gap.
    #[must_use]
    pub fn without_loads(mut self) -> Self {
        let (_, control) = self.0.split_at_mut(GasFinding::FIGURES);
        control.chunks_exact_mut(InMotion::FIGURES).for_each(|side| side[InMotion::LOADS..].fill(f64::NAN));
        self
    }
}

impl Findings {
    /// How many figures of gas and trains it has.
    const FIGURES: usize = GasFinding::FIGURES + 2 * InMotion::FIGURES;

    /// Those of the gas, then of the trains, as plain figures; not a number where one is not known.
    fn figures(&self) -> [f64; Self::FIGURES] {
        let mut found = [f64::NAN; Self::FIGURES];
        let (gas, control) = found.split_at_mut(GasFinding::FIGURES);
        if let Some(own) = &self.gas {
            gas.copy_from_slice(&own.figures());
        }
        if let Some(own) = &self.control {
            control.copy_from_slice(&own.sides.map(|side| side.figures()).concat());
        }
        found
    }

    /// The findings of an engine that differs by so much: what is not known of the difference stays as it is.
    #[must_use]
    pub fn moved_by(&self, by: &Strayed) -> Self {
        let mut own = self.figures();
        for (figure, by) in own.iter_mut().zip(&by.0) {
            *figure += if by.is_finite() { *by } else { 0.0 };
        }
        let (gas, control) = own.split_first_chunk::<{ GasFinding::FIGURES }>().unzip();
        let sides = control.map(|control| control.as_chunks::<{ InMotion::FIGURES }>().0);
        let control = sides.and_then(|sides| match sides {
            [intake, exhaust] => Some(ControlFinding { sides: [intake, exhaust].map(InMotion::of_figures) }),
            _ => None,
        });
        Self {
            gas: gas.filter(|_| self.gas.is_some()).map(GasFinding::of_figures),
            control: control.filter(|_| self.control.is_some()),
            moved: self.moved,
        }
    }
}

/// Where control is lost.
#[derive(Debug, Clone, PartialEq)]
pub struct ControlFinding {
    /// Intake and exhaust.
    pub sides: [InMotion; 2],
}

impl ControlFinding {
    /// The lower of both limiting speeds, rpm.
    pub fn least_rpm(&self) -> f64 {
        self.sides.iter().map(|side| Speed::from_si(side.speed).as_rpm()).fold(f64::INFINITY, f64::min)
    }

    /// Where only the limiting speeds are known, rpm.
    pub fn of_rpm(speeds: [f64; 2]) -> Self {
        let of = |speed: f64| InMotion {
            speed: Speed::rpm(speed).si(),
            low: Speed::rpm(speed).si(),
            piston: None,
            pushrod: None,
            lobe: None,
            wire: None,
        };
        Self { sides: speeds.map(of) }
    }
}

/// One valve in motion; what parts bear is the most up to a missed shift, absent where it is not known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct InMotion {
    /// Limiting speed, rad/s of the crank, the median of the draws; one beyond the speeds looked at counts as the highest.
    pub speed: f64,
    /// Nine of ten draws lie above.
    pub low: f64,
    /// Least gap to the piston along the stem, m.
    pub piston: Option<f64>,
    /// Load the pushrod buckles at over what it bears.
    pub pushrod: Option<f64>,
    /// Contact stress on the lobe, Pa.
    pub lobe: Option<f64>,
    /// Share of its strength that any wire bears.
    pub wire: Option<f64>,
}

impl InMotion {
    /// How many figures it has.
    pub const FIGURES: usize = 6;
    /// Where among them what parts bear begins.
    const LOADS: usize = 3;

    /// As plain figures, not a number where one is not known.
    pub fn figures(&self) -> [f64; Self::FIGURES] {
        let known = |figure: Option<f64>| figure.unwrap_or(f64::NAN);
        [self.speed, self.low, known(self.piston), known(self.pushrod), known(self.lobe), known(self.wire)]
    }

    /// From such figures.
    pub fn of_figures(&[speed, low, piston, pushrod, lobe, wire]: &[f64; Self::FIGURES]) -> Self {
        let known = |figure: f64| (!figure.is_nan()).then_some(figure);
        let [piston, pushrod, lobe, wire] = [piston, pushrod, lobe, wire].map(known);
        Self { speed, low, piston, pushrod, lobe, wire }
    }

    /// Of a turned side: what parts bear up to `reached` rpm, for what nobody reaches is nobody's load; a limit that was not
    /// found within `looked_to` rpm counts as that.
    pub fn of(side: &DynamicsSide, reached: f64, looked_to: f64) -> Self {
        let rpm = side.limiting_speed_rpm.unwrap_or(looked_to);
        let low = side.limiting_speed_band_rpm.map_or(rpm, |band| band[0]);
        let reached = side.speed_rpm.iter().filter(|rpm| **rpm <= reached).count();
        let most = |values: &Option<Vec<f64>>| values.as_ref()?.iter().take(reached).copied().reduce(f64::max);
        let least = |values: &Option<Vec<f64>>| values.as_ref()?.iter().take(reached).copied().reduce(f64::min);
        Self {
            speed: Speed::rpm(rpm).si(),
            low: Speed::rpm(low).si(),
            piston: least(&side.piston_gap_mm).map(|mm| mm * 1e-3),
            pushrod: least(&side.pushrod_reserve),
            lobe: most(&side.lobe_stress_mpa).map(|mpa| mpa * 1e6),
            wire: most(&side.spring_stress_share),
        }
    }
}

/// What breathing found that limits ask for, greatest over the speeds.
#[derive(Debug, Clone, PartialEq)]
pub struct GasFinding {
    /// Octane number at the edge of knock, for a spark engine.
    pub octane_needed: Option<f64>,
    /// Highest cylinder pressure, Pa.
    pub peak_pressure: f64,
    /// Highest cylinder pressure as the exhaust valve opens, Pa.
    pub opening_pressure: f64,
    /// Manifold vacuum at idle, Pa, where it was computed; zero when it does not idle.
    pub idle_vacuum: Option<f64>,
    /// Manifold and drive pressure, gauge, for a boosted engine.
    pub boost: Option<(Pressure, Pressure)>,
}

impl GasFinding {
    /// How many figures it has.
    pub const FIGURES: usize = 6;

    /// As plain figures, not a number where one is not known.
    pub fn figures(&self) -> [f64; Self::FIGURES] {
        let known = |figure: Option<f64>| figure.unwrap_or(f64::NAN);
        let boost = |of: fn((Pressure, Pressure)) -> Pressure| known(self.boost.map(|boost| of(boost).si()));
        let [octane, idle] = [self.octane_needed, self.idle_vacuum].map(known);
        [octane, self.peak_pressure, self.opening_pressure, idle, boost(|boost| boost.0), boost(|boost| boost.1)]
    }

    /// From such figures.
    pub fn of_figures(&[octane, peak_pressure, opening_pressure, idle, boost, drive]: &[f64; Self::FIGURES]) -> Self {
        let known = |figure: f64| (!figure.is_nan()).then_some(figure);
        let boost = known(boost).map(Pressure::from_si).zip(known(drive).map(Pressure::from_si));
        Self { octane_needed: known(octane), peak_pressure, opening_pressure, idle_vacuum: known(idle), boost }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn found() -> Findings {
        let gas = GasFinding {
            octane_needed: Some(98.0),
            peak_pressure: 8e6,
            opening_pressure: 7e5,
            idle_vacuum: None,
            boost: None,
        };
        Findings { gas: Some(gas), control: Some(ControlFinding::of_rpm([7000.0, 6500.0])), moved: None }
    }

    #[test]
    fn findings_move_by_what_is_known_of_a_difference() {
        let (mut other, own) = (found(), found());
        other.gas.as_mut().unwrap().octane_needed = Some(97.5);
        other.gas.as_mut().unwrap().idle_vacuum = Some(5e4);
        other.control = None;
        let moved = own.moved_by(&Strayed::between(&own, &other));
        assert_eq!(moved.gas.as_ref().unwrap().octane_needed, Some(98.5));
        // Vacuum was not known, and of the trains no difference is.
        assert_eq!(moved.gas.unwrap().idle_vacuum, None);
        assert_eq!(moved.control, own.control);
        assert_eq!(own.moved_by(&Strayed::between(&own, &own)), own);
    }

    #[test]
    fn a_valve_in_motion_comes_back_from_its_figures() {
        let known =
            InMotion { speed: 700.0, low: 690.0, piston: Some(1e-3), pushrod: None, lobe: Some(9e8), wire: None };
        assert_eq!(InMotion::of_figures(&known.figures()), known);
    }
}
