//! The embedded front end. `index.html` gets a fresh nonce for every answer; hashed assets may be
//! kept for ever.

use crate::problem::Problem;
use crate::random;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_SECURITY_POLICY, CONTENT_TYPE};
use actix_web::{HttpResponse, web};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct FrontEnd;

/// Stands in the built `index.html` where the nonce goes.
const NONCE_PLACEHOLDER: &str = "__CSP_NONCE__";

/// Any path that is not the API: an asset, or the page.
pub async fn page(path: web::Path<String>) -> Result<HttpResponse, Problem> {
    let path = path.into_inner();
    if path.starts_with("assets/") || path.contains('.') {
        return asset(&path);
    }
    let Some(index) = FrontEnd::get("index.html") else {
        return Err(Problem::new(
            StatusCode::NOT_FOUND,
            "no-front-end",
            "this server was built without its front end; run ./start",
        ));
    };
    let nonce = random::hex::<16>()?;
    let html = String::from_utf8_lossy(&index.data).replace(NONCE_PLACEHOLDER, &nonce);
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "text/html; charset=utf-8"))
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_SECURITY_POLICY, content_security_policy(&nonce)))
        .body(html))
}

fn asset(path: &str) -> Result<HttpResponse, Problem> {
    let Some(file) = FrontEnd::get(path) else {
        return Err(Problem::new(StatusCode::NOT_FOUND, "no-such-file", path));
    };
    // Names under assets/ carry a hash of their content.
    let keep = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut answer = HttpResponse::Ok();
    answer.insert_header((CONTENT_TYPE, file.metadata.mimetype())).insert_header((CACHE_CONTROL, keep));
    if path.contains(".worker-") {
        answer.insert_header((CONTENT_SECURITY_POLICY, WORKER_POLICY));
    }
    Ok(answer.body(file.data.into_owned()))
}

/// A worker has the policy of its own script, not the page's: this one may ask the server, and nothing else.
const WORKER_POLICY: &str = "default-src 'none'; connect-src 'self'; frame-ancestors 'none'";

fn content_security_policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; \
         font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; \
         frame-ancestors 'none'"
    )
}
