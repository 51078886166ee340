//! Pulls as figures against statsmodels' mixed models, SciPy's t test, a randomised block design by hand, and planted differences.

use rand_distr::{Distribution, Normal};
use rand_pcg::rand_core::{RngCore, SeedableRng};
use serde_json::Value;
use upper_lobe_core::pulls::{Design, Target, fit, over_speed, scatters_otherwise, welch};

fn reference() -> Value {
    serde_json::from_str(include_str!("reference/mixed.json")).expect("JSON")
}

fn numbers(value: &Value) -> Vec<f64> {
    value.as_array().expect("a list").iter().map(|own| own.as_f64().expect("a number")).collect()
}

fn places(value: &Value) -> Vec<usize> {
    numbers(value).into_iter().map(|own| own as usize).collect()
}

#[test]
fn means_drift_and_variances_are_those_of_the_published_library() {
    // statsmodels 0.14, MixedLM by restricted likelihood (reference/mixed.py), unbalanced days.
    for case in reference()["mixed"].as_array().expect("cases") {
        let design =
            Design { combination: places(&case["combination"]), day: places(&case["day"]), at: numbers(&case["at"]) };
        let found = fit(&design, &numbers(&case["value"])).expect("it tells them apart");
        let close = |own: f64, wanted: &Value, within: f64| {
            let wanted = wanted.as_f64().expect("a number");
            assert!((own - wanted).abs() < within * (1.0 + wanted.abs()), "{own} {wanted} of {case}");
        };
        close(found.variance, &case["variance"], 1e-4);
        close(found.ratio, &case["ratio"], 1e-3);
        close(found.drift, &case["drift"], 1e-5);
        let both = found.contrast(1, 0).expect("both are there");
        close(both.error, &case["error"], 1e-4);
        let means = numbers(&case["means"]);
        close(both.difference, &Value::from(means[1] - means[0]), 1e-5);
    }
}

#[test]
fn one_day_is_the_pooled_t_test() {
    let case = &reference()["one_day"];
    let (a, b) = (numbers(&case["a"]), numbers(&case["b"]));
    let combination = a.iter().map(|_| 0).chain(b.iter().map(|_| 1)).collect();
    let values: Vec<f64> = a.iter().chain(&b).copied().collect();
    let design = Design { combination, day: vec![0; 7], at: vec![0.0; 7] };
    let own = fit(&design, &values).expect("a fit").contrast(1, 0).expect("both");
    let (low, high) = (case["low"].as_f64().expect("low"), case["high"].as_f64().expect("high"));
    assert!(
        (own.difference - own.half_width(0.95) - low).abs() < 1e-9
            && (own.difference + own.half_width(0.95) - high).abs() < 1e-9
    );
    // Two-sided p of a hundred and certainty are two ways to say one thing.
    let p = case["p"].as_f64().expect("p");
    assert!((2.0 * (1.0 - own.certainty()) - p).abs() < 1e-9 && (own.freedom - 5.0).abs() < 1e-9);
}

#[test]
fn blocks_have_the_freedom_of_the_textbook() {
    // A randomised block design [Montgomery, *Design and Analysis of Experiments*, ch. 4]: combinations compared within days have
    // (a - 1)(b - 1) degrees of freedom, and their variance is 2 s2/b, whatever days differ by. By hand: days 10 and 20 apart.
    let values = [500.0, 503.0, 510.0, 514.0, 520.0, 522.5, 495.0, 499.5];
    let design =
        Design { combination: vec![0, 1, 0, 1, 0, 1, 0, 1], day: vec![0, 0, 1, 1, 2, 2, 3, 3], at: vec![0.0; 8] };
    let own = fit(&design, &values).expect("a fit").contrast(1, 0).expect("both");
    // Differences 3, 4, 2.5, 4.5: mean 3.5, sd .9129, error .4564 with three degrees of freedom.
    assert!((own.difference - 3.5).abs() < 1e-9 && (own.error - 0.456_435).abs() < 1e-4, "{own:?}");
    assert!((own.freedom - 3.0).abs() < 0.05, "{own:?}");
    // t of 3 at 95 %: 3.182 [JCGM 100, table G.2].
    assert!((own.half_width(0.95) / own.error - 3.182).abs() < 0.02, "{own:?}");
}

#[test]
fn intervals_hold_what_they_say_and_false_alarms_are_as_rare_as_they_should_be() {
    // Four days, two combinations, two pulls each in turn, days 4 and pulls 1.5 apart, a drift of -.3 a pull: over 1,500 tests the
    // interval for 95 of 100 holds the planted difference in 92 to 98 of 100, and nothing is alarmed at twice as often as said.
    let mut lot = rand_pcg::Pcg64::seed_from_u64(7);
    let (level, noise) = (Normal::new(0.0, 4.0).unwrap(), Normal::new(0.0, 1.5).unwrap());
    let (mut held, mut alarms, mut found) = (0, 0, 0);
    let tests = 1_500;
    for _ in 0..tests {
        let (mut combination, mut day, mut at, mut values) = (Vec::new(), Vec::new(), Vec::new(), Vec::new());
        for own in 0..4 {
            let today = level.sample(&mut lot);
            let first = (lot.next_u32() % 2) as usize;
            for pull in 0..4 {
                let which = (first + pull) % 2;
                combination.push(which);
                day.push(own);
                at.push(pull as f64);
                values.push(500.0 + 3.0 * which as f64 + today - 0.3 * pull as f64 + noise.sample(&mut lot));
            }
        }
        let design = Design { combination, day, at };
        let fitted = fit(&design, &values).expect("a fit");
        let own = fitted.contrast(1, 0).expect("both");
        held += usize::from((own.difference - 3.0).abs() < own.half_width(0.95));
        found += usize::from(own.certainty() > 0.95);
        let none: Vec<f64> =
            values.iter().zip(&design.combination).map(|(own, which)| own - 3.0 * *which as f64).collect();
        alarms += usize::from(fit(&design, &none).expect("a fit").contrast(1, 0).expect("both").certainty() > 0.95);
    }
    let share = |count: usize| count as f64 / f64::from(tests);
    assert!((0.92..0.98).contains(&share(held)), "{}", share(held));
    assert!(share(alarms) < 0.08 && share(found) > 0.8, "{} {}", share(alarms), share(found));
}

/// Days of four pulls in turn, with a curve of torque each: levels, drift, and noise that neighbouring speeds share.
fn curves(seed: u64, speeds: usize, more: &dyn Fn(usize) -> f64) -> (Design, Vec<Vec<f64>>) {
    let mut lot = rand_pcg::Pcg64::seed_from_u64(seed);
    let (level, noise) = (Normal::new(0.0, 4.0).unwrap(), Normal::new(0.0, 1.0).unwrap());
    let mut design = Design { combination: Vec::new(), day: Vec::new(), at: Vec::new() };
    let mut all = Vec::new();
    for day in 0..4 {
        let today = level.sample(&mut lot);
        for pull in 0..4 {
            let which = (day + pull) % 2;
            design.combination.push(which);
            design.day.push(day);
            design.at.push(pull as f64);
            let (whole, mut own) = (noise.sample(&mut lot), 0.0);
            let at = |speed: usize| {
                own = 0.9 * own + 0.436 * noise.sample(&mut lot);
                let planted = if which == 1 { more(speed) } else { 0.0 };
                400.0 + today + whole + own + planted - 0.3 * pull as f64
            };
            all.push((0..speeds).map(at).collect());
        }
    }
    (design, all)
}

#[test]
fn a_speed_looked_up_is_the_one_fitted() {
    let (design, all) = curves(3, 6, &|speed| 0.5 * speed as f64);
    let found = over_speed(&design, &all, &[Target::More(1, 0)], 0.95, 1).expect("they are told apart");
    for (speed, own) in found.at[0].iter().enumerate() {
        let values: Vec<f64> = all.iter().map(|curve| curve[speed]).collect();
        let exact = fit(&design, &values).expect("a fit").contrast(1, 0).expect("both");
        assert!((own.difference - exact.difference).abs() < 5e-3, "{own:?} {exact:?}");
        assert!((own.error / exact.error - 1.0).abs() < 0.02 && (own.freedom / exact.freedom - 1.0).abs() < 0.1);
    }
}

#[test]
fn many_speeds_together_alarm_no_oftener_than_one() {
    // Nothing differs: at 95 of 100, looked at one by one some speed of sixty alarms in far more than 5 of 100 tests, all together
    // in about 5. What differs by 4 in one part of the band is found in nearly all, and only there.
    let (mut single, mut together, mut found, mut beside) = (0, 0, 0, 0);
    let tests = 200;
    for seed in 0..tests {
        let (design, all) = curves(seed, 60, &|_| 0.0);
        let none = over_speed(&design, &all, &[Target::More(1, 0)], 0.95, seed).expect("told apart");
        single += usize::from(none.at[0].iter().any(|own| own.difference.abs() > own.half_width(0.95)));
        together += usize::from(none.at[0].iter().any(|own| own.difference.abs() > own.error * none.together));
        let (design, all) = curves(seed, 60, &|speed| if (20..40).contains(&speed) { 4.0 } else { 0.0 });
        let some = over_speed(&design, &all, &[Target::More(1, 0)], 0.95, seed).expect("told apart");
        let is_real = |speed: &usize| some.at[0][*speed].difference.abs() > some.at[0][*speed].error * some.together;
        found += usize::from((20..40).any(|speed| is_real(&speed)));
        beside += usize::from((0..18).chain(42..60).any(|speed| is_real(&speed)));
    }
    let share = |count: usize| count as f64 / tests as f64;
    println!("{} {} {} {}", share(single), share(together), share(found), share(beside));
    assert!(share(single) > 0.15 && share(together) < 0.10, "{} {}", share(single), share(together));
    assert!(share(found) > 0.9 && share(beside) < 0.12, "{} {}", share(found), share(beside));
}

#[test]
fn what_does_not_tell_them_apart_is_no_fit() {
    let design = |combination: &[usize], day: &[usize]| Design {
        combination: combination.to_vec(),
        day: day.to_vec(),
        at: vec![0.0; combination.len()],
    };
    assert_eq!(fit(&design(&[], &[]), &[]), None);
    assert_eq!(fit(&design(&[0, 1], &[0, 0]), &[1.0, 2.0]), None, "no pull is left to tell how they repeat");
    assert_eq!(fit(&design(&[0, 2, 0, 2], &[0, 0, 0, 0]), &[1.0, 2.0, 1.0, 2.0]), None, "a combination nobody pulled");
    assert_eq!(fit(&design(&[0, 1, 0], &[0, 0, 0]), &[1.0, f64::NAN, 1.0]), None);
    // The drift of a day in which each combination came once after the other cannot be told from them.
    let confounded = Design { combination: vec![0, 0, 1, 1], day: vec![0; 4], at: vec![0.0, 0.0, 1.0, 1.0] };
    assert_eq!(fit(&confounded, &[1.0, 1.1, 2.0, 2.1]), None);
}

#[test]
fn a_published_trial_between_laboratories_has_its_printed_precision() {
    // ISO 5725-2:1994, annex B.1: eight laboratories read the sulfur of four coals; readings and results from memory, held against each
    // other by the standard's formulas (reference/round_robin.py). A laboratory is to a reading what a day is to a pull.
    let levels: Value = serde_json::from_str(include_str!("reference/round_robin.json")).expect("JSON");
    for level in levels["levels"].as_array().expect("levels") {
        let (day, values) = (places(&level["laboratory"]), numbers(&level["value"]));
        let design = Design { combination: vec![0; day.len()], at: vec![0.0; day.len()], day };
        let found = fit(&design, &values).expect("a fit");
        let own = [found.means[0], found.variance.sqrt(), (found.variance * (1.0 + found.ratio)).sqrt()];
        let [mean, within, among] = numbers(&level["printed"])[..] else { panic!("three of them") };
        // Restricted likelihood weighs laboratories otherwise than the standard's sums of squares do, which here are unbalanced.
        assert!(
            (own[0] - mean).abs() < 0.004 && (own[1] - within).abs() < 0.0006 && (own[2] / among - 1.0).abs() < 0.05
        );
        for (own, key) in own.into_iter().zip(["mean", "repeatability", "reproducibility"]) {
            assert!((own - level[key].as_f64().expect("a number")).abs() < 1e-4, "{key}: {own} for {}", level[key]);
        }
    }
}

#[test]
fn each_with_its_own_spread_is_welchs_test() {
    // scipy.stats.ttest_ind(equal_var=False), its interval, and scipy.stats.f for the spreads (reference/welch.py).
    let cases: Value = serde_json::from_str(include_str!("reference/welch.json")).expect("JSON");
    for case in cases.as_array().expect("cases") {
        let (one, other) = (numbers(&case["one"]), numbers(&case["other"]));
        let own = welch(&one, &other).expect("two of each");
        let number = |key: &str| case[key].as_f64().expect("a number");
        let half = own.half_width(0.95);
        let near = |a: f64, b: f64| (a - b).abs() < 1e-6 * b.abs().max(1.0);
        assert!(near(own.difference - half, number("low")) && near(own.difference + half, number("high")));
        assert!(near(own.freedom, number("freedom")));
        let p = 2.0 * own.certainty().min(1.0 - own.certainty());
        assert!(near(p, number("p")), "{p} for {}", number("p"));
        let otherwise = scatters_otherwise(&one, &other);
        assert_eq!(otherwise.is_some(), number("spreads_p") < 0.05);
        assert!(otherwise.is_none_or(|times| near(times, number("spreads"))));
    }
    assert!(welch(&[1.0], &[1.0, 2.0]).is_none() && welch(&[1.0, 1.0], &[2.0, 2.0]).is_none());
}
