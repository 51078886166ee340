//! Limits of gas, idle and trains in motion under tolerances: signs written down before they were run, long runs beside quick
//! ones, and what all cylinders have together.

use crate::support::DEMOS;
use std::f64::consts::PI;
use upper_lobe_core::analysis::{Build, Stages};
use upper_lobe_core::candidate::Resolved;
use upper_lobe_core::choose::{Responded, Responses, Strays, Toleranced, idle_vacuum, in_motion, respond, toleranced};
use upper_lobe_core::document::{Ledger, Side};
use upper_lobe_core::given::{Given, Of, Source};
use upper_lobe_core::limits::{Findings, GasFinding};
use upper_lobe_core::quantity::{Pressure, Speed};
use upper_lobe_core::tolerance::{Cast, Effect, Model, Response, Spread, Variable, simulate};
use upper_lobe_core::words::SpreadShape;

/// A demo build's first candidate with only these fields off, its findings whatever they may be where only differences count.
struct Own {
    resolved: Resolved,
    fields: Vec<Toleranced>,
    findings: Findings,
}

impl Own {
    fn of(demo: usize, keys: &[(Of, &str)], with_trains: bool) -> Self {
        let (build, stages, ledger) = (Build::read(DEMOS[demo]).expect("a demo"), Stages::default(), Ledger::default());
        let views = build.candidates();
        let source = Source::new(&views[0], &ledger);
        let resolved = Resolved::new(Given::read(&source), &stages);
        let is_wanted = |field: &Toleranced| keys.contains(&(field.place.of, field.place.key));
        let fields = toleranced(&resolved, &source).into_iter().filter(is_wanted).collect();
        let gas = GasFinding {
            octane_needed: Some(100.0),
            peak_pressure: 8e6,
            opening_pressure: 6e5,
            idle_vacuum: Some(55e3),
            boost: None,
        };
        let findings = if with_trains {
            Findings { control: in_motion(&resolved, &stages, &|| false), ..Findings::default() }
        } else {
            Findings { gas: Some(gas), ..Findings::default() }
        };
        Self { resolved, fields, findings }
    }

    fn responses(&self) -> Responses {
        let strays = Strays::of(&self.resolved, &self.fields, &self.findings, (&Stages::default(), &|| false))
            .expect("not stopped");
        let (stages, stop) = (Stages::default(), || false);
        respond(&self.resolved, &self.fields, (&self.findings, &strays), (&stages, &stop)).expect("not stopped")
    }

    fn slope(&self, own: &Responded, key: &str) -> f64 {
        let place = self.fields.iter().position(|field| field.place.key == key).expect("the field");
        own.have.effects.iter().find(|effect| effect.variable == place).map_or(0.0, |effect| effect.slope)
    }
}

fn limit<'a>(responses: &'a Responses, id: &str, side: Option<Side>) -> &'a Responded {
    responses.limits.iter().find(|own| own.rule.id == id && own.side == side).expect("the limit moves")
}

#[test]
fn gas_and_idle_move_as_the_trade_says_and_as_long_runs_do() {
    let own = Own::of(0, &[(Of::Cam, "lobe_separation"), (Of::Engine, "piston_volume")], false);
    let responses = own.responses();
    let (vacuum, octane) = (limit(&responses, "idle_vacuum", None), limit(&responses, "octane", None));
    // Written down first: a wider separation leaves more vacuum; a larger dish asks for less octane and leaves vacuum alone.
    let wider = own.slope(vacuum, "lobe_separation");
    assert!(wider > 0.0 && own.slope(octane, "piston_volume") < 0.0);
    let sd = |key: &str| own.fields.iter().find(|own| own.place.key == key).unwrap().variable.spread.sd();
    let share = (own.slope(vacuum, "piston_volume") * sd("piston_volume") / (wider * sd("lobe_separation"))).abs();
    assert!(share < 0.1, "{share}");
    // Half a degree either way as a result idles it: the whole mesh, not the quick one.
    let idles = |degrees: f64| {
        let mut given = own.resolved.given.clone();
        given.shift(
            own.fields.iter().find(|own| own.place.key == "lobe_separation").unwrap().place,
            degrees * PI / 180.0,
        );
        let stages = Stages::default();
        idle_vacuum(&Resolved::new(given, &stages), false, &stages, &|| false).expect("idles")
    };
    let in_full = (idles(0.5) - idles(-0.5)) / (PI / 180.0);
    // The idle is solved to 2 kPa of work, some .05 inHg.
    assert!((wider / in_full - 1.0).abs() < 0.2, "{wider} quick, {in_full} in full");
    // What the metal alone decides is held.
    assert!(responses.held.iter().all(|(rule, _)| !["idle_vacuum", "octane"].contains(&rule.id)));
}

#[test]
fn trains_in_motion_move_as_the_trade_says() {
    let own = Own::of(1, &[(Of::Spring, "points"), (Of::Engine, "deck_clearance")], true);
    let responses = own.responses();
    // Written down first: more spring holds control to a higher speed; a lower piston leaves more over it in motion, by itself
    // along the stem.
    assert!(own.slope(limit(&responses, "limiting_speed", Some(Side::Intake)), "points") > 0.0);
    let gap = own.slope(limit(&responses, "piston_in_motion", Some(Side::Intake)), "deck_clearance");
    assert!((0.95..1.15).contains(&gap), "{gap}");
}

#[test]
fn what_a_limit_is_to_be_runs_no_engine_again() {
    let mut own = Own::of(0, &[(Of::Engine, "gasket_thickness")], false);
    let kept = Stages::default();
    let ran = |own: &Own| {
        Strays::of(&own.resolved, &own.fields, &own.findings, (&kept, &|| false)).expect("not stopped");
        kept.strays.all().len()
    };
    assert_eq!(ran(&own), 1);
    let mut changed = |change: fn(&mut Given)| {
        let mut given = own.resolved.given.clone();
        change(&mut given);
        own.resolved = Resolved::new(given, &kept);
        ran(&own)
    };
    assert_eq!(changed(|given| (given.own_limits, given.prices, given.target.budget) = Default::default()), 1);
    assert_eq!(changed(|given| given.target.idle_vacuum = Some(Pressure::from_si(40e3))), 1);
    // Whether there is one to hold says whether idle is run, and where the band ends which speeds are.
    assert_eq!(changed(|given| given.target.idle_vacuum = None), 2);
    assert_eq!(changed(|given| given.target.band_to = Some(Speed::rpm(4800.0))), 3);
}

#[test]
fn what_all_cylinders_have_together_spreads_with_their_mean() {
    let alone =
        Variable { spread: Spread { half: 1.959_964, shape: SpreadShape::Normal }, engine: 0.0, bank: 0.0, known: 1.0 };
    let effect = Effect { variable: 0, slope: 1.0, curve: 0.0 };
    let response = Response { middle: 0.5, effects: vec![effect] };
    let model = Model {
        variables: vec![alone],
        margins: vec![response.clone(), response.clone()],
        haves: vec![response.clone(), response],
        counts: vec![true, true],
        of_engine: vec![false, true],
    };
    let cast = Cast { cylinders: 4, banks: 1, engines: 20_000, seed: 3 };
    let found = simulate(&model, &cast);
    // Mean of four: half the standard deviation. One in half of one: 15.87 of a hundred engines; of single cylinders 30.85, and
    // of engines with any of four 1 - .6915^4 [tables of the normal distribution].
    assert!((found.limits[1].sd - 0.5).abs() < 0.01 && (found.limits[0].sd - 1.0).abs() < 0.02);
    assert!((found.limits[1].fails_any - 0.158_7).abs() < 0.009, "{}", found.limits[1].fails_any);
    assert_eq!(found.limits[1].fails_any, found.limits[1].fails_one);
    assert!((found.limits[0].fails_any - (1.0 - 0.691_5_f64.powi(4))).abs() < 0.011, "{}", found.limits[0].fails_any);
}

#[test]
fn a_response_that_tells_nothing_gives_way_to_what_runs_spread() {
    let variable =
        Variable { spread: Spread { half: 1.959_964, shape: SpreadShape::Normal }, engine: 1.0, bank: 0.0, known: 1.0 };
    let effect = |slope: f64| Effect { variable: 0, slope, curve: 0.0 };
    // At most ten: what there is falls as margin rises.
    let mut model = Model {
        variables: vec![variable],
        margins: vec![Response { middle: 3.0, effects: vec![effect(-5.0)] }],
        haves: vec![Response { middle: 7.0, effects: vec![effect(5.0)] }],
        counts: vec![true],
        of_engine: vec![false],
    };
    model.replace(0, 2.0, 1.0);
    let found = simulate(&model, &Cast { cylinders: 1, banks: 1, engines: 20_000, seed: 3 });
    let own = &found.limits[0];
    assert!((own.mean - 8.0).abs() < 0.03 && (own.sd - 1.0).abs() < 0.02, "{} {}", own.mean, own.sd);
    assert!((own.fails_any - 0.022_75).abs() < 0.004, "{}", own.fails_any);
}
