//! Lobes from their cards: every check met, the shape promised, the reason when there is none.

use upper_lobe_core::cam::{Check, Flank, FlatFoot, Lobe, LobeCard, LobeRefusal, lobe_of_card, lobe_of_points};
use upper_lobe_core::quantity::Length;
use upper_lobe_core::words::LifterKind;

const HEIGHTS: [f64; 3] = [0.006, 0.050, 0.200];

fn inch(value: f64) -> Length {
    Length::inches(value)
}

fn card(lift: f64, durations: [f64; 3], kind: LifterKind) -> LobeCard {
    let rows: Vec<_> = HEIGHTS.map(inch).into_iter().zip(durations).collect();
    let foot = FlatFoot { face: inch(0.842), margin: inch(0.020), base_circle: inch(1.45) };
    LobeCard::symmetric(inch(lift), &rows, kind, kind.is_flat().then_some(foot))
}

/// A hydraulic roller whose closing flank is 6 crank degrees longer at .006.
fn asymmetric() -> LobeCard {
    let mut card = card(0.360, [282.0, 230.0, 149.0], LifterKind::HydraulicRoller);
    let closing = [(0.006, 147.0), (0.050, 117.0), (0.200, 75.5)];
    card.closing = closing.map(|(height, crank_deg)| Check { height: inch(height), crank_deg }).to_vec();
    card
}

fn cards() -> Vec<(&'static str, LobeCard)> {
    use LifterKind::{HydraulicFlat, HydraulicRoller, SolidRoller};
    vec![
        ("hydraulic flat 262", card(0.285, [262.0, 212.0, 120.0], HydraulicFlat)),
        ("hydraulic flat 270", card(0.317, [270.0, 224.0, 134.0], HydraulicFlat)),
        ("hydraulic roller 282", card(0.360, [282.0, 230.0, 149.0], HydraulicRoller)),
        ("hydraulic roller 288", card(0.380, [288.0, 239.0, 160.0], HydraulicRoller)),
        ("solid roller 316", card(0.430, [316.0, 255.0, 176.0], SolidRoller)),
        ("asymmetric", asymmetric()),
    ]
}

fn solved(name: &str, card: &LobeCard) -> Lobe {
    lobe_of_card(card).unwrap_or_else(|refusal| panic!("{name}: {refusal}"))
}

/// Largest miss of a card: lift at the check's angle in inches, angle at the check's height in crank
/// degrees.
fn residuals(card: &LobeCard, lobe: &Lobe) -> (f64, f64) {
    let (mut height, mut angle) = ((lobe.lift().si() - card.lift.si()).abs(), 0.0_f64);
    for (flank, checks, sign) in [(Flank::Opening, &card.opening, -1.0), (Flank::Closing, &card.closing, 1.0)] {
        for check in checks {
            let lift = lobe.at(sign * 0.5 * check.crank_deg).lift;
            height = height.max((lift - check.height.si()).abs());
            let at = 2.0 * lobe.flank_angle(check.height, flank).expect("the check lies on the flank");
            angle = angle.max((at - check.crank_deg).abs());
        }
    }
    (height / 0.0254, angle)
}

#[test]
fn every_check_is_met_to_half_a_thousandth_and_a_tenth_of_a_degree() {
    for (name, card) in cards() {
        let (height, angle) = residuals(&card, &solved(name, &card));
        println!("{name}: {height:.2e} in, {angle:.2e} deg");
        assert!(height < 0.0005 && angle < 0.1, "{name}: {height} in, {angle} deg");
        // The checks are equalities of the programme: what is left is the solver's tolerance.
        assert!(height < 1e-6 && angle < 1e-4, "{name}: {height} in, {angle} deg");
    }
}

#[test]
fn acceleration_changes_sign_once_on_a_flank_and_falls_away_from_the_nose() {
    for (name, card) in cards() {
        let lobe = solved(name, &card);
        let (start, end) = lobe.extent();
        for reach in [start, end] {
            let flank: Vec<f64> = (0..=2000).map(|i| lobe.at(reach * f64::from(i) / 2000.0).acceleration).collect();
            let scale = flank.iter().fold(0.0_f64, |most, a| most.max(a.abs()));
            let signs: Vec<bool> = flank.iter().filter(|a| a.abs() > 1e-5 * scale).map(|a| *a > 0.0).collect();
            assert_eq!(signs.windows(2).filter(|w| w[0] != w[1]).count(), 1, "{name}");
            let nose = flank.iter().take_while(|a| **a < 0.0);
            let rises = nose.clone().zip(nose.skip(1)).all(|(near, far)| *far >= near - 1e-5 * scale);
            assert!(rises, "{name}: deceleration grows away from full lift");
        }
    }
}

#[test]
fn motion_is_continuous_to_jerk_and_at_rest_at_both_ends() {
    for (name, card) in cards() {
        let lobe = solved(name, &card);
        let (start, end) = lobe.extent();
        for at in [start, end] {
            let rest = lobe.at(at);
            assert!(rest.lift.abs() < 1e-9 && rest.velocity.abs() < 1e-9 && rest.acceleration.abs() < 1e-10, "{name}");
        }
        let (left, right) = (lobe.at(-1e-9), lobe.at(1e-9));
        assert!((left.acceleration - right.acceleration).abs() < 1e-9 * 0.0254, "{name}");
        assert!((left.jerk - right.jerk).abs() < 1e-6 * 0.0254, "{name}: {left:?} {right:?}");
    }
}

#[test]
fn velocity_is_the_derivative_of_lift_and_acceleration_of_velocity() {
    let lobe = solved("asymmetric", &asymmetric());
    let step = 1e-4;
    for i in -140..=140 {
        let at = f64::from(i) * 0.5 + 0.1;
        let (before, now, after) = (lobe.at(at - step), lobe.at(at), lobe.at(at + step));
        assert!(((after.lift - before.lift) / (2.0 * step) - now.velocity).abs() < 1e-11);
        assert!(((after.velocity - before.velocity) / (2.0 * step) - now.acceleration).abs() < 1e-11);
    }
}

/// Yardsticks of an independent solution of the same cards (in/deg, in/deg2 at the lobe): a card
/// leaves velocity and nose open by 6 to 7 % and the flank's acceleration by 20 %.
#[test]
fn peaks_lie_where_another_solution_of_the_same_cards_puts_them() {
    let cases = [
        ("hydraulic flat 270", 0.00701, 0.000374, -0.000223),
        ("hydraulic roller 282", 0.00815, 0.000326, -0.000237),
        ("solid roller 316", 0.00887, 0.000329, -0.000260),
    ];
    let cards = cards();
    for (name, velocity, acceleration, nose) in cases {
        let card = &cards.iter().find(|(n, _)| *n == name).expect("a card of the list").1;
        let lobe = solved(name, card);
        let most = |of: fn(&upper_lobe_core::cam::Motion) -> f64| {
            lobe.sampled(0.1).map(|(_, m)| of(&m) / 0.0254).fold(f64::NEG_INFINITY, f64::max)
        };
        let close = |have: f64, other: f64, share: f64| (have / other - 1.0).abs() < share;
        assert!(close(most(|m| m.velocity), velocity, 0.01), "{name}: velocity");
        assert!(close(most(|m| m.acceleration), acceleration, 0.02), "{name}: acceleration");
        assert!(close(-most(|m| -m.acceleration), nose, 0.02), "{name}: nose");
    }
}

#[test]
fn a_flat_lifter_is_refused_a_card_faster_than_its_face() {
    let refusal = lobe_of_card(&card(0.300, [260.0, 224.0, 150.0], LifterKind::HydraulicFlat)).unwrap_err();
    assert_eq!(
        refusal.to_string(),
        "between 0.050 and 0.200 in the card asks for 0.00811 in per cam degree on average; a flat face of 0.842 in \
         less its 0.020 in edge carries the contact only up to 0.00700: take a larger face, a roller, or more duration \
         at 0.050 for the same duration at 0.200"
    );
}

#[test]
fn a_blunt_nose_is_refused_on_any_lifter_with_what_would_cure_it() {
    let refusal = lobe_of_card(&card(0.300, [260.0, 224.0, 150.0], LifterKind::HydraulicRoller)).unwrap_err();
    assert!(matches!(refusal, LobeRefusal::NoseTooBlunt { .. }), "{refusal}");
    // More lift for the same durations is the cure the message names.
    assert!(lobe_of_card(&card(0.345, [260.0, 224.0, 150.0], LifterKind::HydraulicRoller)).is_ok());
}

#[test]
fn a_flat_lobe_stays_within_its_face_even_where_the_card_would_like_more() {
    let lobe = solved("hydraulic flat 270", &card(0.317, [270.0, 224.0, 134.0], LifterKind::HydraulicFlat));
    let cap = (0.842 / 2.0 - 0.020) * std::f64::consts::PI / 180.0 * 0.0254;
    let fastest = lobe.sampled(0.05).map(|(_, m)| m.velocity.abs()).fold(0.0, f64::max);
    // Held on half spans; between them the spline may pass the cap by less than a part in a thousand.
    assert!(fastest < cap * 1.001 && fastest > cap * 0.99, "{fastest} against {cap}");
}

#[test]
fn a_card_whose_slope_dips_is_refused_as_not_smooth() {
    let refusal = lobe_of_card(&LobeCard::symmetric(
        inch(0.360),
        &[(inch(0.006), 282.0), (inch(0.050), 262.0), (inch(0.100), 200.0), (inch(0.200), 170.0)],
        LifterKind::HydraulicRoller,
        None,
    ))
    .unwrap_err();
    assert!(matches!(refusal, LobeRefusal::NotSmooth { height, .. } if (height - 0.050).abs() < 1e-9), "{refusal}");
}

#[test]
fn measured_points_of_a_known_lobe_give_that_lobe_back() {
    let known = solved("hydraulic roller 282", &card(0.360, [282.0, 230.0, 149.0], LifterKind::HydraulicRoller));
    // A reading to a ten-thousandth every two cam degrees, with another zero.
    let points: Vec<_> = (-45..=45)
        .map(|i| {
            let at = f64::from(i) * 2.0;
            (at + 107.0, inch((known.at(at).lift / 0.0254 * 1e4).round() / 1e4))
        })
        .collect();
    let fitted = lobe_of_points(&points).expect("a lobe");
    assert!((fitted.lift().as_inches() - 0.360).abs() < 0.0005);
    for (height, duration) in HEIGHTS.into_iter().zip([282.0, 230.0, 149.0]) {
        let fit = fitted.duration_crank_deg(inch(height)).expect("below full lift");
        // On the .006 ramp a ten-thousandth of reading is a third of a degree.
        let tolerance = if height < 0.01 { 0.7 } else { 0.2 };
        assert!((fit - duration).abs() < tolerance, "{height}: {fit}");
    }
    assert!(fitted.residual().expect("measured").as_inches() < 0.0006);
}

#[test]
fn points_that_are_no_lobe_are_refused_with_the_reason() {
    let flat: Vec<_> = (0..100).map(|i| (f64::from(i) * 2.0, inch(0.2))).collect();
    assert!(lobe_of_points(&flat).unwrap_err().to_string().contains("base circle"));
    let narrow: Vec<_> = (0..20).map(|i| (f64::from(i), inch(0.0))).collect();
    assert!(lobe_of_points(&narrow).unwrap_err().to_string().contains("19 cam degrees"));
    let double = (0..=90).map(|i| {
        let x = f64::from(i) / 90.0 * std::f64::consts::TAU;
        (f64::from(i) * 2.0, inch(0.15 * (1.0 - x.cos()) * (1.2 + (3.0 * x).sin())))
    });
    let refusal = lobe_of_points(&double.collect::<Vec<_>>()).unwrap_err();
    assert!(refusal.to_string().contains("more than once"), "{refusal}");
}

/// A lobe in closed form, `(1 - u^2)^4` of .330 in over 70 cam degrees a flank: lift, m, and acceleration per cam degree
/// squared.
fn polynomial(deg: f64) -> (f64, f64) {
    let (lift, flank) = (0.330 * 0.0254, 70.0);
    let u = deg / flank;
    let x = (1.0 - u * u).max(0.0);
    (lift * x.powi(4), lift * (48.0 * u * u * x.powi(2) - 8.0 * x.powi(3)) / (flank * flank))
}

/// A measured lobe against the closed form it was read from: worst lift, m, worst acceleration as a share of the nose's,
/// residual, m.
struct Read {
    lift: f64,
    acceleration: f64,
    residual: f64,
}

/// The worst of some seeds of noise, uniform between its bounds (m), on readings so many cam degrees apart.
fn read_with(noise: f64, step: f64) -> Read {
    let mut worst = Read { lift: 0.0, acceleration: 0.0, residual: 0.0 };
    for seed in 1..=8_u64 {
        let mut state = seed.wrapping_mul(0x9E37_79B9_7F4A_7C15);
        let mut next = || {
            state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (state >> 33) as f64 / f64::from(1_u32 << 31) * 2.0 - 1.0
        };
        let count = (90.0 / step) as i32;
        let at = |i: i32| f64::from(i) * step;
        let points: Vec<(f64, Length)> =
            (-count..=count).map(|i| (at(i), Length::from_si(polynomial(at(i)).0 + noise * next()))).collect();
        let lobe = lobe_of_points(&points).expect("a lobe");
        let zero = 90.0 + lobe.extent().0;
        let off = |of: &dyn Fn(f64) -> f64| (-65..=65).map(|d| of(f64::from(d)).abs()).fold(0.0, f64::max);
        let nose = polynomial(0.0).1.abs();
        worst.lift = worst.lift.max(off(&|d| lobe.at(d + zero).lift - polynomial(d).0));
        let acceleration = off(&|d| lobe.at(d + zero).acceleration - polynomial(d).1) / nose;
        worst.acceleration = worst.acceleration.max(acceleration);
        worst.residual = worst.residual.max(lobe.residual().unwrap().si());
    }
    println!(
        "noise {:.1} um every {step} deg: lift {:.1} um, acceleration {:.1} %, residual {:.1} um",
        noise * 1e6,
        worst.lift * 1e6,
        100.0 * worst.acceleration,
        worst.residual * 1e6
    );
    worst
}

#[test]
fn a_clean_lobe_comes_back_as_it_is() {
    for step in [1.0, 2.0] {
        let clean = read_with(0.0, step);
        assert!(clean.lift < 0.3e-6 && clean.acceleration < 0.005 && clean.residual < 0.3e-6, "{step}");
    }
}

#[test]
fn a_noisy_lobe_is_smoothed_until_what_is_left_is_noise() {
    // A dial that reads to half a thousandth (6 um either way), one to a thousandth, one that is worse than that.
    for (noise, step, lift, acceleration) in [
        (6e-6, 1.0, 8e-6, 0.03),
        (6e-6, 2.0, 8e-6, 0.035),
        (13e-6, 1.0, 14e-6, 0.05),
        (13e-6, 2.0, 16e-6, 0.05),
        (25e-6, 2.0, 30e-6, 0.08),
    ] {
        let found = read_with(noise, step);
        assert!(found.lift < lift && found.acceleration < acceleration, "{noise} every {step}");
        // What was taken off is the noise: no more than its bounds and the lift's own error.
        assert!((0.6 * noise..1.8 * noise).contains(&found.residual), "{noise} every {step}: {}", found.residual);
    }
}
