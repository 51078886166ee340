//! What stands before and behind a candidate's ports: mixture, manifolds, restrictions.

use super::super::resolve::Resolved;
use crate::document::Side;
use crate::gas::Gas;
use crate::gas::nozzle::effective_area;
use crate::gas::setup::{Collector, Combustion, Mixture, Restriction};
use crate::gas::thermo::Fuel;
use crate::given::InductionPart;
use crate::quantity::{Length, Pressure, Speed, Temperature};
use crate::words::{ExhaustManifold, Induction, IntakeManifold, Layout, MixtureKind};
use std::f64::consts::PI;

/// Volumetric efficiency at which depression and back pressure are stated, at the wanted speed of peak power.
const STATED_FILLING: f64 = 0.95;
/// That speed where the plan does not say it: so much of the way up the band.
const STATED_PLACE: f64 = 0.9;
/// Specific heat of air with fuel, J/(kg K).
const CHARGE_HEAT: f64 = 1010.0;

/// Share of the fuel that cools the charge before the valve, and that is vapour there: a carburettor's cools it by some 10 K
/// and takes 1.5 % of the room, a port injector's by 5 K [sizes: Heywood, ch. 7; from memory]. The rest evaporates on hot
/// metal or in the cylinder.
const fn evaporated(kind: MixtureKind) -> (f64, f64) {
    match kind {
        MixtureKind::Carburettor => (0.42, 0.75),
        MixtureKind::PortInjection => (0.21, 0.55),
        MixtureKind::DirectInjection => (0.0, 0.0),
    }
}

/// What the fuel does to the charge before it comes to the valve.
pub fn read_mixture(inputs: &Resolved, fuel: Fuel, combustion: &Combustion) -> Mixture {
    let Combustion::Spark { air_fuel, .. } = combustion else { return Mixture::default() };
    let induction = &inputs.given.induction;
    let usual = if induction.kind == Some(Induction::Carburettor) {
        MixtureKind::Carburettor
    } else {
        MixtureKind::PortInjection
    };
    let (cools, vapour) = evaporated(induction.mixture.unwrap_or(usual));
    let room = vapour * fuel.vapour_of_air(*air_fuel);
    Mixture { cooled: cools * fuel.evaporation / (air_fuel * CHARGE_HEAT), vapour: room / (1.0 + room) }
}

/// Loss of an intake manifold's kind, in velocity heads of its runner: on the bench they cost a head some 1, 5, 3 and 6 % of
/// its flow (common practice, no source).
const fn manifold_loss(kind: IntakeManifold) -> f64 {
    match kind {
        IntakeManifold::SinglePlane => 0.17,
        IntakeManifold::DualPlane => 0.9,
        IntakeManifold::LongRunners => 0.5,
        IntakeManifold::Log => 1.2,
        IntakeManifold::Individual => 0.0,
    }
}

/// The kind an intake manifold is taken for where nobody says it: on a carburettor one plane for racing and two for the rest,
/// else long runners (common practice, no source).
pub fn usual_manifold(inputs: &Resolved) -> IntakeManifold {
    match inputs.given.induction.kind {
        Some(Induction::Carburettor) if inputs.given.purpose.is_raced() => IntakeManifold::SinglePlane,
        Some(Induction::Carburettor) => IntakeManifold::DualPlane,
        _ => IntakeManifold::LongRunners,
    }
}

/// Planes of the intake manifold.
pub fn planes(inputs: &Resolved) -> usize {
    let kind = inputs.given.induction.manifold.unwrap_or_else(|| usual_manifold(inputs));
    if kind == IntakeManifold::DualPlane { 2 } else { 1 }
}

/// Loss of the intake manifold in velocity heads of a runner of `area` (m2): as given; from what the head flows with and
/// without it, `(A/A_head)^2 ((Q_head/Q_with)^2 - 1)`, both at one depression; or of its kind.
pub fn intake_loss(inputs: &Resolved, area: f64) -> f64 {
    let (induction, port) = (&inputs.given.induction, inputs.port(Side::Intake));
    let flowed = induction.flow_without_manifold.zip(induction.flow_with_manifold).zip(port.flow_depression);
    let measured = flowed.and_then(|((alone, with), depression)| {
        let head = effective_area(alone.si(), depression.si())?;
        Some((area / head).powi(2) * ((alone.si() / with.si()).powi(2) - 1.0).max(0.0))
    });
    let of_kind = || manifold_loss(induction.manifold.unwrap_or_else(|| usual_manifold(inputs)));
    induction.manifold_loss.or(measured).unwrap_or_else(of_kind)
}

/// What depression and back pressure, as gauges show them at the wanted speed of peak power, make of every other flow.
pub fn read_restriction(inputs: &Resolved, displacement: f64) -> Restriction {
    let (target, ambient) = (&inputs.given.target, &inputs.given.ambient);
    let band = target.band_from.zip(target.band_to).map(|(from, to)| from.si() + STATED_PLACE * (to.si() - from.si()));
    let Some(speed) = target.peak_power_at.map(Speed::si).or(band) else { return Restriction::default() };
    let density = ambient.pressure.map_or(99e3, Pressure::si)
        / (Gas::AIR.r * ambient.temperature.map_or(298.15, Temperature::si));
    let flow = STATED_FILLING * density * displacement * speed / (4.0 * PI);
    let of = |lost: Option<Pressure>| lost.map_or(0.0, Pressure::si) / (flow * flow).max(1e-12);
    Restriction { inlet: of(inputs.given.induction.inlet_depression), outlet: of(inputs.given.primary.back_pressure) }
}

/// Whether the loss of the intake manifold itself is given, not its kind alone.
pub const fn is_manifold_known(induction: &InductionPart) -> bool {
    induction.manifold_loss.is_some() || induction.flow_with_manifold.is_some()
}

/// How many of the losses between outside and cylinder nobody measured: the manifold's, the inlet's, the exhaust's, and the
/// section of the port.
pub fn assumed_losses(inputs: &Resolved) -> usize {
    let (induction, runner) = (&inputs.given.induction, &inputs.given.runner);
    let known = [
        is_manifold_known(induction),
        induction.inlet_depression.is_some(),
        inputs.given.primary.back_pressure.is_some(),
        runner.port_volume.is_some(),
    ];
    known.into_iter().filter(|is_known| !is_known).count()
}

/// Length and bore of what the primaries of a manifold's kind meet in, m (common practice, no source).
pub const fn usual_collector(kind: ExhaustManifold) -> (f64, f64) {
    match kind {
        ExhaustManifold::Headers => (0.300, 0.076),
        ExhaustManifold::Cast => (0.300, 0.057),
        ExhaustManifold::Log => (0.450, 0.055),
        ExhaustManifold::WaterJacketed => (0.400, 0.064),
    }
}

/// Where the primaries of an engine of `count` cylinders meet: as given, or as a manifold of its kind has it, one for each
/// bank, odd and even numbers; none where nothing is said, and every primary ends in the open.
pub fn read_collectors(inputs: &Resolved, count: usize) -> Vec<Collector> {
    let given = &inputs.given.collector;
    let usual = inputs.given.primary.manifold.map(usual_collector);
    let sized = |own: Option<Length>, usual: Option<f64>| own.map(Length::si).or(usual);
    let length = sized(given.length, usual.map(|(length, _)| length));
    let (Some(length), Some(bore)) = (length, sized(given.diameter, usual.map(|(_, bore)| bore))) else {
        return Vec::new();
    };
    let groups: Vec<Vec<f64>> = given.cylinders.as_ref().map_or_else(|| banks(inputs, count), |groups| groups.to_vec());
    let members = |group: &Vec<f64>| -> Vec<usize> {
        group.iter().map(|n| *n as usize).filter(|n| (1..=count).contains(n)).map(|n| n - 1).collect()
    };
    let pipe = (length, 0.25 * PI * bore * bore);
    let kept = given.merge_angle.map_or(0.0, |angle| (0.75 * angle.si()).cos().max(0.0));
    let all: Vec<Collector> = groups.iter().map(|group| Collector { members: members(group), pipe, kept }).collect();
    // Every cylinder has to be in exactly one of them.
    let mut seen: Vec<usize> = all.iter().flat_map(|collector| collector.members.iter().copied()).collect();
    seen.sort_unstable();
    if seen == (0..count).collect::<Vec<_>>() { all } else { Vec::new() }
}

/// Cylinder numbers that share a manifold where nobody says which: all, as before there were kinds of manifolds; those of a
/// bank where the kind is said.
fn banks(inputs: &Resolved, count: usize) -> Vec<Vec<f64>> {
    let numbers = |first: usize, step: usize| (first..=count).step_by(step).map(|n| n as f64).collect();
    let is_vee = inputs.given.engine.layout.is_some_and(Layout::is_vee);
    if is_vee && inputs.given.primary.manifold.is_some() {
        vec![numbers(1, 2), numbers(2, 2)]
    } else {
        vec![numbers(1, 1)]
    }
}
