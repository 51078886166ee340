//! What tells two lobes apart that may have one card: area, velocity, acceleration, and how they leave the base circle.

use crate::report::LobeReport;
use serde::Serialize;

/// Two lobes of one side, in words.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LobesApart {
    /// Whether they have one lift and one duration at .050 in: one card, as many read it.
    pub one_card: bool,
    /// Sentences about the lobe in view against the other, what weighs most first.
    pub words: Vec<String>,
}

/// The lobe lift durations are quoted at, and one where area counts, mm.
const FIFTY: f64 = 1.27;
const HIGH: f64 = 5.08;
/// Differences below this share are not worth a word.
const WORTH: f64 = 0.005;

/// What `viewed` does that `other` does not.
pub fn lobes_apart(viewed: &LobeReport, other: &LobeReport) -> LobesApart {
    let peak = |lobe: &LobeReport| lobe.lift_mm.iter().copied().fold(0.0, f64::max);
    let wide = |lobe: &LobeReport| above(lobe, FIFTY).1;
    let one_card = (peak(viewed) - peak(other)).abs() < 0.051 && (wide(viewed) - wide(other)).abs() < 0.25;
    let mut words = Vec::new();
    let mut tell = |what: &str, one: f64, two: f64| {
        let share = if two.abs() > 1e-12 { one / two - 1.0 } else { 0.0 };
        if share.abs() >= WORTH {
            let how = if share > 0.0 { "more" } else { "less" };
            words.push((share.abs(), format!("{:.1} % {how} {what}", 100.0 * share.abs())));
        }
    };
    tell("area above .200 in", above(viewed, HIGH).0, above(other, HIGH).0);
    let velocity = |lobe: &LobeReport| lobe.peak_velocity_mm_per_cam_deg;
    tell("velocity at most", velocity(viewed), velocity(other));
    let nose = |lobe: &LobeReport| lobe.minimum_acceleration_mm_per_cam_deg2;
    tell("deceleration over the nose, which the spring must hold", nose(viewed), nose(other));
    let flank = |lobe: &LobeReport, opening: bool| {
        let own = lobe.cam_deg.iter().zip(&lobe.acceleration).filter(|(deg, _)| (**deg < 0.0) == opening);
        own.map(|(_, a)| *a).fold(0.0, f64::max)
    };
    for (opening, name) in [(true, "opening"), (false, "closing")] {
        tell(&format!("acceleration while {name}"), flank(viewed, opening), flank(other, opening));
        let start = |lobe: &LobeReport| start_of(lobe, opening);
        tell(&format!("angle from .006 to .050 in while {name}"), start(viewed), start(other));
    }
    words.sort_by(|a, b| b.0.total_cmp(&a.0));
    LobesApart { one_card, words: words.into_iter().map(|(_, text)| text).collect() }
}

/// Area (mm x cam degrees) above a lift, and cam degrees spent there.
fn above(lobe: &LobeReport, lift: f64) -> (f64, f64) {
    let mut found = (0.0, 0.0);
    for (deg, mm) in lobe.cam_deg.windows(2).zip(lobe.lift_mm.windows(2)) {
        let (low, high) = (mm[0].min(mm[1]) - lift, mm[0].max(mm[1]) - lift);
        if high <= 0.0 {
            continue;
        }
        // A step through the lift counts from where it passes it.
        let share = if low < 0.0 { high / (high - low) } else { 1.0 };
        found.0 += share * (deg[1] - deg[0]) * 0.5 * (low.max(0.0) + high);
        found.1 += share * (deg[1] - deg[0]);
    }
    found
}

/// Cam degrees between .006 and .050 in of lift on one flank.
fn start_of(lobe: &LobeReport, opening: bool) -> f64 {
    let side = |deg: f64| (deg < 0.0) == opening;
    let at = |lift: f64| {
        let pairs = lobe.cam_deg.windows(2).zip(lobe.lift_mm.windows(2));
        let mut crossing = pairs.filter(|(deg, mm)| side(deg[0]) && (mm[0] - lift) * (mm[1] - lift) <= 0.0);
        crossing
            .find(|(_, mm)| (mm[1] - mm[0]).abs() > 1e-12)
            .map(|(deg, mm)| deg[0] + (lift - mm[0]) / (mm[1] - mm[0]) * (deg[1] - deg[0]))
    };
    match (at(0.1524), at(FIFTY)) {
        (Some(low), Some(high)) => (high - low).abs(),
        _ => 0.0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A lobe of straight flanks: `half` cam degrees from the base circle to `lift` mm.
    fn roof(half: f64, lift: f64, velocity: f64) -> LobeReport {
        let cam_deg: Vec<f64> = (-120..=120).map(f64::from).collect();
        let lift_mm: Vec<f64> = cam_deg.iter().map(|deg: &f64| (lift * (1.0 - deg.abs() / half)).max(0.0)).collect();
        LobeReport {
            peak_velocity_mm_per_cam_deg: velocity,
            peak_acceleration_mm_per_cam_deg2: 1.0,
            minimum_acceleration_mm_per_cam_deg2: -1.0,
            minimum_radius_mm: 10.0,
            hollow_radius_mm: None,
            pressure_angle_deg: 0.0,
            foot_offset_mm: None,
            contact_stress_mpa: None,
            contact_stress: None,
            residual_mm: None,
            velocity: vec![0.0; cam_deg.len()],
            acceleration: vec![0.0; cam_deg.len()],
            jerk: vec![0.0; cam_deg.len()],
            cam_deg,
            lift_mm,
        }
    }

    #[test]
    fn areas_and_angles_of_a_roof_are_those_of_a_triangle() {
        // 10 mm over 100 degrees: above 5.08 stands a triangle 4.92 high and 98.4 wide; .1524 to 1.27 takes 11.176 degrees.
        let (area, wide) = above(&roof(100.0, 10.0, 0.1), HIGH);
        assert!((area - 0.5 * 4.92 * 98.4).abs() < 0.01 && (wide - 98.4).abs() < 1e-9, "{area} {wide}");
        assert!((start_of(&roof(100.0, 10.0, 0.1), true) - 11.176).abs() < 1e-9);
        assert!((start_of(&roof(100.0, 10.0, 0.1), false) - 11.176).abs() < 1e-9);
    }

    #[test]
    fn one_card_and_another_lobe_is_told_by_what_differs() {
        let apart = lobes_apart(&roof(100.0, 10.0, 0.11), &roof(100.0, 10.0, 0.10));
        assert_eq!(apart, LobesApart { one_card: true, words: vec!["10.0 % more velocity at most".to_owned()] });
        assert!(!lobes_apart(&roof(100.0, 10.0, 0.1), &roof(100.0, 9.0, 0.1)).one_card);
        assert!(!lobes_apart(&roof(100.0, 10.0, 0.1), &roof(90.0, 10.0, 0.1)).one_card);
        assert_eq!(lobes_apart(&roof(100.0, 10.0, 0.1), &roof(100.0, 10.0, 0.1)).words, Vec::<String>::new());
    }
}
