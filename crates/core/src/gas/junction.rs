//! Ducts that meet: one pressure in the junction, what comes out of it mixed.
//!
//! The junction stores nothing: its pressure is the one at which what the branches bring is what they take
//! [constant-pressure junction: Winterbone and Pearson; from memory]. Each branch answers as an open end would. Gas that
//! arrives along the pipe behind keeps some of its momentum there, the more the smaller the angle: the pipe's stagnation
//! pressure lies above the junction's by `k (sum(m u)/A - rho u^2/2)`, `k = cos(3/4 delta)` [pressure-loss junction in the
//! form of Bassett, Pearson and Winterbone; from memory].

use super::ends::End;
use super::state::{Gas, State};

/// The gas where ducts meet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Junction {
    /// Pa.
    pub pressure: f64,
    /// K.
    pub temperature: f64,
    /// Burned share.
    pub burned: f64,
    /// Share of the arriving momentum that the pipe behind, the last branch, keeps; 0 for a plain volume.
    pub kept: f64,
    /// What that is at the moment, Pa.
    pub gain: f64,
}

/// One duct's end at a junction.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Branch {
    /// The gas at its end.
    pub inside: State,
    /// +1 for a right end, -1 for a left one.
    pub outward: f64,
    /// m2.
    pub area: f64,
}

/// Most evaluations of the balance in a step.
const MOST: usize = 12;
/// Share of the way to what momentum gives now that the pipe's gain goes in a step: the balance of the step before would swing.
const RELAXED: f64 = 0.3;
/// Most of it, of the junction's pressure.
const MOST_GAIN: f64 = 0.3;

impl Junction {
    /// The faces of `branches`, whose flows sum to zero within a hundred-thousandth of what they could carry.
    /// Gas that leaves the junction has the mixture of what came into it in the step before.
    pub fn join(&mut self, gas: Gas, branches: &[Branch], faces: &mut [State]) {
        let stiffness: f64 = branches.iter().map(|b| b.area / b.inside.sound(gas)).sum();
        let carried: f64 = branches.iter().map(|b| b.area * b.inside.sound(gas) * b.inside.density).sum();
        // The waves that arrive, taken as sound waves, give the first pressure.
        let first = branches
            .iter()
            .map(|b| {
                b.area * (b.inside.pressure / b.inside.sound(gas) + b.inside.density * b.outward * b.inside.velocity)
            })
            .sum::<f64>()
            / stiffness;
        let mut pressure = first.max(0.2 * self.pressure);
        let (mut before, mut slope) = (None::<(f64, f64)>, -stiffness);
        for _ in 0..MOST {
            let surplus = self.flows(gas, pressure, branches, faces);
            if surplus.abs() < 1e-5 * carried {
                break;
            }
            if let Some((at, value)) = before {
                let secant = (surplus - value) / (pressure - at);
                slope = if secant < -0.2 * stiffness { secant } else { -stiffness };
            }
            before = Some((pressure, surplus));
            pressure = (pressure - surplus / slope).clamp(0.5 * pressure, 2.0 * pressure);
        }
        self.pressure = pressure;
        self.mix(gas, branches, faces);
        if self.kept > 0.0 {
            let wanted = self.kept * momentum(branches, faces);
            self.gain = (self.gain + RELAXED * (wanted - self.gain)).clamp(-MOST_GAIN * pressure, MOST_GAIN * pressure);
        }
    }

    /// Mass into the junction, kg/s, at `pressure`; positive when the branches bring more than they take.
    fn flows(&self, gas: Gas, pressure: f64, branches: &[Branch], faces: &mut [State]) -> f64 {
        let mut sum = 0.0;
        let last = branches.len() - 1;
        for (i, (branch, face)) in branches.iter().zip(faces).enumerate() {
            let pressure = if i == last { pressure + self.gain } else { pressure };
            let end = End::Open { pressure, temperature: self.temperature, burned: self.burned };
            *face = end.face(gas, &branch.inside, branch.outward);
            sum += branch.outward * face.velocity * face.density * branch.area;
        }
        sum
    }

    fn mix(&mut self, gas: Gas, branches: &[Branch], faces: &[State]) {
        let (mut mass, mut heat, mut burned) = (0.0, 0.0, 0.0);
        for (branch, face) in branches.iter().zip(faces) {
            let flow = branch.outward * face.velocity * face.density * branch.area;
            if flow > 0.0 {
                mass += flow;
                heat += flow * face.stagnation(gas);
                burned += flow * face.burned;
            }
        }
        if mass > 1e-9 {
            (self.temperature, self.burned) = (heat / mass, burned / mass);
        }
    }
}

/// Momentum that arrives for a unit area of the pipe behind less what flows off there, Pa; none while that pipe flows back.
fn momentum(branches: &[Branch], faces: &[State]) -> f64 {
    let Some((behind, others)) = branches.split_last() else { return 0.0 };
    let away = faces[others.len()];
    // Into the pipe behind is against its outward sense at the junction.
    if behind.outward * away.velocity >= 0.0 {
        return 0.0;
    }
    let arriving: f64 = others
        .iter()
        .zip(faces)
        .filter(|(branch, face)| branch.outward * face.velocity > 0.0)
        .map(|(branch, face)| branch.area * face.density * face.velocity * face.velocity)
        .sum();
    arriving / behind.area - 0.5 * away.density * away.velocity * away.velocity
}

#[cfg(test)]
mod tests {
    use super::*;

    fn branch(pressure: f64, velocity: f64, outward: f64, area: f64) -> Branch {
        Branch { inside: Gas::BURNED.state(pressure, 900.0, velocity), outward, area }
    }

    #[test]
    fn what_comes_in_goes_out_and_brings_its_heat() {
        let branches =
            [branch(1.6e5, 120.0, 1.0, 1.2e-3), branch(1.1e5, 10.0, 1.0, 1.2e-3), branch(1.0e5, 60.0, -1.0, 4e-3)];
        let mut junction = Junction { pressure: 1e5, temperature: 800.0, burned: 1.0, kept: 0.0, gain: 0.0 };
        let mut faces = [branches[0].inside; 3];
        junction.join(Gas::BURNED, &branches, &mut faces);
        let flow = |i: usize| branches[i].outward * faces[i].velocity * faces[i].density * branches[i].area;
        let (sum, most) = (flow(0) + flow(1) + flow(2), flow(0).abs());
        assert!(sum.abs() < 1e-3 * most, "{sum} of {most}");
        // It arrives at rest with less than it had: the wave that let it out took its work.
        assert!((820.0..900.0).contains(&junction.temperature), "{junction:?}");
    }

    #[test]
    fn a_small_angle_carries_momentum_into_the_pipe_behind() {
        let gas = Gas::BURNED;
        let branches =
            [branch(1.3e5, 150.0, 1.0, 1.2e-3), branch(1.0e5, 0.0, 1.0, 1.2e-3), branch(1.0e5, 100.0, -1.0, 4e-3)];
        let settled = |kept: f64| {
            let mut junction = Junction { pressure: 1e5, temperature: 850.0, burned: 1.0, kept, gain: 0.0 };
            let mut faces = [branches[0].inside; 3];
            for _ in 0..60 {
                junction.join(gas, &branches, &mut faces);
            }
            (junction, faces)
        };
        let (plain, before) = settled(0.0);
        let (merged, after) = settled(0.98);
        assert_eq!(plain.gain, 0.0);
        // By hand from the faces it settles at: k (sum(rho u^2 A)/A_c - rho_c u_c^2/2).
        let arriving = 1.2e-3 * after[0].density * after[0].velocity.powi(2) / 4e-3;
        let wanted = 0.98 * (arriving - 0.5 * after[2].density * after[2].velocity.powi(2));
        assert!((merged.gain - wanted).abs() < 0.02 * wanted.abs(), "{} {wanted}", merged.gain);
        assert!(merged.gain > 0.0 && after[2].velocity > before[2].velocity, "more goes on: {after:?}");
    }

    #[test]
    fn a_sound_wave_at_a_fork_passes_as_the_areas_say() {
        // A step dp into one of three like pipes: two thirds of it pass on into each of the others, and a third turns
        // back as a suction wave [sudden enlargement of three, t = 2 A1/(A1 + A2 + A3); Kinsler, ch. 10; from memory].
        let gas = Gas::AIR;
        let rest = gas.state(1e5, 300.0, 0.0);
        let step = 100.0;
        let impedance = rest.density * rest.sound(gas);
        let wave = State { pressure: 1e5 + step, velocity: step / impedance, ..rest };
        let one = |inside: State, outward: f64| Branch { inside, outward, area: 1e-3 };
        let branches = [one(wave, 1.0), one(rest, -1.0), one(rest, -1.0)];
        let mut junction = Junction { pressure: 1e5, temperature: 300.0, burned: 0.0, kept: 0.0, gain: 0.0 };
        let mut faces = [rest; 3];
        junction.join(gas, &branches, &mut faces);
        let passed = (junction.pressure - 1e5) / step;
        assert!((passed / (2.0 / 3.0) - 1.0).abs() < 0.01, "{passed}");
    }
}
