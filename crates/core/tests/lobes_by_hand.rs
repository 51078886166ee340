//! Lobes of the demo builds from their sampled lift alone: derivatives by differences, radii and angles by the formulas of
//! cam handbooks, the speed at which rigid parts leave the lobe by force against mass times acceleration.

use crate::support::DEMOS;
use crate::support::by_hand::{near, number};
use serde_json::Value;
use upper_lobe_core::analysis::{Block, CandidateReport, LobeReport, PartName, Request, Side, Stages, analyze};
use upper_lobe_core::build::Build;

struct Case {
    document: Value,
    report: CandidateReport,
}

impl Case {
    fn of(text: &str) -> Self {
        let build = Build::read(text).expect("in order");
        let request = Request::of(Some("a".to_owned()), PartName::cheap());
        let report = analyze(&build, &request, &Stages::default()).expect("a candidate").candidates.remove(0);
        Self { document: build.value().clone(), report }
    }

    fn text(&self, pointer: &str) -> &str {
        self.document.pointer(pointer).and_then(Value::as_str).unwrap_or_else(|| panic!("{pointer}"))
    }

    /// A size of the first candidate: mm, g or degrees.
    fn size(&self, pointer: &str) -> f64 {
        number(self.text(&format!("/candidates/0/{pointer}")))
    }

    fn lobe(&self, side: Side) -> &LobeReport {
        let Block::Done(lobes) = &self.report.lobe else { panic!("a lobe") };
        if side == Side::Intake { &lobes.intake } else { &lobes.exhaust }
    }

    /// Lift and its derivatives by radians of cam, mm, by central differences.
    fn samples(&self, side: Side) -> Vec<(f64, f64, f64)> {
        let lobe = self.lobe(side);
        let step = (lobe.cam_deg[1] - lobe.cam_deg[0]).to_radians();
        let derived = |three: &[f64]| {
            let velocity = (three[2] - three[0]) / (2.0 * step);
            (three[1], velocity, (three[2] - 2.0 * three[1] + three[0]) / (step * step))
        };
        lobe.lift_mm.windows(3).map(derived).collect()
    }

    fn have(&self, id: &str, side: Side) -> f64 {
        let line = self.report.limits.iter().find(|line| line.id == id && line.side == Some(side));
        line.and_then(|line| line.have).unwrap_or_else(|| panic!("{id}"))
    }
}

#[test]
fn every_lobe_runs_through_its_card() {
    for text in DEMOS {
        let case = Case::of(text);
        for side in Side::BOTH {
            let lobe = case.lobe(side);
            let most = lobe.lift_mm.iter().copied().fold(0.0, f64::max);
            near(most, case.size(&format!("cam/{}/lobe_lift", side.key())), 1e-6, "lobe lift");
            let checks = case.document["candidates"][0]["cam"][side.key()]["checks"].as_array().unwrap();
            for (place, row) in checks.iter().enumerate() {
                let height = case.size(&format!("cam/{}/checks/{place}/0", side.key()));
                let degrees = number(row[1].as_str().unwrap());
                let crossings: Vec<f64> = lobe
                    .lift_mm
                    .windows(2)
                    .zip(lobe.cam_deg.windows(2))
                    .filter(|(lift, _)| (lift[0] < height) != (lift[1] < height))
                    .map(|(lift, deg)| deg[0] + (height - lift[0]) / (lift[1] - lift[0]) * (deg[1] - deg[0]))
                    .collect();
                assert_eq!(crossings.len(), 2, "a lobe goes up once and down once");
                // Straight lines between half degrees cut the corner of a ramp.
                assert!((2.0 * (crossings[1] - crossings[0]) - degrees).abs() < 0.2, "{height} mm: {crossings:?}");
            }
        }
    }
}

/// tan phi = s'/(r_b + r_r + s) [Norton, *Cam Design and Manufacturing Handbook*, pressure angle of a roller; from memory].
#[test]
fn the_rollers_pressure_angle_is_that_of_the_handbook() {
    for text in &DEMOS[..2] {
        let case = Case::of(text);
        let prime = 0.5 * (case.size("cam/base_circle_diameter") + case.size("train/lifter/roller_diameter"));
        for side in Side::BOTH {
            let steepest =
                case.samples(side).iter().map(|(s, v, _)| (v.abs() / (prime + s)).atan()).fold(0.0, f64::max);
            near(case.have("pressure_angle", side), steepest.to_degrees(), 2e-3, "pressure angle");
        }
    }
}

/// Radius of the pitch curve less the roller's; of a flat foot base radius + s + s'' [Norton, the same; from memory].
#[test]
fn the_noses_radius_is_that_of_the_handbook() {
    for text in DEMOS {
        let case = Case::of(text);
        let base = 0.5 * case.size("cam/base_circle_diameter");
        let roller = case.document.pointer("/candidates/0/train/lifter/roller_diameter").is_some();
        for side in Side::BOTH {
            let radius = |&(s, v, a): &(f64, f64, f64)| {
                if !roller {
                    return base + s + a;
                }
                let roller = 0.5 * case.size("train/lifter/roller_diameter");
                let pitch = base + roller + s;
                let curvature = (pitch * pitch + 2.0 * v * v - pitch * a) / (pitch * pitch + v * v).powf(1.5);
                if curvature > 0.0 { 1.0 / curvature - roller } else { f64::INFINITY }
            };
            let least = case.samples(side).iter().map(radius).fold(f64::INFINITY, f64::min);
            near(case.have("nose_radius", side), least, 5e-3, "radius of the nose");
        }
    }
}

/// The contact runs out from the middle of a flat foot by the velocity per radian [Norton, the same; from memory].
#[test]
fn a_flat_foot_is_met_as_far_out_as_the_lobe_is_steep() {
    let case = Case::of(DEMOS[2]);
    for side in Side::BOTH {
        let out = case.samples(side).iter().map(|(_, v, _)| v.abs()).fold(0.0, f64::max);
        near(case.have("foot_contact", side), out, 2e-3, "contact on the foot");
    }
}

/// The lowest speed at which m |a| = F for rigid parts: mass at the valve is valve, retainer, locks, the rocker's tip side, a
/// third of the spring, and lifter and pushrod over the ratio squared (common practice, no source); steel of 7.85 g/cm3.
#[test]
fn rigid_parts_leave_the_lobe_where_force_meets_mass_times_acceleration() {
    for text in &DEMOS[..2] {
        let case = Case::of(text);
        for side in Side::BOTH {
            let key = side.key();
            let rocker = &case.document["candidates"][0]["train"]["rocker"];
            let ratio = rocker[key]["ratio"].as_f64().or_else(|| rocker["ratio"].as_f64()).unwrap();
            let tube_size = |field: &str| case.size(&format!("train/pushrod/{field}"));
            let (outside, wall) = (tube_size("outside_diameter"), tube_size("wall"));
            let tube = 0.25 * std::f64::consts::PI * (outside.powi(2) - (outside - 2.0 * wall).powi(2));
            let pushrod = tube * tube_size("length") * 7.85e-3;
            let mass = case.size(&format!("train/valve/{key}/mass"))
                + case.size("train/retainer/mass")
                + case.size("train/retainer/locks_mass")
                + case.size("train/rocker/tip_side_mass")
                + case.size("train/spring/mass") / 3.0
                + (case.size("train/lifter/mass") + pushrod) / (ratio * ratio);
            let Block::Done(control) = &case.report.control else { panic!("control") };
            let Block::Done(spring) = &case.report.spring else { panic!("a spring") };
            let (control, spring) = match side {
                Side::Intake => (&control.intake, &spring.intake),
                Side::Exhaust => (&control.exhaust, &spring.exhaust),
            };
            near(control.effective_mass_g, mass, 3e-2, "effective mass");
            let net = case.have("rocker_lift", side);
            let top = case.samples(side).iter().map(|(s, ..)| *s).fold(0.0, f64::max);
            // Cam radians a second at each place where the valve is slowed: F = m R |s''| w^2.
            let leaves = |&(s, _, a): &(f64, f64, f64)| {
                let force = spring.seat_load_n + (spring.open_load_n - spring.seat_load_n) * s / top;
                (a < 0.0).then(|| (force / (1e-3 * control.effective_mass_g * net / top * 1e-3 * -a)).sqrt())
            };
            let lowest = case.samples(side).iter().filter_map(leaves).fold(f64::INFINITY, f64::min);
            let crank_rpm = 2.0 * lowest * 30.0 / std::f64::consts::PI;
            // The ratio changes through the sweep; here it is the same all the way.
            near(control.hand_check_rpm, crank_rpm, 3e-2, "valve float");
            near(
                case.have("hand_check", side),
                0.775 * control.hand_check_rpm,
                1e-6,
                "with what an elastic train loses",
            );
        }
    }
}
