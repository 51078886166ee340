//! What the gas pushes a valve open with over the cycle: estimated until breathing has run, then as it was computed at the
//! nearest speed.

use super::super::opening_pressure::{POLYTROPIC, estimated_pressure, outside};
use super::super::resolve::Resolved;
use super::super::timing;
use crate::document::Side;
use crate::dynamics::run::RECORDS;
use crate::quantity::{Angle, Length, Volume};
use crate::report::TraceReport;
use std::f64::consts::PI;

/// Crank degrees in which cylinder pressure falls to a third of its excess after the exhaust valve has opened (common
/// practice, no source).
const BLOW_DOWN: f64 = 25.0;
/// Crank degrees from firing top in which the charge burns (common practice, no source): a jump of pressure would strike the
/// valve into its seat.
const BURNS: (f64, f64) = (-20.0, 35.0);

/// Force of the gas that opens all valves of a side, N, at every record.
#[derive(Debug, Clone, PartialEq)]
pub struct OnHeads {
    estimated: Vec<f64>,
    /// Speeds of a curve in rising order, rpm, each with its own.
    computed: Vec<(f64, Vec<f64>)>,
}

impl OnHeads {
    /// None.
    pub(super) const fn none() -> Self {
        Self { estimated: Vec::new(), computed: Vec::new() }
    }

    /// The estimate.
    pub(super) fn estimated(inputs: &Resolved, side: Side, begins_at: f64) -> Self {
        let force = cylinder_pressure(inputs).and_then(|cylinder| {
            let (manifold, drive) = gauge(inputs);
            let in_port = match side {
                Side::Intake => manifold,
                Side::Exhaust => drive,
            };
            let heads = Heads::of(inputs, side)?;
            Some(records(begins_at).map(|deg| heads.opened_by(in_port, cylinder(deg))).collect())
        });
        Self { estimated: force.unwrap_or_default(), computed: Vec::new() }
    }

    /// With what breathing found at each speed.
    pub(super) fn breathing(&mut self, inputs: &Resolved, side: Side, begins_at: f64, traces: &[TraceReport]) {
        let Some(heads) = Heads::of(inputs, side) else { return };
        let outside = 1e-3 * outside(inputs);
        let forces = |trace: &TraceReport| {
            let port = if side == Side::Intake { &trace.intake_kpa } else { &trace.exhaust_kpa };
            let entry = |deg: f64| (deg / 720.0 * trace.crank_deg.len() as f64) as usize % trace.crank_deg.len();
            let gauge = |of: &[f64], deg: f64| 1e3 * (of[entry(deg)] - outside);
            let force = |deg: f64| heads.opened_by(gauge(port, deg), gauge(&trace.cylinder_kpa, deg));
            (trace.rpm, records(begins_at).map(force).collect())
        };
        self.computed = traces.iter().filter(|trace| !trace.crank_deg.is_empty()).map(forces).collect();
    }

    /// At a speed: of the nearest one that was computed.
    pub fn at(&self, rpm: f64) -> &[f64] {
        let off = |of: &(f64, Vec<f64>)| (of.0 - rpm).abs();
        let nearest = self.computed.iter().min_by(|a, b| off(a).total_cmp(&off(b)));
        nearest.map_or(&self.estimated, |(_, force)| force)
    }

    /// Whether breathing computed it.
    pub fn is_computed(&self) -> bool {
        !self.computed.is_empty()
    }
}

/// Degrees from firing top of every record.
fn records(begins_at: f64) -> impl Iterator<Item = f64> {
    (0..RECORDS).map(move |record| (begins_at + record as f64).rem_euclid(720.0))
}

/// Areas of the heads of one side and of their stems, m2, all valves together.
struct Heads {
    head: f64,
    stem: f64,
}

impl Heads {
    fn of(inputs: &Resolved, side: Side) -> Option<Self> {
        let (port, valves) = (inputs.port(side), inputs.side(side).valves);
        let area = |diameter: Length| valves * 0.25 * PI * diameter.si().powi(2);
        Some(Self { head: area(port.valve_diameter?), stem: port.stem_diameter.map_or(0.0, area) })
    }

    /// `p_port (A_head - A_stem) - p_cyl A_head`, N; pressures above outside, Pa.
    fn opened_by(&self, port: f64, cylinder: f64) -> f64 {
        port * (self.head - self.stem) - cylinder * self.head
    }
}

/// Manifold and drive pressure above outside, Pa.
fn gauge(inputs: &Resolved) -> (f64, f64) {
    inputs.boost().map_or((0.0, 0.0), |(manifold, drive)| (manifold.si().max(0.0), drive.si().max(0.0)))
}

/// Cylinder pressure above outside over degrees from firing top, Pa: compressed and expanded with one exponent, burned about
/// top dead centre, blown down as an exponential.
fn cylinder_pressure(inputs: &Resolved) -> Option<impl Fn(f64) -> f64> {
    let cylinder = inputs.cylinder.clone().ok()?;
    let events = timing(inputs).ok()?;
    let (manifold, drive) = gauge(inputs);
    let outside = outside(inputs);
    let opening = 180.0 - events.exhaust.opens_006_deg;
    let closing = 540.0 + events.intake.closes_006_deg;
    let at_opening = estimated_pressure(inputs, manifold).ok()?;
    cylinder.volume(Angle::deg(0.0))?;
    let volume = move |deg: f64| cylinder.volume(Angle::deg(deg)).map_or(1.0, Volume::si);
    let (opened, closed) = (volume(opening), volume(closing));
    Some(move |deg: f64| {
        let compressed = || (manifold + outside) * (closed / volume(deg)).powf(POLYTROPIC) - outside;
        let after_top = if deg > 540.0 { deg - 720.0 } else { deg };
        let done = ((after_top - BURNS.0) / (BURNS.1 - BURNS.0)).clamp(0.0, 1.0);
        let burned = done * done * (3.0 - 2.0 * done);
        if deg < opening {
            let expanded = at_opening * (opened / volume(deg)).powf(POLYTROPIC) - outside;
            compressed() + burned * (expanded - compressed())
        } else if deg < 360.0 {
            drive + (at_opening - outside - drive).max(0.0) * (-(deg - opening) / BLOW_DOWN).exp()
        } else if deg < closing {
            manifold
        } else {
            let expanded = at_opening * (opened / volume(deg)).powf(POLYTROPIC) - outside;
            compressed() + burned * (expanded - compressed())
        }
    })
}
