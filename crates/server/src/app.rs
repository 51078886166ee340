//! The routes as one configuration, the same for the binary and the tests.

use crate::api::{about, builds, calibrate, curve, documents, parts, sensitivity, workbench};
use crate::guard::{AllowedHosts, only_our_own, security_headers};
use crate::jobs::Jobs;
use crate::page::page;
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::middleware::from_fn;
use actix_web::{HttpResponse, error::JsonPayloadError, web};
use upper_lobe_core::analysis::MAX_BYTES;
use upper_lobe_core::analysis::Stages;
use upper_lobe_store::Store;
use utoipa::OpenApi;
use utoipa_actix_web::{AppExt, scope, service_config::ServiceConfig};

/// Largest request body: three documents for a merge, each of which may double in size as a JSON text
/// within JSON.
const MAX_BODY: usize = 6 * MAX_BYTES + 64 * 1024;

#[derive(OpenApi)]
#[openapi(info(title = "Upper Lobe", description = "Builds and the workbench of a local Upper Lobe."))]
struct Description;

/// What the routes share.
#[derive(Clone)]
pub struct Shared {
    /// The store.
    pub store: web::Data<Store>,
    /// Cached stages.
    pub stages: web::Data<Stages>,
    /// Work that takes seconds.
    pub jobs: web::Data<Jobs>,
    /// Names the server answers to.
    pub hosts: web::Data<AllowedHosts>,
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
            .service(parts::export_parts)
            .service(parts::import_parts)
            .service(parts::try_part)
            .service(parts::keep_part)
            .service(parts::remove_part)
            .service(about::server_state)
            .service(about::glossary)
            .service(curve::compute_curve)
            .service(calibrate::calibrate)
            .service(sensitivity::compute_sensitivity)
            .service(workbench::workbench),
    );
}

/// Everything the application is made of: shared state, limits, API and page.
pub fn configure(shared: Shared) -> impl Fn(&mut web::ServiceConfig) + Clone {
    move |config| {
        let json = web::JsonConfig::default().limit(MAX_BODY).error_handler(|error, _| refuse_body(&error).into());
        config
            .app_data(shared.store.clone())
            .app_data(shared.stages.clone())
            .app_data(shared.jobs.clone())
            .app_data(shared.hosts.clone())
            .app_data(json)
            .app_data(web::QueryConfig::default().error_handler(|error, _| {
                Problem::new(StatusCode::BAD_REQUEST, "unreadable-request", error.to_string()).into()
            }))
            .app_data(web::PathConfig::default().error_handler(|error, _| {
                Problem::new(StatusCode::NOT_FOUND, "no-such-path", error.to_string()).into()
            }))
            .service(
                web::scope("")
                    .wrap(from_fn(only_our_own))
                    .wrap(security_headers())
                    .configure(|scope| api(&mut ServiceConfig::new(scope)))
                    .route("/api/{path:.*}", web::to(no_such_route))
                    .route("/{path:.*}", web::get().to(page)),
            );
    }
}

async fn no_such_route() -> Result<HttpResponse, Problem> {
    Err(Problem::new(StatusCode::NOT_FOUND, "no-such-path", "the API has no such path or method"))
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
