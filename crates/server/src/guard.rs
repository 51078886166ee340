//! Who may talk to this server at all, and what every answer carries.
//!
//! Any web page a person has open can send requests to a local port. `Host` must name this server
//! (against rebinding of a foreign name to 127.0.0.1) and `Origin`, when sent, must be this server's
//! own page.

use crate::app::MAX_BODY;
use crate::problem::Problem;
use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::http::StatusCode;
use actix_web::http::header::{self, HeaderMap};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{Error, ResponseError, web};
use std::time::Duration;
use tokio::time::timeout;

/// The addresses this server answers to, such as `http://localhost:8080`.
#[derive(Debug, Clone)]
pub struct AllowedHosts(Vec<String>);

impl AllowedHosts {
    /// The loopback names at `port`, without TLS.
    pub fn loopback(port: u16) -> Self {
        Self(["127.0.0.1", "localhost", "[::1]"].iter().map(|name| format!("http://{name}:{port}")).collect())
    }

    /// These alone.
    pub const fn of(addresses: Vec<String>) -> Self {
        Self(addresses)
    }

    fn allows(&self, headers: &HeaderMap) -> bool {
        let text = |name: header::HeaderName| headers.get(name).map(|v| v.to_str().unwrap_or("unreadable"));
        let is_host = |own: &String, host: &str| own.split_once("://").is_some_and(|(_, own)| own == host);
        let host_known = text(header::HOST).is_some_and(|host| self.0.iter().any(|own| is_host(own, host)));
        let origin_known = text(header::ORIGIN).is_none_or(|origin| self.0.iter().any(|own| own == origin));
        host_known && origin_known
    }
}

/// Refuses requests that are not for, or not from, this server.
pub async fn only_our_own(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let known = request.app_data::<web::Data<AllowedHosts>>().is_some_and(|hosts| hosts.allows(request.headers()));
    if !known {
        let problem = Problem::new(StatusCode::FORBIDDEN, "foreign-request", "Host or Origin is not this server's own");
        return Ok(request.into_response(problem.error_response()));
    }
    next.call(request).await.map(ServiceResponse::map_into_boxed_body)
}

/// A body has this long to come whole: a sender that drips holds nothing up for longer.
const BODY_TIME: Duration = Duration::from_secs(20);

/// Reads the whole body before anything else is done with the request.
pub async fn whole_bodies(
    mut request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let refused = match timeout(BODY_TIME, request.extract::<web::Bytes>()).await {
        Ok(Ok(bytes)) => {
            request.set_payload(Payload::from(bytes));
            return next.call(request).await.map(ServiceResponse::map_into_boxed_body);
        }
        Ok(Err(error)) if error.as_response_error().status_code() == StatusCode::PAYLOAD_TOO_LARGE => {
            Problem::new(StatusCode::PAYLOAD_TOO_LARGE, "too-large", format!("a request may have {MAX_BODY} bytes"))
        }
        Ok(Err(error)) => Problem::new(StatusCode::BAD_REQUEST, "unreadable-request", error.to_string()),
        Err(_) => {
            Problem::new(StatusCode::REQUEST_TIMEOUT, "slow-request", "the request did not come to its end in time")
        }
    };
    Ok(request.into_response(refused.error_response()))
}

/// Headers of every answer; the page adds its own Content-Security-Policy.
pub fn security_headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("X-Frame-Options", "DENY"))
        // Other sites learn nothing; a form of this page names its origin, which is asked for above.
        .add(("Referrer-Policy", "same-origin"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
        .add(("Cross-Origin-Resource-Policy", "same-origin"))
        .add(("Permissions-Policy", "camera=(), microphone=(), geolocation=(), usb=(), serial=()"))
        .add(("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'"))
        .add(("Cache-Control", "no-store"))
}
