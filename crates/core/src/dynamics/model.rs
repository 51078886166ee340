//! One side's train as masses, springs and contacts. SI and radians throughout; a valve that opens moves in the positive
//! sense, a lifter that rises too.
//!
//! From the lobe: lifter body on the lobe, plunger (of a hydraulic lifter) with half of the pushrod, pushrod as a spring
//! that only pushes, rocker as a turning body whose pivot gives, its tip on the stem, a bridge where it opens two valves,
//! the valve with what moves with it, its seat, and every coil of the spring package as a chain of masses.

use super::oil::Oil;

/// Masses of the chain that stands for one coil.
pub const MASSES: usize = 16;
/// Most links of a chain that close at heights of their own.
pub const LINKS: usize = MASSES + 1;

/// Where two parts touch, or an elastic part between two masses: pushes, never pulls.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Contact {
    /// N/m.
    pub stiffness: f64,
    /// N s/m.
    pub damping: f64,
}

impl Contact {
    /// A contact damped by a share of critical with the mass that swings on it, kg.
    pub fn damped(stiffness: f64, share: f64, mass: f64) -> Self {
        Self { stiffness, damping: 2.0 * share * (stiffness * mass).sqrt() }
    }
}

/// One coil of the package (or the package as one, where only its loads are known), all valves of the rocker together.
#[derive(Debug, Clone, PartialEq)]
pub struct Coil {
    /// Moving mass, kg.
    pub mass: f64,
    /// Rate while every coil is open, N/m.
    pub rate: f64,
    /// Load with the valve closed, N.
    pub seat_load: f64,
    /// How far the valve opens before this coil is touched, m; zero where it has load.
    pub slack: f64,
    /// What each link of the chain closes by from the closed valve until its coils touch, m, seat to retainer.
    pub closes: [f64; LINKS],
    /// Share of critical damping of its first mode.
    pub damping: f64,
    /// Half of what the load differs by between closing and opening, N: friction of a damper or an interference fit.
    pub friction: f64,
    /// Share of its wire's strength that a newton of load takes; zero where the wire is not known.
    pub stress: f64,
}

impl Coil {
    /// A coil whose links all close at once, `travel` (m) from the closed valve.
    pub fn even(mass: f64, rate: f64, seat_load: f64, travel: f64, damping: f64) -> Self {
        Self {
            mass,
            rate,
            seat_load,
            slack: 0.0,
            closes: [travel.max(0.0) / LINKS as f64; LINKS],
            damping,
            friction: 0.0,
            stress: 0.0,
        }
    }
}

/// A bridge between rocker and two valves.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bridge {
    /// kg.
    pub mass: f64,
    /// On both stems together.
    pub stems: Contact,
}

/// One side's train.
#[derive(Debug, Clone, PartialEq)]
pub struct Model {
    /// Lifter body, kg; of a solid lifter with half of the pushrod.
    pub lifter: f64,
    /// Plunger with half of the pushrod, kg, and the oil it stands on; `None` for a solid lifter.
    pub plunger: Option<(f64, Oil)>,
    /// Lobe to lifter.
    pub cam: Contact,
    /// The pushrod with its ends.
    pub pushrod: Contact,
    /// Travel of the cup along the pushrod over the rocker's turn: `turn (c0 + turn (c1 + turn (c2 + turn c3)))`.
    pub cup: [f64; 4],
    /// Travel of the tip along the stem over the turn, in the same form.
    pub tip: [f64; 4],
    /// Of the rocker about its pivot with the other half of the pushrod at its cup, kg m2.
    pub inertia: f64,
    /// What moves with the pivot, kg, and what the pivot stands on.
    pub pivot: (f64, Contact),
    /// Rocker body and tip on the stem (or the bridge).
    pub stem: Contact,
    /// Clearance at the stem, m.
    pub lash: f64,
    /// Where one rocker opens two valves.
    pub bridge: Option<Bridge>,
    /// Valve, retainer, locks and cap of every valve, kg.
    pub valve: f64,
    /// On all seats together.
    pub seat: Contact,
    /// Coils of every package.
    pub coils: Vec<Coil>,
    /// Whole reading of the base circle's run-out, m.
    pub runout: f64,
}

impl Model {
    /// Valve lift for a unit of lifter lift with the valve closed.
    pub fn ratio(&self) -> f64 {
        self.tip[0] / self.cup[0]
    }

    /// Valve lift for a unit of load at the valve, m/N: what the train gives while it turns slowly.
    pub fn compliance(&self) -> f64 {
        let ratio = self.ratio();
        let bridge = self.bridge.map_or(0.0, |bridge| 1.0 / bridge.stems.stiffness);
        ratio * ratio * (1.0 / self.cam.stiffness + 1.0 / self.pushrod.stiffness)
            + (1.0 + ratio).powi(2) / self.pivot.1.stiffness
            + 1.0 / self.stem.stiffness
            + bridge
    }
}
