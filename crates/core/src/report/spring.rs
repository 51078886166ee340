//! The spring package of one side: loads, stress and waves at this cam's lift, and the sheet of installed heights.

use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Spring package of one side at this cam's lift.
    pub struct SpringReport {
        /// Valve closed.
        seat_load_n: f64,
        /// At full net lift.
        open_load_n: f64,
        /// Mean over the lift.
        rate_n_per_mm: f64,
        /// The same as read.
        rate: Shown,
        /// Heights from installed down to bind, or to full net lift where bind is not known; load and stress at each below.
        height_mm: Vec<f64>,
        /// See above.
        load_n: Vec<f64>,
        /// Share of its wire's strength that the worst coil bears at each height; only for springs known by wire.
        stress_share: Option<Vec<f64>>,
        /// Height at full net lift.
        open_height_mm: f64,
        /// Height at which the first coil is solid.
        solid_mm: Option<f64>,
        /// Travel left at full net lift.
        to_coil_bind_mm: Option<f64>,
        /// First surge frequency.
        surge_frequency_hz: Option<f64>,
        /// The first three of every coil, or of the package, lowest first.
        surge_modes_hz: Vec<f64>,
        /// Where a harmonic of the lift meets the first wave of the package, from fast to slow.
        surge_meets: Vec<SurgeMeets>,
        /// Corrected shear stress with the valve closed; only for springs known by wire.
        stress_seat_mpa: Option<f64>,
        /// The same at full lift.
        stress_open_mpa: Option<f64>,
        /// The same as read.
        stress_open: Option<Shown>,
        /// Against the line for endless life; below one the spring has a life in cycles.
        fatigue_reserve: Option<f64>,
        /// Each coil by itself, outer first; empty for springs known by loads.
        coils: Vec<CoilReport>,
        /// Seat load less the push of boost (intake) or drive pressure (exhaust).
        seat_reserve_n: Option<f64>,
        /// What shims make of measured heights; absent without them.
        heights: Option<HeightSheet>,
    }

    /// One coil of a package.
    pub struct CoilReport {
        /// Valve closed.
        seat_load: Shown,
        /// At full net lift.
        open_load: Shown,
        /// Travel left at full net lift.
        to_bind: Shown,
        /// Share of its wire's strength at full lift.
        stress_share: f64,
        /// First surge frequency.
        surge_hz: f64,
    }

    /// A harmonic of the lift that meets the spring's first wave.
    pub struct SurgeMeets {
        /// Times a turn of the cam.
        order: usize,
        /// Speed of the crank where they meet.
        rpm: f64,
        /// Amplitude of that harmonic in the lift.
        lift_um: f64,
    }

    /// Installed heights of a side's valves and what to put under their springs.
    pub struct HeightSheet {
        /// To the height that is wanted.
        to_wanted: HeightPlan,
        /// Evened with the fewest shims, within the range that is looked at; absent where none does.
        fewest: Option<HeightPlan>,
        /// Retainer to seal at full lift with the retainers of the sheet; absent while it is not known.
        to_seal: Option<Shown>,
        /// The shims that were counted with.
        kit: Vec<Shown>,
    }

    /// Shims for every valve.
    pub struct HeightPlan {
        /// Height they are brought to.
        height: Shown,
        /// How many shims that takes.
        shims: usize,
        /// Whether every valve comes there.
        is_even: bool,
        /// In a sentence.
        says: Shown,
        /// Every valve, cylinder by cylinder.
        valves: Vec<HeightAt>,
    }

    /// One valve of a sheet.
    pub struct HeightAt {
        /// Counted from one.
        valve: usize,
        /// As measured, with seats cut and retainers changed.
        measured: Shown,
        /// What goes under the spring, thickest first.
        shims: Vec<Shown>,
        /// How much higher other locks hold its retainer, with its sign; absent with its own.
        lock: Option<Shown>,
        /// Height with them.
        height: Shown,
        /// Load closed there.
        seat_load: Shown,
        /// Load at full lift there.
        open_load: Shown,
        /// Travel left to bind at full lift.
        to_bind: Option<Shown>,
        /// Retainer to seal at full lift; absent while it is not known.
        to_seal: Option<Shown>,
        /// Too short without a shim: seat deeper, or another retainer.
        is_short: bool,
        /// No pile of this kit brings it there.
        is_off: bool,
    }
}
