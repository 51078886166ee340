//! Devices of the shop's network: a code on the main screen, a device that types it, and who was let in.

use crate::pairing::{Device, Door, GOOD, Refused, Role, Shop, Token};
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, web};
use qrcode::QrCode;
use qrcode::render::svg;
use serde::{Deserialize, Serialize};
use upper_lobe_store::{DeviceChange, KeptDevice, Store};
use utoipa::ToSchema;

/// Longest name of a device, in letters.
const LONGEST_NAME: usize = 40;

/// Who asks.
#[derive(Debug, Serialize, ToSchema)]
pub struct Me {
    /// Whether this is the machine the server runs on, or a device of the shop's network.
    pub here: bool,
    /// Whether the server is open to the shop's network.
    pub lan: bool,
    /// What this device may; absent where it is not paired.
    pub role: Option<Role>,
    /// What the shop calls it.
    pub name: Option<String>,
}

/// Who asks, and what they may.
#[utoipa::path(responses((status = 200, body = Me)), tag = "pairing")]
#[get("/me")]
pub async fn who_asks(
    door: web::Data<Door>,
    shop: web::Data<Shop>,
    device: Option<web::ReqData<Device>>,
) -> web::Json<Me> {
    let here = **door == Door::Here;
    let lan = !shop.addresses.is_empty();
    let device = device.map(web::ReqData::into_inner);
    let role = if here { Some(Role::Everything) } else { device.as_ref().map(|own| own.role) };
    web::Json(Me { here, lan, role, name: device.map(|own| own.name) })
}

/// How the door to the shop's network stands.
#[derive(Debug, Serialize, ToSchema)]
pub struct PairingState {
    /// Where devices reach this server; empty where it serves this machine only.
    pub addresses: Vec<String>,
    /// SHA-256 of its certificate, as a browser shows it.
    pub fingerprint: String,
    /// Seconds for which the code on the screen is still good; absent where none is.
    pub code_left_s: Option<u64>,
}

/// How the door to the shop's network stands.
#[utoipa::path(responses((status = 200, body = PairingState)), tag = "pairing")]
#[get("/pairing")]
pub async fn pairing_state(shop: web::Data<Shop>) -> web::Json<PairingState> {
    web::Json(PairingState {
        addresses: shop.addresses.clone(),
        fingerprint: shop.fingerprint.clone(),
        code_left_s: shop.code_left(),
    })
}

/// Whom a code is for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShowCode {
    /// What the device may.
    pub role: Role,
}

/// A code on the main screen.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShownCode {
    /// To be typed.
    pub code: String,
    /// The same as a link, one for each address.
    pub links: Vec<CodeLink>,
    /// Seconds for which it is good.
    pub good_for_s: u64,
}

/// A link with a code in it.
#[derive(Debug, Serialize, ToSchema)]
pub struct CodeLink {
    /// Where the device goes; what follows the `#` never leaves it.
    pub link: String,
    /// The link as a QR code, an SVG picture.
    pub qr_svg: String,
}

/// Shows a code that pairs one device; the one before is good no more.
#[utoipa::path(request_body = ShowCode, responses((status = 200, body = ShownCode), (status = 409, body = Problem)), tag = "pairing")]
#[post("/pairing")]
pub async fn show_code(shop: web::Data<Shop>, body: web::Json<ShowCode>) -> Result<web::Json<ShownCode>, Problem> {
    if shop.addresses.is_empty() {
        let detail = "this server serves this machine only: start it with --lan to let devices in";
        return Err(Problem::new(StatusCode::CONFLICT, "no-network", detail));
    }
    let code = shop.show_code(body.role)?.shown();
    let link = |address: &String| {
        let link = format!("{address}/#/pair/{code}");
        let qr = QrCode::new(link.as_bytes())
            .map_err(|error| Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "no-picture", error.to_string()))?;
        Ok(CodeLink { qr_svg: qr.render::<svg::Color<'_>>().min_dimensions(220, 220).build(), link })
    };
    let links = shop.addresses.iter().map(link).collect::<Result<_, Problem>>()?;
    Ok(web::Json(ShownCode { code, links, good_for_s: GOOD.as_secs() }))
}

/// No code is good any more.
#[utoipa::path(responses((status = 204)), tag = "pairing")]
#[delete("/pairing")]
pub async fn hide_code(shop: web::Data<Shop>) -> HttpResponse {
    shop.hide_code();
    HttpResponse::NoContent().finish()
}

/// A code as it was typed into a device.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PairDevice {
    /// The code.
    pub code: String,
    /// What the shop calls the device.
    pub name: String,
}

/// Pairs the device that asks, which is given its token as a cookie.
#[utoipa::path(request_body = PairDevice, responses((status = 200, body = Me), (status = 403, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem)), tag = "pairing")]
#[post("/pair")]
pub async fn pair_device(
    request: HttpRequest,
    door: web::Data<Door>,
    shop: web::Data<Shop>,
    store: web::Data<Store>,
    body: web::Json<PairDevice>,
) -> Result<HttpResponse, Problem> {
    if **door == Door::Here {
        return Err(Problem::new(StatusCode::CONFLICT, "not-needed", "this machine needs no pairing"));
    }
    let name = body.name.trim();
    if name.is_empty() || name.chars().count() > LONGEST_NAME || name.chars().any(char::is_control) {
        let detail = format!("a device has a name of up to {LONGEST_NAME} letters");
        return Err(Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "refused-name", detail));
    }
    let role = shop.attempt(&body.code).map_err(|refused| {
        // Who tries is told to the log, what was tried to nobody.
        tracing::warn!(?refused, peer = ?request.peer_addr(), "a pairing was refused");
        refusal(refused)
    })?;
    let token = Token::new()?;
    let id = store.add_device(name, role.word(), &token.digest()).await?;
    tracing::info!(device = id, role = role.word(), "paired");
    let me = Me { here: false, lan: true, role: Some(role), name: Some(name.to_owned()) };
    Ok(HttpResponse::Ok().cookie(token.cookie()).json(me))
}

/// A device that was paired.
#[derive(Debug, Serialize, ToSchema)]
pub struct ListedDevice {
    /// Its number.
    pub id: i64,
    /// What the shop calls it.
    pub name: String,
    /// What it may.
    pub role: Option<Role>,
    /// When it was paired, UTC.
    pub paired_at: String,
    /// When it last asked for anything, UTC, to a minute.
    pub seen_at: Option<String>,
    /// When it was shut out, UTC.
    pub shut_out_at: Option<String>,
}

/// What a device changed.
#[derive(Debug, Serialize, ToSchema)]
pub struct ListedChange {
    /// The device.
    pub device: i64,
    /// When, UTC.
    pub at: String,
    /// In words.
    pub what: String,
}

/// Devices and what they changed.
#[derive(Debug, Serialize, ToSchema)]
pub struct Devices {
    /// The newest first.
    pub devices: Vec<ListedDevice>,
    /// The newest first, some hundreds.
    pub changes: Vec<ListedChange>,
}

impl From<KeptDevice> for ListedDevice {
    fn from(kept: KeptDevice) -> Self {
        let KeptDevice { id, name, role, paired_at, seen_at, revoked_at } = kept;
        Self { id, name, role: Role::from_word(&role), paired_at, seen_at, shut_out_at: revoked_at }
    }
}

impl From<DeviceChange> for ListedChange {
    fn from(change: DeviceChange) -> Self {
        Self { device: change.device, at: change.at, what: change.what }
    }
}

/// Every device that was paired, and what devices changed.
#[utoipa::path(responses((status = 200, body = Devices)), tag = "pairing")]
#[get("/devices")]
pub async fn list_devices(store: web::Data<Store>) -> Result<web::Json<Devices>, Problem> {
    all(&store).await.map(web::Json)
}

/// Shuts a device out: its token is good no more, and what it has under way ends.
#[utoipa::path(responses((status = 200, body = Devices), (status = 404, body = Problem)), tag = "pairing")]
#[delete("/devices/{id}")]
pub async fn shut_out_device(
    store: web::Data<Store>,
    shop: web::Data<Shop>,
    id: web::Path<i64>,
) -> Result<web::Json<Devices>, Problem> {
    if !store.revoke_device(*id).await? {
        let detail = format!("no device {id} is let in");
        return Err(Problem::new(StatusCode::NOT_FOUND, "no-such-device", detail));
    }
    shop.shut_out(*id);
    all(&store).await.map(web::Json)
}

async fn all(store: &Store) -> Result<Devices, Problem> {
    let devices = store.devices().await?.into_iter().map(ListedDevice::from).collect();
    Ok(Devices { devices, changes: store.device_changes().await?.into_iter().map(ListedChange::from).collect() })
}

fn refusal(refused: Refused) -> Problem {
    match refused {
        Refused::Wrong => {
            let detail = "that is not the code on the main screen, or its time is over: have it show a new one";
            Problem::new(StatusCode::FORBIDDEN, "wrong-code", detail)
        }
        Refused::Wait => {
            let detail = "too many wrong codes: nobody is paired for ten minutes";
            Problem::new(StatusCode::TOO_MANY_REQUESTS, "wait", detail)
        }
    }
}
