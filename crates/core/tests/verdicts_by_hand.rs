//! Verdicts of the demo builds against arithmetic on the documents' own texts, written here anew: units, slider crank,
//! springs, columns and sums as handbooks have them. Nothing of the core computes on this side.

use crate::support::DEMOS;
use crate::support::by_hand::{INCH, near, number};
use serde_json::Value;
use std::f64::consts::PI;
use upper_lobe_core::analysis::{LimitReport, PartName, Request, Stages, Verdict, analyze};
use upper_lobe_core::build::Build;
use upper_lobe_core::document::Side;

struct Bench {
    document: Value,
    limits: Vec<LimitReport>,
}

impl Bench {
    /// The first candidate of a demo build.
    fn of(text: &str) -> Self {
        let build = Build::read(text).expect("in order");
        let request = Request::of(Some("a".to_owned()), vec![PartName::Limits]);
        let mut analysis = analyze(&build, &request, &Stages::default()).expect("a candidate");
        Self { document: build.value().clone(), limits: analysis.candidates.remove(0).limits }
    }

    fn text(&self, pointer: &str) -> Option<&str> {
        self.document.pointer(pointer)?.as_str()
    }

    /// A field of the engine.
    fn engine(&self, field: &str) -> f64 {
        number(self.text(&format!("/engine/{field}")).unwrap_or_else(|| panic!("{field}")))
    }

    /// A field of the first candidate's train, a side's own before both.
    fn train(&self, part: &str, field: &str, side: &str) -> f64 {
        let own = self.text(&format!("/candidates/0/train/{part}/{side}/{field}"));
        let shared = self.text(&format!("/candidates/0/train/{part}/{field}"));
        number(own.or(shared).unwrap_or_else(|| panic!("{part} {field}")))
    }

    fn cam(&self, field: &str) -> f64 {
        number(self.text(&format!("/candidates/0/cam/{field}")).unwrap_or_else(|| panic!("{field}")))
    }

    fn ratio(&self, side: &str) -> f64 {
        let rocker = &self.document["candidates"][0]["train"]["rocker"];
        rocker[side]["ratio"].as_f64().or_else(|| rocker["ratio"].as_f64()).unwrap()
    }

    fn line(&self, id: &str, side: Option<Side>) -> Option<&LimitReport> {
        self.limits.iter().find(|line| line.id == id && line.side == side)
    }

    fn have(&self, id: &str, side: Side) -> f64 {
        self.line(id, Some(side)).and_then(|line| line.have).unwrap_or_else(|| panic!("{id}"))
    }

    /// Heights and loads of the spring, tall first.
    fn spring(&self) -> Vec<(f64, f64)> {
        let points = self.document["candidates"][0]["train"]["spring"]["points"].as_array().unwrap();
        let mut points: Vec<(f64, f64)> =
            points.iter().map(|row| (number(row[0].as_str().unwrap()), number(row[1].as_str().unwrap()))).collect();
        points.sort_by(|one, other| other.0.total_cmp(&one.0));
        points
    }

    /// Load at a height by straight lines between the tester's points.
    fn load(&self, height: f64) -> f64 {
        let points = self.spring();
        let pair = points.windows(2).find(|pair| height >= pair[1].0).unwrap_or(&points[points.len() - 2..]);
        pair[0].1 + (pair[0].0 - height) / (pair[0].0 - pair[1].0) * (pair[1].1 - pair[0].1)
    }

    fn valves(&self, side: &str) -> f64 {
        self.document["engine"][side]["valves"].as_f64().unwrap_or(1.0)
    }
}

fn each(mut check: impl FnMut(&Bench, Side, &str)) {
    for text in DEMOS {
        let bench = Bench::of(text);
        for side in Side::BOTH {
            check(&bench, side, side.key());
        }
    }
}

#[test]
fn heights_are_sums_of_what_was_measured() {
    each(|bench, side, key| {
        let (height, net) = (bench.train("spring", "installed_height", key), bench.have("rocker_lift", side));
        let bind = height - bench.train("spring", "coil_bind_height", key) - net;
        near(bench.have("coil_bind", side), bind, 1e-6, "coil bind");
        let seal = height - bench.train("retainer", "depth", key) - bench.engine(&format!("{key}/seal_height")) - net;
        near(bench.have("retainer_to_seal", side), seal, 1e-6, "retainer to seal");
        let deck = bench.engine("deck_clearance") + bench.engine("gasket_thickness");
        near(bench.line("piston_to_head", None).unwrap().have.unwrap(), deck, 1e-6, "piston to head");
    });
}

#[test]
fn diameters_are_differences_of_what_was_measured() {
    for text in &DEMOS[..2] {
        let bench = Bench::of(text);
        let one = |id: &str| {
            let line = bench.limits.iter().find(|line| line.id == id).unwrap_or_else(|| panic!("{id}"));
            line.have.unwrap()
        };
        near(
            one("lifter_clearance"),
            bench.engine("lifter_bore") - bench.train("lifter", "body_diameter", "intake"),
            1e-6,
            "lifter",
        );
        near(
            one("spring_pocket"),
            bench.engine("intake/spring_pocket") - bench.train("spring", "outside_diameter", "intake"),
            1e-6,
            "pocket",
        );
        let room =
            0.5 * (bench.cam("bearing_diameter") - bench.cam("base_circle_diameter")) - bench.cam("intake/lobe_lift");
        near(bench.have("lobe_through_bearing", Side::Intake), room, 1e-6, "lobe through bearing");
    }
}

#[test]
fn loads_are_read_off_the_testers_points() {
    each(|bench, side, key| {
        let (height, net) = (bench.train("spring", "installed_height", key), bench.have("rocker_lift", side));
        let (seat, open) = (bench.load(height), bench.load(height - net));
        for (id, load) in [("seat_load", seat), ("open_load", open)] {
            // A governed diesel has no band of loads.
            if let Some(line) = bench.line(id, Some(side)) {
                near(line.have.unwrap(), load, 2e-3, id);
            }
        }
        if let Some(line) = bench.line("lifter_load", Some(side)).filter(|_| side == Side::Intake) {
            near(line.have.unwrap(), open * bench.ratio(key) * bench.valves(key), 2e-3, "lifter load");
        }
    });
}

#[test]
fn boost_and_drive_pressure_take_their_share_of_the_seat() {
    let bench = Bench::of(DEMOS[2]);
    let rows = bench.document["target"]["boost"].as_array().unwrap();
    for (side, key) in [(Side::Intake, "manifold"), (Side::Exhaust, "drive")] {
        let pressure = rows.iter().map(|row| number(row[key].as_str().unwrap())).fold(0.0, f64::max);
        let (head, stem) = (
            bench.engine(&format!("{}/valve_diameter", side.key())),
            bench.engine(&format!("{}/stem_diameter", side.key())),
        );
        let push = 1e-3 * pressure * 0.25 * PI * (head * head - stem * stem);
        let seat = bench.load(bench.train("spring", "installed_height", side.key()));
        near(bench.have("seat_reserve", side), seat - push, 2e-3, key);
    }
}

/// Euler's column, both ends in balls [Shigley, Mechanical Engineering Design, ch. 4; from memory]: pi^2 E I/L^2.
#[test]
fn pushrods_buckle_where_euler_says() {
    const STEEL: f64 = 207e3;
    each(|bench, side, key| {
        if side == Side::Exhaust {
            // There the gas counts too.
            return;
        }
        let (length, outside, wall) = (
            bench.train("pushrod", "length", key),
            bench.train("pushrod", "outside_diameter", key),
            bench.train("pushrod", "wall", key),
        );
        let inside = outside - 2.0 * wall;
        let second_moment = PI / 64.0 * (outside.powi(4) - inside.powi(4));
        let most = PI * PI * STEEL * second_moment / (length * length);
        let height = bench.train("spring", "installed_height", key);
        let open = bench.load(height - bench.have("rocker_lift", side));
        let load = open * bench.ratio(key) * bench.valves(key);
        near(bench.have("pushrod_buckling", side), most / load, 5e-3, "buckling");
    });
}

/// First wave of a spring between two plates [Shigley, ch. 10; from memory]: f = sqrt(k/m)/2.
#[test]
fn surge_stands_at_half_the_root_of_rate_over_mass() {
    each(|bench, side, key| {
        let (height, net) = (bench.train("spring", "installed_height", key), bench.have("rocker_lift", side));
        let rate = (bench.load(height - net) - bench.load(height)) / net * 1e3;
        let first = 0.5 * (rate / (1e-3 * bench.train("spring", "mass", key))).sqrt();
        let target = |key: &str| number(bench.text(&format!("/target/{key}")).unwrap());
        let cam_turns = (target("shift_at") + target("overspeed_by")) / 120.0;
        near(bench.have("surge_order", side), first / cam_turns, 5e-3, "surge");
    });
}

#[test]
fn overlap_follows_from_durations_and_separation() {
    let bench = Bench::of(DEMOS[0]);
    let duration = |side: &str| number(bench.text(&format!("/candidates/0/cam/{side}/checks/1/1")).unwrap());
    let overlap = 0.5 * (duration("intake") + duration("exhaust")) - 2.0 * bench.cam("lobe_separation");
    near(bench.line("idle_overlap", None).unwrap().have.unwrap(), overlap, 1e-6, "overlap at .050");
}

/// Volume above the piston by the slider crank with its pin offset [Heywood, Internal Combustion Engine Fundamentals,
/// ch. 2, and the offset by Pythagoras], from the seat timing of the card: centre of the lobe and half its duration.
#[test]
fn dynamic_compression_follows_from_the_slider_crank() {
    let bench = Bench::of(DEMOS[0]);
    let (bore, stroke, rod, offset) =
        (bench.engine("bore"), bench.engine("stroke"), bench.engine("rod_length"), bench.engine("pin_offset"));
    let crank = 0.5 * stroke;
    let height = |deg: f64| {
        let theta = deg.to_radians();
        crank * theta.cos() + (rod * rod - (crank * theta.sin() + offset).powi(2)).sqrt()
    };
    // The pin stands towards the major thrust side, which is opposite to the crank pin on the way down; events count from
    // where the piston really stands highest.
    let highest =
        (-18_000..18_000).map(|i| 0.01 * f64::from(i)).max_by(|one, other| height(*one).total_cmp(&height(*other)));
    let dead_centre = highest.unwrap();
    let area = 0.25 * PI * bore * bore;
    let clearance = 1e3 * (bench.engine("chamber_volume") + bench.engine("piston_volume"))
        + 0.25 * PI * bench.engine("gasket_bore").powi(2) * bench.engine("gasket_thickness")
        + area * bench.engine("deck_clearance");
    let seat = number(bench.text("/candidates/0/cam/intake/checks/0/1").unwrap());
    let closes = bench.cam("intake_centreline") + 0.5 * seat;
    let trapped = (clearance + area * (height(dead_centre) - height(dead_centre + closes))) / clearance;
    near(bench.line("trapped_compression", None).unwrap().have.unwrap(), trapped, 1e-3, "dynamic compression");
}

#[test]
fn parts_cost_what_their_prices_add_up_to() {
    for (text, most) in DEMOS.iter().zip([3600.0, 9500.0]) {
        let bench = Bench::of(text);
        let candidate = &bench.document["candidates"][0];
        let prices = |value: &Value| value.get("price").and_then(Value::as_str).map_or(0.0, number);
        let parts = candidate["train"].as_object().unwrap().values().map(prices).sum::<f64>();
        let line = bench.line("cost", None).unwrap();
        near(line.have.unwrap(), parts + prices(&candidate["cam"]), 1e-9, "cost");
        assert_eq!(line.need.max, Some(most));
    }
}

#[test]
fn speeds_are_those_of_the_plan() {
    let bench = Bench::of(DEMOS[0]);
    let (shift, over) =
        (number(bench.text("/target/shift_at").unwrap()), number(bench.text("/target/overspeed_by").unwrap()));
    near(bench.have("lifter_speed", Side::Intake), shift + over, 1e-9, "lifter speed");
    near(
        bench.line("hand_check", Some(Side::Intake)).unwrap().need.min.unwrap(),
        shift + over,
        1e-9,
        "float speed needed",
    );
}

/// Needs as practice has them (common practice, no source), in thousandths.
#[test]
fn needs_are_those_of_practice() {
    let needs: [(usize, &str, Option<Side>, f64); 13] = [
        (0, "piston_clearance", Some(Side::Intake), 80.0),
        (0, "piston_clearance", Some(Side::Exhaust), 100.0),
        (1, "piston_clearance", Some(Side::Intake), 35.0),
        (1, "piston_clearance", Some(Side::Exhaust), 60.0),
        (2, "piston_clearance", Some(Side::Intake), 50.0),
        (0, "valve_to_valve", None, 60.0),
        (0, "piston_to_head", None, 35.0),
        (0, "coil_bind", Some(Side::Intake), 60.0),
        (0, "retainer_to_seal", Some(Side::Intake), 60.0),
        (1, "retainer_to_seal", Some(Side::Intake), 50.0),
        (1, "radial", Some(Side::Intake), 50.0),
        (0, "bore_wall", Some(Side::Intake), 40.0),
        (2, "coil_bind", Some(Side::Exhaust), 60.0),
    ];
    for (demo, id, side, thousandths) in needs {
        let bench = Bench::of(DEMOS[demo]);
        let need = bench.line(id, side).and_then(|line| line.need.min).unwrap_or_else(|| panic!("{id}"));
        near(need, thousandths * 1e-3 * INCH, 1e-6, id);
    }
}

/// A verdict says what its own figures say: below need fails or is advice, met is never either.
#[test]
fn words_follow_figures() {
    let mut seen = 0;
    for text in DEMOS {
        for line in Bench::of(text).limits {
            let (Some(have), Some(margin)) = (line.have, line.margin) else {
                assert_eq!(line.verdict, Verdict::Unknown, "{}", line.title);
                continue;
            };
            let low = line.need.min.map_or(f64::INFINITY, |min| have - min);
            let high = line.need.max.map_or(f64::INFINITY, |max| max - have);
            near(margin, low.min(high), 1e-9, &line.title);
            let met = matches!(line.verdict, Verdict::Ok | Verdict::Tight);
            assert_eq!(met, margin >= -1e-9, "{}: {margin} is {:?}", line.title, line.verdict);
            seen += 1;
        }
    }
    assert!(seen > 120, "{seen}");
}
