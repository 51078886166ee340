//! The service log through the real application and the command line: read, expected by what the shop's other builds did, taken along.

use crate::application::{body, send};
use actix_web::http::StatusCode;
use actix_web::test::{TestRequest, read_body};
use serde_json::{Value, json};
use std::process::Command;

const DEMO: &str = include_str!("../../../demo/quarry-lane-427-strip.json");

fn demo(log: impl Fn(&mut Value)) -> String {
    let mut document: Value = serde_json::from_str(DEMO).unwrap();
    log(&mut document["service"]);
    document.to_string()
}

#[actix_web::test]
async fn other_builds_of_the_shop_say_what_to_expect_and_the_build_itself_does_not() {
    let folder;
    let app = application!(folder);
    let keep = |name: &str| {
        let mut document: Value = serde_json::from_str(DEMO).unwrap();
        document["name"] = json!(name);
        TestRequest::post().uri("/api/builds").set_json(json!({ "document": document.to_string() }))
    };
    let first = body(send(&app, keep("One")).await).await;
    let own = first["id"].as_i64().unwrap();
    let few = demo(|log| log.as_array_mut().unwrap().truncate(2));
    let ask = |build: Option<i64>| {
        TestRequest::post().uri("/api/service").set_json(json!({ "document": few, "build": build }))
    };
    let like = |report: &Value| report["trends"][0]["like"]["inch"].as_str().unwrap().to_owned();
    assert_eq!(like(&body(send(&app, ask(Some(own))).await).await), "");
    let told = body(send(&app, ask(None)).await).await;
    assert!(like(&told).starts_with("1 build like it: "), "{}", like(&told));
    send(&app, keep("Two")).await;
    let told = body(send(&app, ask(None)).await).await;
    assert!(like(&told).starts_with("2 builds like it: "), "{}", like(&told));
}

#[actix_web::test]
async fn what_is_due_is_taken_along_as_a_calendar() {
    let folder;
    let app = application!(folder);
    let ask = |document: String| {
        TestRequest::post()
            .uri("/api/service/calendar")
            .set_json(json!({ "document": document, "today": "2026-05-20" }))
    };
    let answer = send(&app, ask(DEMO.to_owned())).await;
    assert_eq!(answer.headers().get("content-type").unwrap(), "text/calendar; charset=utf-8");
    let text = String::from_utf8(read_body(answer).await.to_vec()).unwrap();
    // RFC 5545: lines end in CR and LF, days without a time are of type DATE.
    let lines: Vec<&str> = text.split("\r\n").collect();
    assert_eq!((lines[0], lines[1]), ("BEGIN:VCALENDAR", "VERSION:2.0"));
    let days = lines.iter().filter(|line| line.starts_with("DTSTART;VALUE=DATE:2026")).count();
    assert_eq!(days, lines.iter().filter(|line| **line == "BEGIN:VEVENT").count());
    assert!(days >= 5, "{text}");
    assert!(text.contains("SUMMARY:Quarry Lane 427 strip: Check spring loads on the seat"), "{text}");
    let again = String::from_utf8(read_body(send(&app, ask(DEMO.to_owned())).await).await.to_vec()).unwrap();
    assert_eq!(text, again, "the same log gives the same bytes");
    let refused = send(&app, ask(demo(|log| log[0]["at"] = json!("0")))).await;
    assert_eq!(refused.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[test]
fn the_command_prints_what_the_screen_has() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("build.json");
    std::fs::write(&file, DEMO).unwrap();
    let run = |more: &[&str]| {
        let output =
            Command::new(env!("CARGO_BIN_EXE_upper-lobe")).arg("service").arg(&file).args(more).output().unwrap();
        (output.status.code(), String::from_utf8(output.stdout).unwrap())
    };
    let (code, text) = run(&["--today", "2026-05-20"]);
    let report: Value = serde_json::from_str(&text).unwrap();
    assert_eq!((code, report["unit"].as_str()), (Some(0), Some("passes")));
    assert_eq!(report["trends"][0]["valve"], "cylinder 6 exhaust");
    assert!(run(&["--as", "ics"]).1.starts_with("BEGIN:VCALENDAR"));
    assert_eq!(run(&["--today", "soon"]).0, Some(2));
}
