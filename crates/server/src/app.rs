//! The routes as one configuration, the same for the binary and the tests.

use crate::api::{
    about, begin, bench, builds, calibrate, choose, control, curve, diagnosis, documents, dyno, everything, history,
    instruments, motion, order, owner, pairing, parts, phasing, readings, score, search, sensitivity, service, shop,
    tolerance, workbench,
};
use crate::guard::{AllowedHosts, only_our_own, security_headers, whole_bodies};
use crate::instruments::Hub;
use crate::jobs::Jobs;
use crate::page::page;
use crate::pairing::{Door, Shop, is_of, paired_only};
use crate::problem::Problem;
use crate::shop::Lessons;
use actix_web::http::StatusCode;
use actix_web::http::header::{ALLOW, HeaderValue};
use actix_web::middleware::from_fn;
use actix_web::{HttpRequest, HttpResponse, ResponseError, error::JsonPayloadError, web};
use std::sync::LazyLock;
use upper_lobe_core::analysis::MAX_BYTES;
use upper_lobe_core::analysis::Stages;
use upper_lobe_store::{Damage, Store};
use utoipa::OpenApi;
use utoipa::openapi::PathItem;
use utoipa_actix_web::{AppExt, scope, service_config::ServiceConfig};

/// Largest request body: three documents for a merge, each of which may double in size as a JSON text
/// within JSON.
pub const MAX_BODY: usize = 6 * MAX_BYTES + 64 * 1024;

#[derive(OpenApi)]
#[openapi(info(title = "Upper Lobe", description = "Builds and the workbench of a local Upper Lobe."))]
struct Description;

/// What the routes share.
#[derive(Clone)]
pub struct Shared {
    /// The store.
    pub store: web::Data<Store>,
    /// What was found damaged when the store was opened.
    pub damage: web::Data<Vec<Damage>>,
    /// Cached stages.
    pub stages: web::Data<Stages>,
    /// What the shop's builds teach each other.
    pub lessons: web::Data<Lessons>,
    /// Work that takes seconds.
    pub jobs: web::Data<Jobs>,
    /// Instruments that are listened to.
    pub hub: web::Data<Hub>,
    /// Names the server answers to.
    pub hosts: web::Data<AllowedHosts>,
    /// Which door it stands at.
    pub door: web::Data<Door>,
    /// Devices of the shop's network.
    pub shop: web::Data<Shop>,
}

/// The API's routes.
pub fn api(config: &mut ServiceConfig) {
    config.service(
        scope::scope("/api")
            .service(builds::list_builds)
            .service(builds::list_revisions)
            .service(builds::open_revision)
            .service(builds::archive_build)
            .service(builds::restore_build)
            .service(builds::create_blank)
            .service(builds::open_build)
            .service(builds::create_build)
            .service(builds::save_build)
            .service(builds::delete_build)
            .service(documents::list_differences)
            .service(documents::merge_documents)
            .service(parts::list_parts)
            .service(parts::draw_lobes)
            .service(parts::export_parts)
            .service(parts::import_parts)
            .service(parts::try_part)
            .service(parts::keep_part)
            .service(parts::remove_part)
            .service(everything::export_everything)
            .service(everything::import_everything)
            .service(about::server_state)
            .service(about::glossary)
            .service(begin::list_families)
            .service(begin::begin_build)
            .service(begin::explain_card_cam)
            .service(curve::compute_curve)
            .service(choose::compute_choices)
            .service(score::score_candidates)
            .service(search::search_candidates)
            .service(control::compute_control)
            .service(control::film_trains)
            .service(calibrate::calibrate)
            .service(motion::fit_motion)
            .service(sensitivity::compute_sensitivity)
            .service(tolerance::draw_tolerances)
            .service(phasing::turn_cam)
            .service(bench::weigh_edits)
            .service(bench::lay_out_session)
            .service(bench::hold_session_against_document)
            .service(readings::take_readings)
            .service(dyno::compare_pulls)
            .service(diagnosis::look_into_pulls)
            .service(history::tell_history)
            .service(service::read_service_log)
            .service(service::service_calendar)
            .service(shop::read_shop)
            .service(owner::owner_report)
            .service(dyno::read_pull_file)
            .service(dyno::remember_pull_mapping)
            .service(pairing::who_asks)
            .service(pairing::pairing_state)
            .service(pairing::show_code)
            .service(pairing::hide_code)
            .service(pairing::pair_device)
            .service(pairing::list_devices)
            .service(pairing::shut_out_device)
            .service(instruments::list_instruments)
            .service(instruments::put_instrument)
            .service(instruments::remove_instrument)
            .service(instruments::listen_to_instrument)
            .service(instruments::last_pull)
            .service(workbench::workbench)
            .service(order::order)
            .service(order::order_workbook)
            .default_service(web::to(no_such_route)),
    );
}

/// Everything the application is made of: shared state, limits, API and page.
pub fn configure(shared: Shared) -> impl Fn(&mut web::ServiceConfig) + Clone {
    move |config| {
        let json = web::JsonConfig::default().limit(MAX_BODY).error_handler(|error, _| refuse_body(&error).into());
        config
            .app_data(shared.store.clone())
            .app_data(shared.damage.clone())
            .app_data(shared.stages.clone())
            .app_data(shared.lessons.clone())
            .app_data(shared.jobs.clone())
            .app_data(shared.hub.clone())
            .app_data(shared.hosts.clone())
            .app_data(shared.door.clone())
            .app_data(shared.shop.clone())
            .app_data(json)
            .app_data(web::FormConfig::default().limit(MAX_BODY).error_handler(|error, _| {
                Problem::new(StatusCode::BAD_REQUEST, "unreadable-request", error.to_string()).into()
            }))
            .app_data(web::PayloadConfig::new(MAX_BODY))
            .app_data(web::QueryConfig::default().error_handler(|error, _| {
                Problem::new(StatusCode::BAD_REQUEST, "unreadable-request", error.to_string()).into()
            }))
            .app_data(web::PathConfig::default().error_handler(|error, _| {
                Problem::new(StatusCode::NOT_FOUND, "no-such-path", error.to_string()).into()
            }))
            .service(
                web::scope("")
                    .wrap(from_fn(whole_bodies))
                    .wrap(from_fn(paired_only))
                    .wrap(from_fn(only_our_own))
                    .wrap(security_headers())
                    .configure(|scope| api(&mut ServiceConfig::new(scope)))
                    .service(
                        web::resource("/{path:.*}")
                            .route(web::get().to(page))
                            .route(web::head().to(page))
                            .default_service(web::to(only_read)),
                    ),
            );
    }
}

/// The API's paths as they are described, each with its methods.
static PATHS: LazyLock<Vec<(String, String)>> = LazyLock::new(|| {
    let all = methods_of(&open_api());
    let mut paths: Vec<String> = all.iter().map(|(_, path)| path.clone()).collect();
    paths.dedup();
    let methods = |path: &String| {
        all.iter().filter(|(_, own)| own == path).map(|(method, _)| method.as_str()).collect::<Vec<_>>().join(", ")
    };
    paths.into_iter().map(|path| (path.clone(), methods(&path))).collect()
});

/// Every method and path that is described.
pub fn methods_of(description: &utoipa::openapi::OpenApi) -> Vec<(String, String)> {
    let methods = |(path, item): (&String, &PathItem)| {
        let all = [("GET", &item.get), ("POST", &item.post), ("PUT", &item.put), ("DELETE", &item.delete)];
        let there = all.into_iter().filter(|(_, operation)| operation.is_some());
        there.map(|(word, _)| (word.to_owned(), path.clone())).collect::<Vec<_>>()
    };
    description.paths.paths.iter().flat_map(methods).collect()
}

async fn no_such_route(request: HttpRequest) -> HttpResponse {
    let Some((_, methods)) = PATHS.iter().find(|(pattern, _)| is_of(request.path(), pattern)) else {
        return Problem::new(StatusCode::NOT_FOUND, "no-such-path", "the API has no such path").error_response();
    };
    not_allowed(methods)
}

async fn only_read() -> HttpResponse {
    not_allowed("GET, HEAD")
}

fn not_allowed(methods: &str) -> HttpResponse {
    let detail = format!("this path takes {methods}");
    let mut answer = Problem::new(StatusCode::METHOD_NOT_ALLOWED, "no-such-method", detail).error_response();
    if let Ok(value) = HeaderValue::from_str(methods) {
        answer.headers_mut().insert(ALLOW, value);
    }
    answer
}

fn refuse_body(error: &JsonPayloadError) -> Problem {
    match error {
        JsonPayloadError::Overflow { .. } | JsonPayloadError::OverflowKnownLength { .. } => {
            Problem::new(StatusCode::PAYLOAD_TOO_LARGE, "too-large", format!("a request may have {MAX_BODY} bytes"))
        }
        other => Problem::new(StatusCode::BAD_REQUEST, "unreadable-request", other.to_string()),
    }
}

/// The API's description.
pub fn open_api() -> utoipa::openapi::OpenApi {
    let (_, description) =
        actix_web::App::new().into_utoipa_app().openapi(Description::openapi()).configure(api).split_for_parts();
    description
}
