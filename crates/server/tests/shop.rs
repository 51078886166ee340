//! The shop twin through the real application: builds that were on the dyno teach the next one that begins, and nothing else does.

use crate::application::{body, send};
use actix_web::test::TestRequest;
use serde_json::{Value, json};

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// A small V8 whose fit left behind that its friction alone explains what was off.
fn pulled(name: &str, spreads: f64) -> String {
    let mut document: Value = serde_json::from_str(DEMO).unwrap();
    // Nine points that friction moves by four errors a spread, the others by little: squares by hand.
    let own = [9.0, 144.0 * spreads * spreads + 9.0, 0.0, -144.0 * spreads, 0.0, 0.0];
    let curvature = [1.0, 0.0, 0.0, 0.0, 144.0, 0.0, 0.0, 1.0, 0.0, 1.0];
    let information: Vec<f64> = own.into_iter().chain(curvature).collect();
    document["name"] = json!(name);
    document["begun_from"] = json!("small_v8");
    document["calibration"] = json!({ "friction": 1.0 + 0.2 * spreads, "remaining": 0.01, "from": "2000 rpm", "to": "5600 rpm",
        "pulled": "a pull", "by": "pull", "information": information });
    document.to_string()
}

fn begin(family: &str) -> TestRequest {
    let beginning = json!({ "name": "The next", "family": family, "known": [] });
    TestRequest::post().uri("/api/begin").set_json(json!({ "beginning": beginning }))
}

#[actix_web::test]
async fn builds_that_were_pulled_teach_the_next_of_their_family() {
    let folder;
    let app = application!(folder);
    let keep = |document: String| TestRequest::post().uri("/api/builds").set_json(json!({ "document": document }));
    for (name, spreads) in [("One", 1.0), ("Two", 1.1)] {
        send(&app, keep(pulled(name, spreads))).await;
    }
    let begun = body(send(&app, begin("small_v8")).await).await;
    assert!(begun["shop"].is_null(), "two are too few: {}", begun["shop"]);
    let third = body(send(&app, keep(pulled("Three", 0.9))).await).await;

    let begun = body(send(&app, begin("small_v8")).await).await;
    let said = begun["shop"].as_str().unwrap();
    assert!(said.starts_with("Constants of the shop's 3 \u{201c}Small petrol V8\u{201d} builds"), "{said}");
    let document: Value = serde_json::from_str(begun["document"].as_str().unwrap()).unwrap();
    let friction = document["calibration"]["friction"].as_f64().unwrap();
    assert!((1.15..1.2).contains(&friction), "one spread of .2, drawn a little to the usual: {friction}");
    assert_eq!(document["calibration"]["by"], "shop");
    // Of another family nothing is known, and a build that only took the shop's constants teaches nothing.
    assert!(body(send(&app, begin("diesel_v8")).await).await["shop"].is_null());
    send(&app, keep(begun["document"].as_str().unwrap().to_owned())).await;
    assert_eq!(body(send(&app, begin("small_v8")).await).await["shop"], begun["shop"]);

    // The one in view counts as it is in view, not as it was kept.
    let ask = |build: Option<i64>| {
        TestRequest::post().uri("/api/shop").set_json(json!({ "document": pulled("Three", -1.5), "build": build }))
    };
    let names = |report: &Value| report["builds"].as_array().unwrap().len();
    let report = body(send(&app, ask(third["id"].as_i64())).await).await;
    assert_eq!((names(&report), report["levels"][1]["builds"].as_u64()), (3, Some(3)));
    assert_eq!(names(&body(send(&app, ask(None)).await).await), 4);

    // What a build teaches is that of its newest revision, and nothing once it is put away.
    let path = format!("/api/builds/{}", third["id"]);
    let saved = json!({ "base_revision": 1, "document": pulled("Three", 2.0) });
    send(&app, TestRequest::put().uri(&path).set_json(saved)).await;
    let begun = body(send(&app, begin("small_v8")).await).await;
    let document: Value = serde_json::from_str(begun["document"].as_str().unwrap()).unwrap();
    let after = document["calibration"]["friction"].as_f64().unwrap();
    assert!(after > friction + 0.05, "two spreads instead of .9 in one of three: {friction} to {after}");
    send(&app, TestRequest::post().uri(&format!("{path}/archive"))).await;
    assert!(body(send(&app, begin("small_v8")).await).await["shop"].is_null(), "two are left");
}
