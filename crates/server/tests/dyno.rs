//! Pulls through the real application and the command line: files read and remembered, compared, printed.

use crate::application::{body, send};
use actix_web::http::StatusCode;
use actix_web::test::TestRequest;
use serde_json::{Value, json};
use std::process::Command;

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");

fn file(torque: f64) -> String {
    let line = |i: u32| format!("{},{:.1}\n", 2000 + 40 * i, torque + 0.2 * f64::from(i % 3));
    format!("n,load\n{}", (0..80).map(line).collect::<String>())
}

#[actix_web::test]
async fn a_heading_is_mapped_once_and_remembered() {
    let folder;
    let app = application!(folder);
    let read = |mapped: Value| {
        TestRequest::post().uri("/api/pull-file").set_json(json!({ "text": file(400.0), "mapped": mapped }))
    };
    let first = body(send(&app, read(Value::Null)).await).await;
    assert_eq!((first["remembered"].as_bool(), first["file"]["runs"].as_array().map(Vec::len)), (Some(false), Some(0)));
    assert!(first["file"]["lacks"].as_str().is_some_and(|why| why.contains("speed")), "{first}");
    let mapped = json!([{ "holds": "speed", "unit": "rpm" }, { "holds": "torque", "unit": "N m" }]);
    let told = body(send(&app, read(mapped.clone())).await).await;
    assert_eq!(told["file"]["runs"][0]["count"], 80);
    let signature = &told["file"]["signature"];
    let put = json!({ "signature": signature, "mapped": mapped });
    let answer = send(&app, TestRequest::put().uri("/api/pull-mappings").set_json(put)).await;
    assert_eq!(answer.status(), StatusCode::NO_CONTENT);
    let again = body(send(&app, read(Value::Null)).await).await;
    assert_eq!((again["remembered"].as_bool(), &again["file"]["runs"][0]["count"]), (Some(true), &json!(80)));
    // Columns nobody asked for are refused by their number, and a file that is none by its reason.
    let wide = json!({ "signature": "x", "mapped": vec![json!({ "holds": "nothing" }); 500] });
    let refused = send(&app, TestRequest::put().uri("/api/pull-mappings").set_json(wide)).await;
    assert_eq!(refused.status(), StatusCode::UNPROCESSABLE_ENTITY);
    let rubbish = TestRequest::post().uri("/api/pull-file").set_json(json!({ "text": "hello" }));
    assert_eq!(send(&app, rubbish).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn pulls_taken_over_are_compared_and_the_plan_knows_them() {
    let folder;
    let app = application!(folder);
    let take = |torque: f64, candidate: &str| {
        json!({ "take_pulls": { "text": file(torque).replace("n,load", "rpm,torque (N m)"), "mapped": [], "runs": [0], "drawn": 1,
            "shared": { "candidate": candidate, "day": "2026-03-09" } } })
    };
    let edits = json!([take(400.0, "a"), take(401.0, "a"), take(412.0, "b"), take(411.0, "b")]);
    let request = json!({ "document": DEMO, "edits": edits, "parts": [], "form": true, "pull": "p3" });
    let edited = body(send(&app, TestRequest::post().uri("/api/workbench").set_json(request)).await).await;
    let fields = edited["fields"].as_array().expect("a form");
    let place = |path: &str| fields.iter().find(|own| own["field"] == path);
    assert_eq!(place("pulls[2].candidate").expect("the pull that is looked at")["text"], "b");
    assert!(place("pulls[1].candidate").is_none(), "only the one that is looked at");
    let request = json!({ "document": edited["document"], "air": "sae_j1349" });
    let answer = body(send(&app, TestRequest::post().uri("/api/dyno").set_json(request)).await).await;
    assert_eq!(answer["pulls"]["pulls"].as_array().map(Vec::len), Some(5), "the old one is the first");
    assert_eq!(answer["pulls"]["air"], "SAE J1349 (99 kPa dry, 25 C)");
    assert_eq!(answer["plan"]["order"][0]["pull"], "p1");
    let refused = json!({ "document": DEMO, "air": "mars" });
    let answer = send(&app, TestRequest::post().uri("/api/dyno").set_json(refused)).await;
    assert_eq!(body(answer).await["faults"][0]["field"], "air");
}

#[actix_web::test]
async fn what_is_wrong_is_streamed_and_what_is_not_there_is_refused() {
    let folder;
    let app = application!(folder);
    let ask = |more: Value| {
        let mut request = json!({ "document": DEMO });
        request.as_object_mut().expect("an object").extend(more.as_object().expect("an object").clone());
        TestRequest::post().uri("/api/diagnosis").set_json(request)
    };
    let answer = send(&app, ask(json!({ "candidate": "a" }))).await;
    assert_eq!(answer.status(), StatusCode::OK);
    let bytes = actix_web::test::read_body(answer).await;
    let lines: Vec<Value> =
        String::from_utf8_lossy(&bytes).lines().map(|line| serde_json::from_str(line).expect("JSON")).collect();
    let last = lines.last().expect("a line");
    assert_eq!((&last["state"], &last["report"]["against"]), (&json!("done"), &json!("what the model predicts")));
    for (request, field) in [(json!({ "candidate": "b" }), "pulls"), (json!({ "candidate": "z" }), "candidate")] {
        let answer = send(&app, ask(request)).await;
        assert_eq!(answer.status(), StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(body(answer).await["faults"][0]["field"], field);
    }
}

#[test]
fn the_command_line_prints_what_the_screen_has() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("build.json");
    std::fs::write(&path, DEMO).expect("a document");
    let run = |more: &[&str]| {
        Command::new(env!("CARGO_BIN_EXE_upper-lobe")).arg("dyno").arg(&path).args(more).output().expect("it runs")
    };
    let printed: Value = serde_json::from_slice(&run(&[]).stdout).expect("JSON");
    assert_eq!(printed["pulls"]["pulls"][0]["id"], "pull");
    assert_eq!(printed["plan"]["order"].as_array().map(Vec::len), Some(12));
    assert_eq!(run(&["--air", "mars"]).status.code(), Some(2));
}
