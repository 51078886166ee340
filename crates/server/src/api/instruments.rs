//! Instruments of the bench: set up, forgotten, and what they read now, line by line.

use crate::instruments::{Hub, Instrument, Listening, LiveLine, Trouble};
use crate::jobs::{aside, line_of};
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, put, web};
use tokio_stream::StreamExt;
use tokio_stream::wrappers::WatchStream;
use upper_lobe_store::{KeptInstrument, Store};

/// Most instruments of a shop.
const MOST: usize = 40;

impl From<Trouble> for Problem {
    fn from(trouble: Trouble) -> Self {
        Self::new(StatusCode::UNPROCESSABLE_ENTITY, "refused-instrument", trouble.0)
    }
}

/// Every instrument that was set up.
#[utoipa::path(responses((status = 200, body = [Instrument])), tag = "bench")]
#[get("/instruments")]
pub async fn list_instruments(store: web::Data<Store>) -> Result<web::Json<Vec<Instrument>>, Problem> {
    Ok(web::Json(all(&store).await?))
}

/// Sets an instrument up, in the place of the one of its name.
#[utoipa::path(request_body = Instrument, responses((status = 200, body = [Instrument]), (status = 422, body = Problem)), tag = "bench")]
#[put("/instruments")]
pub async fn put_instrument(
    store: web::Data<Store>,
    body: web::Json<Instrument>,
) -> Result<web::Json<Vec<Instrument>>, Problem> {
    let instrument = body.into_inner().checked()?;
    let known = all(&store).await?;
    if known.len() >= MOST && known.iter().all(|own| own.name != instrument.name) {
        return Err(Trouble(format!("a shop has at most {MOST} instruments here")).into());
    }
    let content = serde_json::to_string(&instrument).unwrap_or_default();
    store.put_instrument(&KeptInstrument { name: instrument.name, content }).await?;
    Ok(web::Json(all(&store).await?))
}

/// Forgets an instrument.
#[utoipa::path(responses((status = 200, body = [Instrument]), (status = 404, body = Problem)), tag = "bench")]
#[delete("/instruments/{name}")]
pub async fn remove_instrument(
    store: web::Data<Store>,
    name: web::Path<String>,
) -> Result<web::Json<Vec<Instrument>>, Problem> {
    if !store.remove_instrument(&name).await? {
        return Err(unknown(&name));
    }
    Ok(web::Json(all(&store).await?))
}

/// What an instrument reads, as it changes and at least every second, as `application/x-ndjson`, for as long as it is listened to.
#[utoipa::path(responses((status = 200, body = LiveLine, content_type = "application/x-ndjson"), (status = 404, body = Problem)), tag = "bench")]
#[get("/instruments/{name}/live")]
pub async fn listen_to_instrument(
    store: web::Data<Store>,
    hub: web::Data<Hub>,
    name: web::Path<String>,
) -> Result<HttpResponse, Problem> {
    let listening = listening(&store, hub, &name).await?;
    let Listening { line, held } = listening;
    let lines = WatchStream::new(line).map(move |line| {
        let _ = &held;
        Ok::<_, actix_web::Error>(line_of(&line))
    });
    Ok(HttpResponse::Ok().content_type("application/x-ndjson").streaming(lines))
}

/// The last pull of a dyno that is listened to, as a file like any other.
#[utoipa::path(responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)), tag = "bench")]
#[get("/instruments/{name}/pull")]
pub async fn last_pull(
    store: web::Data<Store>,
    hub: web::Data<Hub>,
    name: web::Path<String>,
) -> Result<HttpResponse, Problem> {
    let listening = listening(&store, hub, &name).await?;
    let file = listening.line.borrow().file.clone();
    let file = file.ok_or_else(|| {
        Problem::new(StatusCode::NOT_FOUND, "no-pull", format!("“{name}” has run no pull since it is listened to"))
    })?;
    Ok(HttpResponse::Ok().content_type("text/csv; charset=utf-8").body(file.to_string()))
}

/// Listens to the instrument of that name.
async fn listening(store: &Store, hub: web::Data<Hub>, name: &str) -> Result<Listening, Problem> {
    let instrument = all(store).await?.into_iter().find(|own| own.name == name).ok_or_else(|| unknown(name))?;
    let hub = hub.into_inner();
    aside(move || Ok(hub.listen(&instrument))).await
}

/// All that can still be read.
async fn all(store: &Store) -> Result<Vec<Instrument>, Problem> {
    let kept = store.instruments().await?;
    Ok(kept.iter().filter_map(|own| serde_json::from_str(&own.content).ok()).collect())
}

fn unknown(name: &str) -> Problem {
    Problem::new(StatusCode::NOT_FOUND, "no-such-instrument", format!("no instrument is called “{name}”"))
}
