//! Beginnings, order cards and previews, through the real application and the command line.

use crate::application::{body, send};
use actix_web::http::StatusCode;
use actix_web::test::TestRequest;
use serde_json::{Value, json};
use std::process::{Command, Output};

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");

#[actix_web::test]
async fn families_are_offered_with_their_uses_and_heads() {
    let folder;
    let app = application!(folder);
    let families = body(send(&app, TestRequest::get().uri("/api/families")).await).await;
    let list = families.as_array().expect("a list");
    assert_eq!(list.len(), 6);
    assert!(list.iter().all(|family| !family["uses"].as_array().unwrap().is_empty()));
    assert_eq!(list[1]["heads"], json!(["iron", "aluminium"]));
}

#[actix_web::test]
async fn a_beginning_is_a_whole_document_that_can_be_kept_and_is_not_kept_by_itself() {
    let folder;
    let app = application!(folder);
    let beginning = json!({ "beginning": { "name": "Pier nine", "family": "middle_v8", "use": "marine",
        "known": [{ "field": "engine.bore", "text": "4.04" }] }, "system": "inch" });
    let report = body(send(&app, TestRequest::post().uri("/api/begin").set_json(&beginning)).await).await;
    let document = report["document"].as_str().expect("text");
    assert!(document.contains("\"bore\": \"4.04 in\"") && document.contains("\"begun_from\": \"middle_v8\""));
    let asked = report["asked"].as_array().expect("a list");
    let bore = asked.iter().find(|asked| asked["field"]["field"] == "engine.bore").expect("the bore is asked");
    assert_eq!((bore["field"]["source"].as_str(), bore["range"].as_array().map(Vec::len)), (Some("unmarked"), Some(2)));
    assert_eq!(report["because"][0]["decision"], "Intake duration at .050");
    assert_eq!(body(send(&app, TestRequest::get().uri("/api/builds")).await).await, json!([]));
    let made = send(&app, TestRequest::post().uri("/api/builds").set_json(json!({ "document": document }))).await;
    assert_eq!(made.status(), StatusCode::CREATED);
}

#[actix_web::test]
async fn a_beginning_with_faults_names_each_of_them() {
    let folder;
    let app = application!(folder);
    let refused = |beginning: Value| TestRequest::post().uri("/api/begin").set_json(json!({ "beginning": beginning }));
    let known = json!([{ "field": "engine.bore", "text": "4 lbf" }, { "field": "engine.stroke", "text": "no" }]);
    let answer = send(&app, refused(json!({ "name": "x", "family": "middle_v8", "known": known }))).await;
    assert_eq!(answer.status(), StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(body(answer).await["faults"].as_array().map(Vec::len), Some(2));
    for (beginning, field) in [
        (json!({ "name": "x", "family": "steam" }), "family"),
        (json!({ "name": "x", "family": "diesel_six", "use": "strip" }), "use"),
        (json!({ "name": "x", "family": "diesel_six", "heads": "aluminium" }), "heads"),
        (json!({ "name": "", "family": "middle_v8" }), "name"),
    ] {
        let problem = body(send(&app, refused(beginning)).await).await;
        assert_eq!(problem["faults"][0]["field"], field);
    }
}

#[actix_web::test]
async fn what_is_typed_beyond_the_family_is_said() {
    let folder;
    let app = application!(folder);
    let beginning = json!({ "beginning": { "name": "x", "family": "small_v8", "known": [{ "field": "engine.bore", "text": "4.5" }] } });
    let report = body(send(&app, TestRequest::post().uri("/api/begin").set_json(&beginning)).await).await;
    let request = json!({ "document": report["document"], "parts": ["timing"] });
    let answer = body(send(&app, TestRequest::post().uri("/api/workbench").set_json(request)).await).await;
    let warnings = answer["analysis"]["warnings"].to_string();
    assert!(warnings.contains("4.5 in is not what a small petrol V8 has (3.650 in to 4.030 in)"), "{warnings}");
}

#[actix_web::test]
async fn a_cam_by_the_card_has_reasons_or_says_what_it_lacks() {
    let folder;
    let app = application!(folder);
    let asked = |document: &str, candidate: &str| {
        TestRequest::post().uri("/api/card-cam").set_json(json!({ "document": document, "candidate": candidate }))
    };
    let known = body(send(&app, asked(DEMO, "a")).await).await;
    assert_eq!(known["because"].as_array().map(Vec::len), Some(6));
    let mut bare: Value = serde_json::from_str(DEMO).unwrap();
    bare["target"].as_object_mut().unwrap().remove("peak_power_at");
    let lacking = body(send(&app, asked(&bare.to_string(), "a")).await).await;
    assert_eq!(lacking["needs"][0]["field"], "target.peak_power_at");
    assert_eq!(send(&app, asked(DEMO, "zz")).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
    // Put in, it is the candidate's cam, each number marked assumed.
    let edits = json!([{ "card_cam": { "candidate": "a" } }]);
    let request = json!({ "document": DEMO, "edits": edits, "candidate": "a" });
    let answer = body(send(&app, TestRequest::post().uri("/api/workbench").set_json(request)).await).await;
    let document: Value = serde_json::from_str(answer["document"].as_str().unwrap()).unwrap();
    assert_eq!(document["candidates"][0]["cam"]["sources"]["lobe_separation"], "assumed");
    let duration = answer["analysis"]["candidates"][0]["timing"]["intake"]["duration_050_deg"].as_f64().unwrap();
    let said = known["because"][0]["value"]["inch"].as_str().unwrap().trim_end_matches(" deg").parse::<f64>().unwrap();
    assert!((duration - said).abs() < 0.05);
}

#[actix_web::test]
async fn a_preview_leaves_out_what_its_event_does_not_move() {
    let folder;
    let app = application!(folder);
    let edits = json!([{ "move_event": { "candidate": "a", "event": "intake_closes", "crank_deg": 574.0 } }]);
    let ask = |preview: bool, follow: bool| {
        let request = json!({ "document": DEMO, "edits": edits, "candidate": "a", "preview": preview, "follow": follow,
            "parts": ["timing", "strip", "clearance"] });
        TestRequest::post().uri("/api/workbench").set_json(request)
    };
    let whole = body(send(&app, ask(false, false)).await).await;
    let slim = body(send(&app, ask(true, false)).await).await;
    let strip = |answer: &Value, key: &str| answer["analysis"]["candidates"][0]["strip"][key].clone();
    assert_eq!(slim["document"], "");
    for key in ["crank_deg", "piston_mm", "exhaust_lift_mm"] {
        assert_eq!(strip(&slim, key), json!([]), "{key}");
    }
    let lifts = |answer: &Value| -> Vec<f64> {
        strip(answer, "intake_lift_mm").as_array().unwrap().iter().map(|lift| lift.as_f64().unwrap()).collect()
    };
    let worst = lifts(&whole).iter().zip(lifts(&slim)).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max);
    assert!(worst > 0.0 && worst <= 0.005 + 1e-9, "{worst}");
    assert!(slim.to_string().len() * 3 < whole.to_string().len());
    // Torque follows the dragged document, where it is looked at.
    let followed = body(send(&app, ask(true, true)).await).await;
    assert_eq!(followed["document"], whole["document"]);
}

#[actix_web::test]
async fn an_order_card_comes_from_the_document_that_is_sent() {
    let folder;
    let app = application!(folder);
    let asked = |candidate: &str| {
        TestRequest::post().uri("/api/order").set_json(json!({ "document": DEMO, "candidate": candidate }))
    };
    let card = body(send(&app, asked("b")).await).await;
    assert_eq!(
        (card["candidate"].as_str(), card["bill"]["total"]["inch"].as_str()),
        (Some("B later closing"), Some("1670.00 USD"))
    );
    assert_eq!(send(&app, asked("zz")).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

fn upper_lobe(arguments: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_upper-lobe")).args(arguments).output().expect("the binary runs")
}

#[test]
fn the_command_line_begins_a_build_and_orders_its_cam() {
    let listed = upper_lobe(&["begin"]);
    assert!(String::from_utf8_lossy(&listed.stdout).contains("\"diesel_six_four_valve\""));
    let begun = upper_lobe(&["begin", "large_v8", "--use", "tow", "--known", "engine.bore=4.25"]);
    assert_eq!(begun.status.code(), Some(0));
    let folder = tempfile::tempdir().expect("a folder");
    let file = folder.path().join("build.json");
    std::fs::write(&file, &begun.stdout).expect("written");
    let path = file.to_str().unwrap();
    let sheet = upper_lobe(&["order", path, "--as", "csv"]);
    assert!(String::from_utf8_lossy(&sheet.stdout).starts_with("what,side,asked,to be ground,running,as it came\n"));
    let card: Value = serde_json::from_slice(&upper_lobe(&["order", path]).stdout).expect("JSON");
    assert_eq!(card["candidate"], "A as assumed");
    // Refusals exit with 2 and name the field.
    for (arguments, field) in [
        (vec!["begin", "steam"], "family"),
        (vec!["begin", "large_v8", "--known", "engine.bore=x"], "engine.bore"),
        (vec!["order", path, "--candidate", "zz"], "candidate"),
    ] {
        let refused = upper_lobe(&arguments);
        assert_eq!(refused.status.code(), Some(2), "{arguments:?}");
        let faults: Value = serde_json::from_slice(&refused.stdout).expect("JSON");
        assert_eq!(faults["faults"][0]["field"], field);
    }
    assert_eq!(upper_lobe(&["begin", "large_v8", "--known", "engine.bore"]).status.code(), Some(1));
}

#[test]
fn the_page_of_rules_has_every_rule_once() {
    let page = String::from_utf8_lossy(&upper_lobe(&["schema", "--rules"]).stdout).into_owned();
    for id in ["coil_bind", "water_reversion", "wire_life", "piston_clearance"] {
        assert_eq!(page.matches(&format!("(`{id}`,")).count(), 1, "{id}");
    }
    assert_eq!(page.lines().filter(|line| line.starts_with("- **")).count(), page.matches("(`").count());
}
