//! One valve over the piston on its way from rest to speed.

use super::growing::{Growing, Otherwise};
use super::terms::TermSource;
use crate::candidate::blocks::{closed_gap, closed_gaps};
use crate::candidate::dynamics::TurnedLift;
use crate::candidate::resolve::{Part, Resolved, lack, together};
use crate::candidate::stages::Stages;
use crate::clearance::{ClosedGap, ValveTravel, least_gap};
use crate::document::Side;
use crate::quantity::Length;
use crate::report::{AtSpeedSide, GrowthTerm};
use std::ops::Range;
use std::sync::Arc;

/// Crank degrees of the overlap in which a valve can meet a piston.
const ABOUT: Range<usize> = 260..461;

/// One valve on its way from rest to speed.
pub struct Way<'a> {
    closed: ClosedGap,
    /// Its gaps at rest at every crank degree of a turn.
    at_rest: Arc<Vec<Length>>,
    travel: ValveTravel<'a>,
}

impl<'a> Way<'a> {
    /// Of one side.
    ///
    /// # Errors
    /// What its gap at rest lacks.
    pub fn of(inputs: &'a Resolved, side: Side, stages: &Stages) -> Part<Self> {
        let (closed, travel) = (closed_gap(inputs, side), inputs.travel(side));
        together([lack(&closed), lack(&travel)])?;
        let closed = closed?;
        Ok(Self { closed, at_rest: closed_gaps(&closed, stages), travel: travel? })
    }

    /// Where the gap is least, crank degrees, and how much it is, m: the piston `up` higher, the cam `late` by so many crank
    /// degrees, the valve by its lobe or as it is moved.
    pub fn least(&self, up: f64, late: f64, moved: Option<&TurnedLift>) -> (f64, f64) {
        let closed = self.closed.raised(Length::from_si(up));
        let lift = |deg: f64| moved.map_or_else(|| self.travel.lift_at(deg - late).si(), |moved| moved.at(deg - late));
        // A piston that comes up takes as much from every place, nearly: gaps at rest tell where to look.
        least_gap(&closed, &self.at_rest, &lift, ABOUT)
    }

    /// The least gap of all speeds, m, the valve by its lobe.
    pub fn quiet(&self, growing: &Growing) -> f64 {
        let gap = |rpm: f64| self.least(growing.up(rpm), growing.late(rpm), None).1;
        growing.speeds().into_iter().map(gap).fold(f64::INFINITY, f64::min)
    }

    /// Every term at every speed, each with those before it taken off.
    pub fn report(
        &self,
        growing: &Growing,
        speeds: &[f64],
        moved: Option<&[TurnedLift]>,
        from: impl Fn(&str, Otherwise) -> TermSource,
    ) -> AtSpeedSide {
        let rest = self.least(0.0, 0.0, None);
        let mut terms: Vec<GrowthTerm> =
            growing.rises.iter().map(|rise| from(rise.key, rise.otherwise).term(rise.key, rise.name)).collect();
        let late_by = from("cam_lag_per_1000_rpm", ("usual of its drive, assumed", true));
        terms.push(late_by.term("cam_lag", "Cam running late"));
        if moved.is_some() {
            terms.push(TermSource::motion().term("lift_in_motion", "Lift in motion"));
        }
        let (mut minimum_mm, mut at_deg) = (Vec::with_capacity(speeds.len()), Vec::with_capacity(speeds.len()));
        for (place, rpm) in speeds.iter().enumerate() {
            let late = growing.late(*rpm);
            let mut found = vec![rest];
            let mut up = 0.0;
            for rise in &growing.rises {
                up += rise.at(rpm / growing.top);
                found.push(self.least(up, 0.0, None));
            }
            found.push(self.least(up, late, None));
            found.extend(moved.and_then(|moved| moved.get(place)).map(|moved| self.least(up, late, Some(moved))));
            for (term, pair) in terms.iter_mut().zip(found.windows(2)) {
                term.mm.push(1e3 * (pair[1].1 - pair[0].1));
            }
            let (deg, gap) = found.last().copied().unwrap_or(rest);
            minimum_mm.push(1e3 * gap);
            at_deg.push(deg);
        }
        AtSpeedSide {
            at_rest_mm: 1e3 * rest.1,
            minimum_mm,
            at_deg,
            terms,
            radial_mm: None,
            retainer_to_seal_mm: None,
            coil_bind_mm: None,
            marks: Vec::new(),
        }
    }
}
