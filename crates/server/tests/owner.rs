//! The report for an owner through the real application and the command line: a page by itself that fetches and runs nothing.

use crate::application::{body, send};
use actix_web::http::StatusCode;
use actix_web::test::{TestRequest, read_body};
use serde_json::{Value, json};
use std::process::Command;

const DEMO: &str = include_str!("../../../demo/quarry-lane-427-strip.json");
const FILE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/quarry-lane-427-strip.json");

#[actix_web::test]
async fn the_page_has_pictures_and_the_build_s_history_and_nothing_of_it_runs() {
    let folder;
    let app = application!(folder);
    let mut document: Value = serde_json::from_str(DEMO).unwrap();
    document["name"] = json!("<script>alert(1)</script> & son");
    let document = document.to_string();
    let kept = TestRequest::post().uri("/api/builds").set_json(json!({ "document": document }));
    let build = body(send(&app, kept).await).await["id"].as_i64().unwrap();
    let ask = |candidate: &str, system: &str| {
        let form = [
            ("document", document.clone()),
            ("build", build.to_string()),
            ("candidate", candidate.to_owned()),
            ("system", system.to_owned()),
            ("today", "2026-05-20".to_owned()),
        ];
        TestRequest::post().uri("/api/owner").set_form(form)
    };
    let answer = send(&app, ask("a", "metric")).await;
    assert_eq!(answer.status(), StatusCode::OK);
    let policy = answer.headers().get("content-security-policy").unwrap().to_str().unwrap().to_owned();
    assert!(policy.starts_with("default-src 'none'") && !policy.contains("script-src"), "{policy}");
    let page = String::from_utf8(read_body(answer).await.to_vec()).unwrap();
    assert!(page.contains("&lt;script&gt;alert(1)") && !page.contains("<script"), "a name is text");
    assert_eq!(page.matches("<svg").count(), 3, "torque, power, lift");
    for text in ["Report for the owner, 2026-05-20", "<h2>Limits</h2>", "Check spring loads on the seat", "N m", "Mind"]
    {
        assert!(page.contains(text), "{text}");
    }
    // The first revision brought the whole log.
    assert!(page.contains("2026-03-14") && !page.contains("not saved"), "history with revisions");
    let refused = send(&app, ask("nobody", "inch")).await;
    assert_eq!(refused.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[test]
fn the_command_line_prints_the_page_and_the_figures() {
    let run = |arguments: &[&str]| {
        Command::new(env!("CARGO_BIN_EXE_upper-lobe")).arg("owner").arg(FILE).args(arguments).output().unwrap()
    };
    let page = String::from_utf8(run(&["--today", "2026-05-20"]).stdout).unwrap();
    assert!(page.starts_with("<!DOCTYPE html>") && page.contains("lbf ft"), "{}", &page[..200]);
    let figures: Value = serde_json::from_slice(&run(&["--as", "json"]).stdout).unwrap();
    assert_eq!(
        figures["margins"].as_array().unwrap().len(),
        page.split("<h2>Limits</h2>").nth(1).unwrap().split("</table>").next().unwrap().matches("<tr>").count() - 1
    );
    let refused = run(&["--candidate", "nobody"]);
    assert_eq!(refused.status.code(), Some(2));
}
