//! The door to the shop's network, attacked: each test is a line of the OWASP lists it is held against (Authentication, Session
//! Management, Authorization, Cross-Site Request Forgery Prevention, Logging cheat sheets and the API Security Top 10, 2023; the
//! lines are from memory).

use crate::application::{body, limits_of, shared_on};
use actix_http::Request;
use actix_web::body::{BoxBody, MessageBody, to_bytes};
use actix_web::cookie::Cookie;
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::{Method, StatusCode, header};
use actix_web::test::{TestRequest, call_service, init_service};
use actix_web::{App, Error, web};
use serde_json::{Value, json};
use upper_lobe_core::analysis::Build;
use upper_lobe_server::app::{Shared, configure, methods_of, open_api};
use upper_lobe_server::guard::AllowedHosts;
use upper_lobe_server::pairing::{COOKIE, Door, OF_THE_MAIN_SCREEN, Role, Shop, allowed};
use upper_lobe_store::Store;

const ADDRESS: &str = "https://192.168.1.20:8443";
const TOW: &str = include_str!("../../../demo/tollgate-388-hauler.json");

/// A server with both doors on one store.
struct Doors {
    _folder: tempfile::TempDir,
    here: Shared,
    shop: Shared,
}

impl Doors {
    async fn new() -> Self {
        let folder = tempfile::tempdir().unwrap();
        let own = shared_on(Store::open(&folder.path().join("test.db")).await.unwrap());
        let here = Shared { shop: web::Data::new(Shop::open(vec![ADDRESS.to_owned()], "AB:CD".to_owned())), ..own };
        let hosts = web::Data::new(AllowedHosts::of(vec![ADDRESS.to_owned()]));
        let shop = Shared { hosts, door: web::Data::new(Door::Shop), ..here.clone() };
        Self { _folder: folder, here, shop }
    }

    fn code(&self, role: Role) -> String {
        self.here.shop.show_code(role).unwrap().shown()
    }

    async fn build(&self) -> i64 {
        self.here.store.create("Tow", TOW).await.unwrap().id
    }
}

macro_rules! door {
    ($shared:expr) => {
        init_service(App::new().configure(configure($shared.clone()))).await
    };
}

/// A request as this server's own page in a device of the network sends it.
fn from_page(method: Method, path: &str) -> TestRequest {
    let request = TestRequest::default().method(method).uri(path).peer_addr("192.168.1.31:50000".parse().unwrap());
    request.insert_header((header::HOST, "192.168.1.20:8443")).insert_header((header::ORIGIN, ADDRESS))
}

async fn ask<S>(app: &S, request: TestRequest) -> ServiceResponse<BoxBody>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    call_service(app, request.to_request()).await
}

fn pairing(code: &str) -> TestRequest {
    from_page(Method::POST, "/api/pair").set_json(json!({ "code": code, "name": "Tablet at the bench" }))
}

/// The cookie of a device that was just paired.
fn token<B: MessageBody>(response: &ServiceResponse<B>) -> Cookie<'static> {
    let set = response.headers().get(header::SET_COOKIE).expect("a cookie").to_str().unwrap();
    Cookie::parse(set.to_owned()).unwrap()
}

async fn paired<S>(app: &S, doors: &Doors, role: Role) -> Cookie<'static>
where
    S: Service<Request, Response = ServiceResponse<BoxBody>, Error = Error>,
{
    let response = ask(app, pairing(&doors.code(role))).await;
    assert_eq!(response.status(), StatusCode::OK);
    token(&response)
}

fn all_routes() -> Vec<(String, String)> {
    methods_of(&open_api())
}

fn concrete(path: &str) -> String {
    path.replace("{id}", "1").replace("{number}", "1").replace("{name}", "dial")
}

#[test]
fn every_route_was_decided_once() {
    for (method, path) in all_routes() {
        let of_main = OF_THE_MAIN_SCREEN.iter().filter(|own| **own == (method.as_str(), path.as_str())).count();
        let of_devices = usize::from(allowed(&method, &path).is_some());
        assert_eq!(of_main + of_devices, 1, "{method} {path}");
    }
}

#[actix_web::test]
async fn who_is_not_paired_reaches_nothing_but_the_code() {
    // API1, API2: every route, and every way of writing it.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let (mut refused, mut asked) = (0, 0);
    for (method, path) in all_routes() {
        if ["/api/me", "/api/pair"].contains(&path.as_str()) {
            continue;
        }
        let method = Method::from_bytes(method.as_bytes()).unwrap();
        let path = concrete(&path);
        for written in [path.clone(), path.replacen("/api", "/%61pi", 1), format!("{path}?x=/api/me")] {
            asked += 1;
            let status = ask(&app, from_page(method.clone(), &written).set_json(json!({}))).await.status();
            refused += usize::from(status == StatusCode::UNAUTHORIZED);
        }
    }
    assert!(asked > 120);
    assert_eq!(refused, asked);
    // Other spellings are no routes: the page, which holds nothing, or nothing at all.
    for path in
        ["//api/builds", "/api//builds", "/api/builds/", "/API/builds", "/api/../api/builds", "/api/me/../builds"]
    {
        let response = ask(&app, from_page(Method::GET, path)).await;
        let bytes = to_bytes(response.into_body()).await.unwrap_or_default();
        assert!(!String::from_utf8_lossy(&bytes).contains("revision"), "{path}");
    }
    let me = body(ask(&app, from_page(Method::GET, "/api/me")).await).await;
    assert_eq!(me, json!({ "here": false, "lan": true, "role": null, "name": null }));
}

#[actix_web::test]
async fn codes_are_guessed_in_vain() {
    // Authentication: throttled, the same answer for whatever is wrong, spent after a few tries.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let right = doors.code(Role::Everything);
    let mut answers = Vec::new();
    for guess in 0..1_000 {
        let response = ask(&app, pairing(&format!("{:0>8}", guess + 22_222_222))).await;
        answers.push(response.status());
        assert!(!response.headers().contains_key(header::SET_COOKIE));
    }
    let count = |status| answers.iter().filter(|own| **own == status).count();
    assert_eq!((count(StatusCode::FORBIDDEN), count(StatusCode::TOO_MANY_REQUESTS)), (20, 980));
    assert_eq!(ask(&app, pairing(&right)).await.status(), StatusCode::TOO_MANY_REQUESTS);
    assert_eq!(doors.here.store.devices().await.unwrap(), []);
    // Wrong, never shown and spent read alike.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let never = body(ask(&app, pairing("AAAA-AAAA")).await).await;
    let right = doors.code(Role::Look);
    let wrong = body(ask(&app, pairing("AAAA-AAAA")).await).await;
    assert_eq!(ask(&app, pairing(&right)).await.status(), StatusCode::OK);
    let spent = body(ask(&app, pairing(&right)).await).await;
    assert_eq!((&never, &never), (&wrong, &spent));
}

#[actix_web::test]
async fn the_token_is_long_secret_and_new_each_time() {
    // Session management: attributes, entropy, no fixation, kept as a digest, never in an answer's body.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let chosen = Cookie::new(COOKIE, "a-token-somebody-chose");
    let response = ask(&app, pairing(&doors.code(Role::Look)).cookie(chosen)).await;
    let own = token(&response);
    assert_eq!((own.secure(), own.http_only(), own.path(), own.domain()), (Some(true), Some(true), Some("/"), None));
    assert_eq!(own.same_site(), Some(actix_web::cookie::SameSite::Strict));
    assert_eq!(own.max_age(), Some(actix_web::cookie::time::Duration::days(90)));
    assert!(own.name().starts_with("__Host-") && own.value().len() == 64);
    assert!(!body(response).await.to_string().contains(own.value()));
    let other = paired(&app, &doors, Role::Look).await;
    assert_ne!(own.value(), other.value());
    let kept = std::fs::read(doors._folder.path().join("test.db-wal")).unwrap();
    assert!(!kept.windows(64).any(|bytes| bytes == own.value().as_bytes()), "kept as its digest only");
    for wrong in ["a-token-somebody-chose", "", &own.value()[..63], &format!("{}0", own.value())] {
        let request = from_page(Method::GET, "/api/builds").cookie(Cookie::new(COOKIE, wrong.to_owned()));
        assert_eq!(ask(&app, request).await.status(), StatusCode::UNAUTHORIZED, "{wrong}");
    }
    // Another name of the same cookie is none.
    let request =
        from_page(Method::GET, "/api/builds").cookie(Cookie::new("upper-lobe-device", own.value().to_owned()));
    assert_eq!(ask(&app, request).await.status(), StatusCode::UNAUTHORIZED);
}

#[actix_web::test]
async fn other_pages_and_other_names_are_refused() {
    // Request forgery: whose page asks, by which name, from where.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let own = paired(&app, &doors, Role::Everything).await;
    let blank =
        || from_page(Method::POST, "/api/builds/blank").set_json(json!({ "name": "Forged" })).cookie(own.clone());
    for foreign in ["https://evil.example", "http://192.168.1.20:8443", "https://192.168.1.20", "null"] {
        let request = blank().insert_header((header::ORIGIN, foreign));
        assert_eq!(ask(&app, request).await.status(), StatusCode::FORBIDDEN, "{foreign}");
    }
    for host in ["evil.example", "192.168.1.20", "localhost:8443", "127.0.0.1:8080"] {
        assert_eq!(
            ask(&app, blank().insert_header((header::HOST, host))).await.status(),
            StatusCode::FORBIDDEN,
            "{host}"
        );
    }
    let without = TestRequest::post().uri("/api/builds/blank").insert_header((header::HOST, "192.168.1.20:8443"));
    let without = without.set_json(json!({ "name": "Forged" })).cookie(own.clone());
    assert_eq!(ask(&app, without).await.status(), StatusCode::FORBIDDEN);
    let from_afar = blank().peer_addr("203.0.113.9:50000".parse().unwrap());
    assert_eq!(ask(&app, from_afar).await.status(), StatusCode::FORBIDDEN);
    assert!(doors.here.store.list(false).await.unwrap().is_empty());
    assert_eq!(ask(&app, blank()).await.status(), StatusCode::CREATED);
    // The main screen's door does not answer to the network's name, and pairs nobody.
    let here = door!(doors.here);
    assert_eq!(ask(&here, from_page(Method::GET, "/api/builds")).await.status(), StatusCode::FORBIDDEN);
}

#[actix_web::test]
async fn a_role_is_kept_to_on_every_route() {
    // API5: what a role may is decided by the server, route by route.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    for role in [Role::Look, Role::Readings, Role::Everything] {
        let own = paired(&app, &doors, role).await;
        for (method, path) in all_routes() {
            if path.contains("live") {
                continue;
            }
            let may = allowed(&method, &path).is_some_and(|(found, _)| found.least.is_none_or(|least| role >= least));
            let asked = Method::from_bytes(method.as_bytes()).unwrap();
            let request = from_page(asked, &concrete(&path)).set_json(json!({})).cookie(own.clone());
            let status = ask(&app, request).await.status();
            assert_eq!(
                status != StatusCode::FORBIDDEN || path == "/api/pair",
                may,
                "{role:?} {method} {path}: {status}"
            );
        }
    }
}

#[actix_web::test]
async fn one_that_takes_readings_changes_nothing_else() {
    // API3, authorization: within a document too.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let id = doors.build().await;
    let own = paired(&app, &doors, Role::Readings).await;
    let save = |change: &dyn Fn(&mut Value)| {
        let mut value: Value = serde_json::from_str(TOW).unwrap();
        change(&mut value);
        let document = Build::from_value(value).unwrap().text();
        let request = from_page(Method::PUT, &format!("/api/builds/{id}")).cookie(own.clone());
        request.set_json(json!({ "base_revision": 1, "document": document }))
    };
    let session = json!([{ "id": "s9", "kind": "decks", "candidate": "a" }]);
    let refused = [
        save(&|value| value["engine"]["bore"] = json!("4.070 in")),
        save(&|value| value["name"] = json!("Mine")),
        save(&|value| {
            value["bench"] = session.clone();
            value["candidates"][0]["cam"]["lobe_separation"] = json!("108 deg");
        }),
        save(&|value| {
            value.as_object_mut().unwrap().remove("target");
        }),
    ];
    for (place, request) in refused.into_iter().enumerate() {
        let response = ask(&app, request).await;
        assert_eq!(response.status(), StatusCode::FORBIDDEN, "{place}");
        assert!(body(response).await["detail"].as_str().unwrap().contains("readings only"));
    }
    let sneaky = json!({ "key": "k", "edits": [{ "set": { "field": "engine.bore", "text": "4.070 in" } }] });
    let readings = |value: &Value| {
        from_page(Method::POST, &format!("/api/builds/{id}/readings")).cookie(own.clone()).set_json(value.clone())
    };
    assert_eq!(ask(&app, readings(&sneaky)).await.status(), StatusCode::FORBIDDEN);
    assert_eq!(doors.here.store.newest(id).await.unwrap().entry.revision, 1);
    assert_eq!(ask(&app, save(&|value| value["bench"] = session.clone())).await.status(), StatusCode::OK);
    // What it did is in the log; what was refused is not.
    let log: Vec<_> = doors.here.store.device_changes().await.unwrap().into_iter().map(|own| own.what).collect();
    assert_eq!(log, ["saved build 1: bench"]);
}

#[actix_web::test]
async fn readings_arrive_once_and_in_order_whoever_else_saves() {
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let id = doors.build().await;
    let path = format!("/api/builds/{id}/readings");
    let (one, two) = (paired(&app, &doors, Role::Readings).await, paired(&app, &doors, Role::Readings).await);
    let send =
        |who: &Cookie<'static>, value: &Value| from_page(Method::POST, &path).cookie(who.clone()).set_json(value);
    let begin = json!({ "key": "begin", "edits": [
        { "begin_session": { "session": "s9", "kind": "rocker_mass", "candidate": "a", "date": "2026-11-30", "by": "" } }
    ] });
    assert_eq!(ask(&app, send(&one, &begin)).await.status(), StatusCode::OK);
    let mass = |key: &str, grams: &str| {
        let cells = json!(["1", grams, "20 g"]);
        json!({ "key": key, "edits": [{ "take_reading": { "session": "s9", "table": "masses", "cells": cells } }] })
    };
    // Two tablets in turn, one of which hears no answer and sends again; the main screen saves in between.
    for (who, value) in
        [(&one, mass("a", "70 g")), (&two, mass("b", "71 g")), (&one, mass("a", "70 g")), (&two, mass("c", "72 g"))]
    {
        let response = ask(&app, send(who, &value)).await;
        let status = response.status();
        assert_eq!(status, StatusCode::OK, "{}", body(response).await);
        let newest = doors.here.store.newest(id).await.unwrap();
        let renamed = newest.document.replacen("\"name\": \"Tollgate", "\"name\": \"The Tollgate", 1);
        doors.here.store.save(id, newest.entry.revision, "Tow", &renamed).await.unwrap();
    }
    let newest: Value = serde_json::from_str(&doors.here.store.newest(id).await.unwrap().document).unwrap();
    let rows: Vec<_> = newest["bench"][0]["masses"].as_array().unwrap().iter().map(|row| row[1].clone()).collect();
    assert_eq!(rows, [json!("70 g"), json!("71 g"), json!("72 g")]);
    // A reading that cannot be is refused whole, and its key stays free for the right one.
    let wrong = mass("d", "7o g");
    assert_eq!(ask(&app, send(&one, &wrong)).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(ask(&app, send(&one, &mass("d", "70.5 g"))).await.status(), StatusCode::OK);
    let log: Vec<_> = doors.here.store.device_changes().await.unwrap().into_iter().map(|own| own.what).collect();
    assert_eq!(log.len(), 6, "one that was there already is told as sent, not as taken: {log:?}");
    assert_eq!(log[5], "took readings into build 1: began s9, rocker mass");
    assert_eq!(log[4], "took readings into build 1: s9 read 1, 70 g, 20 g");
    let long = json!({ "key": "k".repeat(65), "edits": [] });
    assert_eq!(ask(&app, send(&one, &long)).await.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn a_device_that_was_shut_out_is_out_at_once() {
    // Session management: revoked on the server, for open streams too.
    let doors = Doors::new().await;
    let (app, here) = (door!(doors.shop), door!(doors.here));
    let own = paired(&app, &doors, Role::Look).await;
    let look = || from_page(Method::GET, "/api/builds").cookie(own.clone());
    assert_eq!(ask(&app, look()).await.status(), StatusCode::OK);
    // A stream that is open while its device is shut out.
    let stand_in = std::net::TcpListener::bind("127.0.0.1:0").unwrap();
    let address = stand_in.local_addr().unwrap().to_string();
    let dial = json!({ "name": "dial", "at": format!("tcp {address}"), "format": { "measures": "length" } });
    let put = TestRequest::put().uri("/api/instruments").insert_header(crate::application::HOST).set_json(dial);
    assert_eq!(call_service(&here, put.to_request()).await.status(), StatusCode::OK);
    let live = ask(&app, from_page(Method::GET, "/api/instruments/dial/live").cookie(own.clone())).await;
    assert_eq!(live.status(), StatusCode::OK);
    let out = TestRequest::delete().uri("/api/devices/1").insert_header(crate::application::HOST);
    let out = body(call_service(&here, out.to_request()).await).await;
    assert!(out["devices"][0]["shut_out_at"].is_string());
    assert_eq!(ask(&app, look()).await.status(), StatusCode::UNAUTHORIZED);
    let rest = to_bytes(live.into_body()).await.unwrap_or_default();
    assert_eq!(rest.len(), 0, "nothing more goes out");
    let again = TestRequest::delete().uri("/api/devices/1").insert_header(crate::application::HOST);
    assert_eq!(call_service(&here, again.to_request()).await.status(), StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn long_names_and_long_bodies_stop_at_the_door() {
    // API4: unrestricted consumption; injection through a name.
    let doors = Doors::new().await;
    let app = door!(doors.shop);
    let code = doors.code(Role::Look);
    for name in ["", "   ", &"n".repeat(41), "two\nlines", "bell\u{7}"] {
        let request = from_page(Method::POST, "/api/pair").set_json(json!({ "code": code, "name": name }));
        assert_eq!(ask(&app, request).await.status(), StatusCode::UNPROCESSABLE_ENTITY, "{name:?}");
    }
    let long = json!({ "code": code, "name": "n".repeat(5_000) });
    let measured = from_page(Method::POST, "/api/pair").insert_header((header::CONTENT_LENGTH, "5040")).set_json(long);
    assert_eq!(ask(&app, measured).await.status(), StatusCode::PAYLOAD_TOO_LARGE);
    let endless = from_page(Method::POST, "/api/pair").insert_header((header::TRANSFER_ENCODING, "chunked"));
    let endless = ask(&app, endless.set_json(json!({}))).await;
    let status = endless.status();
    assert_eq!(status, StatusCode::PAYLOAD_TOO_LARGE, "{}", body(endless).await);
    // None of it was a try: the code is still good.
    let script = from_page(Method::POST, "/api/pair").set_json(json!({ "code": code, "name": "<b onload=x>'; --" }));
    assert_eq!(ask(&app, script).await.status(), StatusCode::OK);
    assert_eq!(doors.here.store.devices().await.unwrap()[0].name, "<b onload=x>'; --");
}

#[actix_web::test]
async fn the_main_screen_needs_none_of_it() {
    let doors = Doors::new().await;
    let here = door!(doors.here);
    assert!(!limits_of(&here, TOW).await.is_empty());
    let me = TestRequest::get().uri("/api/me").insert_header(crate::application::HOST);
    assert_eq!(body(call_service(&here, me.to_request()).await).await["role"], "everything");
    let shown = TestRequest::post().uri("/api/pairing").insert_header(crate::application::HOST);
    let shown = body(call_service(&here, shown.set_json(json!({ "role": "readings" })).to_request()).await).await;
    let code = shown["code"].as_str().unwrap();
    assert_eq!(shown["links"][0]["link"], json!(format!("{ADDRESS}/#/pair/{code}")));
    assert!(shown["links"][0]["qr_svg"].as_str().unwrap().contains("<svg"));
    let state = || TestRequest::get().uri("/api/pairing").insert_header(crate::application::HOST);
    let open = body(call_service(&here, state().to_request()).await).await;
    assert_eq!(open["fingerprint"], "AB:CD");
    assert!((170..=180).contains(&open["code_left_s"].as_u64().unwrap()));
    let hide = TestRequest::delete().uri("/api/pairing").insert_header(crate::application::HOST);
    assert_eq!(call_service(&here, hide.to_request()).await.status(), StatusCode::NO_CONTENT);
    assert!(body(call_service(&here, state().to_request()).await).await["code_left_s"].is_null());
}
