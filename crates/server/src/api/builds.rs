//! Builds as stored documents. A save names the revision it began from.

use crate::pairing::check_changes;
use crate::problem::Problem;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::Build;
use upper_lobe_store::{BuildEntry, Store};
use utoipa::{IntoParams, ToSchema};

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

/// A build in the list with what its document says of the engine, as typed.
#[derive(Debug, Serialize, ToSchema)]
pub struct ListedBuild {
    /// The build.
    #[serde(flatten)]
    pub summary: BuildSummary,
    /// What it is for.
    pub used_for: Option<String>,
    /// Arrangement of its cylinders.
    pub layout: Option<String>,
    /// Cylinder bore.
    pub bore: Option<String>,
    /// Stroke.
    pub stroke: Option<String>,
}

impl From<upper_lobe_store::ListedBuild> for ListedBuild {
    fn from(listed: upper_lobe_store::ListedBuild) -> Self {
        let upper_lobe_store::ListedBuild { entry, used_for, layout, bore, stroke } = listed;
        Self { summary: entry.into(), used_for, layout, bore, stroke }
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

/// Which builds to list.
#[derive(Debug, Deserialize, IntoParams)]
pub struct Listed {
    /// The archived ones instead of those in use.
    #[serde(default)]
    pub archived: bool,
}

/// Every build, the one saved last first.
#[utoipa::path(params(Listed), responses((status = 200, body = [ListedBuild])), tag = "builds")]
#[get("/builds")]
pub async fn list_builds(
    store: web::Data<Store>,
    listed: web::Query<Listed>,
) -> Result<web::Json<Vec<ListedBuild>>, Problem> {
    Ok(web::Json(store.list(listed.archived).await?.into_iter().map(ListedBuild::from).collect()))
}

/// One build at its newest revision.
#[utoipa::path(responses((status = 200, body = OpenedBuild), (status = 404, body = Problem)), tag = "builds")]
#[get("/builds/{id}")]
pub async fn open_build(store: web::Data<Store>, id: web::Path<i64>) -> Result<web::Json<OpenedBuild>, Problem> {
    let stored = store.newest(id.into_inner()).await?;
    Ok(web::Json(OpenedBuild { summary: stored.entry.into(), document: stored.document }))
}

/// Every revision of a build, newest first.
#[utoipa::path(responses((status = 200, body = [BuildSummary]), (status = 404, body = Problem)), tag = "builds")]
#[get("/builds/{id}/revisions")]
pub async fn list_revisions(
    store: web::Data<Store>,
    id: web::Path<i64>,
) -> Result<web::Json<Vec<BuildSummary>>, Problem> {
    Ok(web::Json(store.history(id.into_inner()).await?.into_iter().map(BuildSummary::from).collect()))
}

/// One revision of a build.
#[utoipa::path(responses((status = 200, body = OpenedBuild), (status = 404, body = Problem)), tag = "builds")]
#[get("/builds/{id}/revisions/{number}")]
pub async fn open_revision(
    store: web::Data<Store>,
    path: web::Path<(i64, i64)>,
) -> Result<web::Json<OpenedBuild>, Problem> {
    let (id, number) = path.into_inner();
    let stored = store.revision(id, number).await?;
    Ok(web::Json(OpenedBuild { summary: stored.entry.into(), document: stored.document }))
}

/// Puts a build out of the list with all its revisions.
#[utoipa::path(responses((status = 204), (status = 404, body = Problem)), tag = "builds")]
#[post("/builds/{id}/archive")]
pub async fn archive_build(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    store.archive(id.into_inner()).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts an archived build back into the list.
#[utoipa::path(responses((status = 204), (status = 404, body = Problem)), tag = "builds")]
#[post("/builds/{id}/restore")]
pub async fn restore_build(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, Problem> {
    store.restore(id.into_inner()).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The second confirmation of a deletion.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Deletion {
    /// The build's name, typed again.
    pub name: String,
}

/// Deletes an archived build for good.
#[utoipa::path(request_body = Deletion, responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)), tag = "builds")]
#[delete("/builds/{id}")]
pub async fn delete_build(
    store: web::Data<Store>,
    id: web::Path<i64>,
    body: web::Json<Deletion>,
) -> Result<HttpResponse, Problem> {
    store.delete(id.into_inner(), &body.name).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What an empty build is called.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BlankBuild {
    /// Its name.
    pub name: String,
}

/// A new build with nothing in it but its name and an empty candidate.
#[utoipa::path(request_body = BlankBuild, responses((status = 201, body = BuildSummary), (status = 422, body = Problem)), tag = "builds")]
#[post("/builds/blank")]
pub async fn create_blank(store: web::Data<Store>, body: web::Json<BlankBuild>) -> Result<HttpResponse, Problem> {
    let build = Build::blank(&body.name)?;
    let made = store.create(build.name(), &build.text()).await?;
    Ok(HttpResponse::Created().json(BuildSummary::from(made)))
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
#[utoipa::path(request_body = SaveBuild, responses((status = 200, body = BuildSummary), (status = 403, body = Problem), (status = 404, body = Problem), (status = 409, body = Problem), (status = 422, body = Problem)), tag = "builds")]
#[put("/builds/{id}")]
pub async fn save_build(
    request: HttpRequest,
    store: web::Data<Store>,
    id: web::Path<i64>,
    body: web::Json<SaveBuild>,
) -> Result<web::Json<BuildSummary>, Problem> {
    let build = Build::read(&body.document)?;
    check_changes(&request, &store, (*id, body.base_revision), &build).await?;
    let saved = store.save(*id, body.base_revision, build.name(), &body.document).await?;
    Ok(web::Json(saved.into()))
}
