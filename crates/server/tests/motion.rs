//! Measured valve motion from the rig's stand-in to the fit, by command line and API.

use crate::application::{body, lines, send};
use actix_web::http::StatusCode;
use actix_web::test::TestRequest;
use serde_json::{Value, json};
use std::process::{Command, Output};

const HAULER: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// The demo with one candidate, on which a fit takes seconds.
fn one() -> Value {
    let mut value: Value = serde_json::from_str(HAULER).unwrap();
    value["candidates"].as_array_mut().unwrap().truncate(1);
    value
}

fn motion(document: &Value, options: &[&str]) -> Output {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("build.json");
    std::fs::write(&file, document.to_string()).unwrap();
    Command::new(env!("CARGO_BIN_EXE_upper-lobe")).arg("motion").arg(&file).args(options).output().expect("it ends")
}

#[actix_web::test]
async fn what_the_rig_wrote_is_taken_in_and_fitted_to() {
    let folder;
    let app = application!(folder);
    let played = motion(&one(), &["--play", "3000,5600", "--lot", "4"]);
    let csv = String::from_utf8(played.stdout).unwrap();
    assert_eq!((csv.lines().next(), csv.lines().count()), (Some("crank deg,3000 rpm (mm),5600 rpm (mm)"), 721));
    let edit = json!({ "take_motion": { "text": csv, "shared": { "candidate": "a", "side": "intake" } } });
    let request =
        TestRequest::post().uri("/api/workbench").set_json(json!({ "document": one().to_string(), "edits": [edit] }));
    let response = send(&app, request).await;
    assert_eq!(response.status(), StatusCode::OK);
    let answer = body(response).await;
    let document = answer["document"].as_str().unwrap();
    let taken: Value = serde_json::from_str(document).unwrap();
    let speeds: Vec<_> = taken["valve_motion"].as_array().unwrap().iter().map(|own| own["speed"].clone()).collect();
    assert_eq!(speeds, ["3000 rpm", "5600 rpm"]);
    let found = lines(&app, "/api/motion", json!({ "document": document })).await;
    let last = found.last().unwrap();
    assert_eq!(last["state"], "done", "{last}");
    let report = &last["report"];
    let [before, after] = ["before_mm", "after_mm"].map(|key| report["traces"][1][key].as_f64().unwrap());
    assert!(after < 0.025 && after < before, "{before} {after}");
    assert_eq!(report["fields"][0]["field"], "train_fit.train_damping");
    // The same by the command line.
    let said: Value = serde_json::from_slice(&motion(&taken, &[]).stdout).unwrap();
    assert_eq!(said["says"], report["says"]);
}

#[actix_web::test]
async fn what_cannot_be_fitted_or_played_is_refused_with_its_place() {
    let folder;
    let app = application!(folder);
    let none = TestRequest::post().uri("/api/motion").set_json(json!({ "document": HAULER }));
    assert_eq!(send(&app, none).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
    for (options, field) in [
        (&["--play", "20"][..], "speeds"),
        (&["--play", "3000", "--candidate", "zz"], "candidate"),
        (&[], "valve_motion"),
    ] {
        let refused = motion(&one(), options);
        assert_eq!(refused.status.code(), Some(2), "{options:?}");
        let said: Value = serde_json::from_slice(&refused.stdout).unwrap();
        assert_eq!(said["faults"][0]["field"], field, "{said}");
    }
}
