//! The blocks of a candidate's report, each from its resolved inputs.

use super::follower::{LobeContact, lobe_contact};
use super::resolve::{Gap, Part, Resolved, ResolvedSide, lack, together};
use super::stages::{Stages, key};
use crate::cam::{Events, Lobe, height_006, height_050, height_200};
use crate::clearance::{
    ClosedGap, CrownFrame, PistonClearance, ValveFrame, ValveTravel, closest, retainer_to_seal, valve_to_valve,
};
use crate::document::Side;
use crate::engine::Cylinder;
use crate::given::{Needs, Port, need};
use crate::quantity::{Length, Mass, Pressure, shown_stress};
use crate::report::{
    ClearanceReport, ControlReport, DurationAt, EngineReport, LiftReport, LobeReport, SideTiming, Sides, TimingReport,
    ValveClearance,
};
use crate::train::{HandCheck, Spring, hand_check, opening_force};
use std::sync::Arc;

/// Both sides, or every gap of both at once.
pub(super) fn both<T>(of: impl Fn(Side) -> Part<T>) -> Part<Sides<T>> {
    let (intake, exhaust) = (of(Side::Intake), of(Side::Exhaust));
    together([lack(&intake), lack(&exhaust)])?;
    Ok(Sides { intake: intake?, exhaust: exhaust? })
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
fn events_at(inputs: &Resolved, height: Length) -> Part<Events> {
    let phasing = inputs.phasing.clone()?;
    let at = |side: Side| -> Part<(f64, f64)> {
        let lobe = inputs.side(side).lobe()?;
        let too_low = || Gap::because(format!("{} lobe is below {:.3} in", side.key(), height.as_inches()));
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
pub fn timing(inputs: &Resolved) -> Part<TimingReport> {
    let [intake, exhaust] = Side::BOTH.map(|side| lack(&inputs.side(side).lobe()));
    together([lack(&inputs.phasing), intake, exhaust])?;
    let phasing = inputs.phasing.clone()?;
    let (seat, fifty) = (events_at(inputs, height_006())?, events_at(inputs, height_050())?);
    let cylinder = inputs.cylinder.as_ref().ok();
    let trapped = |abdc: f64| cylinder.and_then(|c| c.trapped_compression_ratio(abdc));
    let closed = closing_over_lash(inputs)?;
    let side = |side: Side| side_timing(inputs, side, &seat, &fifty);
    Ok(TimingReport {
        intake: side(Side::Intake)?,
        exhaust: side(Side::Exhaust)?,
        lobe_separation_deg: phasing.separation(),
        advance_deg: phasing.advance(),
        overlap_006_deg: seat.overlap(),
        overlap_050_deg: fifty.overlap(),
        trapped_compression_ratio: trapped(closed),
        trapped_compression_050_ratio: trapped(fifty.intake_closes_abdc),
    })
}

/// Where the intake valve meets its seat, crank degrees after bottom dead centre: .006 in of lobe lift over what the lash
/// of a solid lifter takes.
fn closing_over_lash(inputs: &Resolved) -> Part<f64> {
    let lift = inputs.side(Side::Intake).lift.as_ref().map_err(Clone::clone);
    let lash = lift.map_or(0.0, |lift| lift.lash.si() / lift.ratio);
    Ok(events_at(inputs, Length::from_si(height_006().si() + lash))?.intake_closes_abdc)
}

fn side_timing(inputs: &Resolved, side: Side, seat: &Events, fifty: &Events) -> Part<SideTiming> {
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
pub fn lift(inputs: &Resolved) -> Part<Sides<LiftReport>> {
    both(|side| {
        let own = inputs.side(side);
        together([lack(&own.lobe()), lack(&own.lift)])?;
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
pub fn lobe(inputs: &Resolved) -> Part<Sides<LobeReport>> {
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
pub fn spring_at_lift(own: &ResolvedSide) -> Part<(&Spring, Length)> {
    let lift = own.most_lift();
    together([lack(&own.spring), lack(&lift)])?;
    Ok((own.spring.as_ref().map_err(Clone::clone)?, lift?))
}

/// Seat load left of `seat` (N) against a gauge pressure in the port; `None` while the valve's sizes are not known.
pub fn seat_reserve(port: &Port, pressure: Pressure, seat: f64) -> Option<f64> {
    Some(seat - opening_force(pressure, port.valve_diameter?, port.stem_diameter?).si())
}

/// The hand check of one side, and the effective mass it was made with.
pub fn rigid_control(own: &ResolvedSide) -> Part<(HandCheck, Mass)> {
    let spring = spring_at_lift(own);
    together([lack(&spring), lack(&own.lift), lack(&own.mass)])?;
    let ((spring, _), lift) = (spring?, own.lift.clone()?);
    let mass = own.mass.clone()?.effective(lift.ratio);
    let nowhere = || Gap::because("the lobe never decelerates");
    Ok((hand_check(own.lobe()?, &lift, spring, own.valves, mass).ok_or_else(nowhere)?, mass))
}

/// The hand check of both sides.
pub fn control(inputs: &Resolved) -> Part<Sides<ControlReport>> {
    both(|side| {
        let (check, mass) = rigid_control(inputs.side(side))?;
        Ok(ControlReport {
            hand_check_rpm: check.speed.as_rpm(),
            hand_check_at_cam_deg: check.cam_deg,
            effective_mass_g: mass.as_grams(),
        })
    })
}

/// One closed valve over the piston, as frame and measured drops have it.
///
/// # Errors
/// What cylinder, valve and crown lack; under a dome a drop, when none was measured.
pub fn closed_gap(inputs: &Resolved, side: Side) -> Part<ClosedGap> {
    let (own, is_domed, port) = (inputs.side(side), inputs.given.engine.is_domed(), inputs.port(side));
    let by_frame = frame_gap(&inputs.cylinder, &own.valve, &own.crown, is_domed)?;
    let drops = port.drops_about_top();
    // A dome stands above the crown that the frame knows; only a measured drop has it in it.
    if is_domed && drops.is_empty() {
        let needs = vec![port.at("piston_drop")];
        return Err(Gap { reason: "the shape of the piston's dome under the valve is not known".to_owned(), needs });
    }
    Ok(by_frame.measured(&drops))
}

/// The same by the frame alone, whatever was measured.
///
/// # Errors
/// What cylinder, valve and crown lack.
pub(super) fn frame_gap(
    cylinder: &Part<Cylinder>,
    valve: &Part<ValveFrame>,
    crown: &Part<CrownFrame>,
    is_domed: bool,
) -> Part<ClosedGap> {
    together([lack(cylinder), lack(valve), lack(crown)])?;
    Ok(ClosedGap::by_frame(cylinder.clone()?, valve.clone()?, crown.clone()?, is_domed))
}

/// Closest approach of one valve to the piston.
pub fn piston_clearance(inputs: &Resolved, side: Side, stages: &Stages) -> Part<PistonClearance> {
    let (own, closed, travel) = (inputs.side(side), closed_gap(inputs, side), inputs.travel(side));
    together([lack(&closed), lack(&travel)])?;
    let (closed, travel) = (closed?, travel?);
    let inputs_key = key(&(&closed, motion_of(&travel, own)));
    Ok(*stages.clearances.get(inputs_key, || closest(&closed, &travel, &closed_gaps(&closed, stages))))
}

/// What stands for a valve's motion in a key.
fn motion_of(travel: &ValveTravel<'_>, own: &ResolvedSide) -> impl std::fmt::Debug + use<> {
    let real = travel.real.map(|real| (real.ratio, real.rocker, real.sweep.last().copied()));
    (travel.lift, travel.full_lift_at, own.lobe_key, real)
}

/// The gaps of a closed valve over a turn, kept.
pub(super) fn closed_gaps(closed: &ClosedGap, stages: &Stages) -> Arc<Vec<Length>> {
    stages.closed_gaps.get(key(closed), || closed.over_a_turn())
}

/// Smallest distance from any valve of `side` to the cylinder's wall over its lift; `None` while it stays in the chamber,
/// or over a flat crown whose valves nobody placed.
pub fn bore_wall(inputs: &Resolved, side: Side) -> Part<Option<Length>> {
    let (own, port, engine) = (inputs.side(side), inputs.port(side), &inputs.given.engine);
    let mut needs = Needs::default();
    let _ = (need!(needs, port.valve_offset_x), need!(needs, port.valve_offset_y));
    let (bore, deck) = (need!(needs, engine.bore), need!(needs, engine.gasket_thickness));
    let (placed, lift) = (needs.met(()).map_err(Gap::from), own.most_lift());
    together([lack(&placed), lack(&own.valve), lack(&lift)])?;
    let (first, lift) = (own.valve.clone()?, lift?);
    let gasket = (engine.gasket_bore.unwrap_or(bore), deck);
    let valves = std::iter::once(first).chain(own.second_valve);
    let gaps = valves.filter_map(|valve| valve.to_bore(lift, gasket, bore));
    Ok(gaps.min_by(|a, b| a.si().total_cmp(&b.si())))
}

/// Every closed head, intake and exhaust.
///
/// # Errors
/// What their frames lack.
pub(super) fn heads_of(inputs: &Resolved) -> Part<[Vec<ValveFrame>; 2]> {
    let heads = |side: Side| -> Part<Vec<ValveFrame>> {
        let own = inputs.side(side);
        Ok(std::iter::once(own.valve.clone()?).chain(own.second_valve).collect())
    };
    let [intake, exhaust] = Side::BOTH.map(heads);
    together([lack(&intake), lack(&exhaust)])?;
    Ok([intake?, exhaust?])
}

/// Smallest distance between the heads, kept by what it is made of.
pub fn valves_apart(inputs: &Resolved, stages: &Stages) -> Part<Length> {
    let mut needs = Needs::default();
    for port in Side::BOTH.map(|side| inputs.port(side)) {
        let _ = (need!(needs, port.valve_offset_x), need!(needs, port.valve_offset_y));
    }
    let placed = needs.met(()).map_err(Gap::from);
    let [opens, leaves] = Side::BOTH.map(|side| lack(&inputs.travel(side)));
    let heads = heads_of(inputs);
    together([lack(&placed), lack(&heads), opens, leaves])?;
    let [intakes, exhausts] = heads?;
    let (one, other) = (inputs.travel(Side::Intake)?, inputs.travel(Side::Exhaust)?);
    let motions = (motion_of(&one, inputs.side(Side::Intake)), motion_of(&other, inputs.side(Side::Exhaust)));
    Ok(*stages.valve_gaps.get(key(&(&intakes, &exhausts, motions)), || {
        let pairs = intakes.iter().flat_map(|intake| exhausts.iter().map(move |exhaust| (intake, exhaust)));
        let lifts = [&one, &other].map(|travel| |deg: f64| travel.lift_at(deg).si());
        let gaps = pairs.map(|(intake, exhaust)| valve_to_valve((intake, &lifts[0]), (exhaust, &lifts[1])).0.si());
        Length::from_si(gaps.fold(f64::INFINITY, f64::min))
    }))
}

/// Retainer to seal at full net lift.
pub fn retainer_gap(inputs: &Resolved, side: Side) -> Part<Length> {
    let own = inputs.side(side);
    let lift = own.most_lift();
    let zero = retainer_to_seal(inputs.train(side), inputs.port(side), Length::from_si(0.0)).map_err(Gap::from);
    together([lack(&zero), lack(&lift)])?;
    Ok(Length::from_si(zero?.si() - lift?.si()))
}

/// Everything that must not touch.
pub fn clearance(inputs: &Resolved, stages: &Stages) -> Part<ClearanceReport> {
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
    let cylinder = inputs.cylinder.clone()?;
    Ok(ClearanceReport {
        intake: sides.intake,
        exhaust: sides.exhaust,
        valve_to_valve_mm: valves_apart(inputs, stages).ok().map(Length::as_mm),
        piston_to_head_mm: cylinder.piston_to_head().as_mm(),
    })
}
