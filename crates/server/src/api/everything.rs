//! Everything in one archive, out and in.

use super::parts::{kept_part, shelf};
use crate::archive::{Everything, pack, unpack};
use crate::jobs::aside;
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::http::header::ContentDisposition;
use actix_web::{HttpResponse, get, post, web};
use serde::Serialize;
use upper_lobe_store::{KeptPart, Store};
use utoipa::ToSchema;

/// What an archive added.
#[derive(Debug, Serialize, ToSchema)]
pub struct Added {
    /// Builds, each with its revisions, as new ones.
    pub builds: usize,
    /// Parts that were not on the shelf.
    pub parts_added: usize,
    /// Parts that took the place of one of their name.
    pub parts_changed: usize,
}

/// Every build with all its revisions, and the shelf, as a ZIP archive of JSON and CSV.
#[utoipa::path(responses((status = 200, content_type = "application/zip", body = Vec<u8>)), tag = "builds")]
#[get("/archive")]
pub async fn export_everything(store: web::Data<Store>) -> Result<HttpResponse, Problem> {
    let everything = Everything { builds: store.everything().await?, parts: shelf(&store).await? };
    let bytes = aside(move || pack(&everything).map_err(|error| refused(&error))).await?;
    let name = ContentDisposition::attachment("upper-lobe-archive.zip");
    Ok(HttpResponse::Ok().content_type("application/zip").insert_header(name).body(bytes))
}

/// Adds what an archive holds: builds as new ones, parts in the place of those of their names; all of it or nothing.
#[utoipa::path(request_body(content = Vec<u8>, content_type = "application/zip"), responses((status = 200, body = Added), (status = 422, body = Problem)), tag = "builds")]
#[post("/archive")]
pub async fn import_everything(store: web::Data<Store>, body: web::Bytes) -> Result<web::Json<Added>, Problem> {
    let everything = aside(move || unpack(&body).map_err(|error| refused(&error))).await?;
    let parts: Result<Vec<KeptPart>, _> = everything.parts.iter().map(kept_part).collect();
    let put = store.add_all(&everything.builds, &parts.map_err(|error| refused(&error.into()))?).await?;
    Ok(web::Json(Added { builds: everything.builds.len(), parts_added: put.added, parts_changed: put.changed }))
}

fn refused(error: &anyhow::Error) -> Problem {
    Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "refused-archive", format!("{error:#}: nothing was added"))
}
