//! What the description of the API says of statuses, held against what comes: every described path is asked with a body
//! that is none, one that is refused, and for what is not there; each answer is one that the description names, and every
//! refusal is a problem.

use crate::application::{HOST, body, send};
use actix_web::http::Method;
use actix_web::test::TestRequest;
use serde_json::{Value, json};
use std::collections::BTreeSet;
use upper_lobe_server::app::open_api;

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// Paths, methods and described statuses.
fn described() -> Vec<(String, Method, BTreeSet<u16>)> {
    let description = serde_json::to_value(open_api()).unwrap();
    let mut found = Vec::new();
    for (path, item) in description["paths"].as_object().unwrap() {
        for (method, operation) in item.as_object().unwrap() {
            let statuses = operation["responses"].as_object().unwrap().keys();
            let method = method.to_uppercase().parse().unwrap();
            found.push((path.clone(), method, statuses.map(|status| status.parse().unwrap()).collect()));
        }
    }
    found
}

/// The path with something that is not there in the place of its variables.
fn elsewhere(path: &str) -> String {
    let path = path.replace("{id}", "4711").replace("{number}", "3");
    if path == "/api/parts" { format!("{path}?kind=spring&name=nothing") } else { path }
}

/// Statuses that any path may have and that are described once for all (`docs/openapi.json`, at its head).
const ANYWHERE: [u16; 8] = [400, 403, 404, 405, 408, 413, 415, 503];

#[actix_web::test]
async fn every_answer_is_one_that_is_described_and_every_refusal_is_a_problem() {
    let folder;
    let app = application!(folder);
    let mut asked = 0;
    for (path, method, statuses) in described() {
        let refused = json!({ "document": "{}", "candidate": "zz", "effort": "draft", "name": "", "base_revision": 1 });
        let bodies = [None, Some("no JSON".to_owned()), Some("{}".to_owned()), Some(refused.to_string())];
        for text in bodies.into_iter().filter(|text| method != Method::GET || text.is_none()) {
            let mut request = TestRequest::default().method(method.clone()).uri(&elsewhere(&path));
            if let Some(text) = &text {
                request = request.insert_header(("content-type", "application/json")).set_payload(text.clone());
            }
            let answer = send(&app, request).await;
            let status = answer.status().as_u16();
            asked += 1;
            assert!(status < 500, "{method} {path} {text:?}: {status}");
            assert!(statuses.contains(&status) || ANYWHERE.contains(&status), "{method} {path} {text:?}: {status}");
            if status >= 400 {
                let kind = answer.headers().get("content-type").unwrap().to_str().unwrap().to_owned();
                assert!(kind.starts_with("application/problem+json"), "{method} {path}: {kind}");
                let problem = body(answer).await;
                assert_eq!(problem["status"], status, "{problem}");
                assert!(problem["type"].as_str().unwrap().starts_with("urn:upper-lobe:problem:"), "{problem}");
                assert!(!problem["detail"].as_str().unwrap().is_empty());
            }
        }
    }
    assert!(asked > 60, "{asked}");
}

#[actix_web::test]
async fn every_stream_ends_with_done_failed_or_stopped() {
    let folder;
    let app = application!(folder);
    let without = |keys: &[&str]| {
        let mut value: Value = serde_json::from_str(DEMO).unwrap();
        for key in keys {
            value["engine"].as_object_mut().unwrap().remove(*key);
        }
        value.to_string()
    };
    let cases = [
        (DEMO.to_owned(), "done"),
        (without(&["bore"]), "failed"),
        (without(&["firing_order"]), "failed"),
        (without(&["chamber_volume"]), "failed"),
    ];
    for (document, end) in cases {
        let asked = json!({ "document": document, "effort": "draft" });
        let lines = crate::application::lines(&app, "/api/curve", asked).await;
        assert_eq!(lines.last().unwrap()["state"], end);
        let before = &lines[..lines.len() - 1];
        assert!(before.iter().all(|line| line["state"] == "running" || line["state"] == "waiting"));
        if end == "failed" {
            let needs = lines.last().unwrap()["needs"].as_array().unwrap().clone();
            assert!(!needs.is_empty() && needs.iter().all(|need| need["label"].is_string()), "{needs:?}");
        }
    }
}

#[actix_web::test]
async fn invisible_and_turning_characters_never_get_into_a_name() {
    let folder;
    let app = application!(folder);
    for name in ["a\u{200B}b", "a\u{202E}b", "\u{FEFF}ab", "a\u{0007}b", "   ", ""] {
        let asked = TestRequest::post().uri("/api/builds/blank").set_json(json!({ "name": name }));
        let answer = send(&app, asked).await;
        assert_eq!(answer.status().as_u16(), 422, "{name:?}");
    }
    let long = "x".repeat(5000);
    let document = DEMO.replace("\"4.060 in\"", &format!("\"{long}\""));
    let asked = TestRequest::post().uri("/api/workbench").insert_header(HOST).set_json(json!({ "document": document }));
    let problem = body(send(&app, asked).await).await;
    assert!(problem["detail"].as_str().unwrap().len() < 600, "a fault echoes a line at most");
    assert!(problem["faults"][0]["given"].as_str().unwrap().len() < 200);
}
