//! At the door to the shop's network: who asks, whether their role may, and what of it goes into the log.

use super::allowed::allowed;
use super::network::Networked;
use super::token::digest_of;
use super::{Door, Role, Shop};
use crate::problem::Problem;
use actix_web::body::{BodySize, BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::{Method, StatusCode, header};
use actix_web::middleware::Next;
use actix_web::web::Bytes;
use actix_web::{Error, HttpMessage, ResponseError, web};
use std::pin::Pin;
use std::sync::Arc;
use std::task::{Context, Poll};
use upper_lobe_store::Store;

/// The device that asks; requests of the main screen have none.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Device {
    /// Its number.
    pub id: i64,
    /// What the shop calls it.
    pub name: String,
    /// What it may.
    pub role: Role,
}

/// What a handler says of its change for the log, beside the route's own words.
#[derive(Debug, Clone)]
pub struct Changed(pub String);

/// Nobody who is not paired sends more than a code and a name.
const UNPAIRED_BYTES: u64 = 1024;

/// Lets paired devices do what their role may; the main screen's own door lets everything through.
pub async fn paired_only(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let Some(door) = request.app_data::<web::Data<Door>>().map(|door| ***door) else {
        return Ok(refuse(request, &no_door()));
    };
    match door {
        Door::Here => next.call(request).await.map(ServiceResponse::map_into_boxed_body),
        Door::Shop => at_the_door(request, next).await,
    }
}

async fn at_the_door(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, Error> {
    let (device, says) = match let_in(&request).await {
        Ok(passed) => passed,
        Err(problem) => return Ok(refuse(request, &problem)),
    };
    let Some(device) = device else {
        return next.call(request).await.map(ServiceResponse::map_into_boxed_body);
    };
    let shared = request.app_data::<web::Data<Shop>>().cloned().zip(request.app_data::<web::Data<Store>>().cloned());
    let Some((shop, store)) = shared else { return Ok(refuse(request, &no_door())) };
    if shop.is_to_be_seen(device.id)
        && !store.is_read_only()
        && let Err(error) = store.see_device(device.id).await
    {
        // When it was last here is worth no refusal.
        tracing::warn!(device = device.id, %error, "a device was here, which could not be written");
    }
    request.extensions_mut().insert(device.clone());
    let response = next.call(request).await?;
    if let Some(says) = says.filter(|_| response.status().is_success()) {
        let own = response.request().extensions().get::<Changed>().map(|own| format!(": {}", own.0));
        let says = format!("{says}{}", own.unwrap_or_default());
        if let Err(error) = store.note_device_change(device.id, &says).await {
            // It is done, and a refusal would have it done again: the server's own log has it.
            tracing::error!(device = device.id, what = says, %error, "a change of a device is not in its log");
        }
    }
    let shop = shop.into_inner();
    Ok(response.map_body(|_, body| Until { body: body.boxed(), shop, device: device.id }.boxed()))
}

/// Who asks, and what goes into the log if it is done; nobody for what needs no pairing.
async fn let_in(request: &ServiceRequest) -> Result<(Option<Device>, Option<String>), Problem> {
    if request.peer_addr().is_some_and(|peer| !peer.ip().is_of_the_shop()) {
        return Err(Problem::new(StatusCode::FORBIDDEN, "foreign-request", "only devices of the shop's own network"));
    }
    // Decoded, as routes are found by it: an escaped letter is no way around.
    let path = request.match_info().as_str().to_owned();
    if path != "/api" && !path.starts_with("/api/") {
        return Ok((None, None));
    }
    let is_change = !matches!(*request.method(), Method::GET | Method::HEAD);
    if is_change && !request.headers().contains_key(header::ORIGIN) {
        return Err(Problem::new(
            StatusCode::FORBIDDEN,
            "foreign-request",
            "a change comes from this server's own page",
        ));
    }
    let found = allowed(request.method().as_str(), &path);
    let device = device(request).await?;
    let Some(device) = device else {
        return match found {
            Some((allowed, _)) if allowed.least.is_none() => small(request).map(|()| (None, None)),
            _ => Err(Problem::new(StatusCode::UNAUTHORIZED, "not-paired", "this device is not paired with this shop")),
        };
    };
    let Some((allowed, named)) = found else {
        return Err(refused_role(&device, "only the main screen may do that"));
    };
    if allowed.least.is_some_and(|least| device.role < least) {
        return Err(refused_role(&device, "it may not do that"));
    }
    let says = allowed.changes.map(|words| words.replace("{id}", named.unwrap_or_default()));
    Ok((Some(device), says))
}

/// The device whose token comes along.
async fn device(request: &ServiceRequest) -> Result<Option<Device>, Problem> {
    let store = request.app_data::<web::Data<Store>>().ok_or_else(no_door)?;
    let Some(digest) = digest_of(request) else { return Ok(None) };
    let kept = store.device_of(&digest).await?;
    Ok(kept.and_then(|kept| Some(Device { id: kept.id, role: Role::from_word(&kept.role)?, name: kept.name })))
}

/// Refuses a body that is longer than anything who is not paired has to say.
fn small(request: &ServiceRequest) -> Result<(), Problem> {
    let (length, coded) = (header::CONTENT_LENGTH, header::TRANSFER_ENCODING);
    let length = request.headers().get(length).map_or(Some(0), |own| own.to_str().ok()?.parse::<u64>().ok());
    // A body without a length may have any.
    let is_small = !request.headers().contains_key(coded) && length.is_some_and(|own| own <= UNPAIRED_BYTES);
    let refused = || Problem::new(StatusCode::PAYLOAD_TOO_LARGE, "too-large", "a code and a name are shorter");
    is_small.then_some(()).ok_or_else(refused)
}

fn refused_role(device: &Device, why: &str) -> Problem {
    let detail = format!("{} is paired for “{}”: {why}", device.name, device.role.word());
    Problem::new(StatusCode::FORBIDDEN, "not-this-role", detail)
}

fn no_door() -> Problem {
    Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "no-door", "the server does not know its own doors")
}

fn refuse(request: ServiceRequest, problem: &Problem) -> ServiceResponse<BoxBody> {
    request.into_response(problem.error_response())
}

/// A body that ends as soon as its device is shut out.
struct Until {
    body: BoxBody,
    shop: Arc<Shop>,
    device: i64,
}

impl MessageBody for Until {
    type Error = <BoxBody as MessageBody>::Error;

    fn size(&self) -> BodySize {
        self.body.size()
    }

    fn poll_next(self: Pin<&mut Self>, cx: &mut Context<'_>) -> Poll<Option<Result<Bytes, Self::Error>>> {
        let own = self.get_mut();
        if own.shop.is_shut_out(own.device) {
            return Poll::Ready(None);
        }
        Pin::new(&mut own.body).poll_next(cx)
    }
}
