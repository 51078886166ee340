//! Builds as stored documents. A save names the revision it began from.

use crate::problem::Problem;
use actix_web::{HttpResponse, get, post, put, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::document::Build;
use upper_lobe_store::{BuildEntry, Store};
use utoipa::ToSchema;

/// A build in the list.
#[derive(Debug, Serialize, ToSchema)]
pub struct BuildSummary {
    /// Number of the build.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// Newest revision.
    pub revision: i64,
    /// When that was saved, UTC.
    pub saved_at: String,
}

impl From<BuildEntry> for BuildSummary {
    fn from(entry: BuildEntry) -> Self {
        Self { id: entry.id, name: entry.name, revision: entry.revision, saved_at: entry.saved_at }
    }
}

/// A build with its document.
#[derive(Debug, Serialize, ToSchema)]
pub struct OpenedBuild {
    /// What the list says of it.
    pub summary: BuildSummary,
    /// The document's text as saved.
    pub document: String,
}

/// A document to keep.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewBuild {
    /// The document's text.
    pub document: String,
}

/// A changed document.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveBuild {
    /// The revision the change began from.
    pub base_revision: i64,
    /// The document's text.
    pub document: String,
}

/// Every build, the one saved last first.
#[utoipa::path(responses((status = 200, body = [BuildSummary])), tag = "builds")]
#[get("/builds")]
pub async fn list_builds(store: web::Data<Store>) -> Result<web::Json<Vec<BuildSummary>>, Problem> {
    Ok(web::Json(store.list().await?.into_iter().map(BuildSummary::from).collect()))
}

/// One build at its newest revision.
#[utoipa::path(responses((status = 200, body = OpenedBuild), (status = 404, body = Problem)), tag = "builds")]
#[get("/builds/{id}")]
pub async fn open_build(store: web::Data<Store>, id: web::Path<i64>) -> Result<web::Json<OpenedBuild>, Problem> {
    let stored = store.newest(id.into_inner()).await?;
    Ok(web::Json(OpenedBuild { summary: stored.entry.into(), document: stored.document }))
}

/// Keeps a document as a new build.
#[utoipa::path(request_body = NewBuild, responses((status = 201, body = BuildSummary), (status = 422, body = Problem)), tag = "builds")]
#[post("/builds")]
pub async fn create_build(store: web::Data<Store>, body: web::Json<NewBuild>) -> Result<HttpResponse, Problem> {
    let build = Build::read(&body.document)?;
    let made = store.create(build.name(), &body.document).await?;
    Ok(HttpResponse::Created().json(BuildSummary::from(made)))
}

/// Saves the next revision of a build.
#[utoipa::path(request_body = SaveBuild, responses((status = 200, body = BuildSummary), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)), tag = "builds")]
#[put("/builds/{id}")]
pub async fn save_build(
    store: web::Data<Store>,
    id: web::Path<i64>,
    body: web::Json<SaveBuild>,
) -> Result<web::Json<BuildSummary>, Problem> {
    let build = Build::read(&body.document)?;
    let saved = store.save(id.into_inner(), body.base_revision, build.name(), &body.document).await?;
    Ok(web::Json(saved.into()))
}
