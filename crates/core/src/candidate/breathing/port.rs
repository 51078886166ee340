//! A port of the document: its pipe, and the effective area of its open valve over the cycle.

use super::super::resolve::{Gap, Part, Resolved, ResolvedSide, lack, together};
use super::outside::intake_loss;
use crate::clearance::ValveTravel;
use crate::document::Side;
use crate::gas::nozzle::effective_area;
use crate::gas::over_cycle::cycle;
use crate::gas::port::{Inner, Motion, Port};
use crate::given::{Needs, Place, Port as Given, need};
use crate::quantity::{Area, Flow, Length, Pressure};
use std::f64::consts::PI;
use std::sync::Arc;

/// Effective area over valve lift, m2 over m, rising from nothing.
type AreaOverLift = Vec<(f64, f64)>;

/// The port of `side` with the motion its valve has.
pub fn read_port(inputs: &Resolved, side: Side) -> Part<Port> {
    let port = inputs.port(side);
    let mut needs = Needs::default();
    let (own, rest, diameter) = read_pipe(inputs, side, &mut needs);
    let forward = forward_areas(port, &mut needs);
    let sizes = needs.met(()).map_err(Gap::from);
    let (travel, train) = (inputs.travel(side), inputs.side(side));
    together([lack(&sizes), lack(&travel), lack(&train.running)])?;
    let reverse = port.flow_reverse.as_ref().zip(port.flow_depression);
    let reverse = reverse.map_or_else(|| forward.clone(), |(rows, depression)| bench_areas(rows, depression));
    let area = 0.25 * PI * diameter.si() * diameter.si();
    let loss = match side {
        Side::Intake => intake_loss(inputs, area),
        Side::Exhaust => inputs.given.primary.bend_loss.unwrap_or(0.0),
    };
    Ok(Port {
        lengths: own.iter().map(|length| length + rest).collect(),
        area,
        inner: (side == Side::Intake).then(|| read_inner(inputs, area)).flatten(),
        loss,
        motion: motion(&travel?, train, forward, reverse)?,
        flow: 1.0,
    })
}

/// The stretch in the head, where its volume or its smallest section is known.
fn read_inner(inputs: &Resolved, pipe: f64) -> Option<Inner> {
    let runner = &inputs.given.runner;
    let length = runner.port_length?.si();
    let mean = runner.port_volume.map(|volume| volume.si() / length);
    let smallest = runner.smallest_section.map(Area::si);
    let is_known = length > 0.0 && (mean.is_some() || smallest.is_some());
    is_known.then(|| {
        let area = mean.unwrap_or(pipe);
        Inner { length, area, smallest: smallest.filter(|smallest| *smallest < area) }
    })
}

/// Lift while turning slowly, and what inertia adds to it at speed: on the nose the valve's own mass takes load off the train,
/// which gives less; on the flanks it gives more. Steady, that is without the train's own swing [spring less inertia through
/// the same compliance; common practice, no source]; the valve's side of the rocker alone hangs on that compliance.
fn motion(
    travel: &ValveTravel<'_>,
    train: &ResolvedSide,
    forward: AreaOverLift,
    reverse: AreaOverLift,
) -> Part<Motion> {
    let (running, spring) = (train.running.clone()?, train.spring.as_ref().ok());
    let mass = train.mass.as_ref().map_or(0.0, |mass| mass.valve_side.si());
    // Cam degrees to radians, twice, and the cam at half the crank's speed.
    let per_crank = 0.25 * (180.0 / PI).powi(2);
    let (mut lifts, mut gains, mut most) = (Vec::new(), Vec::new(), Vec::new());
    for deg in cycle() {
        let lobe = travel.lobe_at(deg);
        let lift = running.valve(lobe.lift, spring);
        let taken = spring
            .filter(|_| lift > 0.0)
            .map_or(0.0, |spring| running.compliance * running.valves * spring.load(Length::from_si(lift)).si());
        let inertia = -running.compliance * mass * running.ratio * lobe.acceleration * per_crank;
        lifts.push(lift);
        gains.push(if taken > 0.0 { inertia } else { 0.0 });
        most.push(taken);
    }
    Ok(Motion { lifts, gains, most, turned: Vec::new(), forward, reverse })
}

/// Lengths of the metal by cylinder, what the waves see beyond it, and the bore, m.
fn read_pipe(inputs: &Resolved, side: Side, needs: &mut Needs) -> (Vec<f64>, f64, Length) {
    let metres = |lengths: &[Length]| lengths.iter().map(|length| length.si()).collect::<Vec<f64>>();
    let mut own = |each: &Option<Arc<[Length]>>, one: Option<Length>, place: Place| {
        each.as_ref().map_or_else(|| vec![needs.take(one, place).si()], |each| metres(each))
    };
    match side {
        Side::Intake => {
            let runner = &inputs.given.runner;
            let lengths = own(&runner.runner_lengths, runner.runner_length, runner.at("runner_length"));
            let rest = need!(needs, runner.port_length).si() + need!(needs, runner.acoustic_end).si();
            (lengths, rest, need!(needs, runner.runner_diameter))
        }
        Side::Exhaust => {
            let primary = &inputs.given.primary;
            let lengths = own(&primary.primary_lengths, primary.primary_length, primary.at("primary_length"));
            (lengths, 0.0, need!(needs, primary.primary_diameter))
        }
    }
}

/// What stands in for a flow table nobody measured, in words.
pub const ESTIMATED_FLOW: &str =
    "no flow table: curtain with .70 and throat of .86 of the valve with .85 in series; common practice, no source";

fn forward_areas(port: &Given, needs: &mut Needs) -> AreaOverLift {
    if let Some(rows) = &port.flow {
        return bench_areas(rows, need!(needs, port.flow_depression));
    }
    estimated_areas(need!(needs, port.valve_diameter).si(), port.valves.unwrap_or(1.0))
}

fn bench_areas(rows: &[(Length, Flow)], depression: Pressure) -> AreaOverLift {
    let area = |flow: Flow| effective_area(flow.si(), depression.si()).unwrap_or(0.0);
    std::iter::once((0.0, 0.0)).chain(rows.iter().map(|(lift, flow)| (lift.si(), area(*flow)))).collect()
}

/// Areas of a port nobody measured: two restrictions in series, the curtain `.70 pi D L` and the throat
/// `.85 pi/4 (.86 D)^2` [common practice, no source].
fn estimated_areas(diameter: f64, valves: f64) -> AreaOverLift {
    let throat = 0.85 * 0.25 * PI * (0.86 * diameter).powi(2);
    let at = |lift: f64| {
        let curtain = 0.70 * PI * diameter * lift;
        valves * curtain * throat / curtain.hypot(throat)
    };
    (0..=24).map(|i| f64::from(i) * 0.02 * diameter).map(|lift| (lift, at(lift))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::table::held;

    #[test]
    fn a_port_nobody_measured_flows_like_a_usual_one() {
        // 2.02 in valve, .500 in lift, 28 inH2O: race heads flow 250 to 290 cfm, usual ones 200 to 240 [common practice, no source].
        let area = held(&estimated_areas(2.02 * 0.0254, 1.0), 0.5 * 0.0254);
        let per_area = effective_area(1.0, 28.0 * 249.089).unwrap();
        let cfm = area / per_area * 2118.88;
        assert!((200.0..290.0).contains(&cfm), "{cfm}");
        assert_eq!(held(&estimated_areas(0.05, 1.0), 0.0), 0.0);
    }
}
