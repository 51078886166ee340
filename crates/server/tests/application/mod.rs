//! The application on a database of its own, for tests.

use actix_http::Request;
use actix_web::body::{BoxBody, MessageBody, to_bytes};
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::test::{TestRequest, call_service};
use actix_web::{Error, web};
use serde_json::{Value, json};
use upper_lobe_core::analysis::Stages;
use upper_lobe_server::app::Shared;
use upper_lobe_server::guard::AllowedHosts;
use upper_lobe_server::instruments::Hub;
use upper_lobe_server::jobs::Jobs;
use upper_lobe_server::pairing::{Door, Shop};
use upper_lobe_server::shop::Lessons;
use upper_lobe_store::Store;

pub const HOST: (&str, &str) = ("Host", "127.0.0.1:8080");

pub async fn shared(folder: &tempfile::TempDir) -> Shared {
    shared_on(Store::open(&folder.path().join("test.db")).await.expect("a store"))
}

/// What the routes share, on a store that is open.
pub fn shared_on(store: Store) -> Shared {
    Shared {
        damage: web::Data::new(Vec::new()),
        store: web::Data::new(store),
        stages: web::Data::new(Stages::default()),
        lessons: web::Data::new(Lessons::default()),
        jobs: web::Data::new(Jobs::default()),
        hub: web::Data::new(Hub::default()),
        hosts: web::Data::new(AllowedHosts::loopback(8080)),
        door: web::Data::new(Door::Here),
        shop: web::Data::new(Shop::closed()),
    }
}

/// The application on a database of its own; the folder must outlive it.
#[macro_export]
macro_rules! application {
    ($folder:ident) => {{
        $folder = tempfile::tempdir().expect("a folder");
        actix_web::test::init_service(
            actix_web::App::new()
                .configure(upper_lobe_server::app::configure($crate::application::shared(&$folder).await)),
        )
        .await
    }};
}

pub async fn body<B: MessageBody>(response: ServiceResponse<B>) -> Value {
    let bytes = to_bytes(response.into_body()).await.unwrap_or_default();
    serde_json::from_slice(&bytes).expect("JSON")
}

pub async fn send<S>(app: &S, request: TestRequest) -> ServiceResponse<BoxBody>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    call_service(app, request.insert_header(HOST).to_request()).await
}

/// The lines of a job.
pub async fn lines<S>(app: &S, path: &str, request: Value) -> Vec<Value>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    let response = send(app, TestRequest::post().uri(path).set_json(request)).await;
    assert_eq!(response.status(), StatusCode::OK);
    let bytes = to_bytes(response.into_body()).await.unwrap_or_default();
    let text = String::from_utf8(bytes.to_vec()).expect("text");
    text.lines().map(|line| serde_json::from_str(line).expect("JSON")).collect()
}

/// The limits of the first candidate as the screen has them, with whatever was computed before.
#[allow(dead_code)]
pub async fn limits_of<S>(app: &S, document: &str) -> Vec<Value>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    let asked =
        TestRequest::post().uri("/api/workbench").set_json(json!({ "document": document, "parts": ["limits"] }));
    let answer = body(send(app, asked).await).await;
    answer["analysis"]["candidates"][0]["limits"].as_array().cloned().unwrap_or_else(|| panic!("{answer}"))
}
