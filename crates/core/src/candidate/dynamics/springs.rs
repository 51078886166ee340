//! The coils of a package as chains.

use super::ranges::Unmeasured;
use crate::dynamics::model::{Coil, LINKS};
use crate::quantity::{Force, Length};
use crate::train::Spring;
use crate::words::SpringForm;

/// Damping of a coil's first mode, share of critical: the wire's own, end coils that roll on their seats, and coils that
/// rub on each other (common practice, no source).
const BARE: f64 = 0.008;
const NESTED: f64 = 0.035;
/// A spring without a bind height closes no sooner than this far, m.
const NEVER: f64 = 1.0;
/// Steps in which the load's slope is looked at, and by how much it must grow for coils to be closing.
const STEPS: usize = 40;
const CLOSING: f64 = 1.03;

/// The chains of a package, of `valves` valves together, to `lift` (m) and beyond; `friction` as measured.
pub(super) fn chains(
    spring: &Spring,
    form: Option<SpringForm>,
    friction: Option<Force>,
    (lift, valves): (f64, f64),
    unmeasured: &Unmeasured,
) -> Option<Vec<Coil>> {
    let mass = spring.mass?.si();
    let nested = matches!(form, Some(SpringForm::Dual | SpringForm::Triple)) || spring.coils().len() > 1;
    let damping = unmeasured.spring_damping * if nested { NESTED } else { BARE };
    let mut coils = if spring.coils().is_empty() {
        vec![whole(spring, unmeasured.moving_coils * mass, lift, damping)]
    } else {
        known(spring, mass, damping)
    };
    let whole: f64 = coils.iter().map(|coil| coil.rate).sum();
    for coil in &mut coils {
        coil.friction = friction.map_or(0.0, Force::si) * coil.rate / whole;
        for number in [&mut coil.mass, &mut coil.rate, &mut coil.seat_load, &mut coil.friction] {
            *number *= valves;
        }
        coil.stress /= valves;
    }
    Some(coils)
}

/// Coils known by their wire; a package that was weighed shares its mass as the wire has it.
fn known(spring: &Spring, mass: f64, damping: f64) -> Vec<Coil> {
    let weighed = mass / spring.coils().iter().map(|coil| coil.mass().si()).sum::<f64>();
    let chain = |coil: &crate::train::Coil| {
        let height = spring.installed.si() - coil.seat_offset.si();
        let travel = spring.installed.si() - coil.solid_package_height().si();
        Coil {
            slack: (height - coil.free.si()).max(0.0),
            stress: coil.shear_stress(Force::from_si(1.0)).si() / coil.strength().si(),
            ..Coil::even(
                coil.active_mass().si() * weighed,
                coil.rate().si(),
                coil.load(spring.installed).si(),
                travel,
                damping,
            )
        }
    };
    spring.coils().iter().map(chain).collect()
}

/// A package known by its loads: one chain whose links close one after another where the load grows steeper.
fn whole(spring: &Spring, mass: f64, lift: f64, damping: f64) -> Coil {
    let load = |lift: f64| spring.load(Length::from_si(lift)).si();
    let seat_load = load(0.0);
    let bind = spring.to_bind(Length::from_si(0.0)).map_or(NEVER, Length::si).max(0.0);
    let reach = if bind < NEVER { bind.max(1e-4) } else { 1.2 * lift };
    let slope = |i: usize| {
        (load(reach * (i + 1) as f64 / STEPS as f64) - load(reach * i as f64 / STEPS as f64)) * STEPS as f64 / reach
    };
    let first = slope(0).max(1.0);
    let steepest = (0..STEPS).map(slope).fold(0.0, f64::max);
    if steepest < CLOSING * first || seat_load <= 0.0 {
        let rate = ((load(reach) - seat_load) / reach).max(1.0);
        return Coil::even(mass, rate, seat_load, bind, damping);
    }
    let links = LINKS as f64;
    let closes_at = |lift: f64| (load(lift) - seat_load) / (links * first);
    let mut coil = Coil::even(mass, first, seat_load, bind, damping);
    coil.closes = [closes_at(reach); LINKS];
    let mut closed = 0;
    for i in 0..STEPS {
        let wanted = (links * (1.0 - first / slope(i).max(first)) + 0.5) as usize;
        for link in closed..wanted.min(LINKS - 1) {
            coil.closes[link] = closes_at(reach * i as f64 / STEPS as f64);
        }
        closed = closed.max(wanted);
    }
    coil
}
