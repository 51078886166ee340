//! The train a beginning assumes: lifter, pushrod, rocker, masses, and springs within the usual loads of its lifter.

use crate::limits::figures::spring_band;
use crate::quantity::POUND_FORCE;
use crate::words::{Casting, LifterKind, Use, Word};
use serde_json::{Value, json};

/// The lifter a petrol use is built with.
pub const fn lifter_kind(used_for: Use) -> LifterKind {
    match used_for {
        Use::Strip | Use::Circuit => LifterKind::SolidRoller,
        _ => LifterKind::HydraulicRoller,
    }
}

/// What a lifter is set to where nothing says it: the field and its text. Lash hot, or preload (common practice, no source).
pub const fn usual_setting(kind: LifterKind, is_short: bool, heads: Casting) -> (&'static str, &'static str) {
    match (kind.is_solid(), heads) {
        // Aluminium heads grow away from the cam: what is set hot must leave something cold.
        (true, Casting::Aluminium) => ("lash", "0.026 in"),
        (true, _) => ("lash", "0.016 in"),
        (false, _) if is_short => ("preload", "0.025 in"),
        (false, _) => ("preload", "0.028 in"),
    }
}

/// The lifter of a petrol V8.
pub fn lifter(kind: LifterKind, top_rpm: f64, heads: Casting) -> Value {
    let short = kind == LifterKind::HydraulicRoller && top_rpm > 6500.0;
    let rated = format!("{:.0} rpm", ((1.06 * top_rpm) / 100.0).ceil() * 100.0);
    let mut own = match kind {
        LifterKind::HydraulicRoller => json!({
            "mass": if short { "132 g" } else { "126 g" }, "roller_diameter": "0.750 in", "anti_rotation": "link_bar",
            "variant": if short { "short_travel" } else { "standard" },
            "travel": if short { "0.060 in" } else { "0.140 in" },
        }),
        LifterKind::SolidRoller => json!({
            "mass": "150 g", "roller_diameter": "0.850 in", "anti_rotation": "link_bar",
        }),
        LifterKind::HydraulicFlat => {
            json!({ "mass": "100 g", "face_diameter": "0.842 in", "travel": "0.130 in" })
        }
        LifterKind::SolidFlat => json!({ "mass": "95 g", "face_diameter": "0.842 in" }),
    };
    let (setting, text) = usual_setting(kind, short, heads);
    own[setting] = json!(text);
    own["kind"] = json!(kind.word());
    own["rated_speed"] = json!(rated);
    own
}

/// What a spring must do.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wanted {
    /// Installed height, in.
    pub installed: f64,
    /// Net lift at the valve, in.
    pub lift: f64,
    /// Seat load and load at that lift, lbf.
    pub loads: (f64, f64),
}

/// Loads high in the usual band, so that control is met with most masses.
pub fn usual_loads(kind: LifterKind, top_rpm: f64) -> (f64, f64) {
    let band = spring_band(kind, top_rpm);
    let at = |(low, high): (f64, f64), share: f64| low + share * (high - low);
    (at(band.seat, 0.7), at(band.open, 0.95))
}

/// A package for that: two tester points and what bind leaves.
pub fn spring(wanted: Wanted, form: &str, outside: &str, mass: &str) -> Value {
    let Wanted { installed, lift, loads: (seat, open) } = wanted;
    let rate = (open - seat) / lift;
    let travel = (lift / 0.05).ceil() * 0.05;
    let mut package = json!({
        "form": form, "installed_height": inches(installed), "coil_bind_height": inches(installed - lift - 0.090),
        "mass": mass, "outside_diameter": outside,
        "points": [
            [inches(installed), format!("{seat:.0} lbf")],
            [inches(installed - travel), format!("{:.0} lbf", seat + rate * travel)],
        ],
    });
    if form == "beehive" {
        package["top_diameter"] = json!("1.080 in");
    }
    package
}

/// A diesel's package: its own rate, the seat held against drive pressure on its valve.
pub fn diesel_spring(lift: f64, seat: f64) -> Value {
    let (installed, travel) = (0.0480, (lift / 0.001).ceil() * 0.001);
    let rate = 42.0e3;
    let millimetres = |metres: f64| format!("{:.1} mm", metres * 1e3);
    json!({
        "form": "single", "installed_height": millimetres(installed),
        "coil_bind_height": millimetres(installed - lift - 0.0030), "mass": "96 g", "outside_diameter": "33 mm",
        "points": [
            [millimetres(installed), format!("{seat:.0} N")],
            [millimetres(installed - travel), format!("{:.0} N", seat + rate * travel)],
        ],
    })
}

/// Seat load that holds a diesel's valve against gas from behind: pressure on its head, the reserve its limit asks for,
/// and a quarter more; N.
pub fn diesel_seat(pressure: f64, diameter: f64) -> f64 {
    let gas = pressure * 0.25 * std::f64::consts::PI * diameter * diameter;
    let reserve = crate::limits::figures::RESERVE_DIESEL * POUND_FORCE;
    ((1.25 * (gas + reserve)).max(340.0) / 10.0).ceil() * 10.0
}

/// Inches as they are written.
pub fn inches(inches: f64) -> String {
    format!("{inches:.3} in")
}
