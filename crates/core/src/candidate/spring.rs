//! The spring block: loads, stress and waves at this cam's lift, and the sheet of installed heights.

use super::blocks::{both, retainer_gap, seat_reserve, spring_at_lift};
use super::resolve::{Part, Resolved, ResolvedSide};
use crate::document::Side;
use crate::given::HeightsPart;
use crate::quantity::{Dimension, INCH, Length, Pressure, Shown, Speed, shown, shown_stress};
use crate::report::{CoilReport, HeightAt, HeightPlan, HeightSheet, Sides, SpringReport, SurgeMeets};
use crate::train::heights::{AtHand, Shimmed, count, evened, to_height};
use crate::train::{Coil, Spring};
use std::f64::consts::PI;

/// Points of the line of load over height.
const CURVE: i32 = 24;
/// Highest harmonic of the lift that is told, and the share of the top speed below which none is.
const HIGHEST: usize = 40;
const SLOWEST: f64 = 0.4;
/// Top speed of a plan that says none, rpm.
const USUAL_TOP: f64 = 6000.0;
/// Shims that kits come in, in (common practice, no source).
const KIT: [f64; 3] = [0.015, 0.030, 0.060];
/// How far from the height that is wanted evening is looked at, in.
const RANGE: f64 = 0.030;

/// Spring loads at this cam's lift.
pub fn spring(inputs: &Resolved) -> Part<Sides<SpringReport>> {
    both(|side| {
        let (spring, net) = spring_at_lift(inputs.side(side))?;
        let seat = spring.load(Length::from_si(0.0)).si();
        let installed = spring.installed.si();
        let down = spring.to_bind(net).map_or(net.si(), |left| net.si() + left.si().max(0.0));
        let travels = || (0..=CURVE).map(|i| Length::from_si(down * f64::from(i) / f64::from(CURVE)));
        Ok(SpringReport {
            height_mm: travels().map(|lift| 1e3 * (installed - lift.si())).collect(),
            load_n: travels().map(|lift| spring.load(lift).si()).collect(),
            stress_share: travels().map(|lift| spring.stress_share(lift)).collect(),
            open_height_mm: 1e3 * (installed - net.si()),
            solid_mm: spring.bind.map(Length::as_mm),
            seat_load_n: seat,
            open_load_n: spring.load(net).si(),
            rate_n_per_mm: spring.rate(net).as_n_per_mm(),
            rate: shown(spring.rate(net).si(), Dimension::SpringRate),
            to_coil_bind_mm: spring.to_bind(net).map(Length::as_mm),
            surge_frequency_hz: spring.surge_frequency(net),
            surge_modes_hz: modes(spring, net),
            surge_meets: meets(inputs, inputs.side(side), spring.surge_frequency(net)),
            stress_seat_mpa: spring.stress(Length::from_si(0.0)).map(Pressure::as_mpa),
            stress_open_mpa: spring.stress(net).map(Pressure::as_mpa),
            stress_open: spring.stress(net).map(|stress| shown_stress(stress.si())),
            fatigue_reserve: spring.fatigue_reserve(net),
            coils: spring.coils().iter().map(|coil| coil_report(coil, installed, net.si())).collect(),
            seat_reserve_n: inputs.boost().and_then(|(manifold, drive)| {
                let pressure = if side == Side::Intake { manifold } else { drive };
                seat_reserve(inputs.port(side), pressure, seat)
            }),
            heights: sheet(inputs, side),
        })
    })
}

fn coil_report(coil: &Coil, installed: f64, net: f64) -> CoilReport {
    let load = |lift: f64| coil.load(Length::from_si(installed - lift));
    CoilReport {
        seat_load: shown(load(0.0).si(), Dimension::Force),
        open_load: shown(load(net).si(), Dimension::Force),
        to_bind: shown(installed - net - coil.solid_package_height().si(), Dimension::Length),
        stress_share: coil.shear_stress(load(net)).si() / coil.strength().si(),
        surge_hz: coil.surge_frequency(),
    }
}

/// The first three modes of every coil, or of the package: whole multiples of its first, both ends held.
fn modes(spring: &Spring, net: Length) -> Vec<f64> {
    let firsts: Vec<f64> = if spring.coils().is_empty() {
        spring.surge_frequency(net).into_iter().collect()
    } else {
        spring.coils().iter().map(Coil::surge_frequency).collect()
    };
    let mut all: Vec<f64> = firsts.iter().flat_map(|first| [1.0, 2.0, 3.0].map(|n| n * first)).collect();
    all.sort_by(f64::total_cmp);
    all
}

/// Where harmonics of the lift meet a frequency, from beyond the top speed downwards; empty while lift or frequency are not
/// known.
fn meets(inputs: &Resolved, own: &ResolvedSide, first: Option<f64>) -> Vec<SurgeMeets> {
    let (Some(first), Ok(lobe), Ok(lift)) = (first, own.lobe(), own.lift.clone()) else { return Vec::new() };
    let top = inputs.top_speed().map_or(USUAL_TOP, Speed::as_rpm);
    let lifts: Vec<f64> = (0..360).map(|deg| lift.motion(lobe.at(f64::from(deg) - 180.0)).lift.max(0.0)).collect();
    // The cam turns once for two turns of the crank.
    let meet =
        |order: usize| SurgeMeets { order, rpm: 120.0 * first / order as f64, lift_um: 1e6 * harmonic(&lifts, order) };
    let all = (1..=HIGHEST).map(meet);
    all.filter(|meet| (SLOWEST * top..=1.25 * top).contains(&meet.rpm)).collect()
}

/// Amplitude of the `order`-th harmonic of a table over a turn.
fn harmonic(table: &[f64], order: usize) -> f64 {
    let n = table.len() as f64;
    let (mut re, mut im) = (0.0, 0.0);
    for (i, value) in table.iter().enumerate() {
        let (sin, cos) = (2.0 * PI * order as f64 * i as f64 / n).sin_cos();
        re += value * cos;
        im += value * sin;
    }
    2.0 / n * re.hypot(im)
}

/// Thicknesses that shims come in, m.
pub(super) fn kit(part: &HeightsPart) -> Vec<f64> {
    match &part.kit {
        Some(kit) => kit.iter().map(|size| size.si()).collect(),
        None => KIT.map(|size| size * INCH).to_vec(),
    }
}

/// What shims make of the heights that were measured.
fn sheet(inputs: &Resolved, side: Side) -> Option<HeightSheet> {
    let measured = inputs.train(side).heights.measured.as_ref()?;
    height_sheet(inputs, side, &measured.iter().map(|height| height.si()).collect::<Vec<f64>>())
}

/// What shims, and other locks at hand, make of measured heights, m; `None` of none, or while the spring is not known.
pub fn height_sheet(inputs: &Resolved, side: Side, measured: &[f64]) -> Option<HeightSheet> {
    let (spring, net) = spring_at_lift(inputs.side(side)).ok().filter(|_| !measured.is_empty())?;
    let part: &HeightsPart = &inputs.train(side).heights;
    let metres = |length: Option<Length>| length.map_or(0.0, Length::si);
    let changed = metres(part.seats_cut) + metres(part.retainers_higher);
    let heights: Vec<f64> = measured.iter().map(|height| height + changed).collect();
    let kit = kit(part);
    let locks: Vec<f64> = part.locks.iter().flat_map(|own| own.iter().map(|lock| lock.si())).collect();
    let at_hand = AtHand { kit: &kit, locks: &locks };
    let wanted = part.wanted.unwrap_or(spring.installed).si();
    let within = part.within.map_or(0.005 * INCH, Length::si);
    let seal = retainer_gap(inputs, side).ok().map(|gap| gap.si() + metres(part.retainers_higher));
    let plan = |at: f64, valves: &[Shimmed]| plan((at, within, wanted), &heights, valves, (spring, net, seal, &locks));
    let range = (wanted - RANGE * INCH, wanted, wanted + RANGE * INCH);
    let fewest = evened(&heights, at_hand, range, within);
    Some(HeightSheet {
        to_wanted: plan(wanted, &to_height(&heights, at_hand, wanted, within)),
        fewest: fewest.map(|(at, valves)| plan(at, &valves)),
        to_seal: seal.map(|gap| shown(gap, Dimension::Length)),
        kit: kit.iter().map(|size| shown(*size, Dimension::Length)).collect(),
    })
}

fn plan(
    (at, within, wanted): (f64, f64, f64),
    heights: &[f64],
    valves: &[Shimmed],
    (spring, net, seal, locks): (&Spring, Length, Option<f64>, &[f64]),
) -> HeightPlan {
    let length = |of: f64| shown(of, Dimension::Length);
    let load = |lift: f64| shown(spring.load(Length::from_si(lift)).si(), Dimension::Force);
    let highest = locks.iter().copied().fold(0.0, f64::max);
    let valve = |(i, (measured, shimmed)): (usize, (&f64, &Shimmed))| {
        // A spring that stands shorter is as one that is lifted.
        let lift = spring.installed.si() - shimmed.height;
        HeightAt {
            valve: i + 1,
            measured: length(*measured),
            shims: shimmed.shims.iter().map(|size| length(*size)).collect(),
            lock: (shimmed.lock != 0.0).then(|| {
                let way = if shimmed.lock > 0.0 { "higher" } else { "lower" };
                length(shimmed.lock.abs()).said(|by| format!("{by} {way}"))
            }),
            height: length(shimmed.height),
            seat_load: load(lift),
            open_load: load(lift + net.si()),
            to_bind: spring.bind.map(|bind| length(shimmed.height - net.si() - bind.si())),
            to_seal: seal.map(|gap| length(gap + shimmed.lock)),
            is_short: *measured + highest < at - within - 1e-9,
            is_off: (shimmed.height - at).abs() > within + 1e-9,
        }
    };
    let all: Vec<HeightAt> = heights.iter().zip(valves).enumerate().map(valve).collect();
    let (shims, off) = (count(valves), all.iter().filter(|valve| valve.is_off).count());
    let short = all.iter().filter(|valve| valve.is_short).count();
    let seat = spring.load(Length::from_si(spring.installed.si() - at));
    let says = |read: &dyn Fn(&Shown) -> String| {
        let (brought, height) = (plural(heights.len() - off), read(&length(at)));
        let mut text = match (shims, off) {
            (0, 0) => format!("No shim is needed: {} at {height}", stand(heights.len())),
            (0, _) => format!("No shim of this kit helps: {} at {height}", stand(heights.len() - off)),
            (1, _) => format!("One shim brings {brought} to {height}"),
            _ => format!("{shims} shims bring {brought} to {height}"),
        };
        if (at - wanted).abs() > 1e-6 {
            text += &format!(", {} closed in place of {}", read(&shown(seat.si(), Dimension::Force)), {
                let lift = spring.installed.si() - wanted;
                read(&load(lift))
            });
        }
        let swapped = valves.iter().filter(|valve| valve.lock != 0.0).count();
        if swapped > 0 {
            text += &format!("; other locks on {}", plural(swapped));
        }
        if short > 0 {
            text += &format!("; {} too short without any: cut the seat, or a taller retainer or locks", are(short));
        }
        if off > short {
            text += &format!("; {} between the steps of this kit", are(off - short));
        }
        text + "."
    };
    HeightPlan {
        height: length(at),
        shims,
        is_even: off == 0,
        says: Shown { inch: says(&|shown| shown.inch.clone()), metric: says(&|shown| shown.metric.clone()) },
        valves: all,
    }
}

fn stand(valves: usize) -> String {
    if valves == 1 { "the valve stands".to_owned() } else { format!("{valves} valves stand") }
}

fn plural(valves: usize) -> String {
    if valves == 1 { "one valve".to_owned() } else { format!("{valves} valves") }
}

fn are(valves: usize) -> String {
    if valves == 1 { "one is".to_owned() } else { format!("{valves} are") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_harmonic_is_found_with_its_amplitude() {
        let table: Vec<f64> = (0..360).map(|deg| 2.0 + 0.3 * (7.0 * f64::from(deg) * PI / 180.0 + 0.4).cos()).collect();
        assert!((harmonic(&table, 7) - 0.3).abs() < 1e-12 && harmonic(&table, 6) < 1e-12);
    }
}
