//! The parts shelf over the API: a sheet in and out, a part tried, used, kept and taken away.

use crate::application::{body, send};
use actix_web::body::to_bytes;
use actix_web::http::StatusCode;
use actix_web::test::TestRequest;
use serde_json::{Value, json};

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const PARTS: &str = include_str!("../../../demo/parts.csv");

/// The application with the demo's parts on its shelf.
macro_rules! with_parts {
    ($folder:ident) => {{
        let app = application!($folder);
        let sheet = TestRequest::post().uri("/api/parts/sheet").set_json(json!({ "text": PARTS }));
        let answer = body(send(&app, sheet).await).await;
        assert_eq!(answer["changed"], 0);
        app
    }};
}

fn named<'a>(list: &'a Value, name: &str) -> &'a Value {
    let found = list.as_array().expect("a list").iter().find(|entry| entry["part"]["name"] == name);
    &found.unwrap_or_else(|| panic!("no {name}"))["part"]
}

#[actix_web::test]
async fn a_sheet_goes_in_and_comes_out_and_goes_in_again() {
    let folder;
    let app = with_parts!(folder);
    let response = send(&app, TestRequest::get().uri("/api/parts.csv")).await;
    assert_eq!(response.headers().get("content-type").expect("given"), "text/csv; charset=utf-8");
    let text = String::from_utf8(to_bytes(response.into_body()).await.unwrap().to_vec()).expect("text");
    let sheet = TestRequest::post().uri("/api/parts/sheet").set_json(json!({ "text": text }));
    let again = body(send(&app, sheet).await).await;
    let count = PARTS.lines().count() - 1;
    assert_eq!(again, json!({ "added": 0, "changed": 0, "unchanged": count }));
}

#[actix_web::test]
async fn a_sheet_with_one_bad_line_puts_nothing_on_the_shelf() {
    let folder;
    let app = application!(folder);
    let text = "part_kind,name,mass\nlifter,Good,100 g\nlifter,Bad,100 furlongs\n";
    let response = send(&app, TestRequest::post().uri("/api/parts/sheet").set_json(json!({ "text": text }))).await;
    assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(body(response).await["faults"][0]["field"], "line 3, mass");
    assert_eq!(body(send(&app, TestRequest::get().uri("/api/parts")).await).await, json!([]));
}

#[actix_web::test]
async fn a_part_is_tried_used_kept_under_another_name_and_taken_away() {
    let folder;
    let app = with_parts!(folder);
    let list = body(send(&app, TestRequest::get().uri("/api/parts")).await).await;
    let springs = named(&list, "Beehive 145 / 372");
    let trial = json!({ "document": DEMO, "candidate": "a", "part": springs });
    let tried = body(send(&app, TestRequest::post().uri("/api/parts/fit").set_json(trial)).await).await;
    assert!(tried["drags"].as_array().is_some_and(|drags| !drags.is_empty()), "{tried}");

    let edit = json!({ "use_part": { "candidate": "a", "part": springs } });
    let change = json!({ "set": { "field": "candidates[0].train.spring.mass", "text": "91 g" } });
    let work = json!({ "document": DEMO, "edits": [edit, change] });
    let worked = body(send(&app, TestRequest::post().uri("/api/workbench").set_json(work)).await).await;
    let document = worked["document"].as_str().expect("text");
    assert!(document.contains("Beehive 145 / 372, edited"));

    let keep = json!({ "document": document, "candidate": "a", "kind": "spring", "side": "intake", "name": "Weighed" });
    let kept = send(&app, TestRequest::post().uri("/api/parts/keep").set_json(keep.clone())).await;
    assert_eq!(kept.status(), StatusCode::CREATED);
    assert_eq!(body(kept).await["copy_of"], "Beehive 145 / 372");
    let twice = send(&app, TestRequest::post().uri("/api/parts/keep").set_json(keep)).await;
    assert_eq!(twice.status(), StatusCode::CONFLICT);

    let gone = || TestRequest::delete().uri("/api/parts?kind=spring&name=Weighed");
    assert_eq!(send(&app, gone()).await.status(), StatusCode::NO_CONTENT);
    assert_eq!(send(&app, gone()).await.status(), StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_part_nobody_can_use_is_refused_by_its_field() {
    let folder;
    let app = application!(folder);
    let part = json!({ "kind": "spring", "name": "Bad", "fields": { "mass": "heavy" } });
    for (uri, request) in [
        ("/api/parts/fit", json!({ "document": DEMO, "candidate": "a", "part": part })),
        ("/api/workbench", json!({ "document": DEMO, "edits": [{ "use_part": { "candidate": "a", "part": part } }] })),
    ] {
        let response = send(&app, TestRequest::post().uri(uri).set_json(request)).await;
        assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY, "{uri}");
        assert_eq!(body(response).await["faults"][0]["field"], "mass", "{uri}");
    }
    let good = json!({ "kind": "spring", "name": "Good", "fields": { "mass": "90 g" } });
    for query in ["kind=wheel&name=x", "kind=spring", ""] {
        let response = send(&app, TestRequest::delete().uri(&format!("/api/parts?{query}"))).await;
        assert_eq!(response.status(), StatusCode::BAD_REQUEST, "{query}");
        assert_eq!(body(response).await["type"], "urn:upper-lobe:problem:unreadable-request", "{query}");
    }
    let nowhere = json!({ "document": DEMO, "candidate": "z", "part": good });
    let response = send(&app, TestRequest::post().uri("/api/parts/fit").set_json(nowhere)).await;
    assert_eq!(body(response).await["faults"][0]["field"], "candidate");
}
