//! The real application on a temporary database: what it serves, what it refuses, how it says so.

#![allow(clippy::expect_used, clippy::unwrap_used)]

use actix_http::Request;
use actix_web::body::{BoxBody, MessageBody, to_bytes};
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::test::{TestRequest, call_service, init_service};
use actix_web::{App, Error, web};
use serde_json::{Value, json};
use upper_lobe_core::analysis::Stages;
use upper_lobe_server::app::{Shared, configure};
use upper_lobe_server::guard::AllowedHosts;
use upper_lobe_store::Store;

const DEMO: &str = include_str!("../../../demo/tollgate-388-hauler.json");
const HOST: (&str, &str) = ("Host", "127.0.0.1:8080");

async fn shared(folder: &tempfile::TempDir) -> Shared {
    let store = Store::open(&folder.path().join("test.db")).await.expect("a store");
    Shared {
        store: web::Data::new(store),
        stages: web::Data::new(Stages::default()),
        hosts: web::Data::new(AllowedHosts::loopback(8080)),
    }
}

/// The application on a database of its own; the folder must outlive it.
macro_rules! application {
    ($folder:ident) => {{
        $folder = tempfile::tempdir().expect("a folder");
        init_service(App::new().configure(configure(shared(&$folder).await))).await
    }};
}

async fn body<B: MessageBody>(response: ServiceResponse<B>) -> Value {
    let bytes = to_bytes(response.into_body()).await.unwrap_or_default();
    serde_json::from_slice(&bytes).expect("JSON")
}

async fn send<S>(app: &S, request: TestRequest) -> ServiceResponse<BoxBody>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    call_service(app, request.insert_header(HOST).to_request()).await
}

#[actix_web::test]
async fn an_edit_comes_back_as_document_form_and_analysis() {
    let folder;
    let app = application!(folder);
    let request = json!({
        "document": DEMO, "candidate": "a", "form": true,
        "edits": [{ "type_event": { "candidate": "a", "event": "intake_closes", "text": "36" } }, { "set": { "field": "engine.bore", "text": "4.065" } }]
    });
    let response = send(&app, TestRequest::post().uri("/api/workbench").set_json(request)).await;
    assert_eq!(response.status(), StatusCode::OK);
    let answer = body(response).await;
    assert!(answer["document"].as_str().expect("text").contains("\"bore\": \"4.065 in\""));
    let closes = answer["analysis"]["candidates"][0]["timing"]["intake"]["closes_050_deg"].as_f64().expect("known");
    assert!((closes - 36.0).abs() < 1e-6);
    let bore = answer["fields"].as_array().expect("a form").iter().find(|f| f["field"] == "engine.bore").expect("bore");
    assert_eq!((bore["shown"]["metric"].as_str(), bore["source"].as_str()), (Some("103.25 mm"), Some("measured")));
}

#[actix_web::test]
async fn a_document_without_edits_comes_back_to_the_letter() {
    let folder;
    let app = application!(folder);
    let response = send(&app, TestRequest::post().uri("/api/workbench").set_json(json!({ "document": DEMO }))).await;
    assert_eq!(body(response).await["document"], DEMO);
}

#[actix_web::test]
async fn refused_values_are_problem_details_with_every_fault() {
    let folder;
    let app = application!(folder);
    let edits = json!([{ "set": { "field": "engine.bore", "text": "4 lbf" } }]);
    let request = TestRequest::post().uri("/api/workbench").set_json(json!({ "document": DEMO, "edits": edits }));
    let response = send(&app, request).await;
    assert_eq!(response.status(), StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(response.headers().get("content-type").expect("a type"), "application/problem+json");
    let problem = body(response).await;
    assert_eq!(problem["type"], "urn:upper-lobe:problem:refused-values");
    assert_eq!(
        (problem["faults"][0]["field"].as_str(), problem["faults"][0]["given"].as_str()),
        (Some("engine.bore"), Some("4 lbf"))
    );
}

#[actix_web::test]
async fn saves_name_their_revision_and_stale_ones_change_nothing() {
    let folder;
    let app = application!(folder);
    let made =
        body(send(&app, TestRequest::post().uri("/api/builds").set_json(json!({ "document": DEMO }))).await).await;
    let path = format!("/api/builds/{}", made["id"]);
    let save = |base: i64, document: &str| {
        TestRequest::put().uri(&path).set_json(json!({ "base_revision": base, "document": document }))
    };
    let renamed = DEMO.replace("Tollgate 388 hauler", "Renamed");
    assert_eq!(body(send(&app, save(1, &renamed)).await).await["revision"], 2);
    let stale = send(&app, save(1, DEMO)).await;
    assert_eq!(stale.status(), StatusCode::CONFLICT);
    assert_eq!(body(stale).await["newest_revision"], 2);
    let refused = send(&app, save(2, &DEMO.replace("\"4.060 in\"", "\"4.060\""))).await;
    assert_eq!(refused.status(), StatusCode::UNPROCESSABLE_ENTITY);
    let opened = body(send(&app, TestRequest::get().uri(&path)).await).await;
    assert_eq!(
        (opened["summary"]["revision"].as_i64(), opened["document"].as_str()),
        (Some(2), Some(renamed.as_str()))
    );
    assert_eq!(send(&app, TestRequest::get().uri("/api/builds/99")).await.status(), StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn requests_for_or_from_elsewhere_are_refused() {
    let folder;
    let app = application!(folder);
    let cases = [
        (Some("127.0.0.1:8080"), None, StatusCode::OK),
        (Some("localhost:8080"), Some("http://localhost:8080"), StatusCode::OK),
        (Some("[::1]:8080"), None, StatusCode::OK),
        (Some("rebound.example:8080"), None, StatusCode::FORBIDDEN),
        (Some("127.0.0.1:9999"), None, StatusCode::FORBIDDEN),
        (Some("127.0.0.1:8080"), Some("http://elsewhere.example"), StatusCode::FORBIDDEN),
        (Some("127.0.0.1:8080"), Some("https://127.0.0.1:8080"), StatusCode::FORBIDDEN),
        (Some("127.0.0.1:8080"), Some("null"), StatusCode::FORBIDDEN),
        (None, None, StatusCode::FORBIDDEN),
    ];
    for (host, origin, status) in cases {
        let mut request = TestRequest::get().uri("/api/builds");
        if let Some(host) = host {
            request = request.insert_header(("Host", host));
        }
        if let Some(origin) = origin {
            request = request.insert_header(("Origin", origin));
        }
        let response = call_service(&app, request.to_request()).await;
        assert_eq!(response.status(), status, "{host:?} {origin:?}");
        assert_eq!(response.headers().get("x-content-type-options").expect("set"), "nosniff");
    }
}

#[actix_web::test]
async fn bodies_that_are_too_large_or_no_json_are_refused() {
    let folder;
    let app = application!(folder);
    let large = TestRequest::post()
        .uri("/api/builds")
        .insert_header(("content-type", "application/json"))
        .set_payload(vec![b' '; 10 << 20]);
    assert_eq!(send(&app, large).await.status(), StatusCode::PAYLOAD_TOO_LARGE);
    let broken =
        TestRequest::post().uri("/api/workbench").insert_header(("content-type", "application/json")).set_payload("{");
    let response = send(&app, broken).await;
    assert_eq!(response.status(), StatusCode::BAD_REQUEST);
    assert_eq!(body(response).await["type"], "urn:upper-lobe:problem:unreadable-request");
    let stray = TestRequest::post().uri("/api/workbench").set_json(json!({ "document": DEMO, "edit": [] }));
    assert_eq!(send(&app, stray).await.status(), StatusCode::BAD_REQUEST);
    assert_eq!(send(&app, TestRequest::get().uri("/api/nothing")).await.status(), StatusCode::NOT_FOUND);
    assert_eq!(send(&app, TestRequest::get().uri("/api/builds/x")).await.status(), StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn every_page_has_a_nonce_of_its_own_and_no_inline_script() {
    let folder;
    let app = application!(folder);
    let mut policies = Vec::new();
    for _ in 0..2 {
        let response = send(&app, TestRequest::get().uri("/")).await;
        if response.status() == StatusCode::NOT_FOUND {
            // Built without the front end: the browser tests hold the page.
            return;
        }
        let policy =
            response.headers().get("content-security-policy").expect("a policy").to_str().expect("text").to_owned();
        let html = String::from_utf8(to_bytes(response.into_body()).await.unwrap_or_default().to_vec()).expect("text");
        let nonce = policy.split("'nonce-").nth(1).and_then(|rest| rest.split('\'').next()).expect("a nonce");
        assert!(nonce.len() == 32 && html.contains(nonce) && !html.contains("__CSP_NONCE__"));
        assert!(policy.contains("default-src 'none'") && !policy.contains("unsafe"));
        policies.push(policy);
    }
    assert_ne!(policies[0], policies[1]);
}
