//! The blocks of a candidate's report, each from its resolved inputs.

use super::follower::{LobeContact, lobe_contact};
use super::inputs::{Gap, Inputs, Part, SideInputs};
use super::stages::{Stages, key};
use crate::cam::{Events, Lobe, height_006, height_050, height_200};
use crate::clearance::{PistonClearance, ValveFrame, closed_gaps, closest, retainer_to_seal, valve_to_valve};
use crate::document::Side;
use crate::engine::Cylinder;
use crate::quantity::{Length, Pressure, shown_stress};
use crate::report::{
    Block, ClearanceReport, ControlReport, DurationAt, EngineReport, LiftReport, LobeReport, SideTiming, Sides,
    SpringReport, TimingReport, ValveClearance,
};
use crate::train::{Spring, hand_check, opening_force};

impl<T> From<Part<T>> for Block<T> {
    fn from(part: Part<T>) -> Self {
        match part {
            Ok(value) => Self::Done(value),
            Err(Gap { reason, needs }) => Self::Failed { reason, needs },
        }
    }
}

/// Both sides, or every gap of both at once.
pub(super) fn both<T>(of: impl Fn(Side) -> Part<T>) -> Part<Sides<T>> {
    match (of(Side::Intake), of(Side::Exhaust)) {
        (Ok(intake), Ok(exhaust)) => Ok(Sides { intake, exhaust }),
        (Err(one), Err(other)) => Err(merge(one, other)),
        (Err(gap), _) | (_, Err(gap)) => Err(gap),
    }
}

fn merge(mut one: Gap, other: Gap) -> Gap {
    if one != other {
        one.reason = format!("{}; {}", one.reason, other.reason);
        one.needs.extend(other.needs);
    }
    one
}

/// Displacement, compression, quench.
pub fn engine(cylinder: &Cylinder) -> EngineReport {
    EngineReport {
        displacement_cc: cylinder.displacement().as_cc(),
        compression_ratio: cylinder.compression_ratio(),
        quench_mm: cylinder.piston_to_head().as_mm(),
    }
}

/// Events of both lobes at one height, asymmetry included.
fn events_at(inputs: &Inputs<'_>, height: Length) -> Part<Events> {
    let phasing = inputs.phasing.clone()?;
    let at = |side: Side| -> Part<(f64, f64)> {
        let lobe = inputs.side(side).lobe()?;
        let too_low =
            || Gap { reason: format!("{} lobe is below {:.3} in", side.key(), height.as_inches()), needs: Vec::new() };
        let later =
            lobe.centre_of_events(height).ok_or_else(too_low)? - lobe.centre_of_events(height_050()).unwrap_or(0.0);
        Ok((lobe.duration_crank_deg(height).ok_or_else(too_low)?, 2.0 * later))
    };
    let ((intake, intake_later), (exhaust, exhaust_later)) = (at(Side::Intake)?, at(Side::Exhaust)?);
    let events = phasing.events(intake, exhaust);
    Ok(Events {
        intake_opens_btdc: events.intake_opens_btdc - intake_later,
        intake_closes_abdc: events.intake_closes_abdc + intake_later,
        exhaust_opens_bbdc: events.exhaust_opens_bbdc - exhaust_later,
        exhaust_closes_atdc: events.exhaust_closes_atdc + exhaust_later,
    })
}

/// Events, durations, overlap, trapped compression.
pub fn timing(inputs: &Inputs<'_>) -> Part<TimingReport> {
    let phasing = inputs.phasing.clone()?;
    let (seat, fifty) = (events_at(inputs, height_006())?, events_at(inputs, height_050())?);
    let cylinder = inputs.cylinder.as_ref().ok();
    let trapped = |abdc: f64| cylinder.and_then(|c| c.trapped_compression_ratio(abdc));
    let side = |side: Side| side_timing(inputs, side, &seat, &fifty);
    Ok(TimingReport {
        intake: side(Side::Intake)?,
        exhaust: side(Side::Exhaust)?,
        lobe_separation_deg: phasing.separation(),
        advance_deg: phasing.advance(),
        overlap_006_deg: seat.overlap(),
        overlap_050_deg: fifty.overlap(),
        trapped_compression_ratio: trapped(seat.intake_closes_abdc),
        trapped_compression_050_ratio: trapped(fifty.intake_closes_abdc),
    })
}

fn side_timing(inputs: &Inputs<'_>, side: Side, seat: &Events, fifty: &Events) -> Part<SideTiming> {
    let (own, phasing) = (inputs.side(side), inputs.phasing.clone()?);
    let lobe = own.lobe()?;
    let later = 2.0 * lobe.centre_of_events(height_050()).unwrap_or(0.0);
    let at = |height: Length| lobe.duration_crank_deg(height);
    let durations = own
        .card_heights
        .iter()
        .filter_map(|height| at(*height).map(|deg| DurationAt { height_mm: height.as_mm(), deg }));
    let (centreline_deg, centre_of_lift_deg, opens, closes) = match side {
        Side::Intake => (
            phasing.intake_centreline,
            phasing.intake_centreline - later,
            [seat.intake_opens_btdc, fifty.intake_opens_btdc],
            [seat.intake_closes_abdc, fifty.intake_closes_abdc],
        ),
        Side::Exhaust => (
            phasing.exhaust_centreline,
            phasing.exhaust_centreline + later,
            [seat.exhaust_opens_bbdc, fifty.exhaust_opens_bbdc],
            [seat.exhaust_closes_atdc, fifty.exhaust_closes_atdc],
        ),
    };
    Ok(SideTiming {
        centreline_deg,
        centre_of_lift_deg,
        durations: durations.collect(),
        duration_006_deg: at(height_006()).unwrap_or(0.0),
        duration_050_deg: at(height_050()).unwrap_or(0.0),
        duration_200_deg: at(height_200()),
        opens_006_deg: opens[0],
        closes_006_deg: closes[0],
        opens_050_deg: opens[1],
        closes_050_deg: closes[1],
    })
}

/// Lift at lobe and valve.
pub fn lift(inputs: &Inputs<'_>) -> Part<Sides<LiftReport>> {
    both(|side| {
        let own = inputs.side(side);
        let (lobe, lift) = (own.lobe()?, own.lift.clone()?);
        Ok(LiftReport {
            lobe_mm: lobe.lift().as_mm(),
            gross_mm: lift.gross(lobe).as_mm(),
            net_mm: lift.net(lobe).as_mm(),
            running_mm: own.running.clone()?.valve(lobe.lift().si(), own.spring.as_ref().ok()) * 1e3,
        })
    })
}

/// Follower motion at every cam degree.
pub fn lobe(inputs: &Inputs<'_>) -> Part<Sides<LobeReport>> {
    both(|side| Ok(lobe_report(inputs.side(side).lobe()?, &lobe_contact(inputs, side)?)))
}

fn lobe_report(lobe: &Lobe, contact: &LobeContact<'_>) -> LobeReport {
    const MM: f64 = 1e3;
    let (extremes, stress) = (contact.extremes(), contact.stress());
    let fine = || lobe.sampled(0.25).map(|(_, m)| m);
    let samples: Vec<_> = lobe.sampled(0.5).collect();
    let column = |of: fn(&crate::cam::Motion) -> f64| samples.iter().map(|(_, m)| of(m) * MM).collect();
    LobeReport {
        peak_velocity_mm_per_cam_deg: MM * fine().map(|m| m.velocity.abs()).fold(0.0, f64::max),
        peak_acceleration_mm_per_cam_deg2: MM * fine().map(|m| m.acceleration).fold(0.0, f64::max),
        minimum_acceleration_mm_per_cam_deg2: MM * fine().map(|m| m.acceleration).fold(0.0, f64::min),
        minimum_radius_mm: extremes.convex * MM,
        hollow_radius_mm: extremes.hollow.map(|radius| radius * MM),
        pressure_angle_deg: extremes.pressure_angle * 180.0 / std::f64::consts::PI,
        foot_offset_mm: contact.is_flat().then_some(extremes.offset * MM),
        contact_stress_mpa: stress.map(|stress| stress * 1e-6),
        contact_stress: stress.map(shown_stress),
        residual_mm: lobe.residual().map(Length::as_mm),
        cam_deg: samples.iter().map(|(deg, _)| *deg).collect(),
        lift_mm: column(|m| m.lift),
        velocity: column(|m| m.velocity),
        acceleration: column(|m| m.acceleration),
        jerk: column(|m| m.jerk),
    }
}

/// Spring of one side and the most it is lifted by, when both are known.
pub fn spring_at_lift(own: &SideInputs) -> Part<(&Spring, Length)> {
    let spring = own.spring.as_ref().map_err(Clone::clone)?;
    Ok((spring, own.most_lift()?))
}

/// Seat load left against the greatest pressure in the port; `None` without boost levels.
pub fn seat_reserve(inputs: &Inputs<'_>, side: Side, seat: f64) -> Option<f64> {
    let (manifold, drive) = inputs.boost?;
    let port: Pressure = match side {
        Side::Intake => manifold,
        Side::Exhaust => drive,
    };
    let node = inputs.port(side);
    let push = opening_force(port, node.quantity("valve_diameter")?, node.quantity("stem_diameter")?);
    Some(seat - push.si())
}

/// Spring loads at this cam's lift.
pub fn spring(inputs: &Inputs<'_>) -> Part<Sides<SpringReport>> {
    both(|side| {
        let (spring, net) = spring_at_lift(inputs.side(side))?;
        let seat = spring.load(Length::from_si(0.0)).si();
        Ok(SpringReport {
            seat_load_n: seat,
            open_load_n: spring.load(net).si(),
            rate_n_per_mm: spring.rate(net).as_n_per_mm(),
            to_coil_bind_mm: spring.to_bind(net).map(Length::as_mm),
            surge_frequency_hz: spring.surge_frequency(net),
            stress_open_mpa: spring.stress(net).map(Pressure::as_mpa),
            seat_reserve_n: seat_reserve(inputs, side, seat),
        })
    })
}

/// The hand check of both sides.
pub fn control(inputs: &Inputs<'_>) -> Part<Sides<ControlReport>> {
    both(|side| {
        let own = inputs.side(side);
        let (spring, _) = spring_at_lift(own)?;
        let lift = own.lift.clone()?;
        let mass = own.mass.clone()?.effective(lift.ratio);
        let nowhere = || Gap { reason: "the lobe never decelerates".to_owned(), needs: Vec::new() };
        let check = hand_check(own.lobe()?, &lift, spring, own.valves, mass).ok_or_else(nowhere)?;
        Ok(ControlReport {
            hand_check_rpm: check.speed.as_rpm(),
            hand_check_at_cam_deg: check.cam_deg,
            effective_mass_g: mass.as_grams(),
        })
    })
}

/// Closest approach of one valve to the piston.
pub fn piston_clearance(inputs: &Inputs<'_>, side: Side, stages: &Stages) -> Part<PistonClearance> {
    let own = inputs.side(side);
    let (cylinder, valve) = (inputs.cylinder.clone()?, own.valve.clone()?);
    let (crown, travel) = (own.crown.clone()?, inputs.travel(side)?);
    let real = travel.real.map(|real| (real.ratio, real.rocker, real.sweep.last()));
    let inputs_key = key(&(&cylinder, &valve, &crown, travel.lift, travel.full_lift_at, &own.lobe_key, real));
    Ok(*stages.clearances.get(inputs_key, || {
        let closed =
            stages.closed_gaps.get(key(&(&cylinder, &valve, &crown)), || closed_gaps(&cylinder, &valve, &crown));
        closest(&cylinder, &valve, &crown, &travel, &closed)
    }))
}

/// Smallest distance between the heads.
pub fn valves_apart(inputs: &Inputs<'_>) -> Part<(Length, f64)> {
    for side in Side::BOTH {
        let port = inputs.port(side);
        let absent: Vec<String> =
            ["valve_offset_x", "valve_offset_y"].iter().filter(|k| !port.has(k)).map(|k| port.path_of(k)).collect();
        if !absent.is_empty() {
            return Err(crate::document::Missing(absent).into());
        }
    }
    let heads = |side: Side| -> Part<Vec<ValveFrame>> {
        let own = inputs.side(side);
        Ok(std::iter::once(own.valve.clone()?).chain(own.second_valve).collect())
    };
    let (intakes, exhausts) = (heads(Side::Intake)?, heads(Side::Exhaust)?);
    let (one, other) = (inputs.travel(Side::Intake)?, inputs.travel(Side::Exhaust)?);
    let pairs = intakes.iter().flat_map(|intake| exhausts.iter().map(move |exhaust| (intake, exhaust)));
    let gaps = pairs.map(|(intake, exhaust)| valve_to_valve((intake, &one), (exhaust, &other)));
    let nothing = || Gap { reason: "there are no valves".to_owned(), needs: Vec::new() };
    gaps.min_by(|a, b| a.0.si().total_cmp(&b.0.si())).ok_or_else(nothing)
}

/// Retainer to seal at full net lift.
pub fn retainer_gap(inputs: &Inputs<'_>, side: Side) -> Part<Length> {
    let own = inputs.side(side);
    let train = inputs.candidate.child("train");
    Ok(retainer_to_seal(&train, &inputs.port(side), side, own.most_lift()?)?)
}

/// Everything that must not touch.
pub fn clearance(inputs: &Inputs<'_>, stages: &Stages) -> Part<ClearanceReport> {
    let cylinder = inputs.cylinder.clone()?;
    let sides = both(|side| {
        let piston = piston_clearance(inputs, side, stages)?;
        Ok(ValveClearance {
            piston_minimum_mm: piston.along_stem.as_mm(),
            piston_minimum_vertical_mm: piston.vertical.as_mm(),
            piston_minimum_normal_mm: piston.normal.as_mm(),
            piston_minimum_at_deg: piston.at_deg,
            per_degree_of_advance_mm: piston.per_degree_of_advance.as_mm(),
            radial_mm: piston.radial.map(Length::as_mm),
            retainer_to_seal_mm: retainer_gap(inputs, side).ok().map(Length::as_mm),
        })
    })?;
    Ok(ClearanceReport {
        intake: sides.intake,
        exhaust: sides.exhaust,
        valve_to_valve_mm: valves_apart(inputs).ok().map(|(gap, _)| gap.as_mm()),
        piston_to_head_mm: cylinder.piston_to_head().as_mm(),
    })
}
