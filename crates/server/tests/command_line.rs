//! The command line as people and scripts use it.

use serde_json::Value;
use std::io::Write;
use std::process::{Command, Output, Stdio};

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");

fn upper_lobe(arguments: &[&str], input: &[u8]) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .expect("the binary starts");
    // A command that does not read may have ended already.
    let _ = child.stdin.take().expect("piped").write_all(input);
    child.wait_with_output().expect("it ends")
}

fn json(output: &Output) -> Value {
    serde_json::from_slice(&output.stdout).expect("JSON on standard output")
}

#[test]
fn analyze_answers_only_the_parts_and_candidate_asked_for() {
    let output = upper_lobe(&["analyze", "-", "--candidate", "b", "--parts", "timing,spring"], DEMO.as_bytes());
    assert_eq!(output.status.code(), Some(0));
    let answer = json(&output);
    let candidates = answer["candidates"].as_array().expect("a list");
    assert_eq!(candidates.len(), 1);
    let states =
        ["timing", "spring", "strip", "clearance"].map(|part| candidates[0][part]["state"].as_str().expect("a state"));
    assert_eq!(states, ["done", "done", "not_asked", "not_asked"]);
    assert_eq!(candidates[0]["limits"], Value::Array(vec![]));
}

#[test]
fn a_reader_that_has_seen_enough_ends_a_command_quietly() {
    for arguments in [&["begin", "middle_v8"][..], &["begin"], &["schema", "--rules"], &["demo", "--print"]] {
        let mut child = Command::new(env!("CARGO_BIN_EXE_upper-lobe"))
            .args(arguments)
            .stdout(Stdio::piped())
            .stderr(Stdio::piped())
            .spawn()
            .expect("the binary starts");
        drop(child.stdout.take());
        let output = child.wait_with_output().expect("it ends");
        assert_eq!((output.status.code(), output.stderr.as_slice()), (Some(0), &b""[..]), "{arguments:?}");
    }
}

#[test]
fn the_same_document_gives_the_same_bytes() {
    let run = || upper_lobe(&["analyze", "-"], DEMO.as_bytes()).stdout;
    assert_eq!(run(), run());
}

#[test]
fn refused_input_exits_with_2_and_every_fault() {
    let broken = DEMO.replace("\"4.060 in\"", "\"4.060\"").replace("\"0.318 in\"", "\"8 mm 2\"");
    let output = upper_lobe(&["analyze", "-"], broken.as_bytes());
    assert_eq!(output.status.code(), Some(2));
    let faults = json(&output);
    let fields: Vec<_> =
        faults["faults"].as_array().expect("a list").iter().map(|f| f["field"].as_str().expect("a field")).collect();
    assert_eq!(fields, ["engine.bore", "candidates[0].cam.intake.lobe_lift"]);
    assert_eq!(faults["faults"][0]["cure"], "write \"4.060 in\"");
    for arguments in [["--parts", "timing,noise"], ["--candidate", "zz"]] {
        let output = upper_lobe(&["analyze", "-", arguments[0], arguments[1]], DEMO.as_bytes());
        assert_eq!(output.status.code(), Some(2), "{arguments:?}");
    }
    for rubbish in [&b""[..], b"\xff\xfe\x00", b"[]", b"null", b"{\"format\":\"other\"}"] {
        assert_eq!(upper_lobe(&["analyze", "-"], rubbish).status.code(), Some(2), "{rubbish:?}");
    }
}

#[test]
fn a_file_that_is_not_there_is_an_error_with_its_name() {
    let output = upper_lobe(&["analyze", "/nowhere/build.json"], b"");
    assert_eq!(output.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&output.stderr).contains("/nowhere/build.json"));
}

#[test]
fn only_loopback_is_served() {
    let output = upper_lobe(&["serve", "--address", "0.0.0.0", "--port", "0"], b"");
    assert_eq!(output.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&output.stderr).contains("not a loopback address"));
}

#[test]
fn the_demo_is_loaded_once_and_its_print_is_a_document() {
    let folder = tempfile::tempdir().expect("a folder");
    let database = folder.path().join("new/folder/demo.db");
    let load = || {
        let output = upper_lobe(&["demo", "--database", database.to_str().expect("text")], b"");
        String::from_utf8_lossy(&output.stdout).chars().next()
    };
    assert_eq!((load(), load()), (Some('3'), Some('0')));
    let printed = upper_lobe(&["demo", "--print"], b"").stdout;
    assert_eq!(upper_lobe(&["analyze", "-", "--parts", "lift"], &printed).status.code(), Some(0));
}

#[test]
fn help_teaches_what_a_build_is_and_how_to_begin() {
    let help = String::from_utf8(upper_lobe(&["--help"], b"").stdout).expect("text");
    for word in ["A build is one JSON document", "analyze", "serve", "planning aid"] {
        assert!(help.contains(word), "{word}");
    }
}

#[test]
fn breathing_is_computed_only_when_asked_for_and_repeats_to_the_bit() {
    let printed = upper_lobe(&["demo", "--print"], b"").stdout;
    let run = |parts: &[&str]| upper_lobe(&[&["analyze", "-", "--candidate", "a"], parts].concat(), &printed).stdout;
    let plain: Value = serde_json::from_slice(&run(&[])).expect("JSON");
    assert_eq!(plain["candidates"][0]["breathing"]["state"], "not_asked");
    let asked = run(&["--parts", "breathing"]);
    assert_eq!(asked, run(&["--parts", "breathing"]));
    let answer: Value = serde_json::from_slice(&asked).expect("JSON");
    let breathing = &answer["candidates"][0]["breathing"];
    let speeds = breathing["speed_rpm"].as_array().expect("speeds");
    assert!(
        (13..=22).contains(&speeds.len())
            && breathing["converged"].as_array().expect("flags").iter().all(|c| c == true)
    );
    // A petrol V8 of 6.4 litres: specific torque of 75 to 105 N m a litre [Heywood, ch. 2; from memory].
    let specific = breathing["peak_torque_nm"].as_f64().expect("known") / 6.364;
    assert!((75.0..105.0).contains(&specific), "{specific}");
}
