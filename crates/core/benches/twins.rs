//! Twin experiments: the demo builds as they are against twins whose unmeasured constants and inputs lie elsewhere in their
//! ranges, drawn by a seed. What a curve, and a difference between two of its candidates, may be off by; the bands that
//! `candidate/breathing/band.rs` states were set by it. Some minutes.

#![allow(clippy::expect_used, clippy::unwrap_used, missing_docs)]

// Tests share more than this needs.
#[allow(dead_code)]
#[path = "../tests/support/mod.rs"]
mod support;

use rayon::prelude::*;
use support::{Chance, DEMOS};
use upper_lobe_core::build::Build;
use upper_lobe_core::candidate::breathing::{Breathing, Effort, breathing_of, curve};
use upper_lobe_core::candidate::{Resolved, Stages};
use upper_lobe_core::report::BreathingReport;

/// Twins of each build.
const TWINS: usize = 40;

fn main() {
    let count = support::wanted("UPPER_LOBE_TWINS", TWINS);
    for text in DEMOS {
        let stages = Stages::default();
        let build = Build::read(text).expect("in order");
        let views = build.candidates();
        let own: Vec<Breathing> =
            views.iter().take(2).map(|view| breathing_of(&Resolved::of(view, &stages)).expect("complete")).collect();
        let base: Vec<BreathingReport> = own.iter().map(|b| curve(b, Effort::Draft).expect("a curve")).collect();
        let twins: Vec<Vec<BreathingReport>> = (0..count)
            .into_par_iter()
            .map(|seed| {
                own.iter()
                    .map(|breathing| curve(&twin(breathing, seed as u64), Effort::Draft).expect("a curve"))
                    .collect()
            })
            .collect();
        println!("{}", views[0].name);
        told("peak power", &twins, |r| r[0].peak_power_kw / base[0].peak_power_kw - 1.0);
        told("peak torque", &twins, |r| r[0].peak_torque_nm / base[0].peak_torque_nm - 1.0);
        told("torque, lowest speed", &twins, |r| r[0].torque_nm[0] / base[0].torque_nm[0] - 1.0);
        told("speed of peak power, rpm", &twins, |r| r[0].peak_power_rpm - base[0].peak_power_rpm);
        told("speed of peak torque, rpm", &twins, |r| r[0].peak_torque_rpm - base[0].peak_torque_rpm);
        let apart = |r: &[BreathingReport], i: usize| (r[1].torque_nm[i] - r[0].torque_nm[i]) / base[0].torque_nm[i];
        let speeds = base[0].speed_rpm.len();
        let spread: f64 = (0..speeds)
            .map(|i| deviation(&twins.iter().map(|r| apart(r, i) - apart(&base, i)).collect::<Vec<f64>>()).powi(2))
            .sum();
        let size: f64 = (0..speeds).map(|i| apart(&base, i).powi(2)).sum();
        println!(
            "  a difference of {:.2} % of torque over the band is known to {:.2} %",
            100.0 * (size / speeds as f64).sqrt(),
            100.0 * (spread / speeds as f64).sqrt()
        );
    }
}

/// The same engine with everything that is not known elsewhere: standard deviations as ranges are stated in `docs/method.md`.
fn twin(breathing: &Breathing, seed: u64) -> Breathing {
    let mut chance = Chance(1 + 7919 * seed);
    // The sum of twelve even chances less six is near enough to a normal one.
    let mut normal = || (0..12).map(|_| chance.share()).sum::<f64>() - 6.0;
    let mut twin = breathing.clone();
    let setup = &mut twin.setup;
    setup.friction *= 1.0 + 0.12 * normal();
    setup.burning *= 1.0 + 0.012 * normal();
    setup.unmeasured.cylinder_wall += 30.0 * normal();
    setup.unmeasured.runner_wall += 12.0 * normal();
    setup.unmeasured.primary_wall += 80.0 * normal();
    setup.unmeasured.pipe_heat *= 1.0 + 0.2 * normal();
    setup.unmeasured.cylinder_heat *= 1.0 + 0.15 * normal();
    setup.unmeasured.burn_length *= 1.0 + 0.12 * normal();
    setup.mixture.cooled += 3.0 * normal();
    for port in [&mut setup.intake, &mut setup.exhaust] {
        port.flow *= 1.0 + 0.02 * normal();
        port.loss *= (0.4 * normal()).exp();
        let longer = 0.012 * normal();
        port.lengths.iter_mut().for_each(|length| *length += longer);
    }
    twin
}

fn told(what: &str, twins: &[Vec<BreathingReport>], of: impl Fn(&[BreathingReport]) -> f64) {
    let mut found: Vec<f64> = twins.iter().map(|reports| of(reports)).collect();
    found.sort_by(f64::total_cmp);
    let inside = found.iter().map(|x| x.abs()).collect::<Vec<f64>>();
    let mut sorted = inside;
    sorted.sort_by(f64::total_cmp);
    let nine_of_ten = sorted[(0.9 * sorted.len() as f64) as usize];
    println!("  {what}: standard deviation {:.4}, nine of ten within {nine_of_ten:.4}", deviation(&found));
}

fn deviation(values: &[f64]) -> f64 {
    let n = values.len() as f64;
    let mean = values.iter().sum::<f64>() / n;
    (values.iter().map(|x| (x - mean).powi(2)).sum::<f64>() / n).sqrt()
}
