//! A cam turned as a whole.

use crate::quantity::Shown;
use serde::Serialize;

report! {
    /// Gaps, torque and idle over how a cam is set, and the window in which nothing fails.
    pub struct PhasingReport {
        /// Crank degrees forward from how the cam is given; back is negative.
        advance_deg: Vec<f64>,
        /// Intake centreline there.
        intake_centreline_deg: Vec<f64>,
        /// Intake valve to piston at rest; absent where it is not known.
        intake_clearance_mm: Option<Vec<f64>>,
        /// Exhaust valve to piston at rest.
        exhaust_clearance_mm: Option<Vec<f64>>,
        /// Intake valve to piston at speed.
        intake_at_speed_mm: Option<Vec<f64>>,
        /// Exhaust valve to piston at speed.
        exhaust_at_speed_mm: Option<Vec<f64>>,
        /// Limits that fail at each place, by their titles.
        fails: Vec<Vec<String>>,
        /// Where nothing fails, from and to.
        window_deg: Option<[f64; 2]>,
        /// Where nothing touches at speed, whatever limits at rest say.
        free_deg: Option<[f64; 2]>,
        /// Where it may be set so that it stays in that while the drive stretches and a phaser turns it.
        set_deg: Option<[f64; 2]>,
        /// Crank degrees the drive will stretch.
        stretch_deg: f64,
        /// Crank degrees a phaser turns it back and forward.
        phaser_deg: [f64; 2],
        /// Torque there, where it was computed.
        torque: Option<PhasingTorque>,
        /// Best place to set it, by average torque.
        best_deg: Option<f64>,
        /// What the timing set reaches.
        steps: Vec<TimingStep>,
        /// Whether those are usual ones, since nobody said.
        steps_assumed: bool,
        /// In words.
        says: Shown,
    }

    /// Torque over how a cam is set: a parabola through drafted curves.
    pub struct PhasingTorque {
        /// Where curves were drafted.
        drafted_deg: Vec<f64>,
        /// Average over the band.
        average_torque_nm: Vec<f64>,
        /// Average over the lowest third of the band.
        low_torque_nm: Vec<f64>,
        /// Peak power.
        peak_power_kw: Vec<f64>,
        /// Vacuum at idle, where the plan asks for one.
        idle_vacuum_kpa: Option<Vec<f64>>,
        /// The same as read.
        idle_vacuum_shown: Option<Vec<Shown>>,
        /// What the parabola misses of a drafted curve's average torque that is left out.
        off_share: f64,
    }

    /// One keyway or bushing.
    pub struct TimingStep {
        /// Crank degrees forward.
        advance_deg: f64,
        /// Whether it may be set there.
        in_window: bool,
        /// What fails there.
        fails: Vec<String>,
        /// Average torque there against how it is given.
        average_torque_nm: Option<f64>,
        /// The intake centreline it leads to, as a text for its field.
        intake_centreline: String,
    }
}
