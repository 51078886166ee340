//! Instruments that are not there, played by the program itself, and what the server makes of their lines: over the network and over
//! a pseudo-terminal, in order and with every fault.

use crate::served::{get, serve};
use serde_json::{Value, json};
use std::io::{BufRead, BufReader, Write};
use std::path::Path;
use std::process::{Child, ChildStdin, Command, Stdio};
use upper_lobe_core::analysis::{Build, PartName, Request, SessionReport, SessionVerdict, Stages, analyze};

const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// The demo with one session, empty.
fn begun(session: Value) -> Value {
    let mut build: Value = serde_json::from_str(TOW).unwrap();
    build["bench"] = json!([session]);
    build
}

/// A stand-in that plays the session of `build`, where it is, and the hand that moves it on.
struct StandIn(Child, String, ChildStdin);

impl StandIn {
    fn plays(folder: &Path, build: &Value, how: &[&str]) -> Self {
        let file = folder.join("build.json");
        std::fs::write(&file, build.to_string()).unwrap();
        let mut process = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
            .args([
                "stand-in",
                file.to_str().unwrap(),
                "--session",
                "s",
                "--every",
                "20",
                "--rests",
                "600",
                "--by-hand",
            ])
            .args(how)
            .stdin(Stdio::piped())
            .stdout(Stdio::piped())
            .spawn()
            .expect("it starts");
        let hand = process.stdin.take().unwrap();
        let mut line = String::new();
        BufReader::new(process.stdout.take().unwrap()).read_line(&mut line).unwrap();
        let at = line.trim().split_once(" at ").expect("it says where it is").1.to_owned();
        Self(process, at, hand)
    }
}

impl Drop for StandIn {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

/// Listens until a line is `enough`, and moves the hand on after each rest; gives what it rested at, and the last line.
fn listened(
    url: &str,
    (at, mut hand): (&str, impl Write),
    measures: &str,
    enough: impl Fn(&Value) -> bool,
) -> (Vec<String>, Value) {
    let unit = json!({ "measures": measures });
    let body = json!({ "name": "Wheel 1", "at": at, "format": unit }).to_string();
    let put = ureq::put(&format!("{url}/api/instruments")).set("content-type", "application/json").send_string(&body);
    put.unwrap_or_else(|error| panic!("{:?}", error.into_response().map(|own| own.into_string())));
    let live = ureq::get(&format!("{url}/api/instruments/Wheel%201/live")).call().expect("it is listened to");
    let mut rested = Vec::new();
    let mut last = Value::Null;
    for line in BufReader::new(live.into_reader()).lines() {
        last = serde_json::from_str(&line.expect("a line")).expect("JSON");
        let count = last["rests"].as_u64().unwrap() as usize;
        if count > rested.len() {
            rested.push(last["rested"].as_str().expect("a text").to_owned());
            hand.write_all(b"\n").expect("it moves on");
        }
        if enough(&last) {
            break;
        }
    }
    (rested, last)
}

/// What the session makes of the readings, in the order in which they are asked for.
fn taken(build: &Value, rested: &[String]) -> SessionReport {
    let mut build = build.clone();
    let asked = [("0.050 in", "opening"), ("0.050 in", "closing"), ("0.200 in", "opening"), ("0.200 in", "closing")];
    let rows: Vec<Value> =
        asked.iter().zip(rested).map(|((height, flank), wheel)| json!([height, flank, wheel])).collect();
    build["bench"][0]["readings"] = json!(rows);
    let build = Build::from_value(build).expect("a document");
    let request = Request::of(None, vec![PartName::Sessions]);
    analyze(&build, &request, &Stages::default()).unwrap().candidates.remove(0).sessions.remove(0)
}

fn degree_in(how: &[&str], enough: impl Fn(&Value) -> bool) -> (SessionReport, Value) {
    let folder = tempfile::tempdir().unwrap();
    let build = begun(json!({ "id": "s", "kind": "degree_in" }));
    let mut served = serve(&folder.path().join("bench.db"));
    let stand_in = StandIn::plays(folder.path(), &build, how);
    let (rested, last) = listened(&served.url, (&stand_in.1, &stand_in.2), "angle", enough);
    let _ = served.process.kill();
    let _ = served.process.wait();
    (taken(&build, &rested), last)
}

fn four(line: &Value) -> bool {
    line["rests"] == 4
}

#[test]
fn a_cam_is_degreed_in_by_a_wheel_that_is_not_there() {
    let (found, last) = degree_in(&[], four);
    assert_eq!((found.readings, found.verdict), (4, SessionVerdict::Agrees), "{} {:?}", found.says.inch, found.figures);
    assert_eq!((last["state"].as_str(), last["rubbish"].as_u64()), (Some("live"), Some(0)));
}

#[test]
#[cfg(unix)]
fn the_same_over_a_serial_line() {
    let (found, _) = degree_in(&["--terminal"], four);
    assert_eq!((found.readings, found.verdict), (4, SessionVerdict::Agrees), "{} {:?}", found.says.inch, found.figures);
}

#[test]
fn rubbish_and_stutter_change_no_reading() {
    for fault in ["rubbish", "stutter"] {
        let (found, last) = degree_in(&["--fault", fault], four);
        assert_eq!((found.readings, found.verdict), (4, SessionVerdict::Agrees), "{fault}: {}", found.says.inch);
        if fault == "rubbish" {
            assert!(last["rubbish"].as_u64() > Some(20), "{last}");
            assert!(last["says"].as_str().unwrap().contains("no line"), "{last}");
        }
    }
}

#[test]
fn a_wheel_that_slips_is_asked_for_and_one_that_falls_silent_says_so() {
    let (found, _) = degree_in(&["--fault", "slip"], four);
    assert_eq!(found.verdict, SessionVerdict::Questioned, "{} {:?}", found.says.inch, found.figures);
    assert!(found.questions[0].contains("slipped") && found.suggests.is_empty(), "{:?}", found.questions);
    let (found, last) = degree_in(&["--fault", "silent"], |line| line["state"] == "silent" && line["rests"] == 2);
    assert_eq!((found.readings, last["text"].is_string()), (2, true));
}

#[test]
fn a_gauge_that_goes_over_to_millimetres_is_read_as_it_says() {
    let folder = tempfile::tempdir().unwrap();
    let build = begun(json!({ "id": "s", "kind": "valve_drop" }));
    let mut served = serve(&folder.path().join("bench.db"));
    let stand_in = StandIn::plays(folder.path(), &build, &["--fault", "unit"]);
    let (rested, _) = listened(&served.url, (&stand_in.1, &stand_in.2), "length", |line| line["rests"] == 5);
    let _ = served.process.kill();
    let _ = served.process.wait();
    assert!(rested[0].ends_with(" in") && rested[4].ends_with(" mm"), "{rested:?}");
    let mut read = build;
    let at = ["0 deg", "5 deg", "10 deg", "15 deg", "20 deg"];
    read["bench"][0]["drops"] = at.iter().zip(&rested).map(|(at, drop)| json!([at, drop])).collect();
    let build = Build::from_value(read).unwrap();
    let request = Request::of(None, vec![PartName::Sessions]);
    let found = analyze(&build, &request, &Stages::default()).unwrap().candidates.remove(0).sessions.remove(0);
    assert_eq!(found.verdict, SessionVerdict::Agrees, "{} {:?}", found.says.inch, found.figures);
}

#[test]
fn an_instrument_that_is_not_there_or_cannot_be_says_why() {
    let folder = tempfile::tempdir().unwrap();
    let mut served = serve(&folder.path().join("bench.db"));
    // A port that nobody listens on any more.
    let free = std::net::TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap();
    let (_, last) =
        listened(&served.url, (&format!("tcp {free}"), std::io::sink()), "force", |line| line["state"] == "away");
    assert!(last["says"].as_str().unwrap().contains("does not answer"), "{last}");
    let refused = |body: Value| {
        let put = ureq::put(&format!("{}/api/instruments", served.url)).set("content-type", "application/json");
        match put.send_string(&body.to_string()) {
            Err(ureq::Error::Status(422, answer)) => answer.into_string().unwrap(),
            other => panic!("{body}: {other:?}"),
        }
    };
    let format = json!({ "measures": "length" });
    for (body, says) in [
        (json!({ "name": "a", "at": "tcp 8.8.8.8:80", "format": format }), "own network"),
        (json!({ "name": " ", "at": "tcp 127.0.0.1:1", "format": format }), "needs a name"),
        (json!({ "name": "a", "at": "bluetooth", "format": format }), "write"),
        (json!({ "name": "a", "at": "serial x 5", "format": format }), "no speed"),
        (
            json!({ "name": "a", "at": "tcp 127.0.0.1:1", "format": { "measures": "length", "decimals": 90 } }),
            "at most 9",
        ),
    ] {
        assert!(refused(body.clone()).contains(says), "{body}");
    }
    assert_eq!(get(&format!("{}/api/instruments", served.url)).as_array().map(Vec::len), Some(1));
    let _ = served.process.kill();
    let _ = served.process.wait();
}
