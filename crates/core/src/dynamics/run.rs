//! The cam turned at a steady speed until its cycles repeat.
//!
//! Leapfrog: speeds half a step beside places, forces from places and from the speeds of the half step before; second
//! order, and without damping it keeps its energy. Four trains run at once, in the lanes of vector registers, all at the
//! same angle of the same lobe: each has its own step in time. Without fused operations, and with groups of four on any
//! machine, so that the result is the same bits everywhere.

use super::measure::{Cycle, Seen};
pub use super::measure::{GROUP, RECORDS};
use super::model::MASSES;
use super::oil::{BULK, DENSITY, OUTSIDE};
pub use super::packed::Case;
use super::packed::{Coils, Contacts, Four, Packed, Path, STICKS};
use crate::cam::Lobe;
use crate::lanes::Lanes;
use pulp::{Arch, Simd, WithSimd};

/// Longest step, s: the stiffest pair of a train swings in 60 us.
pub const LONGEST_STEP: f64 = 4e-6;
/// Fewest steps a record.
const FEWEST_STEPS: usize = 2;
/// Cycles from rest, and of them those that are looked at.
const MOST_CYCLES: usize = 6;
const FEWEST_CYCLES: usize = 3;
/// Two cycles repeat when the valve is nowhere further apart than this, m.
const REPEATS: f64 = 5e-6;
/// No further cycle is run where they are nowhere further apart than this, m: small beside what tolerances move a valve by.
const SETTLED: f64 = 1e-6;
/// Links of a closed coil are so many times as stiff as open ones, and as much damped.
const CLOSED: f64 = 25.0;
/// Pressure over which the check valve's flow turns from linear to a root, Pa.
const CHECK_LINEAR: f64 = 2e3;

/// What came of it.
#[derive(Debug, Clone)]
pub struct Turned {
    /// The last two cycles, the last one first: where cycles do not repeat, both count.
    pub cycles: [Cycle; 2],
    /// How many were run.
    pub count: usize,
    /// Whether the last repeated the one before.
    pub repeats: bool,
}

/// One train at the end of a record: where its parts stand, m, and the first coil's masses from the seat up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Still {
    /// Lifter body.
    pub lifter: f64,
    /// Foot of the pushrod: the plunger of a hydraulic lifter, else the lifter.
    pub foot: f64,
    /// Turn of the rocker, in the units of its linkage.
    pub turn: f64,
    /// Rise of the pivot.
    pub pivot: f64,
    /// Lift of the valve.
    pub valve: f64,
    /// How far each mass of the first coil has gone down.
    pub coil: [f64; MASSES],
}

/// One train over a cycle as a film: a still at the end of every record, once its cycles repeat or after the last of them.
pub fn film(lobe: &Lobe, case: &Case<'_>) -> Vec<Still> {
    let steps = steps_at(case.rpm);
    let (packed, path) = (Packed::of(std::slice::from_ref(case), steps), Path::of(lobe, steps));
    let mut state = State::at_rest(&packed);
    let mut seen = vec![Seen::default(); RECORDS];
    for _ in 1..MOST_CYCLES {
        let (packed, path) = (&packed, &path);
        Arch::new().dispatch(OneCycle { packed, path, steps, state: &mut state, seen: &mut seen, film: None });
    }
    let mut stills = Vec::with_capacity(RECORDS);
    let film = Some(&mut stills);
    Arch::new().dispatch(OneCycle { packed: &packed, path: &path, steps, state: &mut state, seen: &mut seen, film });
    stills
}

/// Steps a crank degree takes at a speed.
fn steps_at(rpm: f64) -> usize {
    ((1.0 / (6.0 * rpm) / LONGEST_STEP).ceil() as usize).max(FEWEST_STEPS)
}

/// Turns up to four trains of one kind (the same parts, other numbers) on one lobe.
pub fn turn(lobe: &Lobe, cases: &[Case<'_>]) -> Vec<Turned> {
    let slowest = cases.iter().map(|case| case.rpm).fold(f64::INFINITY, f64::min);
    turn_by(lobe, cases, steps_at(slowest))
}

/// The same with a given number of steps a crank degree.
pub fn turn_by(lobe: &Lobe, cases: &[Case<'_>], steps: usize) -> Vec<Turned> {
    assert!((1..=GROUP).contains(&cases.len()), "a group of up to four");
    turn_along(&Path::of(lobe, steps), cases, steps)
}

fn turn_along(path: &Path, cases: &[Case<'_>], steps: usize) -> Vec<Turned> {
    let packed = Packed::of(cases, steps);
    let mut state = State::at_rest(&packed);
    let (mut last, mut before): (Vec<Seen>, Vec<Seen>) = (vec![Seen::default(); RECORDS], Vec::new());
    // Each is as it is when it first settles: what the others of its group still need is nothing to it.
    let mut found: Vec<Option<Turned>> = vec![None; cases.len()];
    for count in 1..=MOST_CYCLES {
        before.clone_from(&last);
        let film = None;
        Arch::new().dispatch(OneCycle { packed: &packed, path, steps, state: &mut state, seen: &mut last, film });
        if count < FEWEST_CYCLES {
            continue;
        }
        for (lane, own) in found.iter_mut().enumerate().filter(|(_, own)| own.is_none()) {
            let gaps = last.iter().zip(&before).map(|(a, b)| (a.valve[lane] - b.valve[lane]).abs());
            let apart = gaps.fold(0.0, f64::max);
            if count == MOST_CYCLES || apart <= SETTLED {
                let cycles = [Cycle::of(&last, lane), Cycle::of(&before, lane)];
                *own = Some(Turned { cycles, count, repeats: apart <= REPEATS });
            }
        }
        if found.iter().all(Option::is_some) {
            break;
        }
    }
    found.into_iter().flatten().collect()
}

/// Places and half-step speeds of what moves, each of four trains.
#[derive(Clone)]
struct State {
    lifter: [Four; 2],
    lower: [Four; 2],
    rocker: [Four; 2],
    pivot: [Four; 2],
    bridge: [Four; 2],
    valve: [Four; 2],
    /// Volume of oil below the plunger at supply pressure, as a height of its column, m.
    oil: Four,
    coils: Vec<[[Four; 2]; MASSES]>,
}

impl State {
    fn at_rest(packed: &Packed) -> Self {
        let none = [[0.0; GROUP]; 2];
        Self {
            lifter: none,
            lower: none,
            rocker: none,
            pivot: none,
            bridge: none,
            valve: none,
            oil: packed.height,
            coils: vec![[none; MASSES]; packed.coils.len()],
        }
    }
}

/// A place and a speed in registers.
#[derive(Clone, Copy)]
struct Moving<S: Simd> {
    place: Lanes<S>,
    speed: Lanes<S>,
}

impl<S: Simd> Moving<S> {
    #[inline(always)]
    fn load(simd: S, from: &[Four; 2], at: usize) -> Self {
        Self { place: Lanes::load(simd, &from[0], at), speed: Lanes::load(simd, &from[1], at) }
    }

    #[inline(always)]
    fn store(self, to: &mut [Four; 2], at: usize) {
        self.place.store(&mut to[0], at);
        self.speed.store(&mut to[1], at);
    }

    #[inline(always)]
    fn go(&mut self, acceleration: Lanes<S>, time: Lanes<S>) {
        self.speed = self.speed + acceleration * time;
        self.place = self.place + self.speed * time;
    }
}

/// What a contact pushes with: stiffness and damping while it is pressed, never less than nothing.
#[inline(always)]
fn push<S: Simd>(simd: S, contact: &Contacts, at: usize, pressed: Lanes<S>, closing: Lanes<S>) -> Lanes<S> {
    let zero = Lanes::all(simd, 0.0);
    let force = Lanes::load(simd, &contact.stiffness, at) * pressed + Lanes::load(simd, &contact.damping, at) * closing;
    pressed.above(zero).pick(force.most(zero), zero)
}

/// `turn (c0 + turn (c1 + turn (c2 + turn c3)))` and its slope.
#[inline(always)]
fn travel<S: Simd>(simd: S, of: &[Four; 4], at: usize, turn: Lanes<S>) -> (Lanes<S>, Lanes<S>) {
    let c0 = Lanes::load(simd, &of[0], at);
    let c1 = Lanes::load(simd, &of[1], at);
    let c2 = Lanes::load(simd, &of[2], at);
    let c3 = Lanes::load(simd, &of[3], at);
    let (two, three, four) = (Lanes::all(simd, 2.0), Lanes::all(simd, 3.0), Lanes::all(simd, 4.0));
    (
        turn * (c0 + turn * (c1 + turn * (c2 + turn * c3))),
        c0 + turn * (two * c1 + turn * (three * c2 + turn * four * c3)),
    )
}

struct OneCycle<'a> {
    packed: &'a Packed,
    path: &'a Path,
    steps: usize,
    state: &'a mut State,
    seen: &'a mut [Seen],
    /// Where the first train is filmed.
    film: Option<&'a mut Vec<Still>>,
}

impl WithSimd for OneCycle<'_> {
    type Output = ();

    #[inline(always)]
    fn with_simd<S: Simd>(self, simd: S) {
        let mut film = self.film;
        for at in (0..GROUP).step_by(S::F64_LANES) {
            // The first train stands in the first lane.
            let film = if at == 0 { film.take() } else { None };
            cycle(simd, at, self.packed, self.path, self.steps, self.state, self.seen, film);
        }
    }
}

/// Force of the oil on the plunger, N, and its volume a step later.
#[inline(always)]
fn oil<S: Simd>(
    simd: S,
    p: &Packed,
    at: usize,
    rise: Lanes<S>,
    volume: Lanes<S>,
    time: Lanes<S>,
) -> (Lanes<S>, Lanes<S>) {
    let (zero, one) = (Lanes::all(simd, 0.0), Lanes::all(simd, 1.0));
    let (air, supply) = (Lanes::load(simd, &p.air, at), Lanes::load(simd, &p.supply, at));
    let area = Lanes::load(simd, &p.area, at);
    let strain = one - (Lanes::load(simd, &p.height, at) + rise).by(volume);
    let a = (one - air) * Lanes::all(simd, 1.0 / BULK);
    let b = strain + a * supply - air;
    let root = (b * b + Lanes::all(simd, 4.0) * a * air * supply).sqrt();
    let pressure = (b + root).by(Lanes::all(simd, 2.0) * a);
    let below = supply - pressure;
    // The open check valve: as a root beyond a small pressure, linear below it, so that it closes without chatter.
    let linear = Lanes::all(simd, CHECK_LINEAR);
    let through = Lanes::load(simd, &p.check, at)
        * Lanes::all(simd, (2.0 / DENSITY).sqrt())
        * below.by((below.abs() + linear).sqrt());
    let flow = below.above(zero).pick(through, zero) + Lanes::load(simd, &p.leak, at) * below;
    let stop = Lanes::load(simd, &p.stop, at);
    let bottom = stop * (zero - rise - Lanes::load(simd, &p.down, at)).most(zero);
    let ring = stop * (rise - Lanes::load(simd, &p.up, at)).most(zero);
    let force =
        area * (pressure - Lanes::all(simd, OUTSIDE)) + Lanes::load(simd, &p.plunger_spring, at) + bottom - ring;
    (force, volume + flow * time.by(area))
}

/// Loads of one coil: what it pushes the valve back with, what its closed coils press on each other with, and the greatest
/// share of its wire's strength anywhere along it.
#[inline(always)]
fn coil<S: Simd>(
    simd: S,
    p: &Coils,
    at: usize,
    chain: &mut [[Four; 2]; MASSES],
    valve: Moving<S>,
    time: Lanes<S>,
) -> (Lanes<S>, Lanes<S>, Lanes<S>) {
    let zero = Lanes::all(simd, 0.0);
    let (rate, damping) = (Lanes::load(simd, &p.rate, at), Lanes::load(simd, &p.damping, at));
    let (seat_load, by_mass) = (Lanes::load(simd, &p.seat_load, at), Lanes::load(simd, &p.by_mass, at));
    let friction = Lanes::load(simd, &p.friction, at);
    let (sticks, back) = (Lanes::all(simd, STICKS), Lanes::all(simd, -STICKS));
    let closed = Lanes::all(simd, CLOSED);
    let mut clash = zero;
    let mut here = Moving::load(simd, &chain[0], at);
    let mut squeezed = here.place;
    let mut over = (squeezed - Lanes::load(simd, &p.closes[0], at)).most(zero);
    let mut below = (seat_load + rate * (squeezed + closed * over) + damping * here.speed).most(zero);
    let slack = Lanes::load(simd, &p.slack, at);
    let mut most = seat_load + rate * squeezed;
    for i in 0..MASSES {
        let next = if i + 1 < MASSES {
            Moving::load(simd, &chain[i + 1], at)
        } else {
            Moving { place: valve.place - slack, speed: valve.speed }
        };
        squeezed = next.place - here.place;
        over = (squeezed - Lanes::load(simd, &p.closes[i + 1], at)).most(zero);
        let closing = next.speed - here.speed;
        let contact = rate * closed * over;
        clash = clash.most(contact);
        let mut above = seat_load + rate * squeezed + contact + damping * closing;
        // Coils that touch bear on each other, not on the wire.
        most = most.most(above - contact);
        if i + 1 == MASSES {
            above = above.most(zero);
        }
        let rub = friction * here.speed.least(sticks).most(back);
        here.go((above - below - rub) * by_mass, time);
        here.store(&mut chain[i], at);
        below = above;
        here = next;
    }
    (below, clash, most * Lanes::load(simd, &p.stress, at))
}

/// The number of the first train.
#[inline(always)]
fn of_first<S: Simd>(lanes: Lanes<S>) -> f64 {
    let mut four = [0.0; GROUP];
    lanes.store(&mut four, 0);
    four[0]
}

#[inline(always)]
#[allow(clippy::too_many_arguments)]
fn cycle<S: Simd>(
    simd: S,
    at: usize,
    p: &Packed,
    path: &Path,
    steps: usize,
    state: &mut State,
    seen: &mut [Seen],
    mut film: Option<&mut Vec<Still>>,
) {
    let zero = Lanes::all(simd, 0.0);
    let time = Lanes::load(simd, &p.time, at);
    let cam_speed = Lanes::load(simd, &p.cam_speed, at);
    let (lash, ratio) = (Lanes::load(simd, &p.lash, at), Lanes::load(simd, &p.ratio, at));
    let runout = Lanes::load(simd, &p.runout, at);
    let mut lifter = Moving::load(simd, &state.lifter, at);
    let mut lower = Moving::load(simd, &state.lower, at);
    let mut rocker = Moving::load(simd, &state.rocker, at);
    let mut pivot = Moving::load(simd, &state.pivot, at);
    let mut bridge = Moving::load(simd, &state.bridge, at);
    let mut valve = Moving::load(simd, &state.valve, at);
    let mut volume = Lanes::load(simd, &state.oil, at);
    for (deg, record) in seen.iter_mut().enumerate() {
        let gas = Lanes::load(simd, &p.gas[deg], at);
        let mut least_contact = Lanes::all(simd, f64::MAX);
        let (mut most_contact, mut gap, mut most_pushrod, mut most_pivot) = (zero, zero, zero, zero);
        let (mut least_spring, mut most_spring) = (Lanes::all(simd, f64::MAX), zero);
        let (mut clash, mut arrival, mut stress) = (zero, zero, zero);
        for i in deg * steps..(deg + 1) * steps {
            let tilt = path.tilt[i];
            let lobe = Lanes::all(simd, path.lift[i]) + runout * Lanes::all(simd, tilt.0);
            let rising = cam_speed * (Lanes::all(simd, path.slope[i]) + runout * Lanes::all(simd, tilt.1));
            let on_cam = lobe - lifter.place;
            let contact = push(simd, &p.cam, at, on_cam, rising - lifter.speed);
            // A solid lifter is its own plunger.
            let foot = if p.hydraulic { lower } else { lifter };
            let (cup, cup_slope) = travel(simd, &p.cup, at, rocker.place);
            let (tip, tip_slope) = travel(simd, &p.tip, at, rocker.place);
            let in_cup = foot.place - cup - pivot.place;
            let pushrod = push(simd, &p.pushrod, at, in_cup, foot.speed - cup_slope * rocker.speed - pivot.speed);
            let follower = if p.bridged { bridge } else { valve };
            let on_stem = tip - pivot.place - lash - follower.place;
            let stem = push(simd, &p.stem, at, on_stem, tip_slope * rocker.speed - pivot.speed - follower.speed);
            let opening = if p.bridged {
                push(simd, &p.bridge_stems, at, bridge.place - valve.place, bridge.speed - valve.speed)
            } else {
                stem
            };
            let mut spring = zero;
            for (own, chain) in p.coils.iter().zip(&mut state.coils) {
                let (load, closed, share) = coil(simd, own, at, chain, valve, time);
                spring = spring + load;
                clash = clash.most(closed);
                stress = stress.most(share);
            }
            let seat = push(simd, &p.seat, at, -valve.place, -valve.speed);
            let held = Lanes::load(simd, &p.pivot.stiffness, at) * pivot.place
                + Lanes::load(simd, &p.pivot.damping, at) * pivot.speed;

            let open = ratio * ((-on_cam).most(zero) + (-in_cup).most(zero)) + (-on_stem).most(zero);
            gap = gap.most(open);
            least_contact = least_contact.least(contact);
            most_contact = most_contact.most(contact);
            most_pushrod = most_pushrod.most(pushrod);
            most_pivot = most_pivot.most(pushrod + stem);
            least_spring = least_spring.least(spring);
            most_spring = most_spring.most(spring);

            if p.hydraulic {
                let (force, later) = oil(simd, p, at, lower.place - lifter.place, volume, time);
                lifter.go((contact - force) * Lanes::load(simd, &p.lifter, at), time);
                lower.go((force - pushrod) * Lanes::load(simd, &p.lower, at), time);
                volume = later;
            } else {
                lifter.go((contact - pushrod) * Lanes::load(simd, &p.lifter, at), time);
            }
            rocker.go((pushrod * cup_slope - stem * tip_slope) * Lanes::load(simd, &p.inertia, at), time);
            pivot.go((pushrod + stem - held) * Lanes::load(simd, &p.pivot_mass, at), time);
            if p.bridged {
                bridge.go((stem - opening) * Lanes::load(simd, &p.bridge, at), time);
            }
            let was = valve.place;
            valve.go((opening - spring + gas + seat) * Lanes::load(simd, &p.valve, at), time);
            let landed = was.above(zero).and(zero.above(valve.place));
            arrival = arrival.most(landed.pick(-valve.speed, zero));
        }
        valve.place.store(&mut record.valve, at);
        gap.store(&mut record.gap, at);
        least_contact.store(&mut record.least_contact, at);
        most_contact.store(&mut record.most_contact, at);
        most_pushrod.store(&mut record.pushrod, at);
        most_pivot.store(&mut record.pivot, at);
        least_spring.store(&mut record.least_spring, at);
        most_spring.store(&mut record.most_spring, at);
        clash.store(&mut record.clash, at);
        stress.store(&mut record.stress, at);
        arrival.store(&mut record.arrival, at);
        (lower.place - lifter.place).store(&mut record.plunger, at);
        if let Some(film) = &mut film {
            let foot = if p.hydraulic { lower } else { lifter };
            film.push(Still {
                lifter: of_first(lifter.place),
                foot: of_first(foot.place),
                turn: of_first(rocker.place),
                pivot: of_first(pivot.place),
                valve: of_first(valve.place),
                coil: std::array::from_fn(|i| state.coils.first().map_or(0.0, |chain| chain[i][0][0])),
            });
        }
    }
    lifter.store(&mut state.lifter, at);
    lower.store(&mut state.lower, at);
    rocker.store(&mut state.rocker, at);
    pivot.store(&mut state.pivot, at);
    bridge.store(&mut state.bridge, at);
    valve.store(&mut state.valve, at);
    volume.store(&mut state.oil, at);
}

#[cfg(test)]
#[path = "closed_forms.rs"]
mod closed_forms;
