//! A helical compression spring known by its wire: rate, stress, solid height, surge.

use crate::given::CoilPart;
use crate::quantity::{Force, Length, Mass, Pressure, SpringRate};
use crate::words::Wire;

/// Shear modulus of spring steel (Shigley table 10-5 gives 11.2 to 11.75 Mpsi; from memory).
const SHEAR_MODULUS: f64 = 79.3e9;
/// Swing and mean of shear that peened wire bears endlessly, Pa: 57.5 and 77.5 kpsi [Zimmerli 1957 in Shigley ch. 10; from
/// memory].
const PEENED_SWING: f64 = 57.5e3 * 6894.757;
const PEENED_MEAN: f64 = 77.5e3 * 6894.757;
/// Density of spring steel, kg/m3.
const DENSITY: f64 = 7850.0;

impl Wire {
    /// Minimum tensile strength: `Sut = A / d^m`, A in kpsi in^m, d in inches [Shigley table 10-4,
    /// from memory; other tables differ up to 7 %, super-clean valve-spring wire is stronger].
    pub fn tensile_strength(self, diameter: Length) -> Pressure {
        let (a, m) = match self {
            Self::Music => (201.0, 0.145),
            Self::OilTempered => (147.0, 0.187),
            Self::ChromeVanadium => (169.0, 0.168),
            Self::ChromeSilicon => (202.0, 0.108),
            Self::SuperClean => (220.0, 0.108),
        };
        Pressure::mpa(a / diameter.as_inches().powf(m) * 6.894_757)
    }
}

/// One cylindrical coil, ends ground.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Coil {
    /// Wire diameter.
    pub wire: Length,
    /// Mean coil diameter.
    pub mean: Length,
    /// Coils that move.
    pub active: f64,
    /// All coils.
    pub total: f64,
    /// Unloaded length.
    pub free: Length,
    /// How much shorter than the installed height this coil sits.
    pub seat_offset: Length,
    /// Wire material.
    pub material: Wire,
}

impl Coil {
    /// Reads one entry of `coils`; the document has checked that its fields are there.
    pub fn read(part: &CoilPart) -> Option<Self> {
        Some(Self {
            wire: part.wire_diameter?,
            mean: part.mean_diameter?,
            active: part.active_coils?,
            total: part.total_coils?,
            free: part.free_length?,
            seat_offset: part.seat_offset?,
            material: part.material?,
        })
    }

    /// `k = G d^4 / (8 D^3 Na)` [Shigley ch. 10; Wahl; from memory].
    pub fn rate(&self) -> SpringRate {
        let (d, mean) = (self.wire.si(), self.mean.si());
        SpringRate::from_si(SHEAR_MODULUS * d.powi(4) / (8.0 * mean.powi(3) * self.active))
    }

    /// Load at an installed height of the package; zero beyond the free length.
    pub fn load(&self, package_height: Length) -> Force {
        let height = package_height.si() - self.seat_offset.si();
        Force::from_si(self.rate().si() * (self.free.si() - height).max(0.0))
    }

    /// Package height at which this coil is solid: `d Nt`, plus its seat offset.
    pub fn solid_package_height(&self) -> Length {
        Length::from_si(self.wire.si() * self.total + self.seat_offset.si())
    }

    /// Wahl's factor `Kw = (4C-1)/(4C-4) + 0.615/C` with `C = D/d` [Wahl; Shigley ch. 10; from memory].
    pub fn wahl_factor(&self) -> f64 {
        let c = self.mean.si() / self.wire.si();
        (4.0 * c - 1.0) / (4.0 * c - 4.0) + 0.615 / c
    }

    /// Corrected shear stress: `tau = Kw 8 F D / (pi d^3)` [Shigley ch. 10, from memory].
    pub fn shear_stress(&self, load: Force) -> Pressure {
        let d = self.wire.si();
        Pressure::from_si(self.wahl_factor() * 8.0 * load.si() * self.mean.si() / (std::f64::consts::PI * d.powi(3)))
    }

    /// Tensile strength of its wire.
    pub fn strength(&self) -> Pressure {
        self.material.tensile_strength(self.wire)
    }

    /// How far a swing of stress between two package heights lies below the line for endless life, over it: below one the
    /// spring has a life in cycles.
    ///
    /// Goodman's line in shear through Zimmerli's data for peened wire: `n = 1/(tau_a/S_se + tau_m/S_su)`,
    /// `S_se = S_sa/(1 - S_sm/S_su)` with `S_sa` 57.5 and `S_sm` 77.5 kpsi, `S_su = .67 S_ut` [Shigley, *Mechanical
    /// Engineering Design*, ch. 10; from memory].
    pub fn fatigue_reserve(&self, closed: Length, open: Length) -> f64 {
        let stress = |height: Length| self.shear_stress(self.load(height)).si();
        let (low, high) = (stress(closed), stress(open));
        let (swing, mean) = (0.5 * (high - low), 0.5 * (high + low));
        let torsion = 0.67 * self.strength().si();
        let endless = PEENED_SWING / (1.0 - PEENED_MEAN / torsion);
        1.0 / (swing / endless + mean / torsion)
    }

    /// Mass of the coils that move, the ones surge is about.
    pub fn active_mass(&self) -> Mass {
        Mass::from_si(self.mass_per_coil() * self.active)
    }

    /// Mass of the whole coil.
    pub fn mass(&self) -> Mass {
        Mass::from_si(self.mass_per_coil() * self.total)
    }

    fn mass_per_coil(&self) -> f64 {
        use std::f64::consts::PI;
        DENSITY * 0.25 * PI * self.wire.si().powi(2) * PI * self.mean.si()
    }

    /// First surge frequency, both ends fixed: `f = 0.5 sqrt(k / m_active)` [Shigley ch. 10, from
    /// memory], hertz.
    pub fn surge_frequency(&self) -> f64 {
        0.5 * (self.rate().si() / self.active_mass().si()).sqrt()
    }
}
