//! On the dyno: the pulls of a document compared, the test it plans, files of dynos and how each was mapped.

use crate::jobs::aside;
use crate::problem::Problem;
use actix_web::http::StatusCode;
use actix_web::{post, put, web};
use serde::{Deserialize, Serialize};
use upper_lobe_core::analysis::{Build, DynoReport, Mapped, PullFileReport, dyno_of, pull_file};
use upper_lobe_store::Store;
use utoipa::ToSchema;

/// Most columns of a file that are remembered.
const MOST_COLUMNS: usize = 400;

/// Whose pulls, and in which air.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DynoRequest {
    /// The document's text.
    pub document: String,
    /// `as_planned`, `sae_j1349`, `sae_j607` or `iso_1585`; the plan's own air when absent.
    #[serde(default)]
    pub air: Option<String>,
}

/// Everything that the pulls of a document come to, and the test it plans.
#[utoipa::path(request_body = DynoRequest, responses((status = 200, body = DynoReport), (status = 422, body = Problem)), tag = "workbench")]
#[post("/dyno")]
pub async fn compare_pulls(body: web::Json<DynoRequest>) -> Result<web::Json<DynoReport>, Problem> {
    aside(move || Ok(dyno_of(&Build::read(&body.document)?, body.air.as_deref())?)).await.map(web::Json)
}

/// A file of a dyno.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PullFileRequest {
    /// Its text.
    pub text: String,
    /// What its columns hold; as files of that heading were mapped before, or as the heading says, when absent.
    #[serde(default)]
    pub mapped: Option<Vec<Mapped>>,
}

/// A file of a dyno as it would be taken over.
#[derive(Debug, Serialize, ToSchema)]
pub struct PullFileAnswer {
    /// What is in it.
    file: PullFileReport,
    /// Whether its columns are as a file of that heading was mapped before.
    remembered: bool,
}

/// Reads a file of a dyno; nothing is kept.
#[utoipa::path(request_body = PullFileRequest, responses((status = 200, body = PullFileAnswer), (status = 422, body = Problem)), tag = "workbench")]
#[post("/pull-file")]
pub async fn read_pull_file(
    store: web::Data<Store>,
    body: web::Json<PullFileRequest>,
) -> Result<web::Json<PullFileAnswer>, Problem> {
    let PullFileRequest { text, mapped } = body.into_inner();
    let is_given = mapped.is_some();
    let read = {
        let text = text.clone();
        aside(move || Ok(pull_file(&text, mapped.as_deref())?)).await?
    };
    let kept = if is_given { None } else { store.pull_mapping(&read.signature).await? };
    let Some(kept) = kept.and_then(|own| serde_json::from_str::<Vec<Mapped>>(&own).ok()) else {
        return Ok(web::Json(PullFileAnswer { file: read, remembered: false }));
    };
    let file = aside(move || Ok(pull_file(&text, Some(&kept))?)).await?;
    Ok(web::Json(PullFileAnswer { file, remembered: true }))
}

/// How the columns of files with one heading are mapped.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PullMapping {
    /// What the heading is remembered by.
    pub signature: String,
    /// What its columns hold.
    pub mapped: Vec<Mapped>,
}

/// Remembers how a heading is mapped.
#[utoipa::path(request_body = PullMapping, responses((status = 204), (status = 422, body = Problem)), tag = "workbench")]
#[put("/pull-mappings")]
pub async fn remember_pull_mapping(
    store: web::Data<Store>,
    body: web::Json<PullMapping>,
) -> Result<actix_web::HttpResponse, Problem> {
    let PullMapping { signature, mapped } = body.into_inner();
    if mapped.len() > MOST_COLUMNS || signature.len() > 16 * 1024 {
        let why = format!("a heading has at most {MOST_COLUMNS} columns");
        return Err(Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "too-wide", why));
    }
    store.put_pull_mapping(&signature, &serde_json::to_string(&mapped).unwrap_or_default()).await?;
    Ok(actix_web::HttpResponse::NoContent().finish())
}
