//! The solver against closed forms: a mass on its seat, two masses in a row, what a contact gives back, and the energy of
//! a train with nothing damped.

use super::super::model::{Coil, Contact, LINKS, Model};
use super::*;
use std::f64::consts::PI;

const STEPS: usize = 64;
const CASE_RPM: f64 = 6000.0;
/// Turns of the crank take two for a cycle: cycles a second.
const CYCLES: f64 = CASE_RPM / 120.0;

/// A train of contacts of 20 kN/mm, ratio 1, on a pivot too heavy to move; a long, light spring.
fn model() -> Model {
    let stiff = Contact { stiffness: 20e6, damping: 0.0 };
    Model {
        lifter: 0.3,
        plunger: None,
        cam: stiff,
        pushrod: stiff,
        cup: [1.0, 0.0, 0.0, 0.0],
        tip: [1.0, 0.0, 0.0, 0.0],
        inertia: 2e-3,
        pivot: (1e9, stiff),
        stem: stiff,
        lash: 0.0,
        bridge: None,
        valve: 0.3,
        seat: stiff,
        coils: vec![Coil::even(1e-3, 1e4, 4000.0, 1.0, 0.0)],
        runout: 0.0,
    }
}

/// A path of `lift` over the cycle, in turns of it.
fn path(lift: impl Fn(f64) -> f64) -> Path {
    let steps = RECORDS * STEPS;
    let lift: Vec<f64> = (0..steps).map(|i| lift(i as f64 / steps as f64)).collect();
    let slope = |i: usize| {
        let (before, after) = (lift[(i + steps - 1) % steps], lift[(i + 1) % steps]);
        (after - before) * steps as f64 / (4.0 * PI)
    };
    Path { slope: (0..steps).map(slope).collect(), tilt: vec![(0.0, 0.0); steps], lift }
}

/// Real and imaginary part of the `order`-th harmonic of a table over the cycle; its entries stand at the ends of records.
fn harmonic(of: &[f64], order: f64) -> [f64; 2] {
    let n = of.len() as f64;
    let part = |wave: fn(f64) -> f64| {
        let turn = |i: usize| 2.0 * PI * order * (i + 1) as f64 / n;
        2.0 / n * of.iter().enumerate().map(|(i, value)| value * wave(turn(i))).sum::<f64>()
    };
    [part(f64::cos), -part(f64::sin)]
}

fn times(a: [f64; 2], b: [f64; 2]) -> [f64; 2] {
    [a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]]
}

fn over(a: [f64; 2], b: [f64; 2]) -> [f64; 2] {
    let square = b[0] * b[0] + b[1] * b[1];
    times(a, [b[0] / square, -b[1] / square])
}

fn apart(a: [f64; 2], b: [f64; 2]) -> f64 {
    (a[0] - b[0]).hypot(a[1] - b[1]) / b[0].hypot(b[1])
}

#[test]
fn a_mass_on_a_damped_spring_answers_a_force_as_its_formula_says() {
    // The closed valve on its seat, pressed by the spring, under a force that swings: X = F/(k - m w^2 + i c w).
    let order = 24.0;
    let (force, w) = (900.0, 2.0 * PI * order * CYCLES);
    let mut model = Model { lash: 1.0, ..model() };
    model.seat.damping = 700.0;
    let gas: Vec<f64> =
        (0..RECORDS).map(|i| force * (2.0 * PI * order * (i as f64 + 0.5) / RECORDS as f64).cos()).collect();
    let found = turn_along(&path(|_| 0.0), &[Case { model: &model, rpm: CASE_RPM, gas: &gas }], STEPS).remove(0);
    assert!(found.repeats);
    let rate = model.seat.stiffness + model.coils[0].rate;
    let wanted = over([force, 0.0], [rate - model.valve * w * w, model.seat.damping * w]);
    let off = apart(harmonic(&found.cycles[0].valve, order), wanted);
    println!("off by {off:.5}, {:.2} times the resting answer", wanted[0].hypot(wanted[1]) * rate / force);
    assert!(off < 3e-3, "{off}");
}

#[test]
fn two_masses_in_a_row_answer_a_cam_as_their_formula_says() {
    // A lifter on a harmonic cam and a valve behind pushrod and stem, everything held together by 4 kN:
    // (k1 + ks - m1 w^2) X1 - ks X2 = k1 A, (ks + r - m2 w^2) X2 = ks X1, each k with its damping, k (1 + i w t).
    let order = 10.0;
    let (lift, w, time) = (10e-6, 2.0 * PI * order * CYCLES, 40e-6);
    let mut model = Model { lash: -0.8e-3, ..model() };
    model.coils[0].damping = 0.1;
    for contact in [&mut model.cam, &mut model.pushrod, &mut model.stem] {
        contact.damping = time * contact.stiffness;
    }
    let path = path(|turn| lift * (2.0 * PI * order * turn).cos());
    let found = turn_along(&path, &[Case { model: &model, rpm: CASE_RPM, gas: &[] }], STEPS).remove(0);
    let least = found.cycles[0].least_contact.iter().copied().fold(f64::INFINITY, f64::min);
    assert!(found.repeats && least > 0.0);
    let damped = |k: f64| [k, k * w * time];
    let (k1, ks) = (damped(20e6), damped(10e6));
    let second = [ks[0] + model.coils[0].rate - model.valve * w * w, ks[1]];
    let first = [k1[0] + ks[0] - model.lifter * w * w, k1[1] + ks[1]];
    let square = times(ks, ks);
    let whole = times(first, second);
    let wanted = over(times(times(k1, ks), [lift, 0.0]), [whole[0] - square[0], whole[1] - square[1]]);
    let off = apart(harmonic(&found.cycles[0].valve, order), wanted);
    println!("off by {off:.5}, {:.2} times the cam", wanted[0].hypot(wanted[1]) / lift);
    assert!(off < 5e-3, "{off}");
}

/// Heights of the first two hops of a valve that the gas throws off its seat, far from its rocker.
fn hops(seat: Contact) -> [f64; 2] {
    let mut model = Model { lash: 0.5, seat, ..model() };
    // A load that does not change with lift: the valve falls as a stone does.
    model.coils = vec![Coil::even(1e-4, 1.0, 40.0, 1.0, 0.0)];
    let gas: Vec<f64> = (0..RECORDS).map(|i| if (10..14).contains(&i) { 825.0 } else { 0.0 }).collect();
    let found = turn_along(&path(|_| 0.0), &[Case { model: &model, rpm: CASE_RPM, gas: &gas }], STEPS).remove(0);
    let lift = &found.cycles[0].valve;
    let lands = |from: usize| (from..RECORDS).find(|i| lift[*i] < 20e-6).unwrap_or(RECORDS);
    let first = lands(40);
    let leaves = (first..RECORDS).find(|i| lift[*i] > 20e-6).unwrap_or(RECORDS);
    let most = |of: &[f64]| of.iter().copied().fold(0.0, f64::max);
    [most(&lift[14..first]), most(&lift[leaves..lands(leaves + 5)])]
}

#[test]
fn a_landing_gives_back_what_its_damping_leaves() {
    // A mass that meets a spring with a share z of critical damping and cannot be pulled leaves when the force is gone:
    // tan(wd t) = -2 z sqrt(1 - z^2)/(1 - 2 z^2), e = exp(-z w t)(cos wd t - z/sqrt(1 - z^2) sin wd t). Heights go with e^2.
    for share in [0.1_f64, 0.2, 0.3] {
        let root = (1.0 - share * share).sqrt();
        let turn = PI - (2.0 * share * root).atan2(1.0 - 2.0 * share * share);
        let restitution = -(-share / root * turn).exp() * (turn.cos() - share / root * turn.sin());
        let [first, second] = hops(Contact::damped(200e6, share, model().valve));
        let found = (second / first).sqrt();
        println!("{share}: {found:.3} for {restitution:.3}, hops of {:.2} and {:.2} mm", first * 1e3, second * 1e3);
        assert!(first > 0.2e-3 && (found - restitution).abs() < 0.02, "{share}: {found} for {restitution}");
    }
}

#[test]
fn a_valve_on_its_spring_swings_as_the_distributed_one_does() {
    // Held off its seat by the gas, far from its rocker, let go by a step: one end of the coil fixed, a mass at the other.
    // x tan x = m_spring/m_valve, w = x sqrt(k/m_spring) [Rayleigh; Timoshenko, Vibration Problems; from memory].
    let (mass, rate) = (0.11, 70e3);
    let model = Model { lash: 0.5, coils: vec![Coil::even(mass, rate, 300.0, 1.0, 0.02)], ..model() };
    let rpm = 600.0;
    let gas: Vec<f64> = (0..RECORDS).map(|i| if i < 20 { 1400.0 } else { 1200.0 }).collect();
    let found = turn_along(&path(|_| 0.0), &[Case { model: &model, rpm, gas: &gas }], STEPS).remove(0);
    let lift = &found.cycles[0].valve[40..];
    let mean = lift.iter().sum::<f64>() / lift.len() as f64;
    assert!(lift.iter().all(|at| *at > 1e-3), "never on its seat");
    // Rising passages of the mean, between records linear: so many periods between the first and the last.
    let passes: Vec<f64> = (1..lift.len())
        .filter(|i| lift[i - 1] < mean && lift[*i] >= mean)
        .map(|i| i as f64 - (lift[i] - mean) / (lift[i] - lift[i - 1]))
        .collect();
    let period = (passes[passes.len() - 1] - passes[0]) / (passes.len() - 1) as f64 / (6.0 * rpm);
    let of = |x: f64| x * x.tan() - mass / model.valve;
    let x = crate::root::root(0.1, 1.5, of);
    let wanted = x * (rate / mass).sqrt() / (2.0 * PI);
    println!("{:.2} and {wanted:.2} Hz over {} periods", 1.0 / period, passes.len() - 1);
    assert!((1.0 / period / wanted - 1.0).abs() < 4e-3);
}

/// Energy of one train between two states half a step apart, J: speeds by their mean, places of the first.
fn energy(model: &Model, now: &State, next: &State) -> f64 {
    let speed = |of: fn(&State) -> &[Four; 2]| 0.5 * (of(now)[1][0] + of(next)[1][0]);
    let place = |of: fn(&State) -> &[Four; 2]| of(now)[0][0];
    let moving = |mass: f64, of: fn(&State) -> &[Four; 2]| 0.5 * mass * speed(of).powi(2);
    let pressed = |contact: &Contact, by: f64| 0.5 * contact.stiffness * by.max(0.0).powi(2);
    let (lifter, valve) = (place(|s| &s.lifter), place(|s| &s.valve));
    let (rocker, pivot) = (place(|s| &s.rocker), place(|s| &s.pivot));
    let coil = &model.coils[0];
    let links = LINKS as f64;
    let chain = |i: usize| if i < MASSES { now.coils[0][i][0][0] } else { valve };
    let squeezed = |i: usize| chain(i) - if i > 0 { chain(i - 1) } else { 0.0 };
    let link_mass = coil.mass / links;
    let coils: f64 = (0..MASSES)
        .map(|i| 0.5 * link_mass * (0.5 * (now.coils[0][i][1][0] + next.coils[0][i][1][0])).powi(2))
        .chain((0..LINKS).map(|i| coil.seat_load * squeezed(i) + 0.5 * links * coil.rate * squeezed(i).powi(2)))
        .sum();
    moving(model.lifter, |s| &s.lifter)
        + moving(model.inertia, |s| &s.rocker)
        + moving(model.pivot.0, |s| &s.pivot)
        + moving(model.valve + 0.5 * link_mass, |s| &s.valve)
        + pressed(&model.cam, -lifter)
        + pressed(&model.pushrod, lifter - rocker - pivot)
        + pressed(&model.stem, 1.7 * rocker - pivot - model.lash - valve)
        + pressed(&model.seat, -valve)
        + 0.5 * model.pivot.1.stiffness * pivot * pivot
        + coils
}

#[test]
fn nothing_is_lost_or_won_where_nothing_is_damped() {
    // A whole train thrown open on a still cam: it parts, meets, lands and bounces, and keeps its energy.
    let stiff = |newton: f64| Contact { stiffness: newton, damping: 0.0 };
    let model = Model {
        lifter: 0.12,
        cam: stiff(58e6),
        pushrod: stiff(39e6),
        tip: [1.7, 0.0, 0.0, 0.0],
        inertia: 0.04,
        pivot: (0.13, stiff(48e6)),
        stem: stiff(8e6),
        lash: 0.4e-3,
        valve: 0.15,
        seat: stiff(50e6),
        coils: vec![Coil::even(0.11, 70e3, 700.0, 1.0, 0.0)],
        ..model()
    };
    let (packed, path) = (Packed::of(&[Case { model: &model, rpm: 3000.0, gas: &[] }], 56), path(|_| 0.0));
    let run = |state: &mut State, seen: &mut [Seen], steps: usize| {
        Arch::new().dispatch(OneCycle { packed: &packed, path: &path, steps, state, seen, film: None });
    };
    let mut state = State::at_rest(&packed);
    state.valve[1] = [4.0; GROUP];
    state.rocker[1] = [1.5; GROUP];
    let (mut energies, mut most) = (Vec::new(), 0.0_f64);
    for _ in 0..10 {
        let mut next = state.clone();
        run(&mut next, &mut [Seen::default()], 1);
        energies.push(energy(&model, &state, &next));
        let mut seen = vec![Seen::default(); RECORDS];
        run(&mut state, &mut seen, 56);
        most = most.max(seen.iter().map(|seen| seen.valve[0]).fold(0.0, f64::max));
    }
    let off = |energy: &f64| (energy / energies[0] - 1.0).abs();
    let worst = energies.iter().map(off).fold(0.0, f64::max);
    println!("opens {:.2} mm, {:.4} J, {worst:.1e} of it won or lost over ten cycles", most * 1e3, energies[0]);
    assert!(most > 1e-3 && worst < 2e-3, "{worst}");
}

#[test]
fn a_train_turns_the_same_in_whatever_company() {
    // One that is damped repeats soon, one that rings on the seat needs longer.
    let damped = |by: f64| {
        let mut model = model();
        model.seat.damping = by;
        model.stem.damping = by;
        model
    };
    let trains = [2000.0, 900.0, 60.0].map(damped);
    let path = path(|turn| 6e-3 * (PI * turn).sin().powi(4));
    let case = |model| Case { model, rpm: CASE_RPM, gas: &[] };
    let together = turn_along(&path, &trains.each_ref().map(case), STEPS);
    let counts: Vec<usize> = together.iter().map(|own| own.count).collect();
    assert!(counts.iter().any(|own| *own != counts[0]), "{counts:?}");
    for (own, model) in together.iter().zip(&trains) {
        let alone = turn_along(&path, &[case(model)], STEPS).remove(0);
        assert_eq!((alone.count, alone.repeats), (own.count, own.repeats));
        assert_eq!(alone.cycles, own.cycles);
    }
}
